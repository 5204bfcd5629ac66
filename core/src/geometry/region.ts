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
import { type Box, boxesMeet, boxOf, contains, type Polygon, signedArea, vertex } from './polygon';
import { distance2, type Vec2 } from './vector';

/** Any flat area: outlines counter-clockwise, holes clockwise, mm. The only door to the clipping library. */
export type Region = readonly Polygon[];

/** Decimal digits kept by the clipping library: 1e-4 mm. */
const PRECISION = 4;
/** An outline of less than this encloses nothing, mm². */
const NOTHING = 1e-6;
/** A vertex this near to a neighbor's edge, mm, is taken to lie on it. */
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

/** Outlines of `b`, and holes of it, that may meet something of `a`: the others change nothing there. */
const reaching = (a: Region, b: Region): Region => {
  const box = boxOf(a.flat());
  const near = b.filter(o => boxesMeet(boxOf(o), box));
  return near.length === b.length ? b : near;
};

/** What two regions share. */
export function intersection(a: Region, b: Region): Region {
  if (a.length === 0) return [];
  const other = reaching(a, b);
  if (other.length === 0) return [];
  return fromPaths(intersectD(toPaths(reaching(other, a)), toPaths(other), FillRule.NonZero, PRECISION));
}

/** What is left of `a` without `b`. */
export function difference(a: Region, b: Region): Region {
  if (a.length === 0) return a;
  const other = reaching(a, b);
  // outlines that enclose nothing go, as cutting would have them go
  if (other.length === 0) return b.length === 0 ? a : a.filter(p => Math.abs(signedArea(p)) > NOTHING);
  return fromPaths(differenceD(toPaths(a), toPaths(other), FillRule.NonZero, PRECISION));
}

/** Whether an edge comes into a box: it reaches beside it, and not all corners of the box lie to one side of its line. */
function edgeMeets(a: Vec2, b: Vec2, { min, max }: Box): boolean {
  if (Math.max(a[0], b[0]) < min[0] || Math.min(a[0], b[0]) > max[0]) return false;
  if (Math.max(a[1], b[1]) < min[1] || Math.min(a[1], b[1]) > max[1]) return false;
  const side = (x: number, y: number): number =>
    Math.sign((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]));
  const first = side(min[0], min[1]);
  return (
    first === 0 ||
    side(max[0], min[1]) !== first ||
    side(max[0], max[1]) !== first ||
    side(min[0], max[1]) !== first
  );
}

/**
 * A region without some polygons that lie well inside one of its outlines, `within`, and apart from each other; where one does not, it is
 * cut out. The same as `difference`, without cutting where nothing has to be cut.
 */
export function pierced(r: Region, within: Polygon, holes: readonly Polygon[]): Region {
  if (holes.length === 0) return r;
  const boxes = holes.map(boxOf);
  const plain = boxes.every(
    (box, i) =>
      boxes.every((other, k) => k === i || !boxesMeet(other, box)) &&
      !within.some((a, k) => edgeMeets(a, vertex(within, k + 1), box)) &&
      contains(within, [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2]),
  );
  return plain ? [...r, ...holes.map(h => [...counterClockwise(h)].reverse())] : difference(r, union(holes));
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
