import { type FoldedPanel, facetInSpace, openingOutline } from '../fold';
import {
  add3,
  boxOf,
  contains,
  cross3,
  distanceToOutline,
  dot3,
  length3,
  type Polygon,
  scale3,
  sub3,
  toSpace,
  type Vec2,
  type Vec3,
  vertex,
} from '../geometry';
import type { OpeningKind } from '../plan';
import type { Component, PresentRig } from '../rig';

/*
 * How much of a part can still be got at by hand: from points all over its sides and underside, straight ways out are tried, level and
 * downward, each as thick as a hand. A way is shut where a plate, a frame member or another part stands in it.
 */

/**
 * What has to pass: an opening up to 40 mm lets fingers through and not the hand (ISO 13857:2019, table 4, from memory). A way that
 * runs so far clear leads out: an arm's length from the table's 850 mm less the body's room, a guess.
 */
export const HAND = { radius: 20, reach: 600 } as const;

/** Points lie this far apart on the part, mm. */
const SPACING = 45;
/** An opening whose middle is so near to the part's outline is under it, mm. */
const BESIDE = 60;
/** Straight ways that are tried from every point. */
const WAYS: readonly Vec3[] = [0, 25, 50, 75]
  .flatMap((down): Vec3[] => {
    const [z, flat] = [-Math.sin((down * Math.PI) / 180), Math.cos((down * Math.PI) / 180)];
    const around = down === 75 ? 4 : 12;
    return Array.from({ length: around }, (_, i): Vec3 => {
      const a = (2 * Math.PI * (i + (down % 50 === 0 ? 0 : 0.5))) / around;
      return [flat * Math.cos(a), flat * Math.sin(a), z];
    });
  })
  .concat([[0, 0, -1]]);

/** A flat thing that stands in the way: in its own axes, with what is cut out of it. */
interface Barrier {
  readonly origin: Vec3;
  readonly u: Vec3;
  readonly v: Vec3;
  readonly n: Vec3;
  readonly outline: Polygon;
  readonly holes: readonly Polygon[];
  readonly middle: Vec3;
  readonly round: number;
}

function barrier(points: readonly Vec3[], holes: readonly (readonly Vec3[])[] = []): Barrier | undefined {
  const [a, b] = points as [Vec3, Vec3];
  const along = sub3(b, a);
  // the longest way off the first edge gives the plane
  const off = points.map(p => cross3(along, sub3(p, a))).sort((p, q) => length3(q) - length3(p))[0];
  if (!off || length3(off) < 1e-6) return undefined;
  const u = scale3(along, 1 / length3(along));
  const n = scale3(off, 1 / length3(off));
  const v = cross3(n, u);
  const put = (p: Vec3): Vec2 => [dot3(sub3(p, a), u), dot3(sub3(p, a), v)];
  const middle = scale3(
    points.reduce((s, p) => add3(s, p), [0, 0, 0] as Vec3),
    1 / points.length,
  );
  return {
    origin: a,
    u,
    v,
    n,
    outline: points.map(put),
    holes: holes.map(h => h.map(put)),
    middle,
    round: Math.max(...points.map(p => length3(sub3(p, middle)))),
  };
}

/** Sides and underside of an upright prism. */
const sidesOf = (footprint: Polygon, zBottom: number, zTop: number): readonly Vec3[][] => [
  footprint.map(([x, y]): Vec3 => [x, y, zBottom]),
  ...footprint.map((p, i): Vec3[] => {
    const q = vertex(footprint, i + 1);
    return [
      [p[0], p[1], zBottom],
      [q[0], q[1], zBottom],
      [q[0], q[1], zTop],
      [p[0], p[1], zTop],
    ];
  }),
];

const panelBarriers = ({ facets, panel }: FoldedPanel): readonly Barrier[] =>
  facets.flatMap((f, i) => {
    const holes = i === 0 ? panel.openings.filter(o => o.kind !== 'louvers').map(o => openingOutline(o)) : [];
    return (
      barrier(
        facetInSpace(f),
        holes.map(h => h.map(p => toSpace(f.frame, p))),
      ) ?? []
    );
  });

/** Distance from a point in a barrier's plane to what of it is solid, mm; 0 on it. */
function toSolid(b: Barrier, q: Vec2): number {
  const hole = b.holes.find(h => contains(h, q));
  if (hole) return distanceToOutline(hole, q);
  return contains(b.outline, q) ? 0 : distanceToOutline(b.outline, q);
}

/** Whether a hand that moves from a place straight on by a length meets a barrier; looked at every half hand's breadth. */
function meets(b: Barrier, from: Vec3, way: Vec3, length: number): boolean {
  const { radius } = HAND;
  const apart = sub3(b.middle, from);
  const on = Math.max(0, Math.min(length, dot3(apart, way)));
  if (length3(sub3(apart, scale3(way, on))) > b.round + radius) return false;
  // the stretch of the way on which the plane is within a hand
  const height = dot3(sub3(from, b.origin), b.n);
  const per = dot3(way, b.n);
  let [enter, leave] = [0, length];
  if (Math.abs(per) > 1e-9) {
    const [p, q] = [(-radius - height) / per, (radius - height) / per];
    enter = Math.max(0, Math.min(p, q));
    leave = Math.min(length, Math.max(p, q));
  } else if (Math.abs(height) >= radius) return false;
  if (leave < enter) return false;
  const steps = Math.max(1, Math.ceil((leave - enter) / (radius / 2)));
  for (let i = 0; i <= steps; i++) {
    const at = sub3(add3(from, scale3(way, enter + ((leave - enter) * i) / steps)), b.origin);
    if (Math.hypot(toSolid(b, [dot3(at, b.u), dot3(at, b.v)]), dot3(at, b.n)) < radius) return true;
  }
  return false;
}

