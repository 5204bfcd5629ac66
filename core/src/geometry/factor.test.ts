import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { factored, inverseOf, solvedBy, UNTOLD, varianceAt } from './factor';

/** Normal equations of random observations, some unknowns in none of them with the next: as a survey has them. */
const anyEquations = fc
  .tuple(fc.integer({ min: 1, max: 17 }), fc.integer({ min: 0, max: 1e6 }))
  .map(([count, seed]) => {
    let s = seed;
    const random = (): number => {
      s = (s * 1103515245 + 12345) % 2147483648;
      return s / 2147483648 - 0.5;
    };
    const n = new Float64Array(count * count);
    for (let r = 0; r < 3 * count; r++) {
      const first = Math.floor((random() + 0.5) * count);
      const row = Array.from({ length: count }, (_, i) => (i >= first && i < first + 5 ? random() : 0));
      for (let i = 0; i < count; i++)
        for (let j = 0; j < count; j++)
          n[i * count + j] = (n[i * count + j] as number) + (row[i] as number) * (row[j] as number);
    }
    // each is told a little by itself
    for (let i = 0; i < count; i++) n[i * count + i] = (n[i * count + i] as number) + 0.05;
    const g = Float64Array.from({ length: count }, random);
    return { count, n, g };
  });

describe('equations of as many unknowns as equations', () => {
  it('are solved, inverted and told the doubt of each unknown, odd or even in number', () => {
    fc.assert(
      fc.property(anyEquations, fc.boolean(), ({ count, n, g }, used) => {
        // what stood in the room before is no matter
        const room = used ? new Float64Array(count * count).fill(7) : undefined;
        const factor = factored(n, count, 0, room);
        const x = solvedBy(factor, g);
        const inverse = inverseOf(factor);
        for (let i = 0; i < count; i++) {
          let [left, one] = [0, 0];
          for (let j = 0; j < count; j++) {
            left += (n[i * count + j] as number) * (x[j] as number);
            one += (n[i * count + j] as number) * (inverse[j * count + i] as number);
          }
          expect(left).toBeCloseTo(g[i] as number, 9);
          expect(one).toBeCloseTo(1, 9);
          expect(varianceAt(factor, i)).toBeCloseTo(inverse[i * count + i] as number, 9);
        }
      }),
    );
  });

  it('name the unknown that those before it tell already, and hold it', () => {
    fc.assert(
      fc.property(anyEquations, fc.nat(), ({ count, n, g }, pick) => {
        if (count < 2) return;
        // one unknown goes only together with another before it, as their sum
        const [a, b] = [pick % (count - 1), count - 1];
        const twin = Float64Array.from(n);
        for (let i = 0; i < count; i++) twin[i * count + b] = twin[i * count + a] as number;
        for (let i = 0; i < count; i++) twin[b * count + i] = twin[a * count + i] as number;
        const factor = factored(twin, count);
        expect([...factor.rest].map(r => r <= UNTOLD)).toEqual([...g].map((_, i) => i === b));
        expect(Math.abs(solvedBy(factor, g)[b] as number)).toBeLessThan(1e-6);
      }),
    );
  });
});
