import { contains, distance2, type Vec2, type Vec3 } from '../../geometry';
import type { Mount, PresentRig } from '../../rig';
import { err, ok, type Result, roundTo } from '../../units';
import type { Crossbar, Joint, PlanDocument } from '../plan';
import { barFace } from '../present';
import { freshId, holesTidied, inPlan } from './change';
import { jointFor } from './joints';

/** The bar that is laid unless another is chosen: 2 × 1 in solid, mm. */
export const USUAL_BAR = { width: 50.8, height: 25.4, wall: 'solid' } as const;
/** A bar reaches past the middle of its end holes by this, mm: a head and some: common practice, no source. */
const PAST = 25;

/** Where one end of a bar is bolted up: a hole that is there, or one to be drilled. */
export type BarEnd = { readonly hole: Mount; readonly fresh: boolean };

/**
 * The end of a bar at a place on the ground plane: the hole nearest to it within `reach` mm, else a new one in the member that lies over
 * it. Refused where neither is.
 */
export function barEnd(doc: PlanDocument, rig: PresentRig, at: Vec2, reach: number): Result<BarEnd> {
  const near = rig.mounts
    .filter(m => m.condition !== 'blocked' && !doc.plan.crossbars.some(c => c.id === m.member))
    .map(m => ({ m, off: distance2([m.at[0], m.at[1]], at) }))
    .sort((a, b) => a.off - b.off)[0];
  if (near && near.off <= reach) return ok({ hole: near.m, fresh: false });
  const over = rig.members.find(
    m => contains(m.footprint, at) && !doc.plan.crossbars.some(c => c.id === m.id),
  );
  if (!over) return err('a crossbar must end at a hole or at a frame member; there is none there');
  return ok({ hole: newHole(doc, over.id, [at[0], at[1], over.zBottom]), fresh: true });
}

/** A hole to be drilled in a member or a crossbar, its id not yet taken. */
export function newHole(doc: PlanDocument, member: string, [x, y, z]: Vec3): Mount {
  const taken = [...doc.rig.mounts, ...(doc.plan.holes ?? [])];
  return {
    id: freshId('new', taken),
    member,
    at: [roundTo(x, 1), roundTo(y, 1), z],
    hole: { kind: 'drill' },
    condition: 'good',
    nutReach: 'none',
  };
}

/** A hole drilled for this plan. */
export const holeDrilled = (doc: PlanDocument, hole: Mount): PlanDocument =>
  inPlan(doc, { holes: [...(doc.plan.holes ?? []), hole] });

/** Axis of a bar under two holes: level, its upper face against the lower of the two. */
function axis(a: Vec3, b: Vec3, height: number): Pick<Crossbar, 'from' | 'to'> {
  const l = distance2([a[0], a[1]], [b[0], b[1]]);
  const u: Vec2 = [(b[0] - a[0]) / l, (b[1] - a[1]) / l];
  const z = Math.min(a[2], b[2]) - height / 2;
  return {
    from: [roundTo(a[0] - u[0] * PAST, 2), roundTo(a[1] - u[1] * PAST, 2), z],
    to: [roundTo(b[0] + u[0] * PAST, 2), roundTo(b[1] + u[1] * PAST, 2), z],
  };
}

const holeOf = (doc: PlanDocument, id: string | undefined): Mount | undefined =>
  [...doc.rig.mounts, ...(doc.plan.holes ?? [])].find(m => m.id === id);

/** The bolts of a bar and the holes in it where the bar now is: spacers above it, holes in its lower face. */
function following(doc: PlanDocument, bar: Crossbar): PlanDocument {
  return inPlan(doc, {
    joints: doc.plan.joints.map((j): Joint => {
      const hole = j.mount !== undefined && bar.mounts.includes(j.mount) ? holeOf(doc, j.mount) : undefined;
      return hole ? { ...j, spacer: Math.max(0, roundTo(hole.at[2] - barFace(bar, hole.at, 1), 2)) } : j;
    }),
    ...(doc.plan.holes
      ? {
          holes: doc.plan.holes.map(h =>
            h.member === bar.id ? { ...h, at: [h.at[0], h.at[1], barFace(bar, h.at, -1)] as const } : h,
          ),
        }
      : {}),
  });
}

/** Ends nearer than this make no bar, mm. */
const LEAST_BAR = 60;

