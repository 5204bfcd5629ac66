import type { ResolvedJoint } from '../bolt';
import type { Assembly } from '../derive';
import type { Facet, FoldedPanel, PlateHole } from '../fold';
import { cutterOf, shopOf } from '../fold';
import {
  add3,
  cross3,
  dot3,
  scale3,
  sub3,
  toRadians,
  toSpace,
  unit3,
  type Vec2,
  type Vec3,
} from '../geometry';
import { type Cutter, isBracket } from '../plan';
import { MOUNT_SIGMA } from '../rig';

/** How true a hole comes where it was drawn, one standard deviation, mm: common practice, no source. */
export const CUT_SIGMA: Readonly<Record<Cutter, number>> = {
  laser: 0.1,
  waterjet: 0.1,
  plasma: 0.5,
  hand: 1,
};
/** A bend comes true within this, degrees and mm, one standard deviation: common practice, no source. */
/** The holes of a crossbar are marked and drilled by hand, with a stop: mm, common practice, no source. */
const BAR_SIGMA = 0.5;
export const BEND_SIGMA = { angle: 0.5, place: 0.4 } as const;
/** A captive nut gives way by so much in its cage, mm: common practice, no source. */
export const CAGE_PLAY = 0.5;

/** What a hole lets a bolt's axis do: stay within `radius` of a piece of a line through its middle, half as long as `half`. */
export interface Room {
  readonly radius: number;
  readonly half: number;
  /** the line's direction in the joint's plane, unit */
  readonly along: Vec2;
}

/** A hole that a bolt passes through or is screwed into: the vehicle's, or one of a plate's. */
export interface HoleIn {
  /** place in `Model.bodies`; undefined for the vehicle */
  readonly body?: number;
  readonly panel?: string;
  readonly room: Room;
  /** how a body's two pushes and its turn move the hole in the joint's plane: two rows of three */
  readonly by?: readonly [Vec3, Vec3];
  /** its own doubt on each of the joint's two directions, mm */
  readonly sigma: number;
  /** how each bend of its body that lies before it moves it: an index, and what a unit of place and of angle does */
  readonly bends: readonly {
    readonly bend: number;
    readonly place: Vec2;
    readonly angle: Vec2;
  }[];
}

/** A bolt and its holes. */
export interface BoltIn {
  readonly joint: ResolvedJoint;
  /** the plane square to its axis */
  readonly e1: Vec3;
  readonly e2: Vec3;
  readonly holes: readonly HoleIn[];
  /** the hole in the vehicle, where that counts */
  readonly mount?: { readonly id: string; readonly sigma: Vec3 };
}

/** A plate, a bracket or a crossbar that may be pushed about on its seats. */
export interface Body {
  readonly id: string;
  readonly kind: 'panel' | 'bar';
}

export interface Model {
  readonly bodies: readonly Body[];
  readonly bolts: readonly BoltIn[];
  /** all bends of all bodies, one after another */
  readonly bends: number;
}

/** What a hole of the vehicle lets a bolt do, mm. */
function vehicleRoom(j: ResolvedJoint, e1: Vec3, e2: Vec3): Room {
  const round = (radius: number): Room => ({ radius: Math.max(0, radius), half: 0, along: [1, 0] });
  const hole = j.mount?.hole;
  // a nut that is set anew sits fast where the old hole is; so does a post
  if (!hole || j.joint.nut === 'rivet-nut' || j.joint.nut === 'post' || j.nut?.kind === 'rivet-nut')
    return round(0);
  switch (hole.kind) {
    case 'captive-nut':
    case 'clip-nut':
      return round(CAGE_PLAY);
    case 'through':
      return round(((hole.diameter ?? j.thread.clearance) - j.thread.d) / 2);
    case 'slot': {
      const width = hole.diameter ?? j.thread.clearance;
      const way: Vec3 = hole.along === 'y' ? [0, 1, 0] : [1, 0, 0];
      return {
        radius: Math.max(0, (width - j.thread.d) / 2),
        half: Math.max(0, ((hole.length ?? width) - width) / 2),
        along: direction([dot3(way, e1), dot3(way, e2)]),
      };
    }
    default:
      return round(0);
  }
}

