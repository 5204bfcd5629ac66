import { type Bent, bentElement, copied, moved, ownMoves, restOf, unbent } from './corotate';
import { BENDING, MEMBRANE, POINTS, planeStress } from './element';
import { type JointSpring, jointForce, jointStiffness } from './joint-spring';
import { type Mechanism, solved } from './linear';
import { incidenceOf, type ShellModel, triangleCount } from './model';
import { faceStresses, type Layers, makeLayers, settle } from './plastic';
import { type Factor, FREEDOMS, factorise, planElimination } from './sparse';
import { stressFrom } from './stress';

export interface LargeAnswer {
  /** displacements under the full load (or what was reached), rotations left out: node · 6 + freedom */
  readonly u: Float64Array;
  /** what the structure pushes back with there */
  readonly inner: Float64Array;
  readonly stress: Float64Array;
  readonly steps: number;
  /** share of the load at which a balance was last found; 1 when all of it is borne */
  readonly reached: number;
  /** true where some layer has passed its yield */
  readonly yielded: boolean;
  /** displacements that stay after unloading */
  readonly rest?: Float64Array;
}

export interface LargeWish {
  readonly plastic: boolean;
  /** takes the load off again, so that what stays is known */
  readonly unload?: boolean;
  /** isotropic hardening, MPa; none unless told */
  readonly hardening?: number;
  /** misfit that counts as balance, as a share of the load */
  readonly tolerance?: number;
}

/** Misfit that counts as balance at the end and on the way there, as shares of the load. */
const TOLERANCE = 1e-6;
const ON_THE_WAY = 2e-3;
/** Below this share of the load a tangent is used again, as long as every round leaves less than this of the misfit. */
const NEAR = 0.02;
const REUSE = 0.45;
const MOST_ROUNDS = 24;
/** Rounds of one answer; a load that asks for more is given up where it stands. */
const MOST_IN_ALL = 100;
/** The first step is short: a flat sheet has yet to find that stretching bears. */
const FIRST_STEP = 0.12;
const LEAST_STEP = 1 / 512;

/**
 * Bears a load in steps, each brought to balance by Newton's method with a halved step where the residual grows; a step that
 * finds no balance is halved, one that finds it quickly is followed by a longer one.
 */
