import { contains, length3, sub3, type Vec3 } from '../geometry';
import { underBar } from '../plan';
import { dentForce } from '../sheet';
import { err, ok, type Result } from '../units';
import { toVehicle } from './condensed';
import { DENT_LIMIT } from './denting';
import { energyError } from './energy-error';
import { bracketForces, hangersOf } from './hung';
import { reactionOf, seatReactions } from './joint-reaction';
import { type LinearSolver, linearSolver } from './linear';
import { pushedBack, type ShellModel } from './model';
import { solveLarge } from './newton';
import { gapOver, onPlate } from './on-plate';
import {
  type Held,
  heldBy,
  loose,
  type Meshed,
  meshPlate,
  modelFor,
  type PlateModel,
  plateFlatsOf,
  up,
} from './plate-model';
import { ring } from './ring';
import { shakenShare } from './road';
import { reaching } from './screens';
import { type Flat3, middleOf, nodeAt, type ShellMesh } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';
import { elasticStress, elementStress, faceStressAt } from './stress';
import { PATCH, type StrikeAnswer, type StrikeWish } from './strike-wish';
import { type Coarse, worstPlace } from './worst-place';

/** Past its yield the sheet hardens by this part of its modulus: little, so that dents are not made small (a guess). */
const HARDENING = 200;
/**
 * An estimated error of the mesh above this asks for one finer by so much; at the finest, or beyond so many nodes, it stays. On the
 * demo plates the estimate was 1.1 to 10 times the truth, and what was accepted within 2 % of it (docs/method.md).
 */
const MESH_ERROR = 0.035;
/** A plate that gives more than this by small deflections gives way or is folded: its dent is no question of the mesh, mm. */
const HOPELESS = 300;
const FINER = 0.7;
const FINEST = 0.34;
const MOST_NODES = 1100;
/** A mesh that is finer for the dent's sake has no more nodes than this, or it is not taken. */
const MOST_FOR_DENT = 1000;
/** A plate that rises further than this has given way, mm. */
const GIVES_WAY = 90;

/**
 * Strikes a plate from below: finds its worst place unless one is told, and answers with the theory the answer needs: small
 * deflections up to half a thickness, large ones beyond, and with yielding where the sheet passes its yield. Bolted joints press
 * the sheet to their members under head or washer and hold it in its plane by friction, play and shank; crossbars (and members,
 * where asked) back it up from above. An estimate: welds, fatigue, loosening and the give of the frame are not in it.
 */
