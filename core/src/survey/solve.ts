import { type Factor, factored, length3, solvedBy, sub3, type Vec3 } from '../geometry';
import { type Camera, projected, turned } from './camera';
import { AXES, type Net } from './net';
import { orderOf } from './order';

/** What is unknown: places of points by their index, cameras of photos by theirs. Points and photos that are not in it take no part. */
export interface State {
  readonly at: ReadonlyMap<number, Vec3>;
  readonly cameras: ReadonlyMap<number, Camera>;
}

/** What of a camera is free, beside its place and turn. */
export interface Freed {
  readonly focal: boolean;
  readonly k1: boolean;
  /** focal length that is taken for likely where the marks hardly tell it, px */
  readonly likely?: number;
  /** the radial coefficient is taken for nought, near enough, where the marks hardly tell it */
  readonly straight?: boolean;
}

/** One equation: how far a reading is from what the state says (read less computed), and how that moves with each unknown. */
export interface Row {
  /** place in `net.readings`; undefined for what is held or likely */
  readonly reading?: number;
  readonly off: number;
  readonly sigma: number;
  readonly by: readonly (readonly [unknown: number, slope: number])[];
}

/** Where each unknown stands. */
export interface Unknowns {
  readonly count: number;
  /** by point and axis; undefined where it is held */
  readonly point: ReadonlyMap<number, readonly (number | undefined)[]>;
  /** by photo: the first of its six, of its focal length and of k1 */
  readonly camera: ReadonlyMap<
    number,
    { readonly pose: number; readonly focal?: number; readonly k1?: number }
  >;
}

/** Which unknowns a state has. */
export function unknownsOf(net: Net, state: State, freed: ReadonlyMap<number, Freed>): Unknowns {
  let count = 0;
  const point = new Map<number, readonly (number | undefined)[]>();
  for (const i of orderOf(net)) {
    if (!state.at.has(i)) continue;
    const p = net.points[i];
    point.set(
      i,
      AXES.map((_, k) => (p?.held[k] !== undefined && p.sigma === undefined ? undefined : count++)),
    );
  }
  const camera = new Map<number, { pose: number; focal?: number; k1?: number }>();
  for (const i of state.cameras.keys()) {
    const pose = count;
    count += 6;
    const f = freed.get(i);
    camera.set(i, { pose, ...(f?.focal ? { focal: count++ } : {}), ...(f?.k1 ? { k1: count++ } : {}) });
  }
  return { count, point, camera };
}

/** How well a likely focal length is known, beside itself: phones' main lenses differ by as much. Common practice, no source. */
const LIKELY = 0.25;
/** How far from nought a radial coefficient may well be: phones correct their pictures. Common practice, no source. */
const STRAIGHT = 0.1;

/** What a reading is of, by index in the net: its point or its two ends, and its photo; -1 where it has none. */
interface Ends {
  readonly a: number;
  readonly b: number;
  readonly photo: number;
}
const keptEnds = new WeakMap<Net, readonly Ends[]>();
function endsOf(net: Net): readonly Ends[] {
  const known = keptEnds.get(net);
  if (known) return known;
  const photoAt = new Map(net.survey.photos.map((f, i) => [f.id, i]));
  const at = (id: string | undefined): number => net.index.get(id ?? '') ?? -1;
  const ends = net.readings.map(r => ({
    a: at(r.from ?? r.point),
    b: at(r.to),
    photo: photoAt.get(r.photo ?? '') ?? -1,
  }));
  keptEnds.set(net, ends);
  return ends;
}

type Slope = readonly [unknown: number, slope: number];

