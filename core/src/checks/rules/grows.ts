import type { ResolvedJoint } from '../../bolt';
import type { FoldedPanel } from '../../fold';
import { distance2, underGround, type Vec2 } from '../../geometry';
import { type Call, callOf, changeJoints } from '../../plan';
import { MATERIALS } from '../../sheet';
import { plateName, type Rule, type Unsigned } from '../finding';

/** From a cold night to a hot day under a vehicle, K: common practice, no source. */
const WARMS = 40;
const FRAME = MATERIALS['steel-hr36'].expansion;

/** How far a bolt can move in its holes to either side along the way that its plate grows, mm. */
function play(j: ResolvedJoint, panel: string): number {
  const slot = j.joint.slots?.[panel];
  const inPlate = (slot?.length ?? j.thread.clearances[j.joint.fit ?? 'normal']) - j.thread.d;
  const { hole } = j.mount ?? {};
  const open = hole?.kind === 'through' || hole?.kind === 'slot' ? (hole.diameter ?? 0) - j.thread.d : 0;
  return (inPlate + Math.max(0, open)) / 2;
}

const at2 = (j: ResolvedJoint): Vec2 => [j.at[0], j.at[1]];

/** The bolt that a plate grows away from: the one nearest to the middle of them all. */
function anchorOf(joints: readonly ResolvedJoint[]): ResolvedJoint | undefined {
  const mean = (k: 0 | 1): number => joints.reduce((s, j) => s + j.at[k], 0) / joints.length;
  const middle: Vec2 = [mean(0), mean(1)];
  return [...joints].sort((a, b) => distance2(at2(a), middle) - distance2(at2(b), middle))[0];
}

/** Lets a plate grow away from its anchor: slots toward it, as long as it grows, and washers over them. */
const slotted = (
  p: FoldedPanel,
  anchor: ResolvedJoint,
  tight: readonly { j: ResolvedJoint; grows: number }[],
): Call | undefined => {
  const frame = p.facets[0]?.frame;
  if (!frame) return undefined;
  return callOf(changeJoints, {
    joints: tight.map(({ j, grows }) => {
      const [a, b] = [underGround(frame, ...at2(anchor)), underGround(frame, ...at2(j))];
      const hole = j.thread.clearances[j.joint.fit ?? 'normal'];
      const slot = {
        // to whole half millimeters, upward
        length: Math.ceil(2 * (hole + 2 * grows)) / 2,
        along: Math.round((Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI),
      };
      const { washers, slots } = j.joint;
      return {
        joint: j.id,
        part: {
          slots: { ...slots, [p.panel.id]: slot },
          washers:
            washers[0] === 'fender' ? washers : (['fender', ...washers.filter(w => w !== 'flat')] as const),
        },
      };
    }),
  });
};

export const grows: Rule = {
  id: 'grows',
  why: 'Plastic expands ten times as much as steel: bolted tight at both ends it bulges or shears its nuts.',
  find: (facts, words) =>
    facts.plates.flatMap((p): readonly Unsigned[] => {
      const joints = facts.joints.filter(j => j.joint.panels.includes(p.panel.id));
      const anchor = anchorOf(joints);
      if (!anchor || joints.length < 2) return [];
      const more = Math.abs(p.material.expansion - FRAME) * WARMS;
      const tight = joints
        .filter(j => j !== anchor)
        .map(j => ({ j, grows: more * distance2(at2(j), at2(anchor)) }))
        .filter(x => x.grows > play(x.j, p.panel.id) + play(anchor, p.panel.id))
        .sort((a, b) => b.grows - a.grows);
      const [worst] = tight;
      if (!worst) return [];
      const room = play(worst.j, p.panel.id) + play(anchor, p.panel.id);
      return [
        {
          severity: 'fix',
          where: 'bolt',
          about: [p.panel.id, ...tight.map(x => x.j.id)],
          text: `${plateName(facts, p.panel.id)} (${p.material.short}) expands ${words.fine(worst.grows)} more than the frame from ${anchor.id} to ${worst.j.id} from a cold night to a hot day; its holes allow ${words.fine(room)}.`,
          remedy: `Use slots toward ${anchor.id} with wide washers, and sleeves slightly longer than the sheet is thick, so it can slide.`,
          mend: slotted(p, anchor, tight),
        },
      ];
    }),
};