export function strikePlate(wish: StrikeWish, now: () => number = () => 0): Result<StrikeAnswer> {
  const t0 = now();
  const { folded } = wish;
  const flats = plateFlatsOf(folded);
  const hangers = hangersOf(wish);
  if (!hangers.ok) return hangers;
  const held = heldBy(flats, folded.panel.id, wish.joints, hangers.value);
  const fast = held.some(h => !h.hung) || (wish.brackets ?? []).some(b => b.joints.some(toVehicle));
  if (!fast) return err('no bolt holds it');
  const place = wish.at ? onPlate(flats, wish.at) : undefined;
  if (wish.at && !place) return err('there is no sheet at that place');
  const worst = place ? ok({ at: place, coarse: undefined }) : worstPlace(wish, flats, held);
  if (!worst.ok) return worst;
  const { at, coarse } = worst.value;
  const reaches = reaching(wish.screens, flats, at);
  if (reaches === 0)
    return err('plates that hang lower lie under all of that place: the rock does not reach it');
  const felt = { ...wish, force: wish.force * reaches };
  const weight = wish.fallMm === undefined ? ok(1) : weightOf(felt, flats, held, at, wish.fallMm);
  if (!weight.ok) return weight;
  const force = felt.force / weight.value;
  const start = meshed({ ...wish, force }, flats, held, at, coarse);
  if (!start.ok) return start;
  const { model, discs, solver, meshError, plateNodes } = start.value;
  const t = model.thickness;
  const rings = ring(model, solver, folded.material.density);
  const shaken = shakenShare(model, rings, folded.material, held);
  let { u, stress } = start.value;
  let inner: Float64Array | undefined;
  let theory = 'small deflections, elastic';
  let dentMm: number | undefined = 0;
  let reached = 1;
  let gaveWayAt: number | undefined;
  let dentsAt: number | undefined;
  const most = (): number => mostUp(u, plateNodes);
  const peak = (): number => peakStress(model, stress, held, at);
  const leans = (model.contacts ?? []).length > 0;
  const fall = wish.fallMm === undefined ? undefined : { weight: weight.value, heightMm: wish.fallMm };
  let stops = 1;
  let borne = true;
  if (!wish.placeOnly && (fall || leans || most() > t / 2 || peak() > folded.material.yield)) {
    const large = solveLarge(model, {
      plastic: true,
      unload: !wish.noDent,
      hardening: folded.material.E / HARDENING,
      tolerance: 1e-3,
      most: wish.givesWayAt ?? GIVES_WAY,
      ...(fall ? { fall } : {}),
      // a mesh that was told is a look: what it asks for is the dent itself
      ...(wish.size === undefined
        ? { dent: { limit: DENT_LIMIT, of: rest => Math.max(0, mostUp(rest, plateNodes)) } }
        : {}),
    });
    if ('mechanism' in large) return err(loose(model, large.node, large.freedom));
    if (large.reached === 0) return err('no solution found at any load');
    ({ u, inner, stress, gaveWayAt } = large);
    // what a fall is stopped with is the whole of its load
    stops = fall ? large.reached : 1;
    borne = large.done;
    reached = large.reached / stops;
    theory = large.yielded ? 'large deflections, elastic-plastic' : 'large deflections, elastic';
    if (large.yielded) dentMm = large.rest && Math.max(0, mostUp(large.rest, plateNodes));
    ({ dentsAt } = large);
  }
  const over = gapsLeft(wish, model, u, plateNodes);
  const balance = { model, flats, inner: inner ?? pushedBack(model, u), u, reached: stops * reached };
  const reactionsN = [
    ...held.map((h, i) => reactionOf(wish, balance, h, discs[i] as readonly number[])),
    ...seatReactions(model.hung, u),
  ];
  const { mesh } = model;
  const moves = new Float32Array(3 * plateNodes);
  for (let n = 0; n < plateNodes; n++)
    for (let k = 0; k < 3; k++) moves[3 * n + k] = u[DOF_PER_NODE * n + k] as number;
  return ok({
    panel: folded.panel.id,
    forceN: (stops * force) / reaches,
    ...(reaches < 1 ? { reaches } : {}),
    ...(fall ? { fall: { weightN: wish.force, heightMm: fall.heightMm, stops: borne } } : {}),
    at,
    deflectionMm: most(),
    gapMm: over.gaps[0]?.gapMm,
    gapTo: over.gaps[0]?.component,
    gaps: over.gaps,
    vonMisesMPa: peak(),
    yieldMPa: folded.material.yield,
    dentMm,
    dentForceN: dentForce(folded.material, t),
    ...(dentsAt === undefined ? {} : { dentingN: (dentsAt * force) / reaches }),
    ringHz: rings.hz,
    ...(shaken === undefined ? {} : { shakenShare: shaken }),
    reached,
    ...(gaveWayAt === undefined ? {} : { gaveWayAt: gaveWayAt / stops }),
    reactionsN,
    leansOn: leantOn(wish, model, u),
    brackets: bracketForces(model.hung, u),
    theory,
    meshError,
    nodes: plateNodes,
    solveMs: now() - t0,
    picture: {
      coordinates: Float32Array.from(mesh.coordinates.subarray(0, 3 * plateNodes)),
      triangles: Uint32Array.from(mesh.triangles),
      moves,
      gaps: over.atNodes,
      stress: nodeStress(model, stress, folded.material.yield, plateNodes),
    },
  });
}

/** More than this a sudden load does not count in what is meshed for it. */
const MOST_TIMES = 30;

/**
 * What a weight that falls from so high is of the force that small deflections have stop it (Timoshenko, Strength of Materials, part I):
 * the plate is meshed for that force, and what really stops it is looked for by the way from there.
 */