/** All equations of a state. Readings to what is not in it are left out. */
export function rowsOf(
  net: Net,
  state: State,
  unknowns: Unknowns,
  freed: ReadonlyMap<number, Freed>,
): readonly Row[] {
  const rows: Row[] = [];
  const ends = endsOf(net);
  /** adds how a reading moves with a point, `times` what is told */
  const slopes = (by: Slope[], i: number, told: ArrayLike<number>, times = 1): void => {
    const own = unknowns.point.get(i);
    if (!own) return;
    for (let k = 0; k < 3; k++) {
      const u = own[k];
      if (u !== undefined) by.push([u, times * (told[k] as number)]);
    }
  };
  for (let reading = 0; reading < net.readings.length; reading++) {
    const r = net.readings[reading] as Net['readings'][number];
    const { a: i, b: j, photo } = ends[reading] as Ends;
    const p = state.at.get(i);
    if (!p) continue;
    const by: Slope[] = [];
    if (r.kind === 'distance') {
      const q = state.at.get(j);
      if (!q) continue;
      const d = sub3(q, p);
      const l = length3(d);
      if (l < 1e-6) continue;
      slopes(by, i, d, -1 / l);
      slopes(by, j, d, 1 / l);
      rows.push({ reading, off: r.value - l, sigma: r.sigma, by });
      continue;
    }
    if (r.kind !== 'pixel') {
      const k = r.kind === 'height' ? 2 : r.axis === 'x' ? 0 : 1;
      const u = unknowns.point.get(i)?.[k];
      if (u !== undefined) by.push([u, 1]);
      rows.push({ reading, off: r.value - (p[k] as number), sigma: r.sigma, by });
      continue;
    }
    const camera = state.cameras.get(photo);
    const u = unknowns.camera.get(photo);
    const f = net.survey.photos[photo];
    if (!camera || !u || !f) continue;
    const at = projected(camera, [f.width, f.height], p);
    if (!at) continue;
    const k = r.axis === 'u' ? 0 : 1;
    const told = at.by[k];
    slopes(by, i, told.place);
    for (let n = 0; n < 3; n++) {
      by.push([u.pose + n, -(told.place[n] as number)]);
      by.push([u.pose + 3 + n, told.turn[n] as number]);
    }
    if (u.focal !== undefined) by.push([u.focal, told.focal]);
    if (u.k1 !== undefined) by.push([u.k1, told.k1]);
    rows.push({ reading, off: r.value - at.px[k], sigma: r.sigma, by });
  }
  for (const [i, at] of state.at) {
    const p = net.points[i];
    const sigma = p?.sigma;
    if (p === undefined || sigma === undefined) continue;
    p.held.forEach((h, k) => {
      const u = unknowns.point.get(i)?.[k];
      if (h !== undefined && u !== undefined) rows.push({ off: h - (at[k] as number), sigma, by: [[u, 1]] });
    });
  }
  for (const [i, c] of state.cameras) {
    const [u, likely] = [unknowns.camera.get(i)?.focal, freed.get(i)?.likely];
    if (u !== undefined && likely !== undefined)
      rows.push({ off: likely - c.focalPx, sigma: LIKELY * likely, by: [[u, 1]] });
    const k1 = unknowns.camera.get(i)?.k1;
    if (k1 !== undefined && freed.get(i)?.straight) rows.push({ off: -c.k1, sigma: STRAIGHT, by: [[k1, 1]] });
  }
  return rows;
}

/** Sum of the squares of what is off, each in its own doubt. */
export const costOf = (rows: readonly Row[]): number => rows.reduce((s, r) => s + (r.off / r.sigma) ** 2, 0);

/** Normal equations: every unknown by those before it (the lower half, row by row), and the right side. */
export function normalOf(
  rows: readonly Row[],
  count: number,
): { readonly n: Float64Array; readonly g: Float64Array } {
  const n = new Float64Array(count * count);
  const g = new Float64Array(count);
  for (const { off, sigma, by } of rows) {
    const w = 1 / (sigma * sigma);
    for (let p = 0; p < by.length; p++) {
      const [i, slope] = by[p] as readonly [number, number];
      const a = w * slope;
      g[i] = (g[i] as number) + a * off;
      for (let q = 0; q < by.length; q++) {
        const other = by[q] as readonly [number, number];
        const at = i * count + other[0];
        if (other[0] <= i) n[at] = (n[at] as number) + a * other[1];
      }
    }
  }
  return { n, g };
}

/** The right side of the normal equations alone. */
function gradientOf(rows: readonly Row[], count: number): Float64Array {
  const g = new Float64Array(count);
  for (const { off, sigma, by } of rows) {
    const a = off / (sigma * sigma);
    for (const [i, slope] of by) g[i] = (g[i] as number) + a * slope;
  }
  return g;
}

