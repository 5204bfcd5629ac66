import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import { add3, circle, contains, dot3, scale3, sub3, type Vec2, type Vec3 } from '../geometry';
import type { Component, Rig } from '../rig';
import { dentForce } from '../sheet';
import { bad, good, type Result, STANDARD_GRAVITY } from '../units';
import { type JointSpring, type JointState, jointForce, meanMove, stateOf } from './joint-spring';
import { type LinearSolver, linearSolver } from './linear';
import { patchLoad } from './load';
import { forceOn, pushedBack, type ShellModel } from './model';
import { solveLarge } from './newton';
import { plateFlats } from './plate-flats';
import { type Flat3, inPlane2, meshShell, planeOf, type ShellMesh } from './shell-mesh';
import { FREEDOMS } from './sparse';
import { elasticStress, faceStressAt, vonMises } from './stress';

/** How a plate is struck: half the heavier axle set down on it, or the same dropped on (a load applied at once counts twice). */
export const STRIKE_CASES = ['set-down', 'ledge-drop'] as const;
export type StrikeCase = (typeof STRIKE_CASES)[number];

/** Side of the square of rock that bears, mm: common practice, no source. */
export const PATCH = 80;
/** Friction of painted sheet on painted member: common practice, no source. */
const FRICTION = 0.2;
/** Play of a bolt in its hole, from its middle, as a share of its diameter (ISO 273, medium). */
const PLAY = 0.05;
/** Stiffness of a bolt's shank in the sheet's hole per mm of thickness, N/mm²: a guess. */
const BEARING = 20_000;
/** Bolts this far off a plate's flat in height do not hold it, mm. */
const REACH = 60;

/** Force of a case, N: half the heavier axle's weight, twice that for a load applied at once (Timoshenko). */
export const strikeForce = (rig: Pick<Rig, 'axles'>, kind: StrikeCase): number =>
  (Math.max(rig.axles.front.massKg, rig.axles.rear.massKg) / 2) *
  STANDARD_GRAVITY *
  (kind === 'ledge-drop' ? 2 : 1);

/** What strikes a plate, and what stands over it. */
export interface StrikeWish {
  readonly folded: FoldedPanel;
  readonly joints: readonly ResolvedJoint[];
  readonly components: readonly Component[];
  readonly force: number;
  /** the place in plan that is struck; the worst there is unless told */
  readonly at?: Vec2;
  /** elements between the plate's ends, for a quick look or a closer one */
  readonly fineness?: number;
}

export interface StrikeReaction {
  readonly joint: string;
  /** that pulls the bolt, and that shears it, N */
  readonly tensionN: number;
  readonly shearN: number;
  readonly state: JointState;
}

export interface StrikeAnswer {
  readonly panel: string;
  readonly forceN: number;
  readonly at: Vec3;
  readonly deflectionMm: number;
  /** least gap left to a part, and which; undefined where nothing stands over the plate */
  readonly gapMm?: number;
  readonly gapTo?: string;
  readonly gaps: readonly { readonly component: string; readonly gapMm: number }[];
  readonly vonMisesMPa: number;
  readonly yieldMPa: number;
  /** dent that stays after the load is off, mm; nought where the sheet does not yield, undefined where that was not found */
  readonly dentMm?: number;
  readonly dentForceN: number;
  readonly ringHz: number;
  readonly reactionsN: readonly StrikeReaction[];
  /** share of the force at which a balance was last found: below 1 the sheet gives way, and the answer stands for that share */
  readonly reached: number;
  readonly theory: string;
  readonly nodes: number;
  readonly solveMs: number;
  /** for the picture: the mesh, and how far every node is moved */
  readonly picture: {
    readonly coordinates: Float32Array;
    readonly triangles: Uint32Array;
    readonly moves: Float32Array;
    /** gap left over every node to the nearest part above it, mm; not a number where there is none */
    readonly gaps: Float32Array;
  };
}

interface Held {
  readonly joint: ResolvedJoint;
  readonly flat: number;
  readonly at: Vec3;
  readonly radius: number;
}

