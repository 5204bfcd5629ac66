import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import { add3, circle, dot3, length3, scale3, sub3, type Vec3 } from '../geometry';
import { type Crossbar, underBar } from '../plan';
import { err, ok, type Result } from '../units';
import { type Backing, backed, backedPlaces, barEdges, NO_BACKING } from './backing';
import { type Condensed, type Foot, pressedRadius } from './condensed';

import { feetAt, type Hung, hangersOf, hangs, hungOn, onArm } from './hung';
import type { JointSpring } from './joint-spring';
import { patchLoad } from './load';
import type { ExtraElement, ShellModel } from './model';
import { laid, onPlate, overPlace } from './on-plate';
import { plateFlats } from './plate-flats';
import { discNodes, type Flat3, inPlane2, meshShell, nodeAt, planeOf, type ShellMesh } from './shell-mesh';
import { type Fine, graded } from './spacing';
import { DOF_PER_NODE } from './sparse';
import { PATCH, type StrikeWish } from './strike-wish';

/** Friction of painted sheet on painted member: common practice, no source. */
const FRICTION = 0.2;
/** Play of a bolt in its hole, from its middle, as a share of its diameter (ISO 273, medium). */
const PLAY = 0.05;
/** Stiffness of a bolt's shank in the sheet's hole per mm of thickness, as a share of the sheet's modulus: a guess. */
const BEARING = 0.1;
/** Bolts this far off a plate's flat in height do not hold it, mm. */
const REACH = 60;

export interface Held {
  readonly joint: ResolvedJoint;
  readonly flat: number;
  readonly at: Vec3;
  readonly radius: number;
  /** it hangs on brackets here, and where their feet bear round the bolt; undefined where the vehicle holds it */
  readonly hung?: { readonly feet: readonly { readonly foot: Foot; readonly on: Vec3 }[] };
}

/** Where a plate's joints hold it: the flat over (or under) each, and the disc that head or washer presses. */
export function heldBy(
  flats: readonly Flat3[],
  panel: string,
  joints: readonly ResolvedJoint[],
  hangers: readonly Condensed[] = [],
): readonly Held[] {
  return joints
    .filter(j => j.joint.panels.includes(panel))
    .flatMap((joint): readonly Held[] => {
      let best: Held | undefined;
      let off = REACH;
      flats.forEach((f, flat) => {
        const p = overPlace(laid(f), joint.at);
        if (!p) return;
        const z = p[2];
        if (Math.abs(z - joint.at[2]) >= off) return;
        off = Math.abs(z - joint.at[2]);
        best = {
          joint,
          flat,
          at: p,
          radius: pressedRadius(joint),
          ...(hangs(hangers, joint.id) ? { hung: { feet: feetAt(hangers, joint.id, f) } } : {}),
        };
      });
      return best ? [best] : [];
    });
}

/** Nodes round the disc of a bolt. */
const RING = 8;
/** Elements along a plate's longer side, across the struck patch, and by how much they grow with every mm away from what is fine. */
const ALONG = 10;
const ACROSS = 4;
const GROWTH = 0.5;
/**
 * Where the sheet yields it stays fine for longer, so many radii round heads and half the patch round that: most of a dent is made at the
 * edges of heads. `across` the patch likewise.
 */
const YIELDING = { growth: 0.12, heads: 2, across: 8 } as const;
/** At corners that point inward elements are so much smaller; openings of more corners than this are round. */
const INWARD = 10;
const ROUND = 6;

/** Nodes under the edges of a bar keep so far off the plate's own edges, mm. */
const EDGE_OFF = 5;

/** Corners of flats that lie within a side of another. */
function inwardCorners(flats: readonly Flat3[]): readonly Vec3[] {
  return flats.flatMap(f =>
    f.polygon.filter(q =>
      flats.some(
        g =>
          g !== f &&
          g.polygon.some((a, i) => {
            const b = g.polygon[(i + 1) % g.polygon.length] as Vec3;
            const d = sub3(b, a);
            const l2 = dot3(d, d);
            const t = dot3(sub3(q, a), d) / (l2 || 1);
            return t > 1e-3 && t < 1 - 1e-3 && length3(sub3(sub3(q, a), scale3(d, t))) < 1e-2;
          }),
      ),
    ),
  );
}

export interface Meshed {
  readonly mesh: ShellMesh;
  readonly discs: readonly (readonly number[])[];
}

/**
 * Meshes a plate; `size` 1 is the coarsest that serves, smaller ones are finer by so much. Round the joints of `yielding` (by their place
 * in `held`) it stays fine for longer.
 */
