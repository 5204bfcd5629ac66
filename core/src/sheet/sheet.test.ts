import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  dentForce,
  equalDent,
  equalStiffness,
  gaugeThickness,
  MATERIAL_IDS,
  MATERIALS,
  minimumRadius,
  parseThickness,
  plateStiffness,
  punchForce,
  stockOf,
  stockThicknesses,
  tradeName,
} from './index';

describe('gauges by their own tables', () => {
  // Machinery's Handbook gauge tables: Manufacturers' Standard, US Standard (stainless), Brown & Sharpe
  it.each([
    ['steel', 7, 4.554],
    ['steel', 10, 3.416],
    ['steel', 12, 2.657],
    ['steel', 16, 1.519],
    ['stainless', 7, 4.762],
    ['stainless', 12, 2.779],
    ['aluminum', 7, 3.665],
    ['aluminum', 10, 2.588],
  ] as const)('%s %d ga is %d mm', (family, gauge, mm) => {
    expect(gaugeThickness(family, gauge)).toBeCloseTo(mm, 2);
  });
  it('are not 3/16 in steel', () => {
    expect(tradeName('steel', 4.7625)).toBe('3/16 in');
    expect(tradeName('steel', 0.1793 * 25.4)).toBe('7 ga');
    expect(tradeName('aluminum', 5)).toBe('5 mm');
  });
  it('are read as typed, or refused by name', () => {
    expect(parseThickness('7 ga', 'steel-hr36', 'inch')).toEqual({ ok: true, value: 0.1793 * 25.4 });
    const typed = parseThickness('3/16', 'al-5052-h32', 'inch');
    expect(typed.ok && typed.value).toBeCloseTo(4.7625, 9);
    expect(parseThickness('7 ga', 'uhmw-pe', 'inch').ok).toBe(false);
    expect(parseThickness('-3 mm', 'steel-hr36', 'inch').ok).toBe(false);
  });
});

describe('mass of plain sheet', () => {
  // plate weights per area: Machinery's Handbook / AISC 40.8 lb/ft² per inch; Aluminum Association densities
  it.each([
    ['steel-hr36', 3.175, 24.9],
    ['steel-hr36', 4.7625, 37.4],
    ['steel-hr36', 6.35, 49.85],
    ['al-5052-h32', 6.35, 17.02],
    ['al-6061-t6', 25.4, 68.6],
  ] as const)('%s of %d mm weighs %d kg/m²', (id, t, kg) => {
    expect(Math.abs((MATERIALS[id].density * t) / 1000 - kg) / kg).toBeLessThan(0.003);
  });
});

describe('minimum bend radii', () => {
  // Aluminum Association table and ASTM A1011 suggestions
  it.each([
    ['al-5052-h32', 3.175, 4.762],
    ['al-5052-h32', 4.7625, 7.144],
    ['al-5052-h32', 6.35, 9.525],
    ['al-5052-h32', 12.7, 25.4],
    ['al-6061-t6', 1.5875, 2.381],
    ['al-6061-t6', 3.175, 7.938],
    ['al-6061-t6', 6.35, 22.225],
    ['al-6061-t6', 9.525, 42.862],
    ['steel-hr36', 4, 6],
  ] as const)('%s at %d mm is %d mm', (id, t, r) => {
    expect(minimumRadius(MATERIALS[id], t)).toBeCloseTo(r, 2);
  });
  it('do not exist for plastic', () => expect(minimumRadius(MATERIALS['uhmw-pe'], 9.5)).toBeUndefined());
});

describe('equal ladders', () => {
  it('give what they promise, between any two metals', () => {
    const id = fc.constantFrom(...MATERIAL_IDS);
    fc.assert(
      fc.property(id, id, fc.double({ min: 1, max: 13, noNaN: true }), (a, b, t) => {
        const [from, to] = [MATERIALS[a], MATERIALS[b]];
        const stiff = equalStiffness(from, t, to);
        expect(plateStiffness(to, stiff) / plateStiffness(from, t)).toBeCloseTo(1, 10);
        expect(dentForce(to, equalDent(from, t, to)) / dentForce(from, t)).toBeCloseTo(1, 10);
      }),
    );
  });
  it('are punched by a sharp nose as a blank is: handbook rule of thumb, 25 tons an inch of thickness and of rim for mild steel', () => {
    // Machinery's Handbook, from memory: tons = perimeter × thickness × 25 for soft steel of 50,000 psi in shear; the grade here has 211 MPa (30,600 psi) at least
    const tons = (Math.PI * 1 * 0.25 * 25 * 30_600) / 50_000;
    expect(punchForce(MATERIALS['steel-hr36'], 6.35, 25.4) / (tons * 2000 * 4.448222)).toBeCloseTo(1, 2);
    for (const id of MATERIAL_IDS)
      expect(punchForce(MATERIALS[id], 4) / punchForce(MATERIALS[id], 2)).toBeCloseTo(2, 12);
  });
  it('ask about 1.4 times the thickness of aluminum for steel stiffness', () => {
    expect(equalStiffness(MATERIALS['steel-hr36'], 1, MATERIALS['al-5052-h32'])).toBeCloseTo(1.407, 3);
  });
});

describe('stock', () => {
  it('rises in thickness and names each row', () => {
    for (const id of MATERIAL_IDS)
      for (const stock of ['inch', 'metric'] as const) {
        const rows = stockThicknesses(id, stock);
        expect(rows.length).toBeGreaterThan(2);
        rows.slice(1).forEach((r, i) => expect(r.thickness).toBeGreaterThan(rows[i]?.thickness ?? 0));
        // a trade name is what a dealer is asked for: typed, it gives the thickness back
        for (const r of rows) {
          expect(parseThickness(r.gauge, id, 'metric')).toMatchObject({ ok: true });
          const back = parseThickness(r.gauge, id, 'metric');
          if (back.ok) expect(back.value).toBeCloseTo(r.thickness, 1);
          expect(stockOf(id, r.thickness)).toBe(stock);
        }
      }
  });
});
