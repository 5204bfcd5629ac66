import { plateRing } from '../../sequence';
import type { Rule } from '../finding';

export const waitingSteps: Rule = {
  id: 'waiting-steps',
  why: 'Steps that wait for each other cannot be done in any order.',
  find: facts => {
    if (!plateRing(facts.document, facts.panels)) return [];
    const { cycle } = facts.sequence;
    if (cycle.length === 0) return [];
    return [
      {
        severity: 'stop',
        where: 'run',
        about: cycle,
        text: `These steps wait for each other: ${cycle.join(' \u2192 ')} \u2192 ${cycle[0]}.`,
        remedy: 'Make every seam and shared bolt agree on which plate lies outside.',
      },
    ];
  },
};
