import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import {
  areaOf,
  baseFrame,
  centroid,
  circle,
  contains,
  difference,
  dot3,
  heightAt,
  intersection,
  length3,
  type Polygon,
  pierced,
  rectangle,
  regionOf,
  selfCrossing,
  signedArea,
  toSpace,
  underGround,
  union,
  type Vec2,
} from './index';

const coordinate = fc.integer({ min: -500, max: 500 });
/** Star-shaped outlines round a center: always simple. */
const star = fc
  .record({
    center: fc.tuple(coordinate, coordinate),
    radii: fc.array(fc.integer({ min: 20, max: 200 }), { minLength: 3, maxLength: 12 }),
  })
  .map(
    ({ center, radii }): Polygon =>
      radii.map((r, i): Vec2 => {
        const a = (2 * Math.PI * i) / radii.length;
        return [center[0] + r * Math.cos(a), center[1] + r * Math.sin(a)];
      }),
  );

const otherArea = (g: ReturnType<typeof polygonClipping.union>): number =>
  g.reduce(
    (sum, poly) =>
      sum + poly.reduce((s, ring, i) => s + (i === 0 ? 1 : -1) * Math.abs(signedArea(ring.slice(0, -1))), 0),
    0,
  );
const ring = (p: Polygon): [number, number][] => p.map(q => [q[0], q[1]]);

describe('regions agree with an independent clipping library (polygon-clipping)', () => {
  it('for unions, intersections and differences of random outlines', () => {
    fc.assert(
      fc.property(star, star, star, (a, b, c) => {
        const poly = (p: Polygon): [number, number][][] => [ring(p)];
        const [ra, rb, rc] = [poly(a), poly(b), poly(c)];
        const both = union([a, b]);
        expect(areaOf(both)).toBeCloseTo(otherArea(polygonClipping.union(ra, rb)), 0);
        expect(areaOf(intersection(both, regionOf(c)))).toBeCloseTo(
          otherArea(polygonClipping.intersection(polygonClipping.union(ra, rb), rc)),
          0,
        );
        expect(areaOf(difference(regionOf(c), both))).toBeCloseTo(
          otherArea(polygonClipping.difference(rc, ra, rb)),
          0,
        );
      }),
      { numRuns: 60 },
    );
  });

  it('for holes in an outline, whether they lie within it, over its edge, apart or over one another; and for what is cut beside it', () => {
    const small = fc
      .tuple(coordinate, coordinate, fc.integer({ min: 5, max: 90 }))
      .map(([x, y, r]): Polygon => circle([x, y], r, 24));
    fc.assert(
      fc.property(star, fc.array(small, { maxLength: 5 }), star, (outline, holes, other) => {
        const want = polygonClipping.difference([ring(outline)], ...holes.map(h => [ring(h)]));
        const got = pierced(regionOf(outline), outline, holes);
        expect(areaOf(got)).toBeCloseTo(otherArea(want), 0);
        // what is left out of the cutting because it lies elsewhere changes nothing
        expect(areaOf(difference(regionOf(other), got))).toBeCloseTo(
          otherArea(polygonClipping.difference([ring(other)], want)),
          0,
        );
        expect(areaOf(intersection(got, regionOf(other)))).toBeCloseTo(
          otherArea(polygonClipping.intersection(want, [ring(other)])),
          0,
        );
      }),
      { numRuns: 200 },
    );
  });

  it('merges neighbors that share part of a slanting edge', () => {
    const a: Polygon = [
      [0, 0],
      [300, 100],
      [280, 160],
      [-20, 60],
    ];
    const b: Polygon = [
      [90, 30],
      [240, 80],
      [260, 20],
      [110, -30],
    ];
    const merged = union([a, b]);
    expect(merged).toHaveLength(1);
    expect(areaOf(merged)).toBeCloseTo(Math.abs(signedArea(a)) + Math.abs(signedArea(b)), 1);
  });

  it('takes either winding', () => {
    const r = rectangle(0, 0, 10, 20);
    expect(areaOf(union([[...r].reverse(), rectangle(5, 0, 15, 20)]))).toBeCloseTo(300, 6);
  });
});

describe('polygons', () => {
  it('have the area and centroid of the textbook', () => {
    const l: Polygon = [
      [0, 0],
      [4, 0],
      [4, 2],
      [2, 2],
      [2, 4],
      [0, 4],
    ];
    expect(signedArea(l)).toBe(12);
    expect(centroid(l)[0]).toBeCloseTo(5 / 3, 12);
    expect(centroid(l)[1]).toBeCloseTo(5 / 3, 12);
  });
  it('stand for circles of exactly their area', () => {
    expect(signedArea(circle([3, 4], 60))).toBeCloseTo(Math.PI * 900, 8);
  });
  it('know where they cross themselves', () => {
    expect(selfCrossing(rectangle(0, 0, 5, 5))).toBeUndefined();
    expect(
      selfCrossing([
        [0, 0],
        [10, 10],
        [10, 0],
        [0, 10],
      ]),
    ).toEqual([0, 2]);
    expect(
      selfCrossing([
        [0, 0],
        [10, 0],
        [10, 10],
        [5, 0],
        [0, 10],
      ]),
    ).toBeDefined();
  });
  it('contain their inside and their edge', () => {
    const p = rectangle(0, 0, 10, 10);
    expect(contains(p, [5, 5])).toBe(true);
    expect(contains(p, [10, 5])).toBe(true);
    expect(contains(p, [10.1, 5])).toBe(false);
  });
});

describe('the base frame', () => {
  it('lifts the front edge with pitch and the right edge with roll', () => {
    const pitched = baseFrame([100, 0, 300], 10, 0);
    expect(toSpace(pitched, [-100, 0])[2]).toBeGreaterThan(300);
    const rolled = baseFrame([100, 0, 300], 0, 10);
    expect(toSpace(rolled, [0, 100])[2]).toBeGreaterThan(300);
  });
  it('stays orthonormal and right-handed, and inverts', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -80, max: 80 }),
        fc.integer({ min: -80, max: 80 }),
        coordinate,
        (p, r, c) => {
          const f = baseFrame([c, 20, 300], p, r);
          expect(length3(f.u)).toBeCloseTo(1, 12);
          expect(dot3(f.u, f.v)).toBeCloseTo(0, 12);
          const cross = [
            f.u[1] * f.v[2] - f.u[2] * f.v[1],
            f.u[2] * f.v[0] - f.u[0] * f.v[2],
            f.u[0] * f.v[1] - f.u[1] * f.v[0],
          ];
          cross.forEach((k, i) => expect(k).toBeCloseTo(f.n[i] as number, 12));
          const q = toSpace(f, [37, -12]);
          const back = underGround(f, q[0], q[1]);
          expect(back[0]).toBeCloseTo(37, 6);
          expect(back[1]).toBeCloseTo(-12, 6);
          expect(heightAt(f, q[0], q[1])).toBeCloseTo(q[2], 6);
        },
      ),
    );
  });
});
