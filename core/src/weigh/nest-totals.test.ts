import { describe, expect, it } from 'vitest';
import type { NestedSheet } from '../fold';
import { nestTotals, RATES, sheetMass } from './index';

const sheet = (size: readonly [number, number], share: number): NestedSheet =>
  ({
    material: 'steel-hr36',
    thickness: 4.7625,
    finish: 'raw',
    size,
    blanks: [],
    yield: share,
  }) as unknown as NestedSheet;

describe('a nest', () => {
  it('weighs what its whole sheets weigh: a 4 × 8 ft sheet of 3/16 in. steel is 245 lb (7.66 lb a square foot, handbook weight)', () => {
    // 7.66 lb/ft² × 32 ft²; handbooks round density, so to 1 %
    const lb = sheetMass(sheet([2438.4, 1219.2], 0)) / 0.45359237;
    expect(lb / (7.66 * 32)).toBeCloseTo(1, 2);
  });
  it('costs by weight and is used by area', () => {
    const made = { sheets: [sheet([2440, 1220], 0.5), sheet([1220, 1220], 0.8)], tooLarge: [] };
    const t = nestTotals(made, RATES);
    expect(t.massKg).toBeCloseTo(
      made.sheets.reduce((s, x) => s + sheetMass(x), 0),
      9,
    );
    expect(t.cost).toBeCloseTo(t.massKg * RATES.sheetPerKg['steel-hr36'], 9);
    expect(t.used).toBeCloseTo((0.5 * 2 + 0.8) / 3, 9);
    expect(nestTotals({ sheets: [], tooLarge: [] }, RATES)).toEqual({ massKg: 0, cost: 0, used: 0 });
  });
});
