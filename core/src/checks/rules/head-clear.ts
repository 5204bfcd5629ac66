import { boltToHoles, headStands, type ResolvedJoint } from '../../bolt';
import { undersideAt } from '../../cover';
import type { Facts } from '../../derive';
import { barFace, callOf, changeJoints } from '../../plan';
import { plateName, plateWord, type Remedy, type Rule, type Unsigned } from '../finding';

/** Less than this a head stands proud of what it lies in, mm: paint. */
const FLUSH = 0.3;

/** How far below its hole a joint's stack ends, and how far its head reaches on from there, mm. */
function headReach(
  facts: Facts,
  j: ResolvedJoint,
): { readonly from: number; readonly to: number } | undefined {
  if (j.joint.headSide !== 'below') return undefined;
  const seat = facts.seats.get(j.id);
  const bar = j.mount && facts.rig.bars.find(b => b.mounts.includes(j.mount?.id ?? ''));
  const outer = seat?.plates[0]?.far ?? (bar ? j.at[2] - barFace(bar, j.at, -1) : undefined);
  if (outer === undefined) return undefined;
  const sunk = j.joint.fastener.head === 'countersunk';
  return { from: outer, to: outer + (sunk ? 0 : headStands(j)) };
}

export const headClear: Rule = {
  id: 'head-clear',
  why: 'A plate that sits on another bolt’s head does not seat.',
  find: facts =>
    facts.joints.flatMap(j => {
      const head = headReach(facts, j);
      if (!head || head.to - head.from < FLUSH) return [];
      return facts.panels.flatMap((p): readonly Unsigned[] => {
        if (j.joint.panels.includes(p.panel.id)) return [];
        const under = undersideAt(p, j.at[0], j.at[1]);
        if (under === undefined) return [];
        const near = j.at[2] - under - p.sheet.thickness;
        if (near < head.from - 1 || near > head.to - FLUSH) return [];
        const own = j.joint.panels[0];
        const what = own === undefined ? 'the crossbar' : plateWord(facts, own);
        const through: readonly Remedy[] = j.mount
          ? [
              {
                remedy: `Bolt ${plateWord(facts, p.panel.id)} to it too.`,
                mend: callOf(boltToHoles, { panel: p.panel.id, holes: [j.mount.id] }),
              },
            ]
          : [];
        const sunk: Remedy = {
          remedy: 'Use a countersunk head.',
          mend: callOf(changeJoints, {
            joints: [{ joint: j.id, part: { washers: [] }, fastener: { head: 'countersunk' } }],
          }),
        };
        const [first, ...more] = own === undefined ? [sunk, ...through] : [...through, sunk];
        return [
          {
            severity: 'stop',
            where: 'bolt',
            about: [j.id, p.panel.id],
            text: `The head of bolt ${j.id} is between ${what} and ${plateName(facts, p.panel.id).replace('Plate', 'plate')}.`,
            remedy: first?.remedy ?? 'Move the bolt.',
            ...(first ? { mend: first.mend } : {}),
            more,
          },
        ];
      });
    }),
};
