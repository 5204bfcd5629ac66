import { demo as demoPlan } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaOf, boxOf, grown, intersection, type Polygon, rectangle, regionOf } from '../geometry';
import { buildOf, type Flange, type Panel, type SheetChoice, sheetOf } from '../plan';
import {
  blankClashes,
  type FoldedPanel,
  flatPattern,
  fold,
  holesNearBends,
  type NestWish,
  nest,
  onSheet,
  patternArea,
} from './index';

const demo = (name: string): readonly FoldedPanel[] => {
  const { plan } = demoPlan(name);
  return plan.panels.map(p => fold(p, sheetOf(buildOf(plan), p)));
};
const WISH: NestWish = {
  sheets: [
    [2438.4, 1219.2],
    [3048, 1524],
  ],
  kerf: 3,
  margin: 10,
  keepGrain: true,
};
const steel: SheetChoice = { material: 'steel-hr36', thickness: 4, finish: 'raw' };
const panel = (
  id: string,
  w: number,
  h: number,
  flanges: readonly Flange[] = [],
  over: Partial<Panel> = {},
): Panel => ({
  id,
  mark: id,
  name: id,
  base: { origin: [0, 0, 300], pitch: 0, roll: 0, outline: rectangle(0, 0, w, h) },
  flanges,
  openings: [],
  guards: [],
  ...over,
});

/** No two blanks of a sheet share metal or stand nearer than the kerf, none reaches into the margin. */
function sound(panels: readonly FoldedPanel[], wish: NestWish): void {
  const { sheets, tooLarge } = nest(panels, wish);
  const placed = sheets.flatMap(s => s.blanks.map(b => b.panel));
  expect([...placed, ...tooLarge].sort()).toEqual(panels.map(p => p.panel.id).sort());
  for (const s of sheets) {
    let used = 0;
    s.blanks.forEach((b, i) => {
      const box = boxOf(b.outlines.flat());
      expect(Math.min(box.min[0], box.min[1])).toBeGreaterThanOrEqual(wish.margin - 0.03);
      expect(box.max[0]).toBeLessThanOrEqual(s.size[0] - wish.margin + 0.03);
      expect(box.max[1]).toBeLessThanOrEqual(s.size[1] - wish.margin + 0.03);
      const own = panels.find(p => p.panel.id === b.panel) as FoldedPanel;
      const pattern = flatPattern(own);
      used += patternArea(pattern);
      expect(areaOf(b.outlines)).toBeCloseTo(areaOf(pattern.outline), 3);
      if (wish.keepGrain) {
        const [o, g] = [onSheet(b, [0, 0]), onSheet(b, pattern.etch.grain)];
        expect(g[1] - o[1]).toBeCloseTo(0, 9);
      }
      // grown by nearly the cut, it still meets no other
      const wide = grown(b.outlines, wish.kerf - 0.05);
      for (const other of s.blanks.slice(i + 1))
        expect(areaOf(intersection(wide, other.outlines))).toBeLessThan(1e-6);
      if (s.left) {
        const [[x, y], [w, h]] = [s.left.at, s.left.size];
        expect(areaOf(intersection(regionOf(rectangle(x, y, x + w, y + h)), b.outlines))).toBeLessThan(1e-3);
      }
    });
    expect(s.yield).toBeCloseTo(used / (s.size[0] * s.size[1]), 9);
    expect(s.yield).toBeLessThanOrEqual(1);
  }
}

