import type { Member, Mount } from '../../rig';
import { err, ok, type Result } from '../../units';
import type { Joint, PlanDocument } from '../plan';
import { holeNamed } from '../present';
import { freshId, holesTidied, inPlan } from './change';

/**
 * The usual joint for a hole: its own thread where it has one, a rivet nut or a flange nut where it has none, and a strap over an axle tube,
 * which nobody drills.
 */
export function jointFor(
  id: string,
  mount: PlanDocument['rig']['mounts'][number],
  panels: readonly string[],
  member?: Pick<Member, 'kind'>,
): Joint {
  const { kind, thread } = mount.hole;
  const plain = kind === 'through' || kind === 'slot' || kind === 'drill';
  const strap = kind === 'drill' && member?.kind === 'axle-tube';
  const nut = strap
    ? 'axle-strap'
    : !plain
      ? 'none'
      : mount.nutReach === 'none' || kind === 'drill'
        ? 'rivet-nut'
        : 'flange-serrated';
  const size = mount.hole.diameter ?? 0;
  const fits = strap ? 'M10x1.5' : size >= 13 ? 'M12x1.75' : size >= 10.5 ? 'M10x1.5' : 'M8x1.25';
  return {
    id,
    mount: mount.id,
    panels,
    fastener: { head: 'flange', thread: thread ?? fits, class: '8.8', length: 'auto', finish: 'zinc' },
    nut,
    washers: ['flat'],
    spacer: 0,
    headSide: 'below',
    lube: 'dry',
    torque: 'auto',
  };
}

/** The member that a hole is in. */
export const memberOf = (doc: PlanDocument, mount: Pick<Mount, 'member'>): Member | undefined =>
  doc.rig.members.find(m => m.id === mount.member);

/** Bolts a plate to a hole: into the joint that is there already (outermost), or a new one. */
export function jointAdded(doc: PlanDocument, mountId: string, panel: string): Result<PlanDocument> {
  const mount = holeNamed(doc, mountId);
  if (!mount) return err(`there is no hole ${mountId}`);
  const there = doc.plan.joints.find(j => j.mount === mountId);
  if (there?.panels.includes(panel)) return err(`the plate is bolted to ${mountId} already`);
  const joints = there
    ? doc.plan.joints.map(j => (j === there ? { ...j, panels: [panel, ...j.panels] } : j))
    : [...doc.plan.joints, jointFor(freshId('j', doc.plan.joints), mount, [panel], memberOf(doc, mount))];
  return ok(inPlan(doc, { joints }));
}

/** Takes a bolt out, and its hole if it was drilled for it. */
export const jointRemoved = (doc: PlanDocument, id: string): PlanDocument =>
  holesTidied(inPlan(doc, { joints: doc.plan.joints.filter(j => j.id !== id) }));
