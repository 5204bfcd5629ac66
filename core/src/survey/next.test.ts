import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { length3, sub3, type Vec3 } from '../geometry';
import { READING_SIGMA } from '../rig';
import { surveyed } from '../testing';
import { adjusted } from './adjust';
import { netOf } from './net';
import { largestDoubt, nextReadings } from './next';

const unit = fc.double({ min: -1, max: 1, noNaN: true });
const row = fc.tuple(unit, unit, unit);

describe('the largest doubt of a place', () => {
  it('is the root of the greatest eigenvalue of its covariance', () => {
    fc.assert(
      fc.property(fc.tuple(row, row, row), fc.array(row, { minLength: 20, maxLength: 20 }), (m, ways) => {
        // m mᵀ is a covariance
        const c = m.map(a => m.map(b => a.reduce((s, v, k) => s + v * (b[k] as number), 0)));
        const most = largestDoubt(c) ** 2;
        const [p, q, r] = c.map((v, i) => v.map((x, j) => x - (i === j ? most : 0))) as [
          number[],
          number[],
          number[],
        ];
        const det =
          p[0]! * (q[1]! * r[2]! - q[2]! * r[1]!) -
          p[1]! * (q[0]! * r[2]! - q[2]! * r[0]!) +
          p[2]! * (q[0]! * r[1]! - q[1]! * r[0]!);
        expect(Math.abs(det)).toBeLessThan(1e-9 * (1 + most) ** 3);
        // in no direction is more
        for (const w of ways) {
          const l = Math.hypot(...w);
          if (l < 1e-6) continue;
          const there = c.reduce(
            (s, v, i) => s + v.reduce((t, x, j) => t + (x * (w[i] as number) * (w[j] as number)) / l / l, 0),
            0,
          );
          expect(there).toBeLessThanOrEqual(most + 1e-9);
        }
      }),
    );
  });

  it.each([
    [[4, 9, 1], 3],
    [[2, 2, 2], Math.SQRT2],
    [[0, 0, 0], 0],
    [[0, 0, 25], 5],
  ] as const)('is read off a diagonal of %s as %d', (d, expected) => {
    expect(largestDoubt(d.map((v, i) => d.map((_, j) => (i === j ? v : 0))))).toBeCloseTo(expected, 12);
  });
});

describe('what to measure next', () => {
  it.each([1, 2, 3, 4])('is what of all readings lowers the largest doubt most (survey %i)', seed => {
    const { survey } = surveyed(seed, { points: 12, tapes: 3, photos: 2, k1: 0 });
    const { solution } = adjusted(netOf(survey));
    const { net, state, unknowns, cofactors } = solution;
    const n = unknowns.count;
    const column = (i: number, k: number): number => unknowns.point.get(i)?.[k] ?? -1;
    const c = (u: number, v: number): number => (u < 0 || v < 0 ? 0 : (cofactors[u * n + v] as number));
    /** the largest doubt of all points once what a row of slopes is read to `sigma` */
    const doubtsAfter = (row: Float64Array, sigma: number): readonly number[] => {
      const col = Float64Array.from({ length: n }, (_, u) => row.reduce((s, a, v) => s + a * c(u, v), 0));
      const v = sigma ** 2 + row.reduce((s, a, u) => s + a * (col[u] as number), 0);
      return [...state.at.keys()].map(i =>
        largestDoubt(
          [0, 1, 2].map(a =>
            [0, 1, 2].map(b => {
              const [p, q] = [column(i, a), column(i, b)];
              return p < 0 || q < 0 ? 0 : c(p, q) - ((col[p] as number) * (col[q] as number)) / v;
            }),
          ),
        ),
      );
    };
    const now = doubtsAfter(new Float64Array(n), 1);
    const worst = now.indexOf(Math.max(...now));
    const taken = new Set(
      net.readings.flatMap(r => [`${r.from} ${r.to}`, `${r.to} ${r.from}`, `${r.kind} ${r.point}`]),
    );
    let best = { said: '', gain: 0 };
    const tried = (said: string, slopes: readonly (readonly [number, Vec3])[], sigma: number): void => {
      if (taken.has(said)) return;
      const row = new Float64Array(n);
      for (const [i, by] of slopes)
        by.forEach((a, k) => {
          const u = column(i, k);
          if (u >= 0) row[u] = a;
        });
      const gain = (now[worst] as number) - (doubtsAfter(row, sigma)[worst] as number);
      if (gain > best.gain) best = { said, gain };
    };
    const id = (i: number): string => net.points[i]?.id ?? '';
    const places = [...state.at];
    places.forEach(([i, a], k) => {
      tried(`height ${id(i)}`, [[i, [0, 0, 1]]], READING_SIGMA.height);
      for (const [j, b] of places.slice(k + 1)) {
        const d = sub3(b, a);
        const l = length3(d);
        if (l < 80 || l > 5000) continue;
        const to = d.map(v => v / l) as unknown as Vec3;
        tried(
          `${id(i)} ${id(j)}`,
          [
            [i, to.map(v => -v) as unknown as Vec3],
            [j, to],
          ],
          READING_SIGMA.distance,
        );
      }
    });
    const [first] = nextReadings(solution);
    expect(first?.kind === 'height' ? `height ${first.point}` : `${first?.from} ${first?.to}`).toBe(
      best.said,
    );
    expect(first?.gain).toBeCloseTo(best.gain, 6);
  });
});
