import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { printedAt } from './print';

describe('a printed stage', () => {
  it('is as large as its page lets it be, and never wider than the paper', () => {
    // a map of 856 by 700 px with 1,000 px of findings beside it
    const { zoom, columns } = printedAt(856, 700, 1000);
    expect(zoom).toBeGreaterThan(0.6);
    expect(columns).toBeGreaterThan(1);
    fc.assert(
      fc.property(
        fc.integer({ min: 300, max: 2200 }),
        fc.integer({ min: 100, max: 6000 }),
        fc.integer({ min: 0, max: 6000 }),
        (width, high, beside) => {
          const made = printedAt(width, high, beside);
          expect(made.zoom * width).toBeLessThanOrEqual(718 + 1e-6);
          expect(made.columns).toBeGreaterThanOrEqual(1);
          // more to print is never printed larger
          expect(printedAt(width, high + 500, beside).zoom).toBeLessThanOrEqual(made.zoom);
        },
      ),
    );
  });
});
