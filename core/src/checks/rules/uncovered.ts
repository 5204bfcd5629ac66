import { formatPercent } from '../../units';
import { partName, type Rule } from '../finding';

export const uncovered: Rule = {
  id: 'uncovered',
  why: 'A holed pan or tank ends the trip; a dented door does not.',
  find: facts =>
    facts.coverage.components
      .filter(c => c.fraction < 0.95)
      .map(c => ({
        severity:
          c.fraction < 0.05 ? ('stop' as const) : c.fraction < 0.85 ? ('fix' as const) : ('note' as const),
        where: 'cover',
        about: [c.id],
        text: `${partName(facts, c.id)}: ${formatPercent(1 - c.fraction)} of it is bare from below.`,
        remedy: 'Widen a plate under it or add one.',
      })),
};
