import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fold } from '../fold';
import { type Polygon, rectangle, type Vec3 } from '../geometry';
import type { Flange, Opening, Panel, SheetChoice } from '../plan';
import type { Component, PresentRig, Rig } from '../rig';
import {
  catchEdges,
  coverage,
  gapsAtRest,
  groundAngles,
  lowestPoint,
  tangentAngle,
  waterTraps,
} from './index';

const sheet: SheetChoice = { material: 'steel-hr36', thickness: 4, finish: 'raw' };
const plate = (
  id: string,
  outline: Polygon,
  origin: Vec3,
  over: { pitch?: number; flanges?: Flange[]; openings?: Opening[] } = {},
) => {
  const panel: Panel = {
    id,
    mark: id,
    name: id,
    base: { origin, pitch: over.pitch ?? 0, roll: 0, outline },
    flanges: over.flanges ?? [],
    openings: over.openings ?? [],
    guards: [],
  };
  return fold(panel, sheet);
};
const part = (id: string, footprint: Polygon, zBottom: number, over: Partial<Component> = {}): Component => ({
  id,
  kind: 'engine',
  name: id,
  footprint,
  zBottom,
  zTop: zBottom + 200,
  protect: true,
  keepOut: 20,
  ...over,
});
const rigWith = (components: readonly Component[], over: Partial<Rig> = {}): PresentRig => ({
  rig: { wheelbase: 2800, tyreRadius: 380, ...over } as Rig,
  components,
  members: [],
  mounts: [],
  servicePoints: [],
  factoryParts: [],
});

describe('coverage', () => {
  it('from below is footprint under plate less openings', () => {
    const p = plate('a', rectangle(0, 0, 200, 100), [0, 0, 300], {
      openings: [{ id: 'o', kind: 'drain', at: [50, 50], shape: { circle: 40 } }],
    });
    const c = coverage([part('e', rectangle(0, 0, 400, 100), 340)], [p]);
    expect(c.components[0]?.areaMm2).toBeCloseTo(40_000, 6);
    expect(c.components[0]?.coveredMm2).toBeCloseTo(20_000 - Math.PI * 400, 0);
    expect(c.fraction).toBeCloseTo((20_000 - Math.PI * 400) / 40_000, 4);
  });
  it('counts an overlap once and a hole behind another plate as covered', () => {
    const a = plate('a', rectangle(0, 0, 120, 100), [0, 0, 300], {
      openings: [{ id: 'o', kind: 'stones', at: [110, 50], shape: { rect: [10, 10] } }],
    });
    const b = plate('b', rectangle(100, 0, 200, 100), [0, 0, 306]);
    const c = coverage([part('e', rectangle(0, 0, 200, 100), 340)], [a, b]);
    expect(c.fraction).toBeCloseTo(1, 6);
  });
  it('counts louvers by their open share', () => {
    const p = plate('a', rectangle(0, 0, 200, 100), [0, 0, 300], {
      openings: [{ id: 'l', kind: 'louvers', at: [100, 50], shape: { rect: [100, 50] }, openFraction: 0.4 }],
    });
    const c = coverage([part('e', rectangle(0, 0, 200, 100), 340)], [p]);
    expect(c.fraction).toBeCloseTo(1 - (0.4 * 5000) / 20_000, 6);
  });
  it('from ahead shifts by the height the ray climbs', () => {
    // the part's underside is 100 mm above the plate: at 45° the first 100 mm of it see the plate's front missing
    const p = plate('a', rectangle(0, 0, 300, 100), [0, 0, 240]);
    const c = coverage([part('e', rectangle(0, 0, 300, 100), 340)], [p], 45);
    expect(c.components[0]?.fraction).toBeCloseTo(1, 6);
    expect(c.components[0]?.fromAheadFraction).toBeCloseTo(200 / 300, 6);
  });
  it('from ahead ignores sheet that stands above the part', () => {
    const high = plate('a', rectangle(0, 0, 300, 100), [200, 0, 500]);
    const c = coverage([part('e', rectangle(0, 0, 300, 100), 340)], [high], 45);
    expect(c.fromAheadFraction).toBe(0);
  });
  it('leaves out what need not be protected', () => {
    expect(
      coverage([part('e', rectangle(0, 0, 10, 10), 300, { protect: false })], []).components,
    ).toHaveLength(0);
  });
  it('never exceeds one and never falls when a plate is added', () => {
    const box = fc.tuple(
      fc.integer({ min: 0, max: 300 }),
      fc.integer({ min: 0, max: 300 }),
      fc.integer({ min: 20, max: 200 }),
    );
    fc.assert(
      fc.property(box, box, (one, two) => {
        const make = (id: string, [x, y, s]: readonly [number, number, number]) =>
          plate(id, rectangle(x, y, x + s, y + s), [0, 0, 300]);
        const e = [part('e', rectangle(50, 50, 350, 350), 340)];
        const first = coverage(e, [make('a', one)]).fraction;
        const second = coverage(e, [make('a', one), make('b', two)]).fraction;
        expect(second).toBeGreaterThanOrEqual(first - 1e-9);
        expect(second).toBeLessThanOrEqual(1 + 1e-9);
      }),
      { numRuns: 50 },
    );
  });
});