export interface Shield {
  readonly component: string;
  /** shares of the area that no straight way out is left from, 0 to 1 */
  readonly sidesShut: number;
  readonly undersideShut: number;
  readonly shut: number;
  /** the same with all plates off */
  readonly bareShut: number;
  /** plates that stand in a way that would be open without them */
  readonly panels: readonly string[];
  /** openings of kind view or louvers under the part, which let it be seen and let heat out */
  readonly view: number;
  readonly louvers: number;
}

/** Points over a flat with the area each stands for, its middle ones first; the normal leads away from the part. */
function* pointsOn(face: readonly Vec3[], inside: Vec3): Generator<{ at: Vec3; n: Vec3; area: number }> {
  const b = barrier(face);
  if (!b) return;
  const n = dot3(sub3(b.middle, inside), b.n) < 0 ? scale3(b.n, -1) : b.n;
  const { min, max } = boxOf(b.outline);
  const [nu, nv] = [0, 1].map(i =>
    Math.max(1, Math.round(((max[i] as number) - (min[i] as number)) / SPACING)),
  ) as [number, number];
  const [du, dv] = [(max[0] - min[0]) / nu, (max[1] - min[1]) / nv];
  for (let i = 0; i < nu; i++)
    for (let k = 0; k < nv; k++) {
      const q: Vec2 = [min[0] + (i + 0.5) * du, min[1] + (k + 0.5) * dv];
      if (contains(b.outline, q))
        yield { at: add3(b.origin, add3(scale3(b.u, q[0]), scale3(b.v, q[1]))), n, area: du * dv };
    }
}

/**
 * How far plates keep hands and tools off a part. What stands over the part's own height is taken as shut from above by the body. An
 * estimate of reach along straight ways, by points about 45 mm apart: no measure of how long anything would hold.
 */
export function shieldOf(rig: PresentRig, panels: readonly FoldedPanel[], part: Component): Shield {
  const box = boxOf(part.footprint);
  const middle: Vec3 = [
    (box.min[0] + box.max[0]) / 2,
    (box.min[1] + box.max[1]) / 2,
    (part.zBottom + part.zTop) / 2,
  ];
  const own = Math.hypot(box.max[0] - box.min[0], box.max[1] - box.min[1], part.zTop - part.zBottom) / 2;
  const near = (b: Barrier): boolean =>
    length3(sub3(b.middle, middle)) < b.round + HAND.reach + HAND.radius + own;
  const solids = [
    ...rig.rig.members.map(m => sidesOf(m.footprint, m.zBottom, m.zTop)),
    ...rig.components.filter(c => c.id !== part.id).map(c => sidesOf(c.footprint, c.zBottom, c.zTop)),
  ]
    .flat()
    .flatMap(face => barrier(face) ?? [])
    .filter(near);
  const plates = panels.map(p => ({ id: p.panel.id, barriers: panelBarriers(p).filter(near) }));
  const stand = new Set<string>();
  const totals = { side: 0, sideShut: 0, under: 0, underShut: 0, bareShut: 0 };
  sidesOf(part.footprint, part.zBottom, part.zTop).forEach((face, i) => {
    for (const { at, n, area } of pointsOn(face, middle)) {
      const hand = add3(at, scale3(n, HAND.radius + 1));
      const ways = WAYS.filter(w => dot3(w, n) > 0.05);
      const bare = ways.filter(w => !solids.some(s => meets(s, hand, w, HAND.reach)));
      const stopped = bare.map(w =>
        plates.filter(p => p.barriers.some(b => meets(b, hand, w, HAND.reach))).map(p => p.id),
      );
      for (const id of stopped.flat()) stand.add(id);
      const shut = stopped.every(s => s.length > 0);
      if (bare.length === 0) totals.bareShut += area;
      if (i === 0) {
        totals.under += area;
        if (shut) totals.underShut += area;
      } else {
        totals.side += area;
        if (shut) totals.sideShut += area;
      }
    }
  });
  const all = totals.side + totals.under;
  const beneath = panels
    .filter(p => stand.has(p.panel.id))
    .flatMap(({ facets: [base], panel }) =>
      panel.openings.filter(o => {
        if (!base) return false;
        const [x, y] = toSpace(base.frame, o.at);
        return contains(part.footprint, [x, y]) || distanceToOutline(part.footprint, [x, y]) < BESIDE;
      }),
    );
  const count = (kind: OpeningKind): number => beneath.filter(o => o.kind === kind).length;
  return {
    component: part.id,
    sidesShut: totals.side > 0 ? totals.sideShut / totals.side : 0,
    undersideShut: totals.under > 0 ? totals.underShut / totals.under : 0,
    shut: all > 0 ? (totals.sideShut + totals.underShut) / all : 0,
    bareShut: all > 0 ? totals.bareShut / all : 0,
    panels: panels.map(p => p.panel.id).filter(id => stand.has(id)),
    view: count('view'),
    louvers: count('louvers'),
  };
}