/** Where a plate's joints hold it: the flat over (or under) each, and the disc that head or washer presses. */
function heldBy(flats: readonly Flat3[], panel: string, joints: readonly ResolvedJoint[]): readonly Held[] {
  return joints
    .filter(j => j.joint.panels.includes(panel))
    .flatMap((joint): readonly Held[] => {
      let best: Held | undefined;
      let off = REACH;
      flats.forEach((f, flat) => {
        const plane = planeOf(f.polygon);
        if (Math.abs(plane.n[2]) < 0.3) return;
        const [x, y] = joint.at;
        const z =
          plane.origin[2] -
          (plane.n[0] * (x - plane.origin[0]) + plane.n[1] * (y - plane.origin[1])) / plane.n[2];
        const p: Vec3 = [x, y, z];
        if (
          !contains(
            f.polygon.map(q => inPlane2(plane, q)),
            inPlane2(plane, p),
          )
        )
          return;
        if (Math.abs(z - joint.at[2]) >= off) return;
        off = Math.abs(z - joint.at[2]);
        const pressed = joint.layers
          .filter(l => l.kind === 'head' || l.kind === 'washer')
          .map(l => l.diameter);
        best = { joint, flat, at: p, radius: Math.max(8, ...pressed.map(d => d / 2)) };
      });
      return best ? [best] : [];
    });
}

/** Nodes round the disc of a bolt. */
const RING = 8;

interface Meshed {
  readonly mesh: ShellMesh;
  readonly discs: readonly (readonly number[])[];
}

function meshPlate(
  flats: readonly Flat3[],
  held: readonly Held[],
  fineness: number,
  struck: Vec3 | undefined,
): Result<Meshed> {
  const all = flats.flatMap(f => f.polygon);
  const span = (k: 0 | 1): number => Math.max(...all.map(p => p[k])) - Math.min(...all.map(p => p[k]));
  const H = Math.max(span(0), span(1)) / fineness;
  const fine: { at: Vec3; from: number; h: number }[] = held.map(h => ({
    at: h.at,
    from: h.radius,
    h: Math.min(H, (2 * Math.PI * h.radius) / RING),
  }));
  if (struck) fine.push({ at: struck, from: PATCH / 2, h: Math.min(H, PATCH / 5) });
  for (const f of flats)
    for (const h of f.holes)
      h.forEach((q, i) => {
        const next = h[(i + 1) % h.length] as Vec3;
        const side = Math.hypot(q[0] - next[0], q[1] - next[1], q[2] - next[2]);
        fine.push({ at: q, from: 0, h: Math.min(H, Math.max(side, H / 4)) });
      });
  const spacing = (p: Vec3): number =>
    fine.reduce(
      (h, f) =>
        Math.min(
          h,
          f.h + 0.32 * Math.max(0, Math.hypot(p[0] - f.at[0], p[1] - f.at[1], p[2] - f.at[2]) - f.from),
        ),
      H,
    );
  const rings = held.map(h => {
    const plane = planeOf((flats[h.flat] as Flat3).polygon);
    return circle(inPlane2(plane, h.at), 2 * h.radius, RING).map(
      ([x, y]): Vec3 => add3(plane.origin, add3(scale3(plane.u, x), scale3(plane.v, y))),
    );
  });
  const mesh = meshShell({
    flats,
    rings: rings.filter(r => r.length > 0),
    points: [...held.map(h => h.at), ...(struck ? [struck] : [])],
    lines: [],
    spacing,
  });
  if ('fault' in mesh)
    return bad(`${mesh.flat} at ${mesh.at.map(v => Math.round(v)).join(', ')}: ${mesh.fault}`);
  const discs = held.map(h => {
    const out: number[] = [];
    for (let n = 0; n < mesh.coordinates.length / 3; n++) {
      const d = Math.hypot(
        (mesh.coordinates[3 * n] as number) - h.at[0],
        (mesh.coordinates[3 * n + 1] as number) - h.at[1],
        (mesh.coordinates[3 * n + 2] as number) - h.at[2],
      );
      if (d <= h.radius * 1.08) out.push(n);
    }
    return out;
  });
  return good({ mesh, discs });
}

