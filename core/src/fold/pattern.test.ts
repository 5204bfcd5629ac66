import { demo as demoPlan } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rectangle, signedArea } from '../geometry';
import { buildOf, type Flange, type Panel, type SheetChoice, sheetOf } from '../plan';
import {
  brakeOrder,
  enclosedVolume,
  type FoldedPanel,
  flatPattern,
  fold,
  foldedSolid,
  patternArea,
  reliefArea,
  SHOPS,
} from './index';

const demo = (name: string): readonly FoldedPanel[] => {
  const { plan } = demoPlan(name);
  return plan.panels.map(p => fold(p, sheetOf(buildOf(plan), p)));
};
const all = ['bramble', 'heron', 'pebble', 'wren'].flatMap(demo);

const steel: SheetChoice = { material: 'steel-hr36', thickness: 4, finish: 'raw' };
const lip = (over: Partial<Flange> = {}): fc.Arbitrary<Flange> =>
  fc
    .record({
      length: fc.integer({ min: 40, max: 90 }),
      angle: fc.integer({ min: -80, max: 80 }),
      radius: fc.integer({ min: 4, max: 9 }),
    })
    .map(({ length, angle, radius }) => ({
      id: 'lip',
      edge: 'far' as const,
      length,
      angle,
      insideRadius: radius,
      ...over,
    }));
const tree: fc.Arbitrary<readonly Flange[]> = fc
  .uniqueArray(fc.integer({ min: 0, max: 3 }), { maxLength: 4 })
  .chain(edges =>
    fc.tuple(
      ...edges.map(edge =>
        fc
          .record({
            length: fc.integer({ min: 40, max: 110 }),
            angle: fc.integer({ min: -85, max: 85 }),
            insideRadius: fc.integer({ min: 4, max: 9 }),
            inset: fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 })),
            lips: fc.array(lip({ id: `lip-${edge}` }), { maxLength: 1 }),
          })
          .map(({ lips, ...f }): Flange => ({ id: `f${edge}`, edge, ...f, flanges: lips })),
      ),
    ),
  );
const panelWith = (flanges: readonly Flange[]): Panel => ({
  id: 'p',
  mark: 'A',
  name: 'tray',
  base: { origin: [0, 0, 300], pitch: 0, roll: 0, outline: rectangle(0, 0, 600, 400) },
  flanges,
  openings: [],
  guards: [],
});

