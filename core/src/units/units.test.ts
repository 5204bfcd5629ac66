import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  forceFigure,
  formatDistance,
  formatLength,
  formatMass,
  formatTorque,
  KG_PER_LB,
  loadFigure,
  MM_PER_INCH,
  MPA_PER_KSI,
  NM_PER_LBF_FT,
  NM_PER_LBF_IN,
  parseGaugeNumber,
  parseLength,
  parseMass,
  parseNumber,
  parseTorque,
  roundTo,
  signed,
  stressFigure,
  TAPES,
  takeTape,
  tapeLength,
  tradeFraction,
  type UnitSystem,
} from './index';

const value = (r: { ok: boolean; value?: number }): number => {
  if (!r.ok || r.value === undefined) throw new Error('expected a value');
  return r.value;
};
const system = fc.constantFrom<UnitSystem>('inch', 'metric');

describe('conversion constants', () => {
  // SI definitions; factors as printed in Machinery's Handbook conversion tables
  it('agree with the published factors', () => {
    expect(NM_PER_LBF_FT).toBeCloseTo(1.355818, 6);
    expect(NM_PER_LBF_IN).toBeCloseTo(0.1129848, 7);
    expect(MPA_PER_KSI).toBeCloseTo(6.894757, 6);
  });
});

describe('parsing what a person types', () => {
  it.each([
    ['3/16', 'inch', 4.7625],
    ['3/16"', 'metric', 4.7625],
    ['1 1/2 in', 'metric', 38.1],
    ['1-1/2 inch', 'metric', 38.1],
    ['4.8 mm', 'inch', 4.8],
    ['4,8', 'metric', 4.8],
    ['12', 'metric', 12],
    ['12', 'inch', 304.8],
    ['5\' 6 1/2"', 'metric', 1689.1],
    ['2.5cm', 'inch', 25],
    ['\u22123 mm', 'metric', -3],
  ] as const)('reads the length %s (%s) as %d mm', (text, sys, mm) => {
    expect(value(parseLength(text, sys))).toBeCloseTo(mm, 9);
  });

  it.each([
    ['30 ft-lb', 30 * NM_PER_LBF_FT],
    ['30 lbf\u00b7ft', 30 * NM_PER_LBF_FT],
    ['84 in-lb', 84 * NM_PER_LBF_IN],
    ['50 Nm', 50],
    ['50 N\u00b7m', 50],
    ['5 kgf m', 49.03325],
  ])('reads the torque %s', (text, nm) => {
    expect(value(parseTorque(text, 'metric'))).toBeCloseTo(nm, 9);
  });

  it('reads masses and gauges', () => {
    expect(value(parseMass('26.4 lb', 'metric'))).toBeCloseTo(26.4 * KG_PER_LB, 9);
    expect(value(parseMass('8 oz', 'metric'))).toBeCloseTo(0.22679618, 7);
    expect(parseGaugeNumber('7 ga')).toBe(7);
    expect(parseGaugeNumber('#10 gauge')).toBe(10);
    expect(parseGaugeNumber('7 mm')).toBeUndefined();
  });

  it.each([
    ['', 'no number'],
    ['abc', 'no number'],
    ['4.8 kg', 'not a unit of length'],
    ['1/0 in', 'divides by zero'],
    ['1,200 mm', 'could mean two numbers'],
    ['1.2.3', 'not a number'],
  ])('refuses "%s" with a reason', (text, reason) => {
    const r = parseLength(text, 'metric');
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.fault).toContain(reason);
  });

  it('refuses a torque given in kilograms', () => {
    expect(parseTorque('12 kg', 'metric').ok).toBe(false);
  });
});

