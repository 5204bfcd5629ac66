import { type FoldedPanel, foldPanel } from '../fold';
import {
  freshId,
  holeNamed,
  inPlan,
  type Joint,
  jointFor,
  memberOf,
  type PlanDocument,
  presentOf,
  sheetOf,
} from '../plan';
import type { Mount, PresentRig } from '../rig';
import { err, ok, type Result, roundTo } from '../units';
import { SEAT_TOLERANCE, seatOf } from './seat';

/** Room below this is none, mm: no spacer fills it. */
const NONE = SEAT_TOLERANCE / 2;

type Panels = ReadonlyMap<string, FoldedPanel>;

const stand = (joint: Joint, mount: Mount, rig: PresentRig, panels: Panels) =>
  seatOf(
    { id: joint.id, joint, mount, member: rig.members.find(m => m.id === mount.member), at: mount.at },
    rig,
    panels,
  );

/**
 * A joint as it really stands: its plates in the order in which the bolt meets them, the outermost first, and a spacer as long as what is
 * left to the member; below nought where the innermost plate lies inside it.
 */
function closed(joint: Joint, mount: Mount, rig: PresentRig, panels: Panels): { joint: Joint; room: number } {
  const first = stand({ ...joint, spacer: 0 }, mount, rig, panels);
  const order = [...first.plates].sort((a, b) => b.near - a.near).map(s => s.panel);
  const lost = joint.panels.filter(p => !order.includes(p));
  const sorted = { ...joint, panels: [...lost, ...order], spacer: 0 };
  const room = stand(sorted, mount, rig, panels).gaps.find(g => g.against.kind !== 'plate')?.mm ?? 0;
  return { room, joint: { ...sorted, spacer: room < NONE ? 0 : roundTo(room, 2) } };
}

/**
 * Bolts a plate to a hole as the two really stand (`closed`). Refused where the hole is not over a flat of the plate, or the plate lies
 * inside its member. `panels` are the folded plates of the build that plates are drawn for.
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
    return err(
      holeNamed(doc, mountId)
        ? `hole ${mountId} is not there with these options`
        : `there is no hole ${mountId}`,
    );
  const mark = panels.find(p => p.panel.id === panel)?.panel.mark ?? panel;
  const there = doc.plan.joints.find(j => j.mount === mountId);
  if (there?.panels.includes(panel)) return err(`plate ${mark} is bolted to ${mountId} already`);
  const draft: Joint = there
    ? { ...there, panels: [...there.panels, panel] }
    : jointFor(freshId('j', doc.plan.joints), mount, [panel], memberOf(doc, mount));
  const byId = new Map(panels.map(p => [p.panel.id, p]));
  const mine = stand({ ...draft, spacer: 0 }, mount, rig, byId).plates.find(s => s.panel === panel);
  if (mine?.where !== 'flat') return err(`hole ${mountId} is not above a flat part of plate ${mark}`);
  const { joint, room } = closed(draft, mount, rig, byId);
  if (room < -SEAT_TOLERANCE)
    return err(`plate ${mark} would sit inside the member at hole ${mountId}: lower it first`);
  return ok(
    inPlan(doc, {
      joints: there ? doc.plan.joints.map(j => (j === there ? joint : j)) : [...doc.plan.joints, joint],
    }),
  );
}

/**
 * The plan with the bolts of some plates as these now stand: order of the plates on each and spacers follow the shapes, as they are drawn
 * for the first build. Of a plate inside its member the spacer goes to nought; the rest is for the checks to tell.
 */
export function respaced(doc: PlanDocument, plates: readonly string[]): PlanDocument {
  const [first] = doc.plan.builds;
  if (!first) return doc;
  const rig = presentOf(doc);
  const panels = new Map(
    doc.plan.panels.map(p => [p.id, foldPanel(p, sheetOf(first, p), doc.plan.shop?.kFactors)]),
  );
  return inPlan(doc, {
    joints: doc.plan.joints.map(j => {
      const mount = rig.mounts.find(m => m.id === j.mount);
      return mount && j.panels.some(p => plates.includes(p)) ? closed(j, mount, rig, panels).joint : j;
    }),
  });
}