function weightOf(
  wish: StrikeWish,
  flats: readonly Flat3[],
  held: readonly Held[],
  at: Vec3,
  heightMm: number,
): Result<number> {
  const small = solvedOn(wish, meshPlate(flats, held, wish.size ?? 1, at, wish.backing), held, at);
  if (!small.ok) return small;
  const { model, u } = small.value;
  let work = 0;
  for (let i = 0; i < u.length; i++) work += (u[i] as number) * (model.load[i] as number);
  const sag = work / wish.force;
  return ok(1 / Math.min(MOST_TIMES, 1 + Math.sqrt(1 + (2 * heightMm) / sag)));
}

interface Start {
  readonly model: PlateModel;
  readonly discs: readonly (readonly number[])[];
  readonly solver: LinearSolver;
  readonly u: Float64Array;
  readonly stress: Float64Array;
  readonly meshError: number;
  readonly plateNodes: number;
}

/** So many radii round a joint count as its own when it is asked whether the sheet yields there. */
const ROUND_JOINT = 2.2;

/** The joints, by their place in `held`, round which the sheet passes its yield. */
function yieldingAt(model: ShellModel, stress: Float64Array, held: readonly Held[]): ReadonlySet<number> {
  const out = new Set<number>();
  for (let e = 0; e < model.mesh.flatOf.length; e++) {
    if (elementStress(stress, e) < (model.yield ?? Infinity)) continue;
    const c = middleOf(model.mesh, e);
    held.forEach((h, i) => {
      if (length3(sub3(c, h.at)) < ROUND_JOINT * h.radius) out.add(i);
    });
  }
  return out;
}

/** The joints round which the sheet yields by small deflections; none where it gives so much that its dent is hopeless. */
const yieldsIn = (start: Pick<Start, 'model' | 'u' | 'stress' | 'plateNodes'>, held: readonly Held[]) =>
  mostUp(start.u, start.plateNodes) > HOPELESS
    ? new Set<number>()
    : yieldingAt(start.model, start.stress, held);

/**
 * Meshes a plate as finely as its own error asks for, with its solution of small deflections. Where its dent is asked for and the sheet
 * yields round its joints (as the coarse mesh of the search for its worst place has it, or the coarsest of these) it is finer there, unless
 * that would be too large.
 */
function meshed(
  wish: StrikeWish,
  flats: readonly Flat3[],
  held: readonly Held[],
  at: Vec3,
  coarse: Coarse | undefined,
): Result<Start> {
  const plain = (size: number): Result<Start> =>
    solvedOn(wish, meshPlate(flats, held, size, at, wish.backing), held, at);
  if (wish.size !== undefined) return plain(wish.size);
  const seen = coarse && elasticOn(wish, coarse, at);
  let yielding = wish.noDent ? new Set<number>() : seen && yieldsIn(seen, held);
  for (let size = 1; ; size *= FINER) {
    let start: Result<Start> | undefined;
    if (!yielding) {
      start = plain(size);
      if (!start.ok) return start;
      yielding = yieldsIn(start.value, held);
    }
    const made = finerAt(yielding, wish, flats, held, at, size) ?? start ?? plain(size);
    if (!made.ok) return made;
    const { meshError, plateNodes } = made.value;
    if (meshError <= MESH_ERROR || size * FINER < FINEST || plateNodes > MOST_NODES / 1.7) return made;
  }
}

/** A plate made finer round the joints where its sheet yields; undefined where it does nowhere, or that would be too large. */
function finerAt(
  yielding: ReadonlySet<number>,
  wish: StrikeWish,
  flats: readonly Flat3[],
  held: readonly Held[],
  at: Vec3,
  size: number,
): Result<Start> | undefined {
  if (yielding.size === 0) return undefined;
  const mesh = meshPlate(flats, held, size, at, wish.backing, yielding);
  if (!mesh.ok || mesh.value.mesh.coordinates.length / 3 > MOST_FOR_DENT) return undefined;
  const made = solvedOn(wish, mesh, held, at);
  return made.ok ? made : undefined;
}

/** What a model does by small deflections under the force at a place; undefined where no sheet is there. */
function elasticOn(
  { force, drag }: StrikeWish,
  { model, solver, plateNodes }: Coarse,
  at: Vec3,
): Pick<Start, 'model' | 'solver' | 'u' | 'stress' | 'plateNodes'> | undefined {
  if (!(up(model.load, model.mesh, at, force, drag) > 0)) return undefined;
  const u = solver.solve(model.load);
  return { model, solver, plateNodes, u, stress: elasticStress(model, u) };
}

