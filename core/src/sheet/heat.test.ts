// Sheet beside hot parts: an estimate, checked for its limits and against what is known of them.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { besideHot, MATERIALS, yieldKept } from './index';

const coated = (family: 'steel' | 'aluminum' | 'plastic', thickness: number) => ({
  material: { family },
  thickness,
  coated: true,
});

describe('a sheet beside a hot part', () => {
  it('lies between the air and the part, cooler the further off and the smaller the part', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 800, noNaN: true }),
        fc.double({ min: 5, max: 400, noNaN: true }),
        fc.double({ min: 20, max: 400, noNaN: true }),
        fc.double({ min: 1, max: 10, noNaN: true }),
        fc.constantFrom('steel' as const, 'aluminum' as const, 'plastic' as const),
        (surface, apart, half, thickness, family) => {
          const of = (d: number, a: number): number => besideHot(surface, d, a, a, coated(family, thickness));
          const c = of(apart, half);
          expect(c).toBeGreaterThanOrEqual(40);
          expect(c).toBeLessThanOrEqual(surface);
          expect(of(apart * 1.5, half)).toBeLessThanOrEqual(c + 1e-6);
          expect(of(apart, half * 0.7)).toBeLessThanOrEqual(c + 1e-6);
        },
      ),
    );
  });
  it('close under a part that is endless, and insulating, settles where what shines in leaves again (Stefan and Boltzmann)', () => {
    // a huge source right beside it: 0.8 · 0.9 σ (Ts⁴ − T⁴) = 0.9 σ (T⁴ − Ta⁴) + 20 (T − Ta)
    const t = besideHot(400, 1, 1e6, 1e6, coated('plastic', 1)) + 273.15;
    const s = 5.670374e-8;
    const into = 0.72 * s * (673.15 ** 4 - t ** 4);
    const out = 0.9 * s * (t ** 4 - 313.15 ** 4) + 20 * (t - 313.15);
    expect(into / out).toBeCloseTo(1, 2);
  });
  it('of bare aluminum takes less and spreads more than coated steel', () => {
    const steel = besideHot(420, 60, 120, 80, coated('steel', 5));
    const bare = besideHot(420, 60, 120, 80, {
      material: { family: 'aluminum' },
      thickness: 5,
      coated: false,
    });
    expect(bare).toBeLessThan(steel - 30);
  });
});

describe('strength while hot', () => {
  it('falls as the tables of the Aluminum Association say (from memory), and never rises', () => {
    expect(yieldKept(MATERIALS['al-6061-t6'], 204)).toBeCloseTo(0.38, 9);
    expect(yieldKept(MATERIALS['al-5052-h32'], 149)).toBeCloseTo(0.96, 9);
    expect(yieldKept(MATERIALS['al-6061-t6'], 20)).toBe(1);
    for (const m of Object.values(MATERIALS))
      for (let c = 0; c < 600; c += 10) expect(yieldKept(m, c + 10)).toBeLessThanOrEqual(yieldKept(m, c));
  });
  it('of plastic ends at what it bears', () => {
    expect(yieldKept(MATERIALS['uhmw-pe'], 80)).toBe(1);
    expect(yieldKept(MATERIALS['uhmw-pe'], 81)).toBe(0);
  });
});