describe('ground angles', () => {
  // SAE J1100 tangent construction, worked values
  it.each([
    [200, 500, 370, 25.6981],
    [250, 700, 380, 21.7371],
    [220, 600, 400, 22.9846],
    [370, 900, 370, 24.2747],
  ])('tangent at h %d x %d r %d is %d°', (h, x, r, deg) => expect(tangentAngle(h, x, r)).toBeCloseTo(deg, 3));
  it.each([
    [220, 2800, 380, 18.25],
    [240, 2700, 400, 20.7054],
  ])('breakover of one point at mid-wheelbase, h %d l %d r %d', (h, l, r, deg) => {
    const rig = rigWith([part('e', rectangle(l / 2 - 0.01, 0, l / 2 + 0.01, 10), h)], {
      wheelbase: l,
      tyreRadius: r,
    });
    expect(groundAngles(rig, []).breakoverDeg).toBeCloseTo(deg, 2);
  });
  it('finds the worst place inside a long flat plate, not at its corners', () => {
    const p = plate('a', rectangle(0, 0, 1600, 300), [600, -150, 220]);
    const g = groundAngles(rigWith([]), [p]);
    const point = rigWith([part('e', rectangle(1399.99, 0, 1400.01, 10), 220)]);
    expect(g.breakoverDeg).toBeCloseTo(groundAngles(point, []).breakoverDeg, 3);
  });
  it('ignores swept spaces and knows the lowest point and its plate', () => {
    const swing = part('s', rectangle(500, 0, 600, 100), 100, { moves: true });
    const p = plate('a', rectangle(0, 0, 300, 100), [900, 0, 260]);
    const rig = rigWith([swing, part('e', rectangle(900, 0, 1200, 100), 300)]);
    expect(lowestPoint(rig, [p])).toMatchObject({ z: 260, panel: 'a' });
    expect(lowestPoint(rig, [])).toMatchObject({ z: 300 });
    expect(lowestPoint(rig, []).panel).toBeUndefined();
  });
});

describe('gaps, catch edges and water', () => {
  it('gap is from the upper face to the part, least over the overlap', () => {
    const p = plate('a', rectangle(0, 0, 400, 100), [0, 0, 300], { pitch: -1 });
    const [g] = gapsAtRest([part('e', rectangle(100, 0, 300, 100), 340)], [p]);
    const rise = Math.tan(Math.PI / 180);
    expect(g?.gapMm).toBeCloseTo(340 - 300 - 300 * rise - 4 / Math.cos(Math.PI / 180), 6);
  });
  it('a rear plate laid below the front one catches, laid above it does not', () => {
    const front = plate('a', rectangle(0, 0, 400, 300), [0, 0, 300]);
    const below = plate('b', rectangle(0, 0, 400, 300), [370, 0, 294]);
    const above = plate('b', rectangle(0, 0, 400, 300), [370, 0, 305]);
    const [edge] = catchEdges([front, below]);
    expect(edge).toMatchObject({ panel: 'b', behind: 'a' });
    expect(edge?.heightMm).toBeCloseTo(6, 9);
    expect(catchEdges([front, above])).toHaveLength(0);
  });
  it('a tray turned up all round holds water until it is drained', () => {
    const flanges = [0, 1, 2, 3].map((edge): Flange => ({ id: `f${edge}`, edge, length: 30, angle: 45 }));
    const hole: Opening = { id: 'h', kind: 'stones', at: [20, 20], shape: { circle: 20 } };
    expect(waterTraps([plate('a', rectangle(0, 0, 300, 200), [0, 0, 300], { flanges })])).toHaveLength(1);
    expect(
      waterTraps([plate('a', rectangle(0, 0, 300, 200), [0, 0, 300], { flanges, openings: [hole] })]),
    ).toEqual([]);
    expect(
      waterTraps([plate('a', rectangle(0, 0, 300, 200), [0, 0, 300], { flanges: flanges.slice(1) })]),
    ).toEqual([]);
  });
});