/** A crossbar between two ends, with the bolt of each, its head sunk so that a plate may lie against the bar. */
export function crossbarAdded(
  doc: PlanDocument,
  a: BarEnd,
  b: BarEnd,
  part: Partial<Pick<Crossbar, 'name' | 'section' | 'material'>> = {},
): Result<{ readonly document: PlanDocument; readonly id: string }> {
  if (distance2([a.hole.at[0], a.hole.at[1]], [b.hole.at[0], b.hole.at[1]]) < LEAST_BAR)
    return err('the two ends of a crossbar must be apart');
  const section = part.section ?? USUAL_BAR;
  const id = freshId('bar', [...doc.plan.crossbars, ...doc.rig.members]);
  const ends = [a, b].map((e, i) => (e.fresh ? { ...e, hole: { ...e.hole, id: `${id}-end-${i + 1}` } } : e));
  const bar: Crossbar = {
    id,
    name: part.name ?? 'crossbar',
    ...axis(a.hole.at, b.hole.at, section.height),
    section,
    material: part.material ?? 'steel-hr36',
    mounts: ends.map(e => e.hole.id),
  };
  const drilled = ends.reduce((d, e) => (e.fresh ? holeDrilled(d, e.hole) : d), doc);
  const added = ends.reduce(
    (d, e): PlanDocument => {
      if (d.plan.joints.some(j => j.mount === e.hole.id)) return d;
      const joint = jointFor(freshId('j', d.plan.joints), e.hole, []);
      const sunk: Joint = { ...joint, washers: [], fastener: { ...joint.fastener, head: 'countersunk' } };
      return inPlan(d, { joints: [...d.plan.joints, sunk] });
    },
    inPlan(drilled, { crossbars: [...drilled.plan.crossbars, bar] }),
  );
  return ok({ document: following(added, bar), id });
}

/** A crossbar changed by its figures; its bolts' spacers and the holes in it follow. */
export function crossbarSet(
  doc: PlanDocument,
  id: string,
  part: Partial<Omit<Crossbar, 'id' | 'mounts'>>,
): PlanDocument {
  const old = doc.plan.crossbars.find(c => c.id === id);
  if (!old) return doc;
  const grown = part.section ? part.section.height - old.section.height : 0;
  // a higher bar stays against what it hangs from
  const down = ([x, y, z]: Vec3): Vec3 => [x, y, z - grown / 2];
  const bar: Crossbar = {
    ...old,
    ...(grown !== 0 ? { from: down(old.from), to: down(old.to) } : {}),
    ...part,
  };
  return following(inPlan(doc, { crossbars: doc.plan.crossbars.map(c => (c.id === id ? bar : c)) }), bar);
}

/** One end of a crossbar moved to another hole, or to a new one in a member; the old bolt goes, and its hole if it was drilled for it. */
export function crossbarEnded(doc: PlanDocument, id: string, end: 0 | 1, to: BarEnd): Result<PlanDocument> {
  const old = doc.plan.crossbars.find(c => c.id === id);
  const kept = holeOf(doc, old?.mounts[1 - end]);
  if (!old || !kept) return err('there is no such crossbar');
  const left = { ...old, mounts: [] };
  const without = inPlan(doc, {
    crossbars: doc.plan.crossbars.filter(c => c !== old),
    joints: doc.plan.joints.filter(
      j => !(j.panels.length === 0 && j.mount !== undefined && old.mounts.includes(j.mount)),
    ),
  });
  const ends: readonly [BarEnd, BarEnd] =
    end === 0 ? [to, { hole: kept, fresh: false }] : [{ hole: kept, fresh: false }, to];
  const made = crossbarAdded(without, ends[0], ends[1], left);
  if (!made.ok) return made;
  // it stays the same bar: what is bolted to it goes on being bolted to it
  const renamed = inPlan(made.value.document, {
    crossbars: made.value.document.plan.crossbars.map(c => (c.id === made.value.id ? { ...c, id } : c)),
  });
  const bar = renamed.plan.crossbars.find(c => c.id === id);
  return ok(holesTidied(bar ? following(renamed, bar) : renamed));
}

/** Takes a crossbar out, with its own bolts, the holes in it and the bolts in those; plates on its end bolts stay on them. */
export function crossbarRemoved(doc: PlanDocument, id: string): PlanDocument {
  const bar = doc.plan.crossbars.find(c => c.id === id);
  if (!bar) return doc;
  const inIt = new Set((doc.plan.holes ?? []).flatMap(h => (h.member === id ? [h.id] : [])));
  const left = inPlan(doc, {
    crossbars: doc.plan.crossbars.filter(c => c.id !== id),
    joints: doc.plan.joints.filter(
      j =>
        j.mount === undefined ||
        (!inIt.has(j.mount) && !(j.panels.length === 0 && bar.mounts.includes(j.mount))),
    ),
  });
  return holesTidied(left);
}