export function meshPlate(
  flats: readonly Flat3[],
  held: readonly Held[],
  size: number,
  struck: Vec3 | undefined,
  backing: Backing = NO_BACKING,
  yielding: ReadonlySet<number> = new Set(),
): Result<Meshed> {
  const all = flats.flatMap(f => f.polygon);
  const span = (k: 0 | 1): number => Math.max(...all.map(p => p[k])) - Math.min(...all.map(p => p[k]));
  const H = (Math.max(span(0), span(1)) / ALONG) * size;
  const fine: Fine[] = held.map((h, i) => ({
    at: h.at,
    from: h.radius,
    h: Math.min(H, (2 * Math.PI * h.radius) / RING),
    ...(yielding.has(i) ? { slowly: YIELDING.heads * h.radius } : {}),
  }));
  const dents = yielding.size > 0;
  if (struck)
    fine.push({
      at: struck,
      from: PATCH / 2,
      h: Math.min(H, (PATCH / (dents ? YIELDING.across : ACROSS)) * size),
      ...(dents ? { slowly: PATCH / 2 } : {}),
    });
  for (const f of flats)
    for (const h of f.holes)
      h.forEach((q, i) => {
        const next = h[(i + 1) % h.length] as Vec3;
        const side = Math.hypot(q[0] - next[0], q[1] - next[1], q[2] - next[2]);
        fine.push({ at: q, from: 0, h: h.length > ROUND ? Math.min(H, Math.max(side, H / 4)) : H / INWARD });
      });
  for (const h of held)
    for (const { on } of h.hung?.feet ?? []) fine.push({ at: on, from: 0, h: Math.min(H, 1.5 * h.radius) });
  const bearing = barEdges(backing).flatMap((q): readonly Vec3[] => {
    const on = onPlate(flats, q, EDGE_OFF);
    return on && held.every(h => length3(sub3(h.at, on)) > 1.3 * h.radius) ? [on] : [];
  });
  for (const b of backedPlaces(backing)) fine.push({ at: b.at, from: 0, h: Math.min(H, b.h) });
  // where a flange ends beside more sheet the fold's end is a corner that points inward: stress gathers there
  for (const q of inwardCorners(flats)) fine.push({ at: q, from: 0, h: H / INWARD });
  const spacing = graded(fine, H, size * GROWTH, size * YIELDING.growth);
  const rings = held.map(h => {
    const plane = planeOf((flats[h.flat] as Flat3).polygon);
    return circle(inPlane2(plane, h.at), 2 * h.radius, RING).map(
      ([x, y]): Vec3 => add3(plane.origin, add3(scale3(plane.u, x), scale3(plane.v, y))),
    );
  });
  const mesh = meshShell({
    flats,
    rings: rings.filter(r => r.length > 0),
    points: [
      ...bearing,
      ...held.flatMap(h => [h.at, ...(h.hung?.feet ?? []).map(f => f.on)]),
      ...(struck ? [struck] : []),
    ],
    lines: [],
    spacing,
  });
  if ('fault' in mesh)
    return err(`${mesh.flat} at ${mesh.at.map(v => Math.round(v)).join(', ')}: ${mesh.fault}`);
  const discs = held.map(h => discNodes(mesh, h.at, h.radius));
  return ok({ mesh, discs });
}

/** A joint that hardly holds in its plane: just enough that the sheet does not float away. */
const FREE = { friction: 1, play: 1e6, bearing: 0 } as const;

/**
 * The model of a plate: pressed to its members under every washer, held in its plane as its joints hold, backed up by what it may
 * come up against. A joint without a mount that lies under a crossbar ties the plate to the bar.
 */
