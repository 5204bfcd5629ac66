import { contains, distanceToOutline, type Polygon, type Vec2 } from '../../geometry';
import { bad, good, type Result } from '../../units';
import type { Flange, Grain, Joint, Opening, Panel, PlanDocument, Seam } from '../plan';
import { holeNamed } from '../present';
import { freshId, holesTidied, inPlan, withPanel } from './change';

/** Least sheet left round an opening, mm: common practice, no source. */
export const OPENING_EDGE = 8;

const halfSize = (o: Pick<Opening, 'shape'>): number => {
  if ('circle' in o.shape) return o.shape.circle / 2;
  if ('rect' in o.shape) return Math.max(...o.shape.rect) / 2;
  return 0;
};

const corners = (o: Pick<Opening, 'at' | 'shape'>): readonly Vec2[] => {
  const [u, v] = o.at;
  if ('circle' in o.shape) {
    const r = o.shape.circle / 2;
    return [
      [u - r, v],
      [u + r, v],
      [u, v - r],
      [u, v + r],
    ];
  }
  if ('rect' in o.shape) {
    const [w, h] = o.shape.rect;
    return [
      [u - w / 2, v - h / 2],
      [u + w / 2, v - h / 2],
      [u + w / 2, v + h / 2],
      [u - w / 2, v + h / 2],
    ];
  }
  return o.shape.polygon.map(([a, b]): Vec2 => [a + u, b + v]);
};

/** Why an opening cannot be there: off its plate, or with too little sheet round it. Undefined when it can. */
export function openingFault(outline: Polygon, o: Pick<Opening, 'at' | 'shape'>): string | undefined {
  const pts = corners(o);
  if (pts.some(p => !contains(outline, p))) return 'the opening reaches past the edge of the plate';
  const round =
    'circle' in o.shape
      ? distanceToOutline(outline, o.at) - halfSize(o)
      : Math.min(...pts.map(p => distanceToOutline(outline, p)));
  return round < OPENING_EDGE
    ? `less than ${OPENING_EDGE} mm of sheet would be left beside the opening`
    : undefined;
}

const inPanel = (doc: PlanDocument, id: string): Panel | undefined => doc.plan.panels.find(p => p.id === id);

/** Adds or replaces an opening, refused when it does not lie within the plate. */
export function openingSet(doc: PlanDocument, panel: string, o: Opening): Result<PlanDocument> {
  const p = inPanel(doc, panel);
  if (!p) return bad('there is no such plate');
  const fault = openingFault(p.base.outline, o);
  if (fault) return bad(`plate ${p.mark}: ${fault}`);
  const openings = p.openings.some(x => x.id === o.id)
    ? p.openings.map(x => (x.id === o.id ? o : x))
    : [...p.openings, o];
  return good(withPanel(doc, panel, x => ({ ...x, openings })));
}

export const openingRemoved = (doc: PlanDocument, panel: string, id: string): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, openings: p.openings.filter(o => o.id !== id) }));

const replaced = (
  list: readonly Flange[],
  id: string,
  change: (f: Flange) => readonly Flange[],
): readonly Flange[] =>
  list.flatMap(f =>
    f.id === id ? change(f) : [f.flanges ? { ...f, flanges: replaced(f.flanges, id, change) } : f],
  );

const flangeIds = (list: readonly Flange[]): { id: string }[] =>
  list.flatMap(f => [{ id: f.id }, ...flangeIds(f.flanges ?? [])]);

/** A flange on a base edge, or on the free edge of another flange (`on`). */
export function flangeAdded(
  doc: PlanDocument,
  panel: string,
  where: { readonly edge: number } | { readonly on: string },
  length = 40,
  angle = 30,
): PlanDocument {
  return withPanel(doc, panel, p => {
    const id = freshId('flange', flangeIds(p.flanges));
    if ('edge' in where) return { ...p, flanges: [...p.flanges, { id, edge: where.edge, length, angle }] };
    const lip: Flange = { id, edge: 'far', length, angle };
    return {
      ...p,
      flanges: replaced(p.flanges, where.on, f => [{ ...f, flanges: [...(f.flanges ?? []), lip] }]),
    };
  });
}

export const flangeChanged = (
  doc: PlanDocument,
  panel: string,
  id: string,
  part: Partial<Pick<Flange, 'length' | 'angle' | 'insideRadius' | 'inset' | 'mitre'>>,
): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, flanges: replaced(p.flanges, id, f => [{ ...f, ...part }]) }));

/** Which way the plate's blank lies to the grain of its sheet. */
export const grainSet = (doc: PlanDocument, panel: string, grain: Grain): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, grain }));

export const flangeRemoved = (doc: PlanDocument, panel: string, id: string): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, flanges: replaced(p.flanges, id, () => []) }));

/** Height and tilt of a plate's base: z of its origin in mm, angles in degrees. */
export const baseSet = (
  doc: PlanDocument,
  panel: string,
  part: { readonly z?: number; readonly pitch?: number; readonly roll?: number },
): PlanDocument =>
  withPanel(doc, panel, p => {
    const [x, y, z] = p.base.origin;
    return {
      ...p,
      base: {
        ...p.base,
        origin: [x, y, part.z ?? z],
        pitch: part.pitch ?? p.base.pitch,
        roll: part.roll ?? p.base.roll,
      },
    };
  });

