import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import {
  add3,
  circle,
  contains,
  cross3,
  distanceToOutline,
  dot3,
  length3,
  scale3,
  sub3,
  unit3,
  type Vec3,
} from '../geometry';
import { isBracket } from '../plan';
import { err, ok, type Result } from '../units';
import { linearSolver } from './linear';
import { middleFlats } from './middle-flats';
import { multiplierOf, type ShellModel } from './model';
import {
  discNodes,
  type Flat3,
  inPlane2,
  meshShell,
  middleOf,
  nearestNode,
  nodeAt,
  offPlane,
  type Plane3,
  planeOf,
  type ShellMesh,
} from './shell-mesh';
import { graded } from './spacing';
import { DOF_PER_NODE } from './sparse';
import { elasticStress, elementStress } from './stress';

/** Nodes round the disc that a head, washer or nut presses. */
const RING = 8;
/** Elements across a bracket, and across a plate that another is bolted to. */
const ACROSS = 5;
const ACROSS_PLATE = 8;
/** How fast they grow away from a disc, mm a mm. */
const GROWTH = 0.5;
/** A bracket's flat further than this from a bolt's place is not what it holds, mm. */
const REACH = 60;
/** Stress nearer to a bolt than so many radii of its disc is the edge of the disc's, not the bracket's. */
const ROUND_BOLT = 1.3;
/** A foot bears outside so many radii of the disc that holds it; within, the two are one. */
const ROUND_DISC = 1.35;

/** The disc that a joint's head or washer presses, its radius in mm. */
export const pressedRadius = (joint: ResolvedJoint): number =>
  Math.max(8, ...joint.layers.filter(l => l.kind === 'head' || l.kind === 'washer').map(l => l.diameter / 2));

/** Whether a joint holds to the vehicle, not only sheet to sheet. */
export const toVehicle = (j: ResolvedJoint): boolean => j.mount !== undefined || j.member !== undefined;

/** A place where a bracket's foot may bear on the plate under it. */
export interface Foot {
  readonly at: Vec3;
  /** out of the plate, up */
  readonly normal: Vec3;
  readonly joint: string;
}

/** What a bracket's bolt to the vehicle holds it with: N and N·mm about the bolt's place; and the bracket's own sheet there. */
export interface SeatForce {
  readonly joint: ResolvedJoint;
  readonly force: Vec3;
  readonly moment: Vec3;
  readonly flat: Flat3;
}

/**
 * A bracket as a struck plate feels it: held at its bolts to the vehicle, its stiffness seen from the bolts it shares with the plate (and
 * with other brackets) and from the places where its foot bears. `k` is over six moves of every joint in `joints` (x y z and turns about
 * them at the joint's place), then one of every foot along its normal; N, mm.
 */
export interface Condensed {
  readonly panel: FoldedPanel;
  readonly joints: readonly ResolvedJoint[];
  readonly feet: readonly Foot[];
  readonly k: Float64Array;
  /** for the moves of joints and feet: the most stress of von Mises away from its bolts, MPa */
  readonly stress: (q: Float64Array) => number;
  readonly seats: (q: Float64Array) => readonly SeatForce[];
}

