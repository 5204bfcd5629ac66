import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MATERIALS } from '../sheet';
import { MM_PER_FOOT, MM_PER_INCH, MPA_PER_KSI } from '../units';
import {
  angleToBendTo,
  bendAllowance,
  bendingForce,
  calibratedK,
  dieFor,
  holeToBend,
  kFactor,
  kFactorBy,
  leastFlange,
  legsSpringBack,
  longestBend,
  makeBend,
  outsideSetback,
  reliefOf,
  SHOPS,
  springbackRatio,
} from './index';

describe('springback (Kalpakjian & Schmid)', () => {
  it('reproduces the book’s worked example: 0.0359 in sheet over 1/2 in, Y 40 ksi', () => {
    expect(springbackRatio(0.5, 0.0359, 40_000, 29e6)).toBeCloseTo(0.942, 3);
    expect(0.5 / springbackRatio(0.5, 0.0359, 40_000, 29e6)).toBeCloseTo(0.531, 3);
  });
  // worked from the same two formulas; angle to bend to for 90°
  it.each([
    ['steel-hr36', 6.35, 3.175, 250, 200_000, 0.9925, 90.544],
    ['al-5052-h32', 12.7, 6.35, 193, 70_300, 0.98353, 91.206],
    ['stainless-304', 5, 2, 205, 193_000, 0.99203, 90.602],
  ] as const)('%s, R %d, t %d', (id, r, t, y, e, ratio, to) => {
    expect(springbackRatio(r, t, y, e)).toBeCloseTo(ratio, 5);
    const material = { ...MATERIALS[id], yield: y, E: e };
    expect(angleToBendTo(90, r, t, material, undefined)).toBeCloseTo(to, 2);
  });
  it('is more for a larger radius and a thinner sheet, and total when nothing yields', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 10, noNaN: true }),
        (r, t) => {
          const m = MATERIALS['al-6061-t6'];
          expect(springbackRatio(r * 1.1, t, m.yield, m.E)).toBeLessThanOrEqual(
            springbackRatio(r, t, m.yield, m.E),
          );
          expect(angleToBendTo(45, r, t, m, undefined) ?? 90).toBeGreaterThanOrEqual(45);
        },
      ),
    );
    expect(angleToBendTo(30, 5000, 1, MATERIALS['al-6061-t6'], 8)).toBeUndefined();
  });
});

describe('the legs of an air bend', () => {
  it('go back by what a strip under its plastic moment at the punch gives, summed along the die', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('steel-hr36', 'al-5052-h32', 'al-6061-t6'),
        fc.double({ min: 1.5, max: 10, noNaN: true }),
        fc.double({ min: 6, max: 12, noNaN: true }),
        (id, t, over) => {
          const m = MATERIALS[id] as (typeof MATERIALS)['al-6061-t6'];
          const V = over * t;
          // curvature that unloading takes back, along both halves of the die, a strip of 1 mm
          const n = 2000;
          let turn = 0;
          for (let i = 0; i < n; i++) {
            const x = ((i + 0.5) * V) / n;
            const moment = ((m.yield * t * t) / 4) * (1 - Math.abs(2 * x - V) / V);
            turn += ((moment / (m.E * (t ** 3 / 12))) * V) / n;
          }
          expect(legsSpringBack(V, t, m)).toBeCloseTo((turn * 180) / Math.PI, 4);
        },
      ),
    );
  });
  it('are most of it where the bend is slight, and the same where it is not', () => {
    const m = MATERIALS['steel-hr36'];
    const over = (angle: number): number => (angleToBendTo(angle, 7.1, 4.7625, m, 50) as number) - angle;
    // some 1.1 degrees over a 50 mm die: of 2.4 degrees nearly half would be lost
    expect(over(2.4)).toBeGreaterThan(0.9);
    expect(over(90)).toBeLessThan(2.5);
    const round = (angle: number): number =>
      (angleToBendTo(angle, 7.1, 4.7625, m, undefined) as number) - angle;
    expect(over(2.4) - round(2.4)).toBeCloseTo(over(90) - round(90), 9);
  });
});

