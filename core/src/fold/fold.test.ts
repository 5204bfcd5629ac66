import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rectangle } from '../geometry';
import type { Flange, Panel, SheetChoice } from '../plan';
import { MATERIALS } from '../sheet';
import {
  bendAllowance,
  bendDeduction,
  facetInSpace,
  fold,
  foldPanel,
  kFactor,
  makeBend,
  outsideSetback,
} from './index';

const panelOf = (flanges: readonly Flange[], over: Partial<Panel> = {}): Panel => ({
  id: 'p',
  mark: 'A',
  name: 'test',
  base: { origin: [0, 0, 300], pitch: 0, roll: 0, outline: rectangle(0, 0, 400, 300) },
  flanges,
  openings: [],
  guards: [],
  ...over,
});
const steel: SheetChoice = { material: 'steel-hr36', thickness: 4.7625, finish: 'raw' };
const flange = (over: Partial<Flange> = {}): Flange => ({ id: 'f', edge: 1, length: 80, angle: 40, ...over });

describe('bend formulas', () => {
  // worked bends; BA = A·π/180·(R+K·T), OSSB = (R+T)·tan(A/2), BD = 2·OSSB − BA, five decimals
  it.each([
    [30, 0.125, 0.0598, 0.4, 0.07797, 0.04952, 0.02106],
    [45, 0.09, 0.09, 0.42, 0.10037, 0.07456, 0.04874],
    [90, 0.125, 0.125, 0.33, 0.26114, 0.25, 0.23886],
    [90, 0.1875, 0.1875, 0.44, 0.42412, 0.375, 0.32588],
    [120, 0.125, 0.125, 0.44, 0.37699, 0.43301, 0.48903],
    [135, 0.25, 0.1345, 0.42, 0.72215, 0.92827, 1.13438],
    [90, 2.4, 1.5, 0.42, 4.75951, 3.9, 3.04049],
    [45, 5, 3, 0.45, 4.98728, 3.31371, 1.64014],
    [30, 6, 5, 0.47, 4.37205, 2.94744, 1.52283],
    [90, 8, 6, 0.44, 16.71327, 14, 11.28673],
  ])('%d° R %d T %d K %d', (a, r, t, k, ba, ossb, bd) => {
    expect(bendAllowance(a, r, t, k)).toBeCloseTo(ba, 4);
    expect(outsideSetback(a, r, t)).toBeCloseTo(ossb, 4);
    expect(bendDeduction(a, r, t, k)).toBeCloseTo(bd, 4);
  });
  // FAA AC 65-15A worked example, K = 0.5
  it('reproduce the FAA example', () => expect(bendAllowance(90, 0.25, 0.051, 0.5)).toBeCloseTo(0.4327, 3));
  // DIN 6935 k = 2K
  it.each([
    [1, 0.325],
    [2, 0.4003],
    [5, 0.4997],
    [8, 0.5],
  ])('K-factor at R/t %d is %d (DIN 6935)', (ratio, k) => expect(kFactor(ratio * 3, 3)).toBeCloseTo(k, 4));
  // DIN 6935 compensation value: flat = a + b + v
  it.each([
    [2, 3, 90, -4.128],
    [1.5, 3, 90, -3.345],
    [3, 4, 60, -2.775],
  ])('compensation for s %d r %d at %d° is %d (DIN 6935)', (s, r, angle, v) => {
    expect(-bendDeduction(angle, r, s, kFactor(r, s))).toBeCloseTo(v, 2);
  });
});

describe('a folded panel', () => {
  it('has the flat length of the mold-line rule, up and down', () => {
    for (const angle of [55, -55]) {
      const f = fold(panelOf([flange({ angle })]), steel);
      const bend = f.bends[0]!;
      const tan = Math.tan((55 * Math.PI) / 360);
      const ba = ((55 * Math.PI) / 180) * (bend.insideRadius + bend.kFactor * 4.7625);
      const flat =
        angle > 0
          ? 400 + 80 - (2 * (bend.insideRadius + 4.7625) * tan - ba)
          : 400 + 80 + ba - 2 * bend.insideRadius * tan;
      expect(f.blank.size[0]).toBeCloseTo(flat, 9);
      expect(f.blank.areaMm2).toBeCloseTo(300 * flat, 6);
      expect(f.massKg).toBeCloseTo(300 * flat * 4.7625 * 7850e-9, 9);
    }
  });

  it('stands in space where the angle says', () => {
    const [, ramp] = fold(panelOf([flange({ angle: 90 })]), steel).facets.map(facetInSpace);
    const zs = ramp!.map(p => p[2]);
    expect(Math.max(...zs)).toBeCloseTo(380, 9);
    expect(ramp!.every(p => Math.abs(p[0] - 400) < 1e-9)).toBe(true);
    const [, drop] = fold(panelOf([flange({ angle: -30 })]), steel).facets.map(facetInSpace);
    expect(Math.min(...drop!.map(p => p[2]))).toBeCloseTo(300 - 40, 9);
  });

  it('is the same whichever way its outline runs', () => {
    const forward = fold(panelOf([flange({ inset: [10, 60] })]), steel);
    const base = panelOf([]).base;
    const reversed = [...base.outline].reverse();
    const back = fold(
      panelOf([flange({ edge: 1, inset: [60, 10] })], { base: { ...base, outline: reversed } }),
      steel,
    );
    expect(back.blank.areaMm2).toBeCloseTo(forward.blank.areaMm2, 9);
    expect(back.massKg).toBeCloseTo(forward.massKg, 12);
    back.centroid.forEach((c, i) => expect(c).toBeCloseTo(forward.centroid[i]!, 9));
  });

  it('takes openings off, but not louvers', () => {
    const openings = [
      { id: 'o', kind: 'drain', at: [100, 100], shape: { circle: 60 } },
      { id: 'l', kind: 'louvers', at: [250, 150], shape: { rect: [100, 80] }, openFraction: 0.4 },
    ] as const;
    const f = fold(panelOf([], { openings }), steel);
    expect(f.blank.areaMm2).toBeCloseTo(400 * 300 - Math.PI * 900, 6);
    const hand = (400 * 300 * 200 - Math.PI * 900 * 100) / (400 * 300 - Math.PI * 900);
    expect(f.centroid[0]).toBeCloseTo(hand, 9);
    expect(f.centroid[2]).toBeCloseTo(300 + 4.7625 / 2, 9);
  });

  it('marks a bend tighter than its sheet allows and plastic that is folded at all', () => {
    const al: SheetChoice = { material: 'al-6061-t6', thickness: 6.35, finish: 'raw' };
    expect(fold(panelOf([flange({ insideRadius: 6 })]), al).bends[0]?.ok).toBe(false);
    expect(fold(panelOf([flange({ insideRadius: 23 })]), al).bends[0]?.ok).toBe(true);
    expect(makeBend('b', 30, 9.5, MATERIALS['uhmw-pe']).ok).toBe(false);
  });

  it('is remembered while the panel lives', () => {
    const p = panelOf([flange()]);
    expect(foldPanel(p, steel)).toBe(foldPanel(p, { ...steel }));
    expect(foldPanel({ ...p }, steel)).not.toBe(foldPanel(p, steel));
  });
});