describe('blanks on stock sheets', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])('of %s: all placed, none touching', name => {
    sound(demo(name), WISH);
    sound(demo(name), { ...WISH, keepGrain: false });
    sound(demo(name), { ...WISH, keepGrain: false, step: 15 });
  });
  it('of random plates: all placed or named as too large, none touching', () => {
    const sizes = fc.array(fc.tuple(fc.integer({ min: 80, max: 1800 }), fc.integer({ min: 80, max: 1400 })), {
      minLength: 1,
      maxLength: 12,
    });
    fc.assert(
      fc.property(sizes, fc.boolean(), (list, keepGrain) =>
        sound(
          list.map(([w, h], i) => fold(panel(`p${i}`, w, h), steel)),
          { ...WISH, keepGrain },
        ),
      ),
      { numRuns: 60 },
    );
  });
  it('two halves of a sheet fill one sheet, three want a second', () => {
    const half = (id: string) => fold(panel(id, 1195, 1195), steel);
    const one = { ...WISH, sheets: [[2438.4, 1219.2]] as const };
    expect(nest([half('a'), half('b')], one).sheets).toHaveLength(1);
    expect(nest([half('a'), half('b'), half('c')], one).sheets).toHaveLength(2);
    expect(nest([fold(panel('long', 2600, 100), steel)], one)).toEqual({ sheets: [], tooLarge: ['long'] });
  });
  it('true shapes lie in one another’s hollows, where their rectangles would not', () => {
    // two L of 900 × 900, 250 wide: side by side they need 1,800 mm, hooked together far less
    const l: Polygon = [
      [0, 0],
      [900, 0],
      [900, 250],
      [250, 250],
      [250, 900],
      [0, 900],
    ];
    const plates = ['a', 'b'].map(id =>
      fold(panel(id, 1, 1, [], { base: { origin: [0, 0, 300], pitch: 0, roll: 0, outline: l } }), steel),
    );
    const wish = { ...WISH, sheets: [[1400, 1219]] as const };
    sound(plates, wish);
    expect(nest(plates, wish).sheets).toHaveLength(1);
  });
  it('a smaller sheet is taken where it holds all, and a larger one only for what needs it', () => {
    const small = nest([fold(panel('s', 500, 400), steel)], WISH).sheets[0];
    expect(small?.size).toEqual([2438.4, 1219.2]);
    const mixed = nest([fold(panel('s', 500, 400), steel), fold(panel('l', 2800, 1300), steel)], WISH);
    expect(mixed.sheets.map(s => s.size[0])).toContain(3048);
    expect(mixed.tooLarge).toEqual([]);
  });
  it('different sheet goes on different stock', () => {
    const kinds = new Set(nest(demo('heron'), WISH).sheets.map(s => `${s.material} ${s.thickness}`));
    // steel and aluminum plates, the thick sheet of a top plate and the thin one of a wing
    expect(kinds.size).toBe(4);
  });
});

describe('what a blank cannot be', () => {
  const flange = (edge: number, over: Partial<Flange> = {}): Flange => ({
    id: `f${edge}`,
    edge,
    length: 60,
    angle: 90,
    insideRadius: 6,
    ...over,
  });
  it('neighboring flanges meet at the corner and no more; a lip that runs back over another flange clashes', () => {
    expect(
      blankClashes(fold(panel('p', 400, 300, [flange(0), flange(1), flange(2), flange(3)]), steel)),
    ).toEqual([]);
    const l = panel('l', 400, 300, [flange(1, { length: 180 }), flange(2, { length: 180 })], {
      base: {
        origin: [0, 0, 300],
        pitch: 0,
        roll: 0,
        outline: [
          [0, 0],
          [400, 0],
          [400, 100],
          [200, 100],
          [200, 300],
          [0, 300],
        ],
      },
    });
    const inner = { ...l, flanges: [flange(2, { length: 150 }), flange(3, { length: 150 })] };
    expect(blankClashes(fold(inner, steel)).map(c => c.between)).toEqual([['f2', 'f3']]);
  });
  it('a hole in the bend’s reach is found by 2t + R', () => {
    const near = panel('n', 400, 300, [flange(1)], {
      openings: [{ id: 'o', kind: 'drain', at: [380, 150], shape: { circle: 20 } }],
    });
    const [h] = holesNearBends(fold(near, steel));
    expect(h).toMatchObject({ opening: 'o', bend: 'f1', wantedMm: 14 });
    expect(h?.distanceMm).toBeCloseTo(10, 1);
    const far = {
      ...near,
      openings: [{ id: 'o', kind: 'drain' as const, at: [370, 150] as const, shape: { circle: 20 } }],
    };
    expect(holesNearBends(fold(far, steel))).toEqual([]);
  });
});
