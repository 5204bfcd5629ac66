import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldPanel } from '../fold';
import type { Vec3 } from '../geometry';
import type { SheetChoice } from '../plan';
import { MATERIALS, minimumRadius } from '../sheet';
import { bracketPanel, faceMet } from '../testing';
import { bracketBetween, type Face } from './between';

const STEEL: SheetChoice = { material: 'steel-hr36', thickness: 4.7625, finish: 'raw' };
const anyBolt = fc.constantFrom(8, 10, 12);
const anySheet = fc.constantFrom<SheetChoice>(
  STEEL,
  { ...STEEL, thickness: 3.038 },
  { ...STEEL, thickness: 6.35 },
  { material: 'al-5052-h32', thickness: 4.8, finish: 'raw' },
  { material: 'stainless-304', thickness: 3, finish: 'raw' },
);
/** The underside of a crossmember, a rail's side, a slanted gusset; over a plate that hangs level or tilted. */
const anyPair = fc
  .record({
    out: fc.constantFrom<Vec3>(
      [0, 0, -1],
      [0, 1, 0],
      [0, -1, 0],
      [1, 0, 0],
      [-1, 0, 0],
      [0, 0.6, -0.8],
      [0, 0, 1],
    ),
    at: fc.tuple(
      fc.integer({ min: -160, max: 160 }),
      fc.integer({ min: -160, max: 160 }),
      fc.integer({ min: -60, max: 220 }),
    ),
    pitch: fc.double({ min: -0.15, max: 0.15, noNaN: true }),
    roll: fc.double({ min: -0.1, max: 0.1, noNaN: true }),
    bolts: fc.tuple(anyBolt, anyBolt),
  })
  .map(({ out, at, pitch, roll, bolts }): readonly [Face, Face] => [
    { at, normal: out, bolt: bolts[0] },
    { at: [0, 0, 0], normal: [pitch, roll, 1], bolt: bolts[1] },
  ]);

describe('a bracket between two faces', () => {
  it('lies flat on both within 0.01 mm, its holes clear of bends and edges, its bends as round as the sheet asks', () => {
    const families = new Map<string, number>();
    fc.assert(
      fc.property(anyPair, anySheet, ([from, to], sheet) => {
        const made = bracketBetween(from, to, { sheet });
        if (!made.ok) {
          expect(made.fault.length).toBeGreaterThan(20);
          return;
        }
        families.set(made.value.family, (families.get(made.value.family) ?? 0) + 1);
        for (const face of [from, to]) {
          const m = faceMet(bracketPanel(made.value.shape), sheet, face);
          expect(m?.off).toBeLessThan(0.01);
          // AISC 360-16 J3.4: no edge nearer than one and a half bolts; a mold line is an edge of the flat here
          expect(m?.inside).toBeGreaterThanOrEqual(1.5 * face.bolt - 1e-6);
        }
        const folded = foldPanel(bracketPanel(made.value.shape), sheet);
        const least = minimumRadius(MATERIALS[sheet.material], sheet.thickness) ?? 0;
        for (const b of folded.bends) expect(b.insideRadius).toBeGreaterThanOrEqual(least - 1e-9);
        expect(folded.bends.every(b => b.ok)).toBe(true);
      }),
      { numRuns: 400 },
    );
    // of all four kinds, or the pairs were too easy
    for (const family of ['L', 'Z', 'C']) expect(families.get(family) ?? 0, family).toBeGreaterThan(5);
  });

  it('is the same wherever the vehicle stands and however it is turned', () => {
    const from: Face = { at: [140, 20, 150], normal: [0, 0, -1], bolt: 10 };
    const to: Face = { at: [0, 0, 0], normal: [0, 0, 1], bolt: 10 };
    const one = bracketBetween(from, to, { sheet: STEEL });
    const quarter = (v: Vec3): Vec3 => [-v[1] + 900, v[0] - 400, v[2] + 250];
    const turn = (v: Vec3): Vec3 => [-v[1], v[0], v[2]];
    const two = bracketBetween(
      { ...from, at: quarter(from.at), normal: turn(from.normal) },
      { ...to, at: quarter(to.at), normal: turn(to.normal) },
      { sheet: STEEL },
    );
    if (!one.ok || !two.ok) throw new Error('not made');
    expect(two.value.family).toBe(one.value.family);
    expect(foldPanel(bracketPanel(two.value.shape), STEEL).massKg).toBeCloseTo(
      foldPanel(bracketPanel(one.value.shape), STEEL).massKg,
      9,
    );
  });

  it('steps from a crossmember down to a plate as a Z, from a rail’s side as an L, along one plane straight', () => {
    const plate: Face = { at: [0, 0, 0], normal: [0, 0, 1], bolt: 10 };
    const z = bracketBetween({ at: [120, 0, 90], normal: [0, 0, -1], bolt: 10 }, plate, { sheet: STEEL });
    expect(z.ok && z.value.family).toBe('Z');
    // its web is as high as there is room: to the underside of the upper leg
    expect(z.ok && z.value.shape.flanges[0]?.length).toBeCloseTo(90 - STEEL.thickness, 6);
    const l = bracketBetween({ at: [0, -60, 70], normal: [0, 1, 0], bolt: 12 }, plate, { sheet: STEEL });
    expect(l.ok && l.value.family).toBe('L');
    const flat = bracketBetween({ at: [90, 30, 0], normal: [0, 0, 1], bolt: 10 }, plate, { sheet: STEEL });
    expect(flat.ok && flat.value.family).toBe('flat');
    expect(flat.ok && flat.value.shape.flanges).toEqual([]);
  });

  it('says why there is none', () => {
    const plate: Face = { at: [0, 0, 0], normal: [0, 0, 1], bolt: 12 };
    const near = bracketBetween({ at: [6, 0, 12], normal: [0, 0, -1], bolt: 12 }, plate, { sheet: STEEL });
    expect(near.ok ? '' : near.fault).toMatch(/too near|in the way/);
    const plastic = bracketBetween({ at: [120, 0, 90], normal: [0, 0, -1], bolt: 10 }, plate, {
      sheet: { material: 'uhmw-pe', thickness: 9.5, finish: 'raw' },
    });
    expect(plastic.ok ? '' : plastic.fault).toContain('cannot be bent');
    const blocked = bracketBetween({ at: [120, 0, 90], normal: [0, 0, -1], bolt: 10 }, plate, {
      sheet: STEEL,
      blocked: () => 'the exhaust is in the way',
    });
    expect(blocked.ok ? '' : blocked.fault).toBe('the exhaust is in the way');
  });
});