export function solveLarge(model: ShellModel, wish: LargeWish): LargeAnswer | Mechanism {
  const { mesh, load } = model;
  const m = triangleCount(mesh);
  const incidence = incidenceOf(model);
  const plan = planElimination(mesh.coordinates, incidence, model.held);
  const rest = restOf(model);
  const layers: Layers | undefined =
    wish.plastic && model.yield !== undefined
      ? makeLayers(model.elastic, model.yield, wish.hardening ?? 0, m, POINTS)
      : undefined;
  const force = new Float64Array(18);
  const k = new Float64Array(324);
  const inner = new Float64Array(load.length);
  let bent = unbent(model);
  const free = (i: number): boolean => (plan.unknownOf[i] as number) >= 0;
  const extraForce = (): void => {
    // bars and springs bear small deflections: straight from the moves of their nodes
    for (const x of model.extra) {
      const n = x.nodes.length * FREEDOMS;
      const u = new Float64Array(n);
      x.nodes.forEach((node, i) => {
        for (let c = 0; c < 3; c++)
          u[6 * i + c] = (bent.at[3 * node + c] as number) - (mesh.coordinates[3 * node + c] as number);
        const r = bent.turned.subarray(9 * node, 9 * node + 9);
        u[6 * i + 3] = ((r[7] as number) - (r[5] as number)) / 2;
        u[6 * i + 4] = ((r[2] as number) - (r[6] as number)) / 2;
        u[6 * i + 5] = ((r[3] as number) - (r[1] as number)) / 2;
      });
      for (let i = 0; i < n; i++) {
        let s = 0;
        for (let j = 0; j < n; j++) s += (x.k[i * n + j] as number) * (u[j] as number);
        const node = x.nodes[Math.floor(i / FREEDOMS)] as number;
        inner[FREEDOMS * node + (i % FREEDOMS)] = (inner[FREEDOMS * node + (i % FREEDOMS)] as number) + s;
      }
    }
  };
  const slid = (node: number, axis: 0 | 1): number =>
    (bent.at[3 * node + axis] as number) - (mesh.coordinates[3 * node + axis] as number);
  const springs = model.springs ?? [];
  const gather = (): void => {
    inner.fill(0);
    for (let e = 0; e < m; e++) {
      bentElement(model, rest[e] as (typeof rest)[number], e, bent, layers, force, undefined);
      for (let i = 0; i < 18; i++) {
        const at = FREEDOMS * (mesh.triangles[3 * e + Math.floor(i / 6)] as number) + (i % 6);
        inner[at] = (inner[at] as number) + (force[i] as number);
      }
    }
    extraForce();
    for (const j of springs) jointForce(j, slid, inner);
  };
  const tangentOf = (e: number): Float64Array => {
    if (e >= m + model.extra.length)
      return jointStiffness(springs[e - m - model.extra.length] as JointSpring, slid);
    if (e >= m) return (model.extra[e - m] as { k: Float64Array }).k;
    bentElement(model, rest[e] as (typeof rest)[number], e, bent, layers, force, k);
    return k;
  };
  const size = (v: Float64Array): number => {
    let s = 0;
    // moments are set against forces by the sheet's thickness
    for (let i = 0; i < v.length; i++)
      if (free(i)) s += ((v[i] as number) / (i % FREEDOMS < 3 ? 1 : 50)) ** 2;
    return Math.sqrt(s);
  };
  const whole = size(load);
  const residual = new Float64Array(load.length);
  const misfit = (share: number): number => {
    gather();
    for (let i = 0; i < residual.length; i++)
      residual[i] = share * (load[i] as number) - (inner[i] as number);
    return size(residual);
  };
  /** Work of the misfit along a move. */
  const along = (du: Float64Array): number => {
    let s = 0;
    for (let i = 0; i < du.length; i++) if (free(i)) s += (du[i] as number) * (residual[i] as number);
    return s;
  };
  let mechanism: Mechanism | undefined;
  /** Balance at a share of the load, from where it stands; how many rounds it took, or undefined. */
  let rounds = 0;
  const balance = (share: number, last: boolean): number | undefined => {
    let off = misfit(share);
    let factor: Factor | undefined;
    let gain = 1;
    for (let r = 1; r <= MOST_ROUNDS; r++) {
      if (++rounds > MOST_IN_ALL) return undefined;
      // near the balance the tangent of a round before serves again: taking it apart is what costs
      if (!factor || gain > REUSE || off > NEAR * whole) {
        const made = factorise(plan, tangentOf);
        if ('node' in made) {
          mechanism ??= { mechanism: true, ...made };
          return undefined;
        }
        factor = made;
      }
      const du = solved(plan, factor, residual);
      const from = copied(bent);
      const slope0 = along(du);
      moved(bent, du, 1);
      let now = misfit(share);
      // a stretching sheet's first move overshoots, and the next one brings it back
      if (r > 2 || !(now < 1e3 * whole)) {
        // where the misfit along the move has turned or hardly changed, go to where it is nought by the secant
        let [at, slope] = [1, along(du)];
        for (let i = 0; i < 3 && !(Math.abs(slope) < 0.5 * Math.abs(slope0)); i++) {
          const next = Number.isFinite(slope) && slope0 > slope ? (at * slope0) / (slope0 - slope) : at / 2;
          at = Math.max(0.1 * at, Math.min(next, 1));
          bent = copied(from);
          moved(bent, du, at);
          now = misfit(share);
          slope = along(du);
          if (at >= 1) break;
        }
      }
      if (!Number.isFinite(now) || now > 1e6 * whole) return undefined;
      gain = now / off;
      off = now;
      if (off < (last ? (wish.tolerance ?? TOLERANCE) : ON_THE_WAY) * whole) return r;
    }
    return undefined;
  };
  let reached = 0;
  let steps = 0;
  let step = FIRST_STEP;
  const go = (to: number): boolean => {
    const sign = Math.sign(to - reached);
    while (Math.abs(to - reached) > 1e-9) {
      const next = reached + sign * Math.min(step, Math.abs(to - reached));
      const before = copied(bent);
      const r = balance(next, Math.abs(next - to) < 1e-9);
      if (r === undefined) {
        if (mechanism && steps === 0) return false;
        bent = before;
        step /= 2;
        if (step < LEAST_STEP || rounds > MOST_IN_ALL) return false;
        continue;
      }
      if (layers) settle(layers);
      reached = next;
      steps++;
      if (r <= 8) step = Math.min(1, step * (layers ? 2 : 4));
    }
    return true;
  };
  const done = go(1);
  if (mechanism && steps === 0) return mechanism;
  gather();
  const u = movesOf(model, bent);
  const held = inner.slice();
  const stress = stressOf(model, rest, bent, layers);
  const share = reached;
  const yielded = layers?.measure.some(v => v > 1e-6) ?? false;
  let after: Float64Array | undefined;
  if (done && wish.unload && layers && yielded) {
    step = 0.35;
    if (go(0)) after = movesOf(model, bent);
  }
  return {
    u,
    inner: held,
    stress,
    steps,
    reached: done ? 1 : share,
    yielded,
    ...(after ? { rest: after } : {}),
  };
}

/** Displacements of the nodes from where they stood at rest. */
function movesOf({ mesh }: ShellModel, bent: Bent): Float64Array {
  const u = new Float64Array(2 * mesh.coordinates.length);
  for (let n = 0; n < mesh.coordinates.length / 3; n++)
    for (let k = 0; k < 3; k++)
      u[FREEDOMS * n + k] = (bent.at[3 * n + k] as number) - (mesh.coordinates[3 * n + k] as number);
  return u;
}

/** Stresses of every triangle as it stands. */
function stressOf(
  model: ShellModel,
  rest: ReturnType<typeof restOf>,
  bent: Bent,
  layers: Layers | undefined,
): Float64Array {
  const D = planeStress(model.elastic);
  const m = triangleCount(model.mesh);
  const out = new Float64Array(18 * m);
  const own = new Float64Array(18);
  const axes = new Float64Array(9);
  const strains = new Float64Array(6 * POINTS);
  for (let e = 0; e < m; e++) {
    const r = rest[e] as (typeof rest)[number];
    ownMoves(model, r, e, bent, axes, own);
    if (!layers) {
      stressFrom(r.B, r.Bb, own, D, model.thickness, out, 18 * e);
      continue;
    }
    for (let p = 0; p < POINTS; p++)
      for (let q = 0; q < 3; q++) {
        let [a, b] = [0, 0];
        for (let j = 0; j < 9; j++) {
          a += (r.B[27 * p + 9 * q + j] as number) * (own[MEMBRANE[j] as number] as number);
          b += (r.Bb[27 * p + 9 * q + j] as number) * (own[BENDING[j] as number] as number);
        }
        strains[6 * p + q] = a;
        strains[6 * p + 3 + q] = b;
      }
    faceStresses(layers, e, POINTS, strains, model.thickness, out);
  }
  return out;
}