/** The model of a plate: pressed to its members under every washer, held in its plane as its joints hold. */
function modelFor({ folded }: StrikeWish, { mesh, discs }: Meshed, held: readonly Held[]): ShellModel {
  const { material, sheet } = folded;
  const t = sheet.thickness;
  const heldAt = new Uint8Array(2 * mesh.coordinates.length);
  const springs: JointSpring[] = [];
  held.forEach((h, i) => {
    const nodes = discs[i] as readonly number[];
    const level = Math.abs(planeOf((plateFlatsOf(folded)[h.flat] as Flat3).polygon).n[2]) > 0.999;
    for (const n of nodes) {
      if (level) heldAt.set([0, 0, 1, 1, 1, 1], FREEDOMS * n);
      else heldAt.fill(1, FREEDOMS * n, FREEDOMS * (n + 1));
    }
    if (level && nodes.length > 0)
      springs.push({
        id: h.joint.id,
        nodes,
        friction: Math.max(500, FRICTION * h.joint.preloadN * Math.max(1, h.joint.joint.panels.length)),
        play: PLAY * h.joint.thread.d,
        bearing: BEARING * t,
      });
  });
  return {
    mesh,
    thickness: t,
    elastic: { E: material.E, nu: material.nu },
    yield: material.yield,
    held: heldAt,
    extra: [],
    springs,
    load: new Float64Array(2 * mesh.coordinates.length),
  };
}

const flatsKept = new WeakMap<FoldedPanel, readonly Flat3[]>();
const plateFlatsOf = (f: FoldedPanel): readonly Flat3[] => {
  const hit = flatsKept.get(f) ?? plateFlats(f);
  flatsKept.set(f, hit);
  return hit;
};

const nodeAt = ({ coordinates: c }: ShellMesh, n: number): Vec3 => [
  c[3 * n] as number,
  c[3 * n + 1] as number,
  c[3 * n + 2] as number,
];

/** Upper face of the sheet over a node to a part's underside, mm; undefined where the part is not over it. */
const gapOver = (c: Component, p: Vec3, thickness: number): number | undefined =>
  p[2] < c.zTop && contains(c.footprint, [p[0], p[1]]) ? c.zBottom - p[2] - thickness : undefined;

/** A point of the level middle surface over a place in plan. */
function onPlate(flats: readonly Flat3[], [x, y]: Vec2): Vec3 | undefined {
  let best: Vec3 | undefined;
  for (const f of flats) {
    const plane = planeOf(f.polygon);
    if (Math.abs(plane.n[2]) < 0.3) continue;
    const z =
      plane.origin[2] -
      (plane.n[0] * (x - plane.origin[0]) + plane.n[1] * (y - plane.origin[1])) / plane.n[2];
    const q = inPlane2(plane, [x, y, z]);
    if (
      !contains(
        f.polygon.map(p => inPlane2(plane, p)),
        q,
      )
    )
      continue;
    if (
      f.holes.some(h =>
        contains(
          h.map(p => inPlane2(plane, p)),
          q,
        ),
      )
    )
      continue;
    if (!best || z < best[2]) best = [x, y, z];
  }
  return best;
}

const up = (load: Float64Array, mesh: ShellMesh, at: Vec3, force: number): number => {
  load.fill(0);
  return patchLoad(load, mesh, at, [PATCH, PATCH], [0, 0, force], PATCH);
};

/** Past its yield the sheet hardens by this part of its modulus: little, so that dents are not made small (a guess). */
const HARDENING = 200;
/** Places tried across a plate's longer side in the search for the worst. */
const TRIED = 9;

/**
 * The place where the least gap is left (or, with nothing over the plate, where it gives most), by small deflections on a coarse
 * mesh: one elimination, then a solution for each place. Bolted places are passed over.
 */