describe('parse after format is the identity on what is shown', () => {
  const step = (sys: UnitSystem, digits: number, unit: number) => (n: number) =>
    roundTo(n, digits) * (sys === 'inch' ? unit : 1);
  it('for lengths', () => {
    fc.assert(
      fc.property(fc.integer({ min: -500_000, max: 500_000 }), system, (n, sys) => {
        const mm = step(sys, sys === 'inch' ? 2 : 0, MM_PER_INCH)(n / 100);
        expect(value(parseLength(formatLength(mm, sys), sys))).toBeCloseTo(mm, 9);
      }),
    );
  });
  it('for masses and torques', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 90_000 }), system, (n, sys) => {
        const kg = step(sys, 1, KG_PER_LB)(n / 10);
        expect(value(parseMass(formatMass(kg, sys), sys))).toBeCloseTo(kg, 9);
        const shown = n / 10 < 10 ? roundTo(n / 10, 1) : Math.round(n / 10);
        const nm = shown * (sys === 'inch' ? NM_PER_LBF_FT : 1);
        expect(value(parseTorque(formatTorque(nm, sys), sys))).toBeCloseTo(nm, 9);
      }),
    );
  });
  it('for trade fractions', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 * 100 }), n => {
        const mm = (n / 64) * MM_PER_INCH;
        expect(value(parseLength(tradeFraction(mm) ?? '', 'inch'))).toBeCloseTo(mm, 9);
      }),
    );
  });
});

describe('figures', () => {
  it('name only true trade fractions', () => {
    expect(tradeFraction(4.7625)).toBe('3/16');
    expect(tradeFraction(25.4)).toBe('1');
    expect(tradeFraction(4.554)).toBeUndefined();
  });
  it('show changes with their sign and no negative zero', () => {
    expect(signed(4.1, 1)).toBe('+4.1');
    expect(signed(-4.1, 1)).toBe('\u22124.1');
    expect(signed(-0.01, 1)).toBe('0.0');
    expect(value(parseNumber('\u22124.1'))).toBe(-4.1);
  });
});

describe('loads, presses and stress', () => {
  // 1 lbf = 4.4482216152605 N, 1 US ton = 2,000 lbf, 1 ksi = 6.894757 MPa (exact by their definitions)
  it('are shown in the units of the trade', () => {
    expect(loadFigure(5492, 'metric')).toEqual({ value: '5.5', unit: 'kN' });
    expect(loadFigure(192.3, 'metric')).toEqual({ value: '192', unit: 'N' });
    expect(loadFigure(192.3, 'inch')).toEqual({ value: '43', unit: 'lbf' });
    expect([formatDistance(1609.344, 'inch'), formatDistance(1609.344, 'metric')]).toEqual([
      '1000 mi',
      '1609 km',
    ]);
    expect(loadFigure(5492, 'inch')).toEqual({ value: '1230', unit: 'lbf' });
    expect(forceFigure(1350, 'inch')).toEqual({ value: '151.7', unit: 'ton' });
    expect(forceFigure(1350, 'metric')).toEqual({ value: '1350', unit: 'kN' });
    expect(stressFigure(250, 'inch')).toEqual({ value: '36.3', unit: 'ksi' });
    expect(stressFigure(250, 'metric')).toEqual({ value: '250', unit: 'MPa' });
  });
});

describe('a tape', () => {
  it('is read by its own division, in one way only, and back within half of it', () => {
    const all = TAPES.map(t => {
      takeTape(t);
      return tapeLength(38.25 * MM_PER_INCH - 1.1, 'inch');
    });
    takeTape('16');
    // 38.25 in less 1.1 mm is 38.2067 in; its nearest eighth is 38.25, sixteenth 38.1875, 32nd 38.21875
    expect(all).toEqual(['38 1/4 in', '38 3/16 in', '38 7/32 in', '38.21 in']);
    fc.assert(
      fc.property(fc.constantFrom(...TAPES), fc.double({ min: 13, max: 5000, noNaN: true }), (t, mm) => {
        takeTape(t);
        const back = value(parseLength(tapeLength(mm, 'inch'), 'inch'));
        const half = t === 'decimal' ? 0.005 : 0.5 / Number(t);
        expect(Math.abs(back - mm)).toBeLessThanOrEqual(half * MM_PER_INCH + 0.02);
        takeTape('16');
      }),
    );
  });
});
