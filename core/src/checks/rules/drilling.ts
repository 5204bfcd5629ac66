import { drillStop } from '../../bolt';
import { callOf, changeJoints } from '../../plan';
import { memberName } from '../../rig';
import { partName, type Rule, type Unsigned } from '../finding';

const DANGEROUS = new Set(['fuel-tank', 'lines', 'battery']);

export const drilling: Rule = {
  id: 'drilling',
  why: 'A drill that breaks through keeps going into what is behind.',
  find: (facts, words) =>
    facts.joints.flatMap((j): readonly Unsigned[] => {
      if (j.member?.kind === 'axle-tube' && j.drill.length > 0)
        return [
          {
            severity: 'stop',
            where: 'bolt',
            about: [j.id],
            text: `bolt ${j.id} is drilled into the ${memberName(facts.rig, j.member.id)}: it would lose oil and strength.`,
            remedy: 'Use a strap over it.',
            mend: callOf(changeJoints, { joints: [{ joint: j.id, part: { nut: 'axle-strap' as const } }] }),
          },
        ];
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