function worstPlace(wish: StrikeWish, flats: readonly Flat3[], held: readonly Held[]): Result<Vec3> {
  const coarse = meshPlate(flats, held, 11, undefined);
  if (!coarse.ok) return coarse;
  const model = modelFor(wish, coarse.value, held);
  const solver = linearSolver(model);
  if ('mechanism' in solver) return bad(loose(model, solver.node, solver.freedom));
  const all = flats.flatMap(f => f.polygon);
  const low = [0, 1].map(k => Math.min(...all.map(p => p[k as 0]))) as [number, number];
  const high = [0, 1].map(k => Math.max(...all.map(p => p[k as 0]))) as [number, number];
  const step = Math.max(high[0] - low[0], high[1] - low[1]) / TRIED;
  let best: { at: Vec3; left: number } | undefined;
  for (let x = low[0] + step / 2; x < high[0]; x += step)
    for (let y = low[1] + step / 2; y < high[1]; y += step) {
      const at = onPlate(flats, [x, y]);
      if (!at || held.some(h => Math.hypot(h.at[0] - x, h.at[1] - y) < h.radius + 15)) continue;
      if (up(model.load, model.mesh, at, wish.force) < 0.5) continue;
      const u = solver.solve(model.load);
      const w = movedBy(model.load, u) / wish.force;
      const rest = wish.components.map(c => gapOver(c, at, model.thickness)).filter(g => g !== undefined);
      // what small theory gives is halved: that is about what stretching leaves of it
      const left = Math.min(400, ...rest) - w / 2;
      if (!best || left < best.left) best = { at, left };
    }
  return best ? good(best.at) : bad('there is no place on it to be struck');
}

/** Work of a load on its own moves, N·mm. */
const movedBy = (load: Float64Array, u: Float64Array): number =>
  load.reduce((s, f, i) => s + f * (u[i] as number), 0);

const WAYS = [
  'along the vehicle',
  'across it',
  'up and down',
  'by rolling',
  'by pitching',
  'by turning in its plane',
] as const;
const loose = (model: ShellModel, node: number, freedom: number): string =>
  `it is not held: near ${nodeAt(model.mesh, node)
    .map(v => Math.round(v))
    .slice(0, 2)
    .join(', ')} it moves freely ${WAYS[freedom]}`;

/** First natural frequency, Hz, by inverse iteration with the sheet's mass lumped to its nodes. */
function ring(model: ShellModel, solver: LinearSolver, density: number): number {
  const { mesh } = model;
  const mass = new Float64Array(mesh.coordinates.length / 3);
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const ids = [0, 1, 2].map(i => mesh.triangles[3 * e + i] as number);
    const [a, b, c] = ids.map(n => nodeAt(mesh, n)) as [Vec3, Vec3, Vec3];
    const [u, v] = [sub3(b, a), sub3(c, a)];
    const area =
      Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
    // kg/mm³ · mm³, in tonnes so that N and mm fit
    for (const n of ids) mass[n] = (mass[n] as number) + (area * model.thickness * density * 1e-12) / 3;
  }
  let x = new Float64Array(model.load.length);
  for (let n = 0; n < mass.length; n++) x[FREEDOMS * n + 2] = 1;
  let omega2 = 0;
  for (let i = 0; i < 12; i++) {
    const f = new Float64Array(x.length);
    for (let n = 0; n < mass.length; n++)
      for (let k = 0; k < 3; k++) f[FREEDOMS * n + k] = (mass[n] as number) * (x[FREEDOMS * n + k] as number);
    const y = solver.solve(f);
    // Rayleigh's quotient of the new shape
    let [top, bottom] = [0, 0];
    for (let n = 0; n < mass.length; n++)
      for (let k = 0; k < 3; k++) {
        const at = FREEDOMS * n + k;
        top += (y[at] as number) * (f[at] as number);
        bottom += (mass[n] as number) * (y[at] as number) ** 2;
      }
    const next = bottom > 0 ? top / bottom : 0;
    const scale = 1 / Math.sqrt(bottom || 1);
    x = y.map(v => v * scale) as Float64Array<ArrayBuffer>;
    if (Math.abs(next / omega2 - 1) < 1e-5) {
      omega2 = next;
      break;
    }
    omega2 = next;
  }
  return Math.sqrt(omega2) / (2 * Math.PI);
}