describe('the brake', () => {
  // metric air-bending formula F = 1.42·Rm·t²·L/V and 650·t²·L/V (brake makers' charts) at 450 MPa: 1.7 % apart
  it.each([
    [450, 2, 2500, 16, 406.25],
    [450, 4, 1500, 32, 487.5],
    [290, 5, 1000, 40, 261.81],
  ])('force at Rm %d, t %d, L %d, V %d', (rm, t, l, v, kn) => {
    expect(Math.abs(bendingForce(rm, t, l, v) / kn - 1)).toBeLessThan(0.02);
  });
  // inch chart, P = 575·t²·L/V US tons at 60 ksi; it stands some 10 % over the metric one
  it.each([
    [60, 0.25, 4, 2, 71.875],
    [60, 0.1875, 6, 1.5, 80.859],
    [90, 0.25, 6, 2, 161.719],
  ])('agrees with the inch chart within 15 %% (%d ksi)', (ksi, t, l, v, tons) => {
    const kn = bendingForce(ksi * MPA_PER_KSI, t * MM_PER_INCH, l * MM_PER_FOOT, v * MM_PER_INCH);
    expect(Math.abs(kn / (tons * 8.896443) - 1)).toBeLessThan(0.15);
  });
  // air bending charts: V, least flange
  it.each([
    [8, 5.5],
    [12, 8.5],
    [16, 11],
    [25, 17.5],
    [32, 22],
    [50, 35],
    [63, 45],
  ])('a die of %d holds a flange of %d', (v, b) =>
    expect(Math.abs(leastFlange(v) / b - 1)).toBeLessThan(0.05),
  );
  it('the die is the narrowest of at least eight thicknesses at hand', () => {
    expect(dieFor(3, [16, 25, 32])).toBe(25);
    expect(dieFor(2, [32, 16])).toBe(16);
    expect(dieFor(6.35, [16, 25, 32])).toBe(32);
    expect(dieFor(2, [])).toBeUndefined();
  });
  it('a stronger or thicker sheet shortens the longest bend; the brake’s own length bounds it', () => {
    for (const shop of SHOPS) {
      const thin = longestBend(shop, 450, 3);
      expect(thin).toBeLessThanOrEqual(shop.brake.length);
      expect(longestBend(shop, 1250, 6.35)).toBeLessThanOrEqual(longestBend(shop, 400, 6.35));
    }
    expect(longestBend({ ...(SHOPS[0] as (typeof SHOPS)[0]), dies: [] }, 450, 3)).toBe(0);
  });
  it('reliefs and holes keep clear of the bend (design guides)', () => {
    expect(reliefOf(6, 5)).toEqual({ width: 5, depth: 11 });
    expect(holeToBend(6, 5)).toBe(16);
  });
});

describe('K from a test bend', () => {
  it('is the K that made it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.25, max: 0.5, noNaN: true }),
        fc.double({ min: 1, max: 8, noNaN: true }),
        fc.double({ min: 0.8, max: 4, noNaN: true }),
        fc.double({ min: 20, max: 135, noNaN: true }),
        (k, t, ratio, angle) => {
          const r = ratio * t;
          const legs = [80, 60] as const;
          const flat = legs[0] + legs[1] - 2 * outsideSetback(angle, r, t) + bendAllowance(angle, r, t, k);
          expect(calibratedK({ flat, legs, angle, insideRadius: r, thickness: t })).toBeCloseTo(k, 9);
        },
      ),
    );
  });
  it('is met exactly at its own ratio, fades to the standard by the next rows, and stays with its material', () => {
    const own = [
      { material: 'al-5052-h32', ratio: 1.5, k: 0.42 },
      { material: 'al-5052-h32', ratio: 2.1, k: 0.45 },
    ] as const;
    const k = (ratio: number): number => kFactorBy(own, 'al-5052-h32', ratio * 6, 6);
    expect(k(1.5)).toBeCloseTo(0.42, 12);
    expect(k(2.1)).toBeCloseTo(0.45, 12);
    expect(k(1)).toBeCloseTo(kFactor(1, 1), 12);
    expect(k(3)).toBeCloseTo(kFactor(3, 1), 12);
    expect(k(8)).toBeCloseTo(0.5, 12);
    // between two of its own the difference from the standard lies between theirs
    const off = k(1.8) - kFactor(1.8, 1);
    const [a, b] = [0.42 - kFactor(1.5, 1), 0.45 - kFactor(2.1, 1)];
    expect(off).toBeGreaterThan(Math.min(a, b));
    expect(off).toBeLessThan(Math.max(a, b));
    expect(kFactorBy(own, 'steel-hr36', 9, 6)).toBe(kFactor(9, 6));
    const bend = makeBend('b', 90, 6, MATERIALS['al-5052-h32'], 9, own);
    expect(bend.kFactor).toBeCloseTo(0.42, 12);
    expect(bend.allowanceMm).toBeCloseTo(bendAllowance(90, 9, 6, 0.42), 9);
  });
  it('never jumps: K follows the ratio continuously through any table', () => {
    const row = fc.record({
      material: fc.constant('steel-hr36' as const),
      ratio: fc.double({ min: 0.5, max: 7, noNaN: true }),
      k: fc.double({ min: 0.25, max: 0.55, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(row, { maxLength: 5, comparator: (a, b) => Math.abs(a.ratio / b.ratio - 1) < 0.1 }),
        fc.double({ min: 0.4, max: 9, noNaN: true }),
        (own, ratio) => {
          const at = (r: number): number => kFactorBy(own, 'steel-hr36', r * 4, 4);
          expect(Math.abs(at(ratio) - at(ratio * 1.0001))).toBeLessThan(1e-3);
          expect(at(ratio)).toBeGreaterThan(0);
        },
      ),
    );
  });
  it('from figures that cannot be is refused', () => {
    expect(
      calibratedK({ flat: 200, legs: [80, 60], angle: 90, insideRadius: 5, thickness: 5 }),
    ).toBeUndefined();
    expect(
      calibratedK({ flat: 100, legs: [80, 60], angle: 90, insideRadius: 5, thickness: 5 }),
    ).toBeUndefined();
    expect(
      calibratedK({ flat: 130, legs: [80, 60], angle: 0, insideRadius: 5, thickness: 5 }),
    ).toBeUndefined();
  });
});
