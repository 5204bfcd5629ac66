import { LIFT_LIMIT_KG } from '../../sequence';
import type { Rule } from '../finding';

export const tooHeavy: Rule = {
  id: 'too-heavy',
  why: 'One person on the floor cannot hold it and start a bolt (NIOSH load constant 23 kg unless you set your own).',
  find: (facts, words) => {
    const { method, limits } = facts.document.plan;
    const most = (limits.maxLiftKg ?? LIFT_LIMIT_KG) * method.people;
    return facts.panels
      .filter(p => p.massKg > most)
      .map(p => ({
        severity: 'fix',
        where: 'weigh',
        about: [p.panel.id],
        text: `Plate ${p.panel.mark} weighs ${words.mass(p.massKg)}; ${method.people === 1 ? 'one person lifts' : 'two people lift'} ${words.mass(most)} at most.`,
        remedy: 'Use a jack with a wooden block, a helper, or a lighter sheet.',
      }));
  },
};
