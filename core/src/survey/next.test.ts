import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { largestDoubt } from './next';

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
