import {
  differenceD,
  EndType,
  FillRule,
  inflatePathsD,
  intersectD,
  JoinType,
  Minkowski,
  type PathD,
  type PathsD,
  simplifyPathsD,
  unionD,
} from 'clipper2-ts';
import { boxesMeet, boxOf, contains, type Polygon, signedArea, vertex } from './polygon';
import { distance2, type Vec2 } from './vector';

/** Any flat area: outlines counter-clockwise, holes clockwise, mm. The only door to the clipping library. */
export type Region = readonly Polygon[];

/** Decimal digits kept by the clipping library: 1e-4 mm. */
const PRECISION = 4;
/** A vertex this near to a neighbour's edge, mm, is taken to lie on it. */
const TOUCH = 1e-3;

const counterClockwise = (p: Polygon): Polygon => (signedArea(p) < 0 ? [...p].reverse() : p);
const toPaths = (r: Region): PathsD => r.map((p): PathD => p.map(([x, y]) => ({ x, y })));
const fromPaths = (paths: PathsD): Region => paths.map(path => path.map((q): Vec2 => [q.x, q.y]));

/**
 * Adds to every outline the vertices of the others that lie on its edges. Without them polygons that share part
 * of a slanting edge stay apart by the rounding of the library's grid.
 */
function withTouchingVertices(r: Region): Region {
  const boxes = r.map(boxOf);
  return r.map((p, k) => {
    const mine = boxes[k];
    const near = r.filter((_, j) => j !== k && mine && boxes[j] && boxesMeet(mine, boxes[j])).flat();
    if (near.length === 0) return p;
    const out: Vec2[] = [];
    for (let i = 0; i < p.length; i++) {
      const a = vertex(p, i);
      const b = vertex(p, i + 1);
      out.push(a);
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const l = Math.hypot(dx, dy);
      if (l === 0) continue;
      const hits: [number, Vec2][] = [];
      for (const q of near) {
        const along = ((q[0] - a[0]) * dx + (q[1] - a[1]) * dy) / l;
        if (along <= TOUCH || along >= l - TOUCH) continue;
        if (Math.abs((q[0] - a[0]) * dy - (q[1] - a[1]) * dx) / l < TOUCH) hits.push([along, q]);
      }
      hits.sort((x, y) => x[0] - y[0]);
      for (const [, q] of hits) if (distance2(out.at(-1) as Vec2, q) > TOUCH) out.push(q);
    }
    return out;
  });
}

/** Polygons of any winding merged into one region. */
export function union(polygons: Region): Region {
  if (polygons.length === 0) return [];
  const ready = withTouchingVertices(polygons.map(counterClockwise));
  return fromPaths(unionD(toPaths(ready), [], FillRule.NonZero, PRECISION));
}

/** What two regions share. */
export function intersection(a: Region, b: Region): Region {
  if (a.length === 0 || b.length === 0) return [];
  return fromPaths(intersectD(toPaths(a), toPaths(b), FillRule.NonZero, PRECISION));
}

/** What is left of `a` without `b`. */
export function difference(a: Region, b: Region): Region {
  if (a.length === 0 || b.length === 0) return a;
  return fromPaths(differenceD(toPaths(a), toPaths(b), FillRule.NonZero, PRECISION));
}

/** Area of a region, holes taken off, mm². */
export const areaOf = (r: Region): number => r.reduce((sum, p) => sum + signedArea(p), 0);

/** Whether a point lies in a region and in none of its holes. */
export const inRegion = (r: Region, p: Vec2): boolean => r.filter(o => contains(o, p)).length % 2 === 1;

/** One polygon of any winding as a region. */
export const regionOf = (p: Polygon): Region => [counterClockwise(p)];

/** A region grown (or, below zero, shrunk) by a distance, mm; its corners stay pointed up to twice that distance. */
export const grown = (r: Region, by: number): Region =>
  r.length === 0 || by === 0
    ? r
    : fromPaths(inflatePathsD(toPaths(r), by, JoinType.Miter, EndType.Polygon, 2, PRECISION));

/** A region with the corners left out that move its outline by less than `within` mm. */
export const simplified = (r: Region, within: number): Region =>
  fromPaths(simplifyPathsD(toPaths(r), within));

/**
 * Where the origin of `b` may not stand, so that it keeps off `a`: the Minkowski sum of a and −b. Hollows of `a` that `b`
 * might stand in are counted as filled. Both by one outline, mm.
 */
export function noFit(a: Polygon, b: Polygon): Region {
  const sum = Minkowski.diffD(toPaths([b])[0] as PathD, toPaths([a])[0] as PathD, true, 3);
  return union(fromPaths(sum).filter(p => signedArea(p) > 0));
}