const direction = ([x, y]: Vec2): Vec2 => {
  const l = Math.hypot(x, y);
  return l < 1e-9 ? [1, 0] : [x / l, y / l];
};

/** What a hole of a plate lets a bolt do, mm. */
function plateRoom(
  j: ResolvedJoint,
  p: FoldedPanel,
  hole: PlateHole,
  facet: Facet,
  e1: Vec3,
  e2: Vec3,
): Room {
  // in a thread or a pressed nut there is no room
  if (j.joint.threadIn === p.panel.id) return { radius: 0, half: 0, along: [1, 0] };
  const { final } = hole;
  if ('circle' in final)
    return { radius: Math.max(0, (final.circle - j.thread.d) / 2), half: 0, along: [1, 0] };
  if ('square' in final)
    return { radius: Math.max(0, (final.square - j.thread.d) / 2), half: 0, along: [1, 0] };
  const d = p.blank.developed.find(x => x.facet.id === facet.id);
  const a = toRadians(final.along);
  const inBlank: Vec2 = [Math.cos(a), Math.sin(a)];
  const [u, v] = d
    ? [inBlank[0] * d.u[0] + inBlank[1] * d.u[1], inBlank[0] * d.v[0] + inBlank[1] * d.v[1]]
    : inBlank;
  const way = add3(scale3(facet.frame.u, u), scale3(facet.frame.v, v));
  const [length, width] = final.slot;
  return {
    radius: Math.max(0, (width - j.thread.d) / 2),
    half: Math.max(0, (length - width) / 2),
    along: direction([dot3(way, e1), dot3(way, e2)]),
  };
}

/** Facets from one up to the base. */
function upFrom(p: FoldedPanel, id: string): readonly Facet[] {
  const out: Facet[] = [];
  for (let f = p.facets.find(x => x.id === id); f; f = p.facets.find(x => x.id === f?.parent)) out.push(f);
  return out;
}

/**
 * What decides whether bolts start: plates that may be pushed about in their plane and turned, bolts with their holes, what each hole allows
 * and how well its place is known. Holes that are marked or drilled through the plate fit by themselves: the vehicle's side of them is left
 * out. A bracket slides on the face that it is bolted to.
 */
