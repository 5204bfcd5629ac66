import { length3, sub3 } from '../geometry';
import { READING_SIGMA } from '../rig';
import type { Solution } from './adjust';

/** A reading that would help, and by how much the largest doubt of the point that is known worst falls, mm. */
export interface NextReading {
  readonly kind: 'distance' | 'height';
  readonly from?: string;
  readonly to?: string;
  readonly point?: string;
  readonly gain: number;
}

/** A tape is not laid shorter than this nor hooked farther than that, mm: common practice, no source. */
const TAPE = [80, 5000] as const;

/**
 * The largest doubt of a place in any direction, mm: the root of the greatest eigenvalue of its covariance. Source: Smith, Eigenvalues of a
 * symmetric 3 x 3 matrix, Communications of the ACM 4 (1961).
 */
export function largestDoubt(c: readonly (readonly number[])[]): number {
  const at = (i: number, j: number): number => c[i]?.[j] ?? 0;
  const [x, y, z] = [at(0, 1), at(0, 2), at(1, 2)];
  const mean = (at(0, 0) + at(1, 1) + at(2, 2)) / 3;
  const [a, b, d] = [at(0, 0) - mean, at(1, 1) - mean, at(2, 2) - mean];
  const p = Math.sqrt((a * a + b * b + d * d + 2 * (x * x + y * y + z * z)) / 6);
  if (!(p > 1e-18)) return Math.sqrt(Math.max(0, mean));
  const half = (a * (b * d - z * z) - x * (x * d - z * y) + y * (x * z - b * y)) / (2 * p * p * p);
  const turn = Math.acos(Math.min(1, Math.max(-1, half))) / 3;
  return Math.sqrt(Math.max(0, mean + 2 * p * Math.cos(turn)));
}

/** A reading holds no more unknowns than the axes of two points. */
const AXES = 6;

/** Readings that could be taken: for each the unknowns that it holds, by how much it moves with each, and how well it is read. */
interface Possible {
  readonly of: Omit<NextReading, 'gain'>[];
  readonly sigma: number[];
  /** so many of the next are its own, from `AXES` times its number on */
  readonly width: number[];
  readonly unknown: Int32Array;
  readonly slope: Float64Array;
}

/** All pairs not yet taped and heights not yet read. */
function possibleFrom({ net, state, unknowns }: Solution): Possible {
  const places = [...state.at];
  const size = net.points.length;
  const taped = new Uint8Array(size * size);
  const high = new Uint8Array(size);
  const numberOf = (id: string | undefined): number => net.index.get(id ?? '') ?? -1;
  for (const r of net.readings) {
    const [i, j] = [numberOf(r.from), numberOf(r.to)];
    if (r.kind === 'distance' && i >= 0 && j >= 0) taped[i * size + j] = taped[j * size + i] = 1;
    if (r.kind === 'height') high[numberOf(r.point)] = 1;
  }
  const most = (places.length * (places.length + 1)) / 2;
  const out: Possible = {
    of: [],
    sigma: [],
    width: [],
    unknown: new Int32Array(AXES * most),
    slope: new Float64Array(AXES * most),
  };
  let at = 0;
  const put = (i: number, axis: number, slope: number): void => {
    const u = unknowns.point.get(i)?.[axis];
    if (u === undefined) return;
    out.unknown[at] = u;
    out.slope[at++] = slope;
  };
  const end = (of: Omit<NextReading, 'gain'>, sigma: number): void => {
    const begin = AXES * out.of.length;
    if (at === begin) return;
    out.width.push(at - begin);
    out.sigma.push(sigma);
    at = AXES * out.of.push(of);
  };
  const name = (i: number): string => net.points[i]?.id ?? '';
  places.forEach(([i, a], k) => {
    if (!high[i]) {
      put(i, 2, 1);
      end({ kind: 'height', point: name(i) }, READING_SIGMA.height);
    }
    for (let m = k + 1; m < places.length; m++) {
      const [j, b] = places[m] as (typeof places)[number];
      if (taped[i * size + j]) continue;
      const d = sub3(b, a);
      const l = length3(d);
      if (l < TAPE[0] || l > TAPE[1]) continue;
      for (let axis = 0; axis < 3; axis++) put(i, axis, -(d[axis] as number) / l);
      for (let axis = 0; axis < 3; axis++) put(j, axis, (d[axis] as number) / l);
      end({ kind: 'distance', from: name(i), to: name(j) }, READING_SIGMA.distance);
    }
  });
  return out;
}