describe('a flat pattern', () => {
  it.each(all.map(f => [`${f.panel.mark} ${f.panel.name}`, f] as const))(
    'of %s has the blank’s area and size',
    (_, f) => {
      const p = flatPattern(f);
      expect(Math.abs((patternArea(p) + reliefArea(f)) / f.blank.areaMm2 - 1)).toBeLessThan(1e-5);
      // what area and mass leave in stays small
      expect(reliefArea(f) / f.blank.areaMm2).toBeLessThan(0.001);
      expect(p.size[0]).toBeCloseTo(f.blank.size[0], 3);
      expect(p.outline.filter(o => signedArea(o) > 0)).toHaveLength(1);
      expect(p.bends.map(b => b.id).sort()).toEqual(
        f.bends
          .filter(b => b.angle !== 0)
          .map(b => b.id)
          .sort(),
      );
    },
  );

  it('tells up from down, and its bend lines are as long as their flanges are wide', () => {
    fc.assert(
      fc.property(tree, flanges => {
        const f = fold(panelWith(flanges), steel);
        const p = flatPattern(f);
        for (const b of p.bends) {
          const facet = f.facets.find(x => x.id === b.id);
          expect(Math.hypot(b.to[0] - b.from[0], b.to[1] - b.from[1])).toBeCloseTo(
            facet?.hinge?.width ?? 0,
            6,
          );
          expect(b.direction).toBe((facet?.flange?.angle ?? 0) > 0 ? 'up' : 'down');
        }
      }),
    );
  });

  it('folding never changes the length along the neutral fiber: flats and allowances add up to the blank', () => {
    fc.assert(
      fc.property(tree, flanges => {
        const f = fold(panelWith(flanges), steel);
        const flats = f.blank.pieces.reduce((s, p) => s + Math.abs(signedArea(p.outline)), 0);
        // each set-back is taken off its flange and off its parent; the allowance stands between
        const sum =
          f.facets.reduce((s, x) => s + Math.abs(signedArea(x.outline)), 0) +
          f.bends.reduce((s, b) => {
            const width = f.facets.find(x => x.id === b.id)?.hinge?.width ?? 0;
            return s + width * (b.allowanceMm - 2 * b.setbackMm);
          }, 0);
        expect(f.blank.areaMm2).toBeCloseTo(sum, 4);
        // in the pieces the parent's side of the set-back still lies under the strip
        const under = f.bends.reduce((s, b) => {
          const width = f.facets.find(x => x.id === b.id)?.hinge?.width ?? 0;
          return b.angle === 0 ? s : s + width * b.setbackMm;
        }, 0);
        expect(flats - under).toBeCloseTo(sum, 4);
      }),
    );
  });

  it('is bent from the tips of its flanges to their roots where the brake lets it', () => {
    const a = all.find(f => f.panel.id === 'plate-a') as FoldedPanel;
    const { order, blocked } = brakeOrder(a, SHOPS[1]!);
    expect(blocked).toEqual([]);
    expect(order.indexOf('front-lip')).toBeLessThan(order.indexOf('front-ramp'));
    expect(order.indexOf('rear-lip')).toBeLessThan(order.indexOf('rear-ramp'));
    expect(order).toHaveLength(4);
  });
});

describe('the folded solid', () => {
  it('is closed: every edge of a piece is walked once each way', () => {
    fc.assert(
      fc.property(tree, flanges => {
        const triangles = foldedSolid(fold(panelWith(flanges), steel));
        const edges = new Map<string, number>();
        // corners are one within what rounding makes of them, wherever they lie on a grid
        const corners: (readonly number[])[] = [];
        const key = (p: readonly number[]): number => {
          const known = corners.findIndex(c => c.every((v, k) => Math.abs(v - (p[k] as number)) < 1e-4));
          return known >= 0 ? known : corners.push(p) - 1;
        };
        for (const t of triangles)
          t.forEach((p, i) => {
            const [a, b] = [key(p), key(t[(i + 1) % 3] as readonly number[])];
            if (a === b) return;
            const [k, s] = a < b ? [`${a} ${b}`, 1] : [`${b} ${a}`, -1];
            edges.set(k, (edges.get(k) ?? 0) + s);
          });
        expect([...edges.values()].filter(v => v !== 0)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('encloses flats and ring sectors: blank area × thickness, the bends by their middle line instead of the neutral one', () => {
    fc.assert(
      fc.property(tree, flanges => {
        const f = fold(panelWith(flanges), steel);
        const t = f.sheet.thickness;
        const middle = f.bends.reduce((s, b) => {
          const width = f.facets.find(x => x.id === b.id)?.hinge?.width ?? 0;
          const angle = (Math.abs(b.angle) * Math.PI) / 180;
          return s + width * angle * (b.insideRadius + t / 2) - width * b.allowanceMm;
        }, 0);
        const exact = (f.blank.areaMm2 + middle) * t;
        // arcs are made of chords within 0.1 mm of them
        expect(Math.abs(enclosedVolume(foldedSolid(f)) / exact - 1)).toBeLessThan(0.004);
      }),
    );
  });

  it('of every demo plate is as heavy as the plate', () => {
    for (const f of all) {
      const kg = enclosedVolume(foldedSolid(f)) * f.material.density * 1e-9;
      expect(Math.abs(kg / f.massKg - 1), f.panel.id).toBeLessThan(0.01);
    }
  });
});