/** Axes of a frame whose third is a direction. */
function frameAlong(n: Vec3): readonly [Vec3, Vec3, Vec3] {
  const aside: Vec3 = Math.abs(n[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const u = unit3(sub3(aside, scale3(n, dot3(aside, n))));
  return [u, cross3(n, u), n];
}
type Axes = readonly [Vec3, Vec3, Vec3];
const into = (e: Axes, v: Vec3): Vec3 => [dot3(e[0], v), dot3(e[1], v), dot3(e[2], v)];
const outOf = (e: Axes, v: Vec3): Vec3 =>
  add3(scale3(e[0], v[0]), add3(scale3(e[1], v[1]), scale3(e[2], v[2])));

interface Disc {
  readonly joint: ResolvedJoint;
  readonly flat: Flat3;
  readonly plane: Plane3;
  /** the joint's place on the flat */
  readonly at: Vec3;
  readonly radius: number;
}

/** The flat of a bracket that a joint goes through, and where. */
function discOf(flats: readonly Flat3[], joint: ResolvedJoint): Disc | undefined {
  let best: Disc | undefined;
  let off = REACH;
  for (const flat of flats) {
    const plane = planeOf(flat.polygon);
    const on = inPlane2(plane, joint.at);
    const d = Math.abs(offPlane(plane, joint.at));
    if (
      d >= off ||
      !contains(
        flat.polygon.map(q => inPlane2(plane, q)),
        on,
      )
    )
      continue;
    off = d;
    const at = sub3(joint.at, scale3(plane.n, offPlane(plane, joint.at)));
    best = { joint, flat, plane, at, radius: pressedRadius(joint) };
  }
  return best;
}

/** The edge of a plate bears so near to a bolt, mm, felt at places so far apart. */
const EDGE_REACH = 90;
const EDGE_STEP = 30;

/**
 * Where a foot may bear, outside the disc that holds it: corners and middles of a bracket's sides; of a plate, which is no foot but lies on
 * another in an overlap, places along its edges near the bolt.
 */
const feetOf = ({ flat, at, radius }: Disc, bracket: boolean): readonly Vec3[] =>
  flat.polygon
    .flatMap((p, i): readonly Vec3[] => {
      const along = sub3(flat.polygon[(i + 1) % flat.polygon.length] as Vec3, p);
      const parts = bracket ? 2 : Math.max(2, Math.round(length3(along) / EDGE_STEP));
      return Array.from({ length: parts }, (_, k) => add3(p, scale3(along, k / parts)));
    })
    .filter(p => {
      const off = length3(sub3(p, at));
      return off > ROUND_DISC * radius && (bracket || off < EDGE_REACH);
    });

/** The same places once, where two bolts are near the same edge. */
const once = (feet: readonly Foot[]): readonly Foot[] =>
  feet.filter((f, i) => feet.findIndex(o => length3(sub3(o.at, f.at)) < EDGE_STEP / 2) === i);

/**
 * Condenses a bracket (Guyan 1965: static, exact for what is linear) to what a plate feels of it. `joints` are those that hold it; those to
 * the vehicle hold it fast under their heads. Its feet bear on `onto`, where those lie within. A bracket that nothing holds moves with the plate.
 *
 * Faults name the bolt that passes no sheet of it, or what cannot be meshed.
 */
export function condense(
  panel: FoldedPanel,
  joints: readonly ResolvedJoint[],
  onto: string,
): Result<Condensed> {
  const middle = middleFlats(panel);
  const discs: Disc[] = [];
  for (const j of joints) {
    const d = discOf(middle, j);
    if (!d) return err(`bolt ${j.id} does not pass through ${panel.panel.mark}`);
    discs.push(d);
  }
  const held = discs.filter(d => toVehicle(d.joint));
  const shared = discs.filter(d => !toVehicle(d.joint));
  const bearing = shared.filter(d => d.joint.joint.panels[0] === onto);
  const first = bearing[0] ?? shared[0];
  if (!first) return err(`${panel.panel.mark} is bolted to no plate`);
  const upward = (n: Vec3): Vec3 => (n[2] < 0 ? scale3(n, -1) : n);
  const e = frameAlong(upward(first.plane.n));
  const own = isBracket(panel.panel);
  const felt = bearing
    .filter(d => Math.abs(dot3(d.plane.n, e[2])) > 0.9999)
    .flatMap(d => feetOf(d, own).map(at => ({ at, normal: e[2], joint: d.joint.id })));
  const feet = own ? felt : once(felt);

  // in a frame whose third axis is the foot's normal, so that what bears there is a single move
  const put = (v: Vec3): Vec3 => into(e, v);
  const flats = middle.map(f => ({ ...f, polygon: f.polygon.map(put), holes: f.holes.map(h => h.map(put)) }));
  const sides = flats.map(f =>
    Math.min(...f.polygon.map((p, i) => length3(sub3(p, f.polygon[(i + 1) % f.polygon.length] as Vec3)))),
  );
  const H = Math.max(panel.sheet.thickness, Math.max(...sides) / (own ? ACROSS : ACROSS_PLATE));
  const ringH = (r: number): number => (2 * Math.PI * r) / RING;
  const places = discs.map(d => ({ at: put(d.at), radius: d.radius }));
  const mesh = meshShell({
    flats,
    rings: discs.map((d, i) => {
      const plane = planeOf((flats[middle.indexOf(d.flat)] as Flat3).polygon);
      return circle(inPlane2(plane, (places[i] as { at: Vec3 }).at), 2 * d.radius, RING).map(
        ([x, y]): Vec3 => add3(plane.origin, add3(scale3(plane.u, x), scale3(plane.v, y))),
      );
    }),
    points: [...places.map(p => p.at), ...feet.map(f => put(f.at))],
    lines: [],
    spacing: graded(
      places.map(d => ({ at: d.at, from: d.radius, h: ringH(d.radius) })),
      H,
      GROWTH,
    ),
  });
  if ('fault' in mesh) return err(`${panel.panel.mark}: ${mesh.fault}`);
  return solved(panel, {
    mesh,
    e,
    held,
    shared,
    feet,
    places: { held: held.map(d => put(d.at)), shared: shared.map(d => put(d.at)) },
  });
}

interface Prepared {
  readonly mesh: ShellMesh;
  readonly e: Axes;
  readonly held: readonly Disc[];
  readonly shared: readonly Disc[];
  readonly feet: readonly Foot[];
  /** the discs' middles in the bracket's own frame */
  readonly places: { readonly held: readonly Vec3[]; readonly shared: readonly Vec3[] };
}

/** The moves of all nodes for one move of every joint and foot at a time, and what they push back with. */
function solved(panel: FoldedPanel, p: Prepared): Result<Condensed> {
  const { mesh, e, held, shared, feet } = p;
  const count = mesh.coordinates.length / 3;
  const node = (n: number): Vec3 => nodeAt(mesh, n);
  const seatNodes = held.map((d, i) => discNodes(mesh, p.places.held[i] as Vec3, d.radius));
  const jointNodes = shared.map((d, i) => discNodes(mesh, p.places.shared[i] as Vec3, d.radius));
  const footNodes = feet.map(f => nearestNode(mesh, into(e, f.at)));
  const fixed = new Uint8Array(DOF_PER_NODE * count);
  for (const n of [...seatNodes, ...jointNodes].flat())
    fixed.fill(1, DOF_PER_NODE * n, DOF_PER_NODE * (n + 1));
  for (const n of footNodes) fixed[DOF_PER_NODE * n + 2] = 1;
  const { material, sheet } = panel;
  const model: ShellModel = {
    mesh,
    thickness: sheet.thickness,
    elastic: { E: material.E, nu: material.nu },
    held: fixed,
    extra: [],
    load: new Float64Array(DOF_PER_NODE * count),
  };
  const solver = linearSolver(model);
  if ('mechanism' in solver) return err(`${panel.panel.mark} falls apart in the model`);
  const times = multiplierOf(model);

  /** moves of the nodes of what is led, by one of what leads them */
  const led: { readonly nodes: readonly number[]; readonly lever: (n: number) => readonly number[] }[] = [];
  shared.forEach((d, i) => {
    const from = into(e, d.joint.at);
    for (let f = 0; f < DOF_PER_NODE; f++)
      led.push({
        nodes: jointNodes[i] as readonly number[],
        lever: n => {
          const out = [0, 0, 0, 0, 0, 0];
          out[f] = 1;
          if (f > 2) {
            const axis: Vec3 = [f === 3 ? 1 : 0, f === 4 ? 1 : 0, f === 5 ? 1 : 0];
            cross3(axis, sub3(node(n), from)).forEach((v, c) => {
              out[c] = v;
            });
          }
          return out;
        },
      });
  });
  for (const n of footNodes) led.push({ nodes: [n], lever: () => [0, 0, 1, 0, 0, 0] });

  const size = led.length;
  const shapes = led.map(({ nodes, lever }) => {
    const given = new Float64Array(DOF_PER_NODE * count);
    for (const n of nodes) given.set(lever(n), DOF_PER_NODE * n);
    const push = times(given);
    for (let i = 0; i < push.length; i++) push[i] = fixed[i] ? 0 : -(push[i] as number);
    const u = solver.solve(push);
    for (let i = 0; i < u.length; i++) u[i] = (u[i] as number) + (given[i] as number);
    return u;
  });
  const pushes = shapes.map(times);
  const own = new Float64Array(size * size);
  for (let j = 0; j < size; j++)
    led.forEach(({ nodes, lever }, i) => {
      let s = 0;
      for (const n of nodes)
        lever(n).forEach((v, c) => {
          s += v * ((pushes[j] as Float64Array)[DOF_PER_NODE * n + c] as number);
        });
      own[size * i + j] = s;
    });
  const turned = turnedInto(e, shared.length, feet.length);
  const combined = (parts: readonly Float64Array[], q: Float64Array): Float64Array => {
    const l = turned(q);
    const out = new Float64Array(DOF_PER_NODE * count);
    parts.forEach((u, j) => {
      const s = l[j] as number;
      if (s !== 0) for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + s * (u[i] as number);
    });
    return out;
  };
  const away = (at: Vec3): boolean =>
    held.every((d, i) => length3(sub3(at, p.places.held[i] as Vec3)) > ROUND_BOLT * d.radius) &&
    shared.every((d, i) => length3(sub3(at, p.places.shared[i] as Vec3)) > ROUND_BOLT * d.radius);
  return ok({
    panel,
    joints: shared.map(d => d.joint),
    feet,
    k: seenFrom(own, size, turned),
    stress: q => {
      const s = elasticStress(model, combined(shapes, q));
      let most = 0;
      for (let t = 0; t < mesh.flatOf.length; t++) {
        if (away(middleOf(mesh, t))) most = Math.max(most, elementStress(s, t));
      }
      return most;
    },
    seats: q => {
      const f = combined(pushes, q);
      return held.map((d, i) => {
        let [force, moment]: [Vec3, Vec3] = [
          [0, 0, 0],
          [0, 0, 0],
        ];
        for (const n of seatNodes[i] as readonly number[]) {
          const at = (k: number): Vec3 => [
            f[DOF_PER_NODE * n + k] as number,
            f[DOF_PER_NODE * n + k + 1] as number,
            f[DOF_PER_NODE * n + k + 2] as number,
          ];
          force = add3(force, at(0));
          moment = add3(moment, add3(at(3), cross3(sub3(node(n), p.places.held[i] as Vec3), at(0))));
        }
        return { joint: d.joint, force: outOf(e, force), moment: outOf(e, moment), flat: d.flat };
      });
    },
  });
}

/** Moves of joints and feet in the vehicle's axes, seen from a bracket's own. */
const turnedInto =
  (e: Axes, joints: number, feet: number) =>
  (q: Float64Array): Float64Array => {
    const out = new Float64Array(DOF_PER_NODE * joints + feet);
    for (let h = 0; h < 2 * joints; h++)
      into(e, [q[3 * h] as number, q[3 * h + 1] as number, q[3 * h + 2] as number]).forEach((v, c) => {
        out[3 * h + c] = v;
      });
    for (let i = DOF_PER_NODE * joints; i < out.length; i++) out[i] = q[i] as number;
    return out;
  };

/** A stiffness in a bracket's own axes as the vehicle's see it. */
function seenFrom(own: Float64Array, size: number, turned: (q: Float64Array) => Float64Array): Float64Array {
  const T = Array.from({ length: size }, (_, j) => {
    const q = new Float64Array(size);
    q[j] = 1;
    return turned(q);
  });
  const k = new Float64Array(size * size);
  const half = new Float64Array(size);
  for (let j = 0; j < size; j++) {
    half.fill(0);
    for (let a = 0; a < size; a++)
      for (let b = 0; b < size; b++)
        half[a] = (half[a] as number) + (own[size * a + b] as number) * ((T[j] as Float64Array)[b] as number);
    for (let i = 0; i < size; i++) {
      let s = 0;
      for (let a = 0; a < size; a++) s += ((T[i] as Float64Array)[a] as number) * (half[a] as number);
      k[size * i + j] = s;
    }
  }
  return k;
}

const kept = new WeakMap<FoldedPanel, Map<string, Result<Condensed>>>();
/** The same, made once for a bracket and the bolts that hold it. */
export function condensed(
  panel: FoldedPanel,
  joints: readonly ResolvedJoint[],
  onto: string,
): Result<Condensed> {
  const key = JSON.stringify([
    onto,
    joints.map(j => [j.id, j.at, pressedRadius(j), toVehicle(j), j.joint.panels]),
  ]);
  const known = kept.get(panel) ?? new Map<string, Result<Condensed>>();
  kept.set(panel, known);
  const hit = known.get(key) ?? condense(panel, joints, onto);
  known.set(key, hit);
  return hit;
}

/** Whether a foot's place lies on a flat, off its edge, and where on the flat's plane. */
export function footOn({ at, normal }: Foot, flat: Flat3): Vec3 | undefined {
  const plane = planeOf(flat.polygon);
  if (Math.abs(dot3(plane.n, normal)) < 0.9999) return undefined;
  const on = inPlane2(plane, at);
  const outline = flat.polygon.map(q => inPlane2(plane, q));
  if (!contains(outline, on) || distanceToOutline(outline, on) < 2) return undefined;
  return sub3(at, scale3(plane.n, offPlane(plane, at)));
}
