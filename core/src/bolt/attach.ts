import type { FoldedPanel } from '../fold';
import { freshId, holeNamed, inPlan, type Joint, jointFor, type PlanDocument } from '../plan';
import type { PresentRig } from '../rig';
import { bad, good, type Result, roundTo } from '../units';
import { seatOf } from './seat';

/**
 * Bolts a plate to a hole as the two really stand: plates on the bolt in the order in which it meets them, the outermost first, and a
 * spacer as long as what is left to the member. Refused where the hole is not over a flat of the plate, or the plate lies inside its
 * member. `panels` are the folded plates of the build that plates are drawn for.
 */
export function attached(
  doc: PlanDocument,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
  mountId: string,
  panel: string,
): Result<PlanDocument> {
  const mount = rig.mounts.find(m => m.id === mountId);
  if (!mount)
    return bad(
      holeNamed(doc, mountId)
        ? `hole ${mountId} is not there with these options`
        : `there is no hole ${mountId}`,
    );
  const mark = panels.find(p => p.panel.id === panel)?.panel.mark ?? panel;
  const there = doc.plan.joints.find(j => j.mount === mountId);
  if (there?.panels.includes(panel)) return bad(`plate ${mark} is bolted to ${mountId} already`);
  const draft: Joint = there
    ? { ...there, panels: [...there.panels, panel] }
    : jointFor(freshId('j', doc.plan.joints), mount, [panel]);
  const member = rig.members.find(m => m.id === mount.member);
  const stand = (joint: Joint) =>
    seatOf(
      { id: joint.id, joint, mount, member, at: mount.at },
      rig,
      new Map(panels.map(p => [p.panel.id, p])),
    );
  const first = stand({ ...draft, spacer: 0 });
  const mine = first.plates.find(s => s.panel === panel);
  if (mine?.where !== 'flat') return bad(`hole ${mountId} is not over a flat of plate ${mark}`);
  const order = [...first.plates].sort((a, b) => b.near - a.near).map(s => s.panel);
  const sorted = { ...draft, panels: order, spacer: 0 };
  const inner = stand(sorted).gaps.find(g => g.against.kind !== 'plate');
  const room = inner?.mm ?? 0;
  if (room < -0.5)
    return bad(`plate ${mark} lies ${roundTo(-room, 1)} mm inside the member at hole ${mountId}`);
  const joint: Joint = { ...sorted, spacer: room < 0.25 ? 0 : roundTo(room, 2) };
  return good(
    inPlan(doc, {
      joints: there ? doc.plan.joints.map(j => (j === there ? joint : j)) : [...doc.plan.joints, joint],
    }),
  );
}