/** A mesh with its model and its solution of small deflections. */
function solvedOn(wish: StrikeWish, made: Result<Meshed>, held: readonly Held[], at: Vec3): Result<Start> {
  if (!made.ok) return made;
  const { mesh, discs } = made.value;
  const model = modelFor(wish, made.value, held);
  const solver = linearSolver(model);
  if ('mechanism' in solver) return err(loose(model, solver.node, solver.freedom));
  const start = elasticOn(wish, { model, solver, plateNodes: mesh.coordinates.length / 3 }, at);
  if (!start) return err('the rock is not under the plate');
  let work = 0;
  for (let i = 0; i < start.u.length; i++) work += (start.u[i] as number) * (model.load[i] as number);
  return ok({ ...start, model, discs, meshError: energyError(model, start.stress, work) });
}

/** Gaps left to every part over the plate, the least first; and over every node to the nearest. */
function gapsLeft(
  wish: StrikeWish,
  model: ShellModel,
  u: Float64Array,
  plateNodes: number,
): { readonly gaps: readonly { component: string; gapMm: number }[]; readonly atNodes: Float32Array } {
  const atNodes = new Float32Array(plateNodes).fill(Number.NaN);
  const gaps = wish.components.flatMap(c => {
    let least: number | undefined;
    for (let n = 0; n < plateNodes; n++) {
      const gap = gapOver(c, nodeAt(model.mesh, n), model.thickness);
      if (gap === undefined) continue;
      const left = gap - (u[DOF_PER_NODE * n + 2] as number);
      if (!((atNodes[n] as number) <= left)) atNodes[n] = left;
      if (least === undefined || left < least) least = left;
    }
    return least === undefined ? [] : [{ component: c.id, gapMm: least }];
  });
  return { gaps: gaps.sort((a, b) => a.gapMm - b.gapMm), atNodes };
}

/** Crossbars and members that the plate has come up against. */
function leantOn(wish: StrikeWish, model: ShellModel, u: Float64Array): readonly string[] {
  const { crossbars = [], members = [] } = wish.backing ?? {};
  const touched = (model.contacts ?? []).filter(
    c =>
      !c.foot &&
      (u[DOF_PER_NODE * c.node + 2] as number) -
        (c.other === undefined ? 0 : (u[DOF_PER_NODE * c.other + 2] as number)) >
        c.gap,
  );
  const at = touched.map(c => nodeAt(model.mesh, c.node));
  return [
    ...crossbars.filter(c =>
      at.some((p, i) => touched[i]?.other !== undefined && underBar(c, p) !== undefined),
    ),
    ...members.filter(m =>
      at.some((p, i) => touched[i]?.other === undefined && contains(m.footprint, [p[0], p[1]])),
    ),
  ].map(x => x.id);
}

/** Stress by yield at every node: the mean over its triangles, the higher face. */
function nodeStress(
  { mesh }: ShellModel,
  stress: Float64Array,
  limit: number,
  plateNodes: number,
): Float32Array {
  const sum = new Float32Array(plateNodes);
  const count = new Uint16Array(plateNodes);
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const share = elementStress(stress, e) / limit;
    for (let i = 0; i < 3; i++) {
      const n = mesh.triangles[3 * e + i] as number;
      sum[n] = (sum[n] as number) + share;
      count[n] = (count[n] as number) + 1;
    }
  }
  return sum.map((s, n) => s / ((count[n] as number) || 1));
}

/** Largest upward move of a node of the plate, mm. */
function mostUp(u: Float64Array, plateNodes: number): number {
  let best = 0;
  for (let n = 0; n < plateNodes; n++) best = Math.max(best, u[DOF_PER_NODE * n + 2] as number);
  return best;
}

/** Stress of von Mises at the struck place, or the most away from bolts (two of their discs' radii off), MPa. */
function peakStress(model: ShellModel, stress: Float64Array, held: readonly Held[], at: Vec3): number {
  const { mesh } = model;
  let most = 0;
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const c = middleOf(mesh, e);
    if (held.some(h => Math.hypot(c[0] - h.at[0], c[1] - h.at[1]) < 2 * h.radius)) continue;
    // the mean of the element's points: a single point next to a corner says little
    most = Math.max(most, elementStress(stress, e));
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
