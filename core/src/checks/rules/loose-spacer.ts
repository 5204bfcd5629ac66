import { holdFaults, LONGEST_SPACER, type ResolvedJoint, resolveJoint, stackFaults } from '../../bolt';
import type { Facts } from '../../derive';
import { callOf, changeJoints, stackedIn } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';

/** A spacer this tall falls over while its plate goes up, mm: common practice, no source. */
const TOPPLES = 20;

/** Whether a threaded post can take the place of a bolt's spacer: its stud and its bolt both find thread enough. */
function takesPost({ rig, panels }: Facts, j: ResolvedJoint): boolean {
  const made = resolveJoint(
    { ...j.joint, nut: 'post' },
    rig,
    new Map(panels.map(p => [p.panel.id, p] as const)),
  );
  if (!made) return false;
  const before = new Set([...holdFaults(j, undefined, []), ...stackFaults(j)].map(f => f.kind));
  return [...holdFaults(made, undefined, []), ...stackFaults(made)].every(f => before.has(f.kind));
}

export const looseSpacer: Rule = {
  id: 'loose-spacer',
  why: 'A tall loose spacer has to be held over its hole while the plate goes up.',
  find: (facts, words) =>
    facts.panels.flatMap(({ panel }): readonly Unsigned[] => {
      const tall = facts.joints.filter(
        j =>
          stackedIn(j.joint).at(-1) === panel.id &&
          j.joint.spacer >= TOPPLES &&
          // past the longest no post stands either: that is told by itself
          j.joint.spacer <= LONGEST_SPACER + 0.5 &&
          j.joint.nut === 'none' &&
          j.joint.lock !== true &&
          takesPost(facts, j),
      );
      if (tall.length === 0) return [];
      const high = Math.max(...tall.map(j => j.joint.spacer));
      return [
        {
          severity: 'note',
          where: 'bolt',
          about: [panel.id, ...tall.map(j => j.id)],
          text: `${plateName(facts, panel.id)} goes up with loose spacers of ${words.fine(high)} at ${tall.length === 1 ? `bolt ${tall[0]?.id}` : `${tall.length} bolts`}.`,
          remedy: 'Use threaded posts there: they stand in their holes before the plate goes up.',
          mend: callOf(changeJoints, {
            joints: tall.map(j => ({ joint: j.id, part: { nut: 'post' as const } })),
          }),
        },
      ];
    }),
};
