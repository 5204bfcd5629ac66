import { partName, plateName, type Rule } from '../finding';
import { lowering } from './too-near';

export const movingPart: Rule = {
  id: 'moving-part',
  why: 'A shaft or bar that hits a plate at full travel breaks something.',
  find: (facts, words) =>
    facts.gaps.flatMap(g => {
      const part = facts.rig.components.find(c => c.id === g.component);
      if (!part?.moves || g.gapMm >= part.keepOut - 0.05) return [];
      return [
        {
          severity: 'stop',
          where: 'cover',
          about: [g.panel, g.component],
          text: `${plateName(facts, g.panel)} comes within ${words.length(Math.max(g.gapMm, 0))} of the space ${partName(facts, g.component)} sweeps at full travel.`,
          ...lowering(facts, g.panel, Math.ceil(part.keepOut - g.gapMm), words),
        },
      ];
    }),
};