/** Height and pitch from where the base's front and rear ends are to hang, z in mm; its front end stays where it is. */
export const endsSet = (doc: PlanDocument, panel: string, frontZ: number, rearZ: number): PlanDocument =>
  withPanel(doc, panel, p => {
    const us = p.base.outline.map(q => q[0]);
    const [u0, u1] = [Math.min(...us), Math.max(...us)];
    const sine = Math.max(-0.85, Math.min(0.85, (frontZ - rearZ) / (u1 - u0)));
    const was = (p.base.pitch * Math.PI) / 180;
    const pitch = Math.asin(sine);
    const [x, y] = p.base.origin;
    return {
      ...p,
      base: {
        ...p.base,
        pitch: (pitch * 180) / Math.PI,
        origin: [x + u0 * (Math.cos(was) - Math.cos(pitch)), y, frontZ + u0 * sine],
      },
    };
  });

/** Takes joints out of holes that are no longer there, so that a changed rig leaves no plan that names them. */
export function fitted(doc: PlanDocument): PlanDocument {
  const bodies = new Set([...doc.rig.members.map(m => m.id), ...doc.plan.crossbars.map(c => c.id)]);
  const own = doc.plan.holes?.filter(h => bodies.has(h.member));
  const holes = new Set([...doc.rig.mounts, ...(own ?? [])].map(m => m.id));
  const parts = new Set(doc.rig.components.map(c => c.id));
  const points = new Set(doc.rig.servicePoints.map(s => s.id));
  return inPlan(doc, {
    ...(own ? { holes: own } : {}),
    joints: doc.plan.joints.filter(j => j.mount === undefined || holes.has(j.mount)),
    panels: doc.plan.panels.map(p =>
      p.guards.every(g => parts.has(g)) &&
      p.openings.every(o => o.serves === undefined || points.has(o.serves))
        ? p
        : {
            ...p,
            guards: p.guards.filter(g => parts.has(g)),
            openings: p.openings.map(o =>
              o.serves === undefined || points.has(o.serves) ? o : { ...o, serves: undefined },
            ),
          },
    ),
    crossbars: doc.plan.crossbars.map(c => ({ ...c, mounts: c.mounts.filter(m => holes.has(m)) })),
  });
}

/** Lays a seam between two plates, or takes it away when `seam` is undefined; shared bolts follow who lies outside. */
export function seamSet(
  doc: PlanDocument,
  front: string,
  rear: string,
  seam: Seam | undefined,
): PlanDocument {
  const seams = doc.plan.seams.filter(s => !(s.front === front && s.rear === rear));
  if (!seam) return inPlan(doc, { seams });
  const inner = seam.outside === front ? rear : front;
  const outerFirst = (ids: readonly string[]): readonly string[] =>
    ids.includes(front) && ids.includes(rear)
      ? [...ids.filter(id => id !== inner && id !== seam.outside), seam.outside, inner]
      : ids;
  return inPlan(doc, {
    seams: [...seams, seam],
    joints: doc.plan.joints.map(j => ({ ...j, panels: outerFirst(j.panels) })),
  });
}

/** The usual joint for a hole: its own thread where it has one, a rivet nut or a flange nut where it has none. */
export function jointFor(
  id: string,
  mount: PlanDocument['rig']['mounts'][number],
  panels: readonly string[],
): Joint {
  const { kind, thread } = mount.hole;
  const plain = kind === 'through' || kind === 'slot' || kind === 'drill';
  const nut = !plain
    ? 'none'
    : mount.nutReach === 'none' || kind === 'drill'
      ? 'rivet-nut'
      : 'flange-serrated';
  const size = mount.hole.diameter ?? 0;
  const fits = size >= 13 ? 'M12x1.75' : size >= 10.5 ? 'M10x1.5' : 'M8x1.25';
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

/** Bolts a plate to a hole: into the joint that is there already (outermost), or a new one. */
export function jointAdded(doc: PlanDocument, mountId: string, panel: string): Result<PlanDocument> {
  const mount = holeNamed(doc, mountId);
  if (!mount) return bad(`there is no hole ${mountId}`);
  const there = doc.plan.joints.find(j => j.mount === mountId);
  if (there?.panels.includes(panel)) return bad(`the plate is bolted to ${mountId} already`);
  const joints = there
    ? doc.plan.joints.map(j => (j === there ? { ...j, panels: [panel, ...j.panels] } : j))
    : [...doc.plan.joints, jointFor(freshId('j', doc.plan.joints), mount, [panel])];
  return good(inPlan(doc, { joints }));
}

/** Takes a bolt out, and its hole if it was drilled for it. */
export const jointRemoved = (doc: PlanDocument, id: string): PlanDocument =>
  holesTidied(inPlan(doc, { joints: doc.plan.joints.filter(j => j.id !== id) }));