/**
 * What to measure next: of all pairs not yet taped and heights not yet read the ones that lower the largest doubt most, one after another,
 * each found as if those before it had been read. By the rank-one update of the covariance: C - C aT a C / (sigma² + a C aT).
 */
export function nextReadings(solution: Solution, count = 3): readonly NextReading[] {
  const { state, unknowns, cofactors } = solution;
  const n = unknowns.count;
  if (n === 0) return [];
  const c = Float64Array.from(cofactors);
  const block = (i: number): number[][] => {
    const own = unknowns.point.get(i) ?? [];
    return [0, 1, 2].map(a =>
      [0, 1, 2].map(b => {
        const [p, q] = [own[a], own[b]];
        return p === undefined || q === undefined ? 0 : (c[p * n + q] as number);
      }),
    );
  };
  const { of, sigma, width, unknown, slope } = possibleFrom(solution);
  /** how the unknown `u` hangs together with the reading `k` */
  const heldWith = (u: number, k: number): number => {
    let s = 0;
    for (let t = AXES * k; t < AXES * k + (width[k] as number); t++)
      s += (slope[t] as number) * (c[u * n + (unknown[t] as number)] as number);
    return s;
  };
  /** what a reading would vary by if it were taken */
  const variance = (k: number): number => {
    let v = (sigma[k] as number) ** 2;
    for (let t = AXES * k; t < AXES * k + (width[k] as number); t++)
      v += (slope[t] as number) * heldWith(unknown[t] as number, k);
    return v;
  };
  const out: NextReading[] = [];
  const used = new Uint8Array(of.length);
  const g = [0, 0, 0];
  const then = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  while (out.length < count) {
    let worst = { i: -1, doubt: -1 };
    for (const i of state.at.keys()) {
      const doubt = largestDoubt(block(i));
      if (doubt > worst.doubt) worst = { i, doubt };
    }
    if (worst.i < 0) break;
    const mine = unknowns.point.get(worst.i) ?? [];
    const now = block(worst.i);
    const whole = worst.doubt ** 2;
    let best = { k: -1, gain: 0 };
    for (let k = 0; k < of.length; k++) {
      if (used[k]) continue;
      let told = 0;
      for (let p = 0; p < 3; p++) {
        const u = mine[p];
        const s = u === undefined ? 0 : heldWith(u, k);
        g[p] = s;
        told += s * s;
      }
      // the greatest eigenvalue falls by no more than this; what cannot beat the best is not looked at closer
      const falls = (v: number): number => worst.doubt - Math.sqrt(Math.max(0, whole - told / v));
      if (told < 1e-18 || falls((sigma[k] as number) ** 2) <= best.gain) continue;
      const v = variance(k);
      if (falls(v) <= best.gain) continue;
      for (let p = 0; p < 3; p++)
        for (let q = 0; q < 3; q++)
          (then[p] as number[])[q] = (now[p]?.[q] as number) - ((g[p] as number) * (g[q] as number)) / v;
      const gain = worst.doubt - largestDoubt(then);
      if (gain > best.gain) best = { k, gain };
    }
    const chosen = of[best.k];
    if (!chosen || best.gain < 1e-3) break;
    used[best.k] = 1;
    out.push({ ...chosen, gain: best.gain });
    const v = variance(best.k);
    const col = Float64Array.from({ length: n }, (_, i) => heldWith(i, best.k));
    for (let i = 0; i < n; i++) {
      const share = (col[i] as number) / v;
      for (let j = 0; j < n; j++) c[i * n + j] = (c[i * n + j] as number) - share * (col[j] as number);
    }
  }
  return out;
}