const tree: fc.Arbitrary<Flange> = fc
  .record({
    length: fc.double({ min: 60, max: 150, noNaN: true }),
    angle: fc.integer({ min: -80, max: 80 }),
    far: fc.integer({ min: -80, max: 80 }),
    inset: fc.integer({ min: 0, max: 90 }),
  })
  .map(r => ({
    id: 'f',
    edge: 1,
    length: r.length,
    angle: r.angle,
    inset: [r.inset, r.inset / 2] as const,
    flanges: [{ id: 'g', edge: 'far' as const, length: 60, angle: r.far }],
  }));

describe('properties over random flange trees', () => {
  it('blank pieces add up to the blank, and mass to piece by piece sums', () => {
    fc.assert(
      fc.property(tree, f => {
        const made = fold(panelOf([f]), steel);
        const width = 300 - f.inset![0] - f.inset![1];
        // independent sum along the neutral fiber
        const [b1, b2] = [made.bends[0]!, made.bends[1]!];
        const strip = f.length - b1.deductionMm + 60 - b2.deductionMm;
        expect(made.blank.areaMm2).toBeCloseTo(400 * 300 + width * strip, 6);
      }),
    );
  });
  it('the center of mass agrees with many small pieces of the real folded sheet', () => {
    fc.assert(
      fc.property(tree, f => {
        const made = fold(panelOf([f]), steel);
        const t = 4.7625;
        let [m, x, z] = [0, 0, 0];
        const put = (w: number, px: number, pz: number): void => {
          m += w;
          x += w * px;
          z += w * pz;
        };
        const width = 300 - f.inset![0] - f.inset![1];
        const [b1, b2] = [made.bends[0]!, made.bends[1]!];
        put(400 * 300, 200, 300 + t / 2);
        put(-width * b1.setbackMm, 400 - b1.setbackMm / 2, 300 + t / 2);
        // walk the section: position, heading; arcs in 2,000 steps
        let [px, pz, a] = [400 - b1.setbackMm, 300, 0];
        const arc = (bend: typeof b1): void => {
          const n = 2000;
          const s = Math.sign(bend.angle) || 1;
          const axis = s > 0 ? bend.insideRadius + t : -bend.insideRadius;
          const [cx, cz] = [px - Math.sin(a) * axis, pz + Math.cos(a) * axis];
          const total = (Math.abs(bend.angle) * Math.PI) / 180;
          const [ri, ro] = [bend.insideRadius, bend.insideRadius + t];
          const rc = ((2 / 3) * (ro ** 3 - ri ** 3)) / (ro ** 2 - ri ** 2);
          for (let i = 0; i < n; i++) {
            const phi = a + (s * total * (i + 0.5)) / n;
            put((width * bend.allowanceMm) / n, cx + s * Math.sin(phi) * rc, cz - s * Math.cos(phi) * rc);
          }
          a += s * total;
          px = cx + Math.sin(a) * axis;
          pz = cz - Math.cos(a) * axis;
        };
        const straight = (l: number): void => {
          put(
            width * l,
            px + (Math.cos(a) * l) / 2 - (Math.sin(a) * t) / 2,
            pz + (Math.sin(a) * l) / 2 + (Math.cos(a) * t) / 2,
          );
          px += Math.cos(a) * l;
          pz += Math.sin(a) * l;
        };
        arc(b1);
        straight(f.length - b1.setbackMm - b2.setbackMm);
        arc(b2);
        straight(60 - b2.setbackMm);
        expect(made.centroid[0]).toBeCloseTo(x / m, 3);
        expect(made.centroid[2]).toBeCloseTo(z / m, 3);
      }),
      { numRuns: 40 },
    );
  });
});
