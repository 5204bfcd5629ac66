import { type HoldFault, holdFaults, type ResolvedJoint } from '../../bolt';
import type { Facts } from '../../derive';
import { boxOf, contains, type Vec2 } from '../../geometry';
import { callOf, leavePlateOff, moveHole, removeJoint } from '../../plan';
import { memberName } from '../../rig';
import { plateName, plateWord, type Remedy, type Rule, type Unsigned } from '../finding';

const SAID: Partial<Record<HoldFault['kind'], (plate: string) => string>> = {
  beside: plate => `misses ${plate}`,
  opening: plate => `goes through an opening of ${plate}`,
  bend: plate => `goes through a bend of ${plate}`,
  edge: plate => `breaks out of the edge of ${plate}`,
};

/** A hole drilled for this plan put back on the face of its member, straight up or down, or in the member that lies over it now. */
function holeMoved(facts: Facts, j: ResolvedJoint): Remedy | undefined {
  const { mount } = j;
  if (!mount || !facts.document.plan.holes?.some(h => h.id === mount.id)) return undefined;
  const at: Vec2 = [mount.at[0], mount.at[1]];
  const over = facts.rig.members
    .filter(m => contains(m.footprint, at))
    .sort((a, b) => (a.id === mount.member ? -1 : 0) - (b.id === mount.member ? -1 : 0))[0];
  if (!over) return undefined;
  return {
    remedy: `Drill it in the ${memberName(facts.rig, over.id)}, which is above it.`,
    mend: callOf(moveHole, { hole: mount.id, member: over.id, at: [at[0], at[1], over.zBottom] }),
  };
}

function looseHole(facts: Facts, j: ResolvedJoint, kind: 'no-member' | 'mid-air'): Unsigned {
  const { mount } = j;
  const name = mount ? memberName(facts.rig, mount.member) : 'its member';
  const member = facts.rig.members.find(m => m.id === mount?.member);
  const box = member && boxOf(member.footprint);
  const beside = mount && box && !contains(member.footprint, [mount.at[0], mount.at[1]]);
  const moved = holeMoved(facts, j);
  const out: Remedy = {
    remedy: `Take bolt ${j.id} out.`,
    mend: callOf(removeJoint, { joint: j.id }),
  };
  return {
    severity: 'stop',
    where: 'bolt',
    about: [j.id, ...(mount ? [mount.id] : [])],
    text:
      kind === 'no-member'
        ? `Bolt ${j.id} goes to a hole in ${name}.`
        : `Bolt ${j.id} has nothing to bolt to: its hole is ${beside ? 'beside' : 'not in the face of'} the ${name}.`,
    remedy: moved?.remedy ?? 'Measure the hole again on Rig, or move the bolt to another hole.',
    mend: (moved ?? out).mend,
    ...(moved
      ? { more: [out] }
      : { more: [], remedy: `${out.remedy.slice(0, -1)}, or measure its hole again on Rig.` }),
  };
}

export const boltPlace: Rule = {
  id: 'bolt-place',
  why: 'A bolt needs sound sheet under its head and sound metal to thread into.',
  find: facts =>
    facts.joints.flatMap(j =>
      holdFaults(j, facts.seats.get(j.id), facts.panels).flatMap((f): readonly Unsigned[] => {
        if (f.kind === 'no-member' || f.kind === 'mid-air') return [looseHole(facts, j, f.kind)];
        const said = SAID[f.kind];
        if (!said || f.panel === undefined) return [];
        const { panel } = f;
        const alone = j.joint.panels.length === 1;
        return [
          {
            severity: 'stop',
            where: 'bolt',
            about: [j.id, panel],
            text: `Bolt ${j.id} ${said(plateWord(facts, panel))}, so it does not hold the plate.`,
            remedy: `${alone ? `Take bolt ${j.id} out` : `Leave ${plateName(facts, panel).replace('Plate', 'plate')} off this bolt`}, or move the plate's ${f.kind === 'opening' ? 'opening' : 'edge'}.`,
            mend: callOf(leavePlateOff, { joint: j.id, panel }),
          },
        ];
      }),
    ),
};
