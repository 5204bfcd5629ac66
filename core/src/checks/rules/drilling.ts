import { drillStop } from '../../bolt';
import { partName, type Rule } from '../finding';

const DANGEROUS = new Set(['fuel-tank', 'lines', 'battery']);

export const drilling: Rule = {
  id: 'drilling',
  why: 'A drill that breaks through keeps going into what is behind.',
  find: (facts, words) =>
    facts.joints.flatMap(j => {
      const behind = j.mount?.behind;
      if (!behind || j.drill.length === 0) return [];
      const part = facts.rig.components.find(c => c.id === behind.component);
      const danger = part !== undefined && DANGEROUS.has(part.kind);
      return [
        {
          severity: danger ? ('stop' as const) : ('fix' as const),
          where: 'bolt' as const,
          about: [j.id, behind.component],
          text: `bolt ${j.id} is drilled toward ${partName(facts, behind.component)}, ${words.length(behind.depth)} behind the hole.`,
          remedy: danger
            ? 'Use another hole, or have a shop lower the tank first.'
            : `Set a drill stop at ${words.length(drillStop(behind.depth, j.member?.wall ?? 3))}.`,
        },
      ];
    }),
};