export function modelFor(wish: StrikeWish, { mesh: bare, discs }: Meshed, held: readonly Held[]): PlateModel {
  const { folded } = wish;
  const { material, sheet } = folded;
  const t = sheet.thickness;
  const plateNodes = bare.coordinates.length / 3;
  const bars = backed(wish.backing ?? NO_BACKING, plateNodes, n => {
    const [x, y, z] = nodeAt(bare, n);
    return [x, y, z + t];
  });
  const hangers = hangersOf(wish);
  const hung = hungOn(
    hangers.ok ? hangers.value : [],
    held.flatMap((h, i) => {
      if (!h.hung) return [];
      const { n } = planeOf((plateFlatsOf(folded)[h.flat] as Flat3).polygon);
      return [
        {
          joint: h.joint.id,
          at: h.joint.at,
          nodes: discs[i] as readonly number[],
          normal: n[2] < 0 ? scale3(n, -1) : n,
          feet: h.hung.feet,
        },
      ];
    }),
    bare,
    t,
    plateNodes + bars.nodes.length,
  );
  const more = [...bars.nodes, ...hung.nodes];
  const coordinates = new Float64Array(3 * (plateNodes + more.length));
  coordinates.set(bare.coordinates);
  more.forEach((p, i) => {
    coordinates.set(p, 3 * (plateNodes + i));
  });
  const mesh = { ...bare, coordinates };
  const heldAt = new Uint8Array(2 * coordinates.length);
  const springs: JointSpring[] = [];
  const ties: ExtraElement[] = [];
  const pressed: ExtraElement[] = [];
  const touching = new Set<number>();
  const barNodeOf = new Map<string, number>();
  for (const f of [...bars.held, ...hung.held]) heldAt[f] = 1;
  held.forEach((h, i) => {
    const nodes = discs[i] as readonly number[];
    if (h.hung) return;
    const bar = barOf(wish, h);
    if (bar) {
      const own = plateNodes + nearestTo(bars.nodes, h.at);
      const { n: up } = planeOf((plateFlatsOf(folded)[h.flat] as Flat3).polygon);
      for (const n of nodes) {
        touching.add(n);
        const middle = add3(nodeAt(bare, n), scale3(up, (up[2] < 0 ? -t : t) / 2));
        ties.push(onArm(n, own, sub3(middle, bars.nodes[own - plateNodes] as Vec3)));
      }
      barNodeOf.set(h.joint.id, own);
      return;
    }
    for (const n of nodes) touching.add(n);
    const { u, v, n: normal } = planeOf((plateFlatsOf(folded)[h.flat] as Flat3).polygon);
    const level = Math.abs(normal[2]) > LEVEL;
    const fixed = wish.hold === 'held';
    for (const n of nodes) {
      if (fixed) heldAt.fill(1, DOF_PER_NODE * n, DOF_PER_NODE * (n + 1));
      else if (level) heldAt.set([0, 0, 1, 1, 1, 1], DOF_PER_NODE * n);
      else {
        // pitched sheet is pressed on along its own normal, and slides in its own plane
        heldAt.set([0, 0, 0, 1, 1, 1], DOF_PER_NODE * n);
        pressed.push(pressedOn(n, normal));
      }
    }
    if (!fixed && nodes.length > 0)
      springs.push({
        id: h.joint.id,
        nodes,
        ...(level ? {} : { axes: [u, v] as const }),
        ...(wish.hold === 'free'
          ? FREE
          : {
              friction: Math.max(500, FRICTION * h.joint.preloadN * Math.max(1, h.joint.joint.panels.length)),
              play: PLAY * h.joint.thread.d,
              bearing: BEARING * material.E * t,
            }),
      });
  });
  return {
    mesh,
    thickness: t,
    elastic: { E: material.E, nu: material.nu },
    yield: material.yield,
    held: heldAt,
    extra: [...bars.extra, ...hung.extra, ...ties, ...pressed],
    ties: [...hung.ties, ...ties],
    springs,
    contacts: [...bars.contacts.filter(c => !touching.has(c.node)), ...hung.contacts],
    load: new Float64Array(2 * coordinates.length),
    hung,
    barNodeOf,
  };
}

/** A plate's model, and the brackets in it. */
export interface PlateModel extends ShellModel {
  /** of `extra`: what ties the plate's nodes to those of bars and brackets */
  readonly ties: readonly ExtraElement[];
  /** the node of a crossbar that a joint ties the plate to */
  readonly barNodeOf: ReadonlyMap<string, number>;
  readonly hung: Hung;
}

/** The crossbar a joint ties its plate to: the one its hole is in, or without a hole the one over it. */
export const barOf = (wish: StrikeWish, h: Held): Crossbar | undefined =>
  wish.backing?.crossbars.find(c =>
    h.joint.mount ? h.joint.mount.member === c.id : underBar(c, h.at) !== undefined,
  );

/** Flats whose normal stands up by more than this are taken as level: 0.8 degrees. */
const LEVEL = 0.9999;
/** How stiffly pitched sheet is pressed on along its normal, N/mm a node: it gives some hundredths under any bolt. */
const PRESSED = 300_000;
const pressedOn = (node: number, n: Vec3): ExtraElement => {
  const k = new Float64Array(36);
  for (let i = 0; i < 3; i++)
    for (let j = 0; j < 3; j++) k[6 * i + j] = PRESSED * (n[i] as number) * (n[j] as number);
  return { nodes: [node], k };
};

/** Force with which pitched sheet is pressed on at a node, N along its normal. */
export const pressedBack = (node: number, normal: Vec3, u: Float64Array): Vec3 =>
  scale3(
    normal,
    -PRESSED *
      [0, 1, 2].reduce((s, c) => s + (normal[c] as number) * (u[DOF_PER_NODE * node + c] as number), 0),
  );

/** The place in a list that lies nearest to another. */
const nearestTo = (places: readonly Vec3[], at: Vec3): number =>
  places.reduce(
    (best, p, i) => (length3(sub3(p, at)) < length3(sub3(places[best] as Vec3, at)) ? i : best),
    0,
  );

const flatsKept = new WeakMap<FoldedPanel, readonly Flat3[]>();
export const plateFlatsOf = (f: FoldedPanel): readonly Flat3[] => {
  const hit = flatsKept.get(f) ?? plateFlats(f);
  flatsKept.set(f, hit);
  return hit;
};

/** Sets a load to a force from below at a place, dragging to the rear by `drag` of it; the share of its patch that is on the plate. */
export const up = (load: Float64Array, mesh: ShellMesh, at: Vec3, force: number, drag = 0): number => {
  load.fill(0);
  return patchLoad(load, mesh, at, [PATCH, PATCH], [drag * force, 0, force], PATCH);
};

const WAYS = [
  'along the vehicle',
  'across it',
  'up and down',
  'by rolling',
  'by pitching',
  'by turning in its plane',
] as const;
export const loose = (model: ShellModel, node: number, freedom: number): string =>
  `it is not held: near ${nodeAt(model.mesh, node)
    .map(v => Math.round(v))
    .slice(0, 2)
    .join(', ')} it moves freely ${WAYS[freedom]}`;