/** A state moved along a step of its unknowns. */
export function moved(state: State, unknowns: Unknowns, step: ArrayLike<number>): State {
  const by = (u: number | undefined): number => (u === undefined ? 0 : (step[u] as number));
  return {
    at: new Map(
      [...state.at].map(([i, p]) => {
        const u = unknowns.point.get(i);
        return [i, p.map((x, k) => x + by(u?.[k])) as unknown as Vec3];
      }),
    ),
    cameras: new Map(
      [...state.cameras].map(([i, c]) => {
        const u = unknowns.camera.get(i);
        if (!u) return [i, c];
        return [
          i,
          {
            at: c.at.map((x, k) => x + by(u.pose + k)) as unknown as Vec3,
            turn: turned(c.turn, [by(u.pose + 3), by(u.pose + 4), by(u.pose + 5)]),
            focalPx: Math.max(1, c.focalPx + by(u.focal)),
            k1: c.k1 + by(u.k1),
          },
        ];
      }),
    ),
  };
}

const ROUNDS = 60;
/** It stands still where a round gains less of its cost than this. */
const STILL = 1e-9;
/** It creeps where so many rounds on end gain less than this of its cost each: less than half a doubt of anything is left. */
const [CREEPING, CREEP] = [5, 2e-4];
/** Where only a start is wanted it stands still at this. */
export const ROUGH = 1e-3;
/** So many steps are taken by equations that were factored for the step before them, while each brings this share of what they foretell. */
const [FOLLOWED, FOLLOWS] = [6, 0.5];

/** A state with its equations, and what they are off. */
interface Stand {
  readonly state: State;
  readonly rows: readonly Row[];
  readonly cost: number;
}

/**
 * The state that the readings want, from one near it: weighted least squares by Levenberg and Marquardt, with simplified steps after each
 * while the equations hardly change. Source: Levenberg 1944, Marquardt 1963, as in Hartley and Zisserman, appendix A6.2; Kelley, Iterative
 * Methods for Linear and Nonlinear Equations (the chord method).
 */
export function settled(
  net: Net,
  from: State,
  freed: ReadonlyMap<number, Freed>,
  rounds = ROUNDS,
  still = STILL,
): State {
  const unknowns = unknownsOf(net, from, freed);
  if (unknowns.count === 0) return from;
  const standing = (state: State): Stand => {
    const rows = rowsOf(net, state, unknowns, freed);
    return { state, rows, cost: costOf(rows) };
  };
  let now = standing(from);
  /** where a step leads; undefined where that is no better: a mark that fell behind its camera is no gain */
  const along = (step: Float64Array): Stand | undefined => {
    if (!step.every(Number.isFinite)) return undefined;
    const next = standing(moved(now.state, unknowns, step));
    return next.rows.length === now.rows.length && next.cost <= now.cost ? next : undefined;
  };
  /** what a step can bring at the most */
  const brings = (step: Float64Array, g: Float64Array): number =>
    step.reduce((s, x, i) => s + x * (g[i] as number), 0);
  const atRest = (gain: number): boolean => gain <= still * (1 + now.cost);
  let damping = 1e-4;
  let creeping = 0;
  const room = new Float64Array(unknowns.count ** 2);
  for (let round = 0; round < rounds; round++) {
    const before = now.cost;
    const { n, g } = normalOf(now.rows, unknowns.count);
    let factor: Factor | undefined;
    for (let again = 0; again < 8 && !factor; again++) {
      const tried = factored(n, unknowns.count, damping, room);
      const step = solvedBy(tried, g);
      if (atRest(brings(step, g))) return now.state;
      const next = along(step);
      if (next) {
        now = next;
        factor = tried;
        damping = Math.max(1e-12, damping / 8);
      } else damping *= 6;
    }
    if (!factor || atRest(before - now.cost)) break;
    for (let k = 0; k < FOLLOWED; k++) {
      const slope = gradientOf(now.rows, unknowns.count);
      const step = solvedBy(factor, slope);
      const foretold = brings(step, slope);
      if (atRest(foretold)) return now.state;
      const next = along(step);
      if (!next) break;
      const gain = now.cost - next.cost;
      now = next;
      if (gain < FOLLOWS * foretold) break;
    }
    // along a valley that hardly falls it would creep on: what lies there is not told
    creeping = before - now.cost <= CREEP * (1 + now.cost) ? creeping + 1 : 0;
    if (creeping === CREEPING) break;
  }
  return now.state;
}
