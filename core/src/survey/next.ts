import { length3, sub3 } from '../geometry';
import { READING_SIGMA } from '../rig';
import type { Solution } from './adjust';
import type { Row } from './solve';

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

/**
 * What to measure next: of all pairs not yet taped and heights not yet read the ones that lower the largest doubt most, one after another,
 * each found as if those before it had been read. By the rank-one update of the covariance: C - C aT a C / (sigma² + a C aT).
 */
export function nextReadings(
  { net, state, unknowns, cofactors }: Solution,
  count = 3,
): readonly NextReading[] {
  const n = unknowns.count;
  if (n === 0) return [];
  const c = Float64Array.from(cofactors);
  const block = (i: number, of: Float64Array): number[][] =>
    [0, 1, 2].map(a =>
      [0, 1, 2].map(b => {
        const [p, q] = [unknowns.point.get(i)?.[a], unknowns.point.get(i)?.[b]];
        return p === undefined || q === undefined ? 0 : (of[p * n + q] as number);
      }),
    );
  const taped = new Set(
    net.readings
      .filter(r => r.kind === 'distance')
      .map(r => [net.index.get(r.from ?? ''), net.index.get(r.to ?? '')].sort().join()),
  );
  const high = new Set(net.readings.filter(r => r.kind === 'height').map(r => net.index.get(r.point ?? '')));
  const slopes = (i: number, by: readonly number[]): (readonly [number, number])[] =>
    (unknowns.point.get(i) ?? []).flatMap((u, k) => (u === undefined ? [] : [[u, by[k] as number] as const]));
  const places = [...state.at];
  const name = (i: number): string => net.points[i]?.id ?? '';
  const all: {
    readonly reading: Omit<NextReading, 'gain'>;
    readonly by: Row['by'];
    readonly sigma: number;
  }[] = [];
  places.forEach(([i, a], k) => {
    if (!high.has(i) && unknowns.point.get(i)?.[2] !== undefined)
      all.push({
        reading: { kind: 'height', point: name(i) },
        by: slopes(i, [0, 0, 1]),
        sigma: READING_SIGMA.height,
      });
    for (const [j, b] of places.slice(k + 1)) {
      if (taped.has([i, j].sort().join())) continue;
      const d = sub3(b, a);
      const l = length3(d);
      if (l < TAPE[0] || l > TAPE[1]) continue;
      const to = d.map(x => x / l);
      const by = [
        ...slopes(
          i,
          to.map(x => -x),
        ),
        ...slopes(j, to),
      ];
      if (by.length > 0)
        all.push({
          reading: { kind: 'distance', from: name(i), to: name(j) },
          by,
          sigma: READING_SIGMA.distance,
        });
    }
  });
  const out: NextReading[] = [];
  const used = new Set<number>();
  while (out.length < count) {
    const worst = places.reduce<{ i: number; doubt: number } | undefined>((w, [i]) => {
      const doubt = largestDoubt(block(i, c));
      return !w || doubt > w.doubt ? { i, doubt } : w;
    }, undefined);
    if (!worst) break;
    const mine = unknowns.point.get(worst.i) ?? [];
    let best: { k: number; gain: number } | undefined;
    const now = block(worst.i, c);
    const g = [0, 0, 0];
    const then = [
      [0, 0, 0],
      [0, 0, 0],
      [0, 0, 0],
    ];
    for (let k = 0; k < all.length; k++) {
      if (used.has(k)) continue;
      const { by, sigma } = all[k] as (typeof all)[number];
      let told = 0;
      for (let p = 0; p < 3; p++) {
        const u = mine[p];
        let s = 0;
        if (u !== undefined) for (const [j, a] of by) s += a * (c[u * n + j] as number);
        g[p] = s;
        told += s * s;
      }
      if (told < 1e-18) continue;
      let v = sigma * sigma;
      for (const [i, a] of by) for (const [j, b] of by) v += a * b * (c[i * n + j] as number);
      for (let p = 0; p < 3; p++)
        for (let q = 0; q < 3; q++)
          (then[p] as number[])[q] = (now[p]?.[q] as number) - ((g[p] as number) * (g[q] as number)) / v;
      const gain = worst.doubt - largestDoubt(then);
      if (!best || gain > best.gain) best = { k, gain };
    }
    if (!best || best.gain < 1e-3) break;
    const chosen = all[best.k];
    if (!chosen) break;
    used.add(best.k);
    out.push({ ...chosen.reading, gain: best.gain });
    const col = Float64Array.from({ length: n }, (_, i) =>
      chosen.by.reduce((s, [j, a]) => s + a * (c[i * n + j] as number), 0),
    );
    const v = chosen.sigma ** 2 + chosen.by.reduce((s, [i, a]) => s + a * (col[i] as number), 0);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++)
        c[i * n + j] = (c[i * n + j] as number) - ((col[i] as number) * (col[j] as number)) / v;
  }
  return out;
}