export function modelOf({ document, rig, panels, joints, seats }: Omit<Assembly, 'build'>): Model {
  const cut = CUT_SIGMA[cutterOf(shopOf(document.plan))];
  const bodies = [
    ...panels.map((p): Body => ({ id: p.panel.id, kind: 'panel' })),
    ...rig.bars.map((b): Body => ({ id: b.id, kind: 'bar' })),
  ];
  const bendAt = new Map<string, number>();
  for (const p of panels)
    for (const f of p.facets) if (f.parent !== undefined) bendAt.set(`${p.panel.id} ${f.id}`, bendAt.size);
  const onVehicle = (p: FoldedPanel): ResolvedJoint | undefined =>
    isBracket(p.panel) ? joints.find(j => j.mount && j.joint.panels.includes(p.panel.id)) : undefined;
  /** the plane that a body moves in, and the place that it turns about */
  const planes = panels.map(p => {
    const held = onVehicle(p);
    const n = held ? (seats.get(held.id)?.axis ?? [0, 0, 1]) : (p.facets[0]?.frame.n ?? [0, 0, 1]);
    const any: Vec3 = Math.abs(n[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
    const v = unit3(cross3(n, any));
    return { n, u: cross3(v, n), v, about: held?.at ?? p.centroid };
  });
  const bolts = joints.flatMap((j): BoltIn[] => {
    const seat = seats.get(j.id);
    if (!seat) return [];
    const any: Vec3 = Math.abs(seat.axis[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
    const e1 = unit3(sub3(any, scale3(seat.axis, dot3(any, seat.axis))));
    const e2 = cross3(seat.axis, e1);
    const flat = (v: Vec3): Vec2 => [dot3(v, e1), dot3(v, e2)];
    const marked = j.mount?.hole.kind === 'drill';
    const holes: HoleIn[] = [];
    // a hole of a crossbar goes where the bar goes
    const inBar = rig.bars.findIndex(b => b.id === j.mount?.member);
    const through = rig.bars.findIndex(b => j.mount !== undefined && b.mounts.includes(j.mount.id));
    const ofBar = (i: number, room: Room): HoleIn => {
      const bar = rig.bars[i];
      const about: Vec3 = bar
        ? [(bar.from[0] + bar.to[0]) / 2, (bar.from[1] + bar.to[1]) / 2, j.at[2]]
        : [0, 0, 0];
      const arm = cross3([0, 0, 1], sub3(j.at, about));
      const rows = [e1, e2].map((e): Vec3 => [e[0], e[1], dot3(arm, e)]);
      return {
        body: panels.length + i,
        room,
        by: rows as unknown as readonly [Vec3, Vec3],
        sigma: BAR_SIGMA,
        bends: [],
      };
    };
    if (inBar >= 0) holes.push(ofBar(inBar, vehicleRoom(j, e1, e2)));
    else if (j.mount && !marked) holes.push({ room: vehicleRoom(j, e1, e2), sigma: 0, bends: [] });
    if (through >= 0 && !marked)
      holes.push(ofBar(through, { radius: (j.thread.clearance - j.thread.d) / 2, half: 0, along: [1, 0] }));
    for (const id of j.joint.panels) {
      const body = panels.findIndex(p => p.panel.id === id);
      const p = panels[body];
      const hole = p?.holes.find(h => h.joint === j.id);
      const facet = p?.facets.find(f => f.id === hole?.facet);
      const plane = planes[body];
      if (!p || !hole || !facet || !plane) continue;
      // drilled through the plate where it hangs, it is where it must be
      if (hole.kind === 'pilot' || hole.kind === 'uncut') continue;
      const at = toSpace(facet.frame, hole.at);
      const arm = cross3(plane.n, sub3(at, plane.about));
      const rows = [e1, e2].map(
        (e): Vec3 => [dot3(plane.u, e), dot3(plane.v, e), dot3(arm, e)],
      ) as unknown as readonly [Vec3, Vec3];
      // bends between the hole and the flat that the body lies on
      const held = onVehicle(p);
      const from = held && p.holes.find(h => h.joint === held.id)?.facet;
      const own = upFrom(p, facet.id);
      const other = from === undefined ? [] : upFrom(p, from);
      const between = [...own.filter(f => !other.includes(f)), ...other.filter(f => !own.includes(f))];
      holes.push({
        body,
        panel: id,
        room: plateRoom(j, p, hole, facet, e1, e2),
        by: rows,
        sigma: cut,
        bends: between.flatMap(f => {
          const bend = bendAt.get(`${id} ${f.id}`);
          if (bend === undefined) return [];
          // a bend's place moves what is beyond it along its own outward way, its angle turns it about its line
          const turned = scale3(cross3(f.frame.v, sub3(at, f.frame.origin)), toRadians(1));
          return [{ bend, place: flat(f.frame.u), angle: flat(turned) }];
        }),
      });
    }
    const sigma = j.mount?.sigma ?? ([MOUNT_SIGMA, MOUNT_SIGMA, MOUNT_SIGMA] as const);
    return [
      {
        joint: j,
        e1,
        e2,
        holes,
        ...(j.mount && !marked && inBar < 0 ? { mount: { id: j.mount.id, sigma } } : {}),
      },
    ];
  });
  return { bodies, bolts, bends: bendAt.size };
}
