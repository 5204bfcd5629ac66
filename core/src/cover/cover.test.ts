import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import { fold } from '../fold';
import { type Polygon, rectangle, selfCrossing, signedArea, type Vec2, type Vec3 } from '../geometry';
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
  bars: [],
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

describe('coverage agrees with an independent clipping library (polygon-clipping)', () => {
  const outline = fc
    .array(fc.tuple(fc.integer({ min: 60, max: 400 }), fc.integer({ min: 0, max: 20 })), {
      minLength: 4,
      maxLength: 9,
    })
    .map(rs =>
      rs.map(([r, wobble], i): Vec2 => {
        const a = (2 * Math.PI * (i + wobble / 60)) / rs.length;
        return [r * Math.cos(a), r * Math.sin(a)];
      }),
    );
  const hole = fc.record({
    at: fc.tuple(fc.integer({ min: -150, max: 150 }), fc.integer({ min: -150, max: 150 })),
    size: fc.tuple(fc.integer({ min: 10, max: 120 }), fc.integer({ min: 10, max: 120 })),
  });
  const plate = (
    id: string,
    o: readonly Vec2[],
    dx: number,
    holes: readonly { at: readonly number[]; size: readonly number[] }[],
  ): Panel => ({
    id,
    mark: id,
    name: id,
    base: { origin: [dx, 0, 300], pitch: 0, roll: 0, outline: o },
    flanges: [],
    openings: holes.map((h, i) => ({
      id: `${i}`,
      kind: 'relief' as const,
      at: [h.at[0] ?? 0, h.at[1] ?? 0] as const,
      shape: { rect: [h.size[0] ?? 1, h.size[1] ?? 1] as const },
    })),
    guards: [],
  });
  type Ring = [number, number][];
  const ring = (o: readonly Vec2[], dx = 0): Ring[] => [o.map((q): [number, number] => [q[0] + dx, q[1]])];
  const areaOfGeometry = (g: ReturnType<typeof polygonClipping.union>): number =>
    g.reduce(
      (sum, poly) => sum + poly.reduce((s, r, i) => s + (i === 0 ? 1 : -1) * Math.abs(signedArea(r)), 0),
      0,
    );

  it('within a millionth of the area, on random plates with openings', () => {
    fc.assert(
      fc.property(
        outline,
        outline,
        outline,
        fc.array(hole, { maxLength: 3 }),
        fc.integer({ min: -200, max: 200 }),
        (foot, a, b, holes, dx) => {
          fc.pre([foot, a, b].every(o => selfCrossing(o) === undefined && Math.abs(signedArea(o)) > 5000));
          const part: Component = {
            id: 'c',
            kind: 'engine',
            name: 'c',
            footprint: foot,
            zBottom: 400,
            zTop: 500,
            protect: true,
            keepOut: 0,
          };
          const sheet = { material: 'steel-hr36', thickness: 5, finish: 'raw' } as const;
          const ours = coverage(
            [part],
            [fold(plate('a', a, 0, holes), sheet), fold(plate('b', b, dx, []), sheet)],
          ).components[0];
          const cut = holes.map(h => {
            const [u, v] = [h.at[0] ?? 0, h.at[1] ?? 0];
            const [w, l] = [(h.size[0] ?? 1) / 2, (h.size[1] ?? 1) / 2];
            return ring([
              [u - w, v - l],
              [u + w, v - l],
              [u + w, v + l],
              [u - w, v + l],
            ]);
          });
          const first = cut.length > 0 ? polygonClipping.difference(ring(a), ...cut) : [ring(a)];
          const both = polygonClipping.union(first as never, ring(b, dx));
          const theirs = areaOfGeometry(polygonClipping.intersection(ring(foot), both));
          expect(Math.abs((ours?.coveredMm2 ?? 0) - theirs)).toBeLessThanOrEqual(
            1e-6 * Math.abs(signedArea(foot)),
          );
        },
      ),
      { numRuns: 150 },
    );
  });
});