/**
 * Strikes a plate from below: finds its worst place unless one is told, and answers with the theory the answer needs: small
 * deflections up to half a thickness, large ones beyond, and with yielding where the sheet passes its yield. Bolted joints press
 * the sheet to their members under head or washer and hold it in its plane by friction, play and shank. An estimate: welds,
 * fatigue, loosening and the give of the frame are not in it.
 */
export function strikePlate(wish: StrikeWish, now: () => number = () => 0): Result<StrikeAnswer> {
  const t0 = now();
  const { folded } = wish;
  const flats = plateFlatsOf(folded);
  const held = heldBy(flats, folded.panel.id, wish.joints);
  if (held.length === 0) return bad('no bolt holds it');
  let at: Vec3;
  if (wish.at) {
    const given = onPlate(flats, wish.at);
    if (!given) return bad('there is no sheet at that place');
    at = given;
  } else {
    const worst = worstPlace(wish, flats, held);
    if (!worst.ok) return worst;
    at = worst.value;
  }
  const meshed = meshPlate(flats, held, wish.fineness ?? 16, at);
  if (!meshed.ok) return meshed;
  const model = modelFor(wish, meshed.value, held);
  if (!(up(model.load, model.mesh, at, wish.force) > 0)) return bad('the rock falls beside the plate');
  const solver = linearSolver(model);
  if ('mechanism' in solver) return bad(loose(model, solver.node, solver.freedom));
  const t = model.thickness;
  const ringHz = ring(model, solver, folded.material.density);
  let u = solver.solve(model.load);
  let inner: Float64Array = pushedBack(model, u);
  let stress = elasticStress(model, u);
  let theory = 'small deflections, elastic';
  let dentMm: number | undefined = 0;
  let reached = 1;
  const most = (): number => mostDown(model.mesh, u).mm;
  const peak = (): number => peakStress(model, stress, held, at);
  if (most() > t / 2 || peak() > folded.material.yield) {
    const large = solveLarge(model, {
      plastic: true,
      unload: true,
      hardening: folded.material.E / HARDENING,
      tolerance: 1e-4,
    });
    if ('mechanism' in large) return bad(loose(model, large.node, large.freedom));
    if (large.reached === 0) return bad('no balance found under any share of the force');
    ({ u, inner, stress, reached } = large);
    theory = large.yielded ? 'large deflections, elastic-plastic' : 'large deflections, elastic';
    if (large.yielded) dentMm = large.rest && Math.max(0, mostDown(model.mesh, large.rest).mm);
  }
  const gaps = wish.components.flatMap(c => {
    let least: number | undefined;
    for (let n = 0; n < model.mesh.coordinates.length / 3; n++) {
      const gap = gapOver(c, nodeAt(model.mesh, n), t);
      if (gap === undefined) continue;
      const left = gap - (u[FREEDOMS * n + 2] as number);
      if (least === undefined || left < least) least = left;
    }
    return least === undefined ? [] : [{ component: c.id, gapMm: least }];
  });
  gaps.sort((a, b) => a.gapMm - b.gapMm);
  const move = (n: number, axis: 0 | 1): number => u[FREEDOMS * n + axis] as number;
  const reactionsN = held.map((h, i): StrikeReaction => {
    const nodes = meshed.value.discs[i] as readonly number[];
    const [a, b] = [forceOn(inner, nodes), forceOn(model.load, nodes)];
    const R: Vec3 = [a[0] - reached * b[0], a[1] - reached * b[1], a[2] - reached * b[2]];
    const spring = model.springs?.find(s => s.id === h.joint.id);
    const n = planeOf((flats[h.flat] as Flat3).polygon).n;
    const upward = n[2] < 0 ? scale3(n, -1) : n;
    // held in its plane the force passes through the spring, which is no longer part of what the sheet pushes back with
    const [mx, my] = spring ? meanMove(spring, move) : [0, 0];
    const sheet = spring ? sheetForce(model, u, spring) : R;
    const off = dot3(R, upward);
    const plane = sub3(sheet, scale3(upward, dot3(sheet, upward)));
    return {
      joint: h.joint.id,
      tensionN: Math.max(0, off),
      shearN: Math.hypot(...plane),
      state: spring ? stateOf(spring, Math.hypot(mx, my)) : 'held',
    };
  });
  const { mesh } = model;
  const moves = new Float32Array(mesh.coordinates.length);
  for (let n = 0; n < moves.length / 3; n++)
    for (let k = 0; k < 3; k++) moves[3 * n + k] = u[FREEDOMS * n + k] as number;
  const over = new Float32Array(moves.length / 3).fill(Number.NaN);
  for (let n = 0; n < over.length; n++)
    for (const c of wish.components) {
      const gap = gapOver(c, nodeAt(mesh, n), t);
      if (gap === undefined) continue;
      const left = gap - (u[FREEDOMS * n + 2] as number);
      if (!((over[n] as number) <= left)) over[n] = left;
    }
  return good({
    panel: folded.panel.id,
    forceN: wish.force,
    at,
    deflectionMm: most(),
    gapMm: gaps[0]?.gapMm,
    gapTo: gaps[0]?.component,
    gaps,
    vonMisesMPa: peak(),
    yieldMPa: folded.material.yield,
    dentMm,
    dentForceN: dentForce(folded.material, t),
    ringHz,
    reached,
    reactionsN,
    theory,
    nodes: mesh.coordinates.length / 3,
    solveMs: now() - t0,
    picture: {
      coordinates: Float32Array.from(mesh.coordinates),
      triangles: Uint32Array.from(mesh.triangles),
      moves,
      gaps: over,
    },
  });
}

/** What a joint's spring takes in the plane, from its law. */
function sheetForce(model: ShellModel, u: Float64Array, spring: JointSpring): Vec3 {
  const out = new Float64Array(model.load.length);
  jointForce(spring, (n, axis) => u[FREEDOMS * n + axis] as number, out);
  return forceOn(out, spring.nodes);
}

/** Largest upward move of a node, mm. */
function mostDown(mesh: ShellMesh, u: Float64Array): { readonly mm: number; readonly node: number } {
  let best = { mm: 0, node: 0 };
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    const mm = u[FREEDOMS * n + 2] as number;
    if (mm > best.mm) best = { mm, node: n };
  }
  return best;
}

/** Stress of von Mises at the struck place, or the most away from bolts (two of their discs' radii off), MPa. */
function peakStress(model: ShellModel, stress: Float64Array, held: readonly Held[], at: Vec3): number {
  const { mesh } = model;
  let most = 0;
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const c = [0, 1, 2].reduce<Vec3>(
      (s, i) => add3(s, scale3(nodeAt(mesh, mesh.triangles[3 * e + i] as number), 1 / 3)),
      [0, 0, 0],
    );
    if (held.some(h => Math.hypot(c[0] - h.at[0], c[1] - h.at[1]) < 2 * h.radius)) continue;
    // the mean of the element's points: a single point next to a corner says little
    for (const face of [1, -1]) {
      const s = [0, 1, 2].map(k =>
        [0, 1, 2].reduce(
          (sum, p) =>
            sum +
            ((stress[18 * e + 6 * p + k] as number) + face * (stress[18 * e + 6 * p + 3 + k] as number)) / 3,
          0,
        ),
      );
      most = Math.max(most, vonMises(s[0] as number, s[1] as number, s[2] as number));
    }
  }
  const flat = flatUnder(mesh, at);
  const there = faceStressAt({ mesh }, stress, at, PATCH * 0.45, flat);
  return Math.max(most, there.top, there.bottom);
}

/** The flat whose triangles come nearest to a place. */
function flatUnder(mesh: ShellMesh, at: Vec3): number {
  let best = { flat: 0, d: Infinity };
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const p = nodeAt(mesh, mesh.triangles[3 * e] as number);
    const d = Math.hypot(p[0] - at[0], p[1] - at[1], p[2] - at[2]);
    if (d < best.d) best = { flat: mesh.flatOf[e] as number, d };
  }
  return best.flat;
}
