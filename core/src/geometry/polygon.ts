import { distance2, type Vec2 } from './vector';

/** A closed outline without its first point repeated, mm. */
export type Polygon = readonly Vec2[];

export interface Box {
  readonly min: Vec2;
  readonly max: Vec2;
}

const at = (p: Polygon, i: number): Vec2 => p[((i % p.length) + p.length) % p.length] as Vec2;

/** Point i of an outline, counted round and round. */
export const vertex = at;

/** Area with sign: positive when the outline runs counter-clockwise (x right, y up), mm². */
export function signedArea(p: Polygon): number {
  let sum = 0;
  let a = p[p.length - 1];
  for (const b of p) {
    if (a) sum += a[0] * b[1] - b[0] * a[1];
    a = b;
  }
  return sum / 2;
}

/** Centroid of the enclosed area. */
export function centroid(p: Polygon): Vec2 {
  let [x, y, area] = [0, 0, 0];
  const o = at(p, 0);
  for (let i = 1; i + 1 < p.length; i++) {
    const a = at(p, i);
    const b = at(p, i + 1);
    const w = (a[0] - o[0]) * (b[1] - o[1]) - (b[0] - o[0]) * (a[1] - o[1]);
    area += w;
    x += w * (a[0] + b[0] - 2 * o[0]);
    y += w * (a[1] + b[1] - 2 * o[1]);
  }
  return area === 0 ? o : [o[0] + x / (3 * area), o[1] + y / (3 * area)];
}

/** Smallest upright box round the points. */
export function boxOf(points: Iterable<Vec2>): Box {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const q of points) {
    if (q[0] < x0) x0 = q[0];
    if (q[0] > x1) x1 = q[0];
    if (q[1] < y0) y0 = q[1];
    if (q[1] > y1) y1 = q[1];
  }
  return { min: [x0, y0], max: [x1, y1] };
}

export const boxesMeet = (a: Box, b: Box): boolean =>
  a.min[0] <= b.max[0] && b.min[0] <= a.max[0] && a.min[1] <= b.max[1] && b.min[1] <= a.max[1];

/** A point this near to an edge lies on it, mm. */
const ON = 1e-9;

/** True inside or on the outline (even-odd). */
export function contains(p: Polygon, q: Vec2): boolean {
  const [x, y] = q;
  let inside = false;
  let a = p[p.length - 1];
  for (const b of p) {
    if (!a) return false;
    // only a point within an edge's box can lie on it
    if (
      x >= Math.min(a[0], b[0]) - ON &&
      x <= Math.max(a[0], b[0]) + ON &&
      y >= Math.min(a[1], b[1]) - ON &&
      y <= Math.max(a[1], b[1]) + ON &&
      distanceToSegment(q, a, b) < ON
    )
      return true;
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside;
    a = b;
  }
  return inside;
}

export function distanceToSegment(p: Vec2, a: Vec2, b: Vec2): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const l2 = dx * dx + dy * dy;
  const t = l2 === 0 ? 0 : Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / l2));
  return distance2(p, [a[0] + t * dx, a[1] + t * dy]);
}

/** Least distance from a point to the outline itself, mm. */
export function distanceToOutline(p: Polygon, q: Vec2): number {
  let least = Infinity;
  for (let i = 0; i < p.length; i++) least = Math.min(least, distanceToSegment(q, at(p, i), at(p, i + 1)));
  return least;
}

/**
 * How far a ray from a point goes before it first meets an outline, in lengths of its direction; undefined where it never does. From a
 * point inside that is the way out.
 */
export function wayOut(p: Polygon, from: Vec2, along: Vec2): number | undefined {
  let least: number | undefined;
  for (let i = 0; i < p.length; i++) {
    const [a, b] = [at(p, i), at(p, i + 1)];
    const [ex, ey] = [b[0] - a[0], b[1] - a[1]];
    const det = ex * along[1] - ey * along[0];
    if (Math.abs(det) < 1e-12) continue;
    const [rx, ry] = [a[0] - from[0], a[1] - from[1]];
    // from + t along = a + s (b - a)
    const t = (ex * ry - ey * rx) / det;
    const s = (along[0] * ry - along[1] * rx) / det;
    if (t >= 0 && s >= -1e-9 && s <= 1 + 1e-9 && (least === undefined || t < least)) least = t;
  }
  return least;
}

const side = (a: Vec2, b: Vec2, c: Vec2): number =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

function crossing(a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean {
  const [s1, s2, s3, s4] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)];
  if (s1 * s2 < 0 && s3 * s4 < 0) return true;
  const on = (p: Vec2, q: Vec2, r: Vec2, s: number): boolean => s === 0 && distanceToSegment(r, p, q) < 1e-9;
  return on(a, b, c, s1) || on(a, b, d, s2) || on(c, d, a, s3) || on(c, d, b, s4);
}

/** Least distance between two outlines' areas, mm; nought where they overlap. */
export function outlinesApart(p: Polygon, q: Polygon): number {
  if (p.some(a => contains(q, a)) || q.some(b => contains(p, b))) return 0;
  let least = Infinity;
  for (let i = 0; i < p.length; i++)
    for (let j = 0; j < q.length; j++) if (crossing(at(p, i), at(p, i + 1), at(q, j), at(q, j + 1))) return 0;
  for (const a of p) least = Math.min(least, distanceToOutline(q, a));
  for (const b of q) least = Math.min(least, distanceToOutline(p, b));
  return least;
}

/**
 * The first pair of edges of an outline that cross or touch, by their indices; undefined for a simple outline. Edges are gone through from
 * left to right, each asked only against those that still reach as far: n log n for outlines as they are, where every pair was asked before.
 */
export function selfCrossing(p: Polygon): readonly [number, number] | undefined {
  const n = p.length;
  // a breadth that lets touching edges meet
  const SLACK = 1e-6;
  const box = p.map((a, i) => {
    const b = at(p, i + 1);
    return [
      Math.min(a[0], b[0]) - SLACK,
      Math.max(a[0], b[0]) + SLACK,
      Math.min(a[1], b[1]) - SLACK,
      Math.max(a[1], b[1]) + SLACK,
    ] as const;
  });
  type Box = (typeof box)[number];
  const order = [...box.keys()].sort((i, j) => (box[i] as Box)[0] - (box[j] as Box)[0]);
  let first: readonly [number, number] | undefined;
  let reaching: number[] = [];
  for (const k of order) {
    const b = box[k] as Box;
    reaching = reaching.filter(o => (box[o] as Box)[1] >= b[0]);
    for (const o of reaching) {
      const c = box[o] as Box;
      if (c[3] < b[2] || c[2] > b[3]) continue;
      const [i, j] = k < o ? [k, o] : [o, k];
      if (j - i < 2 || (i === 0 && j === n - 1)) continue;
      if (first && (i > first[0] || (i === first[0] && j > first[1]))) continue;
      if (crossing(at(p, i), at(p, i + 1), at(p, j), at(p, j + 1))) first = [i, j];
    }
    reaching.push(k);
  }
  return first;
}

export const rectangle = (x0: number, y0: number, x1: number, y1: number): Polygon => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** A circle as a regular polygon of the same area, so that areas with holes stay exact. */
export function circle([cx, cy]: Vec2, diameter: number, sides = 48): Polygon {
  const step = (2 * Math.PI) / sides;
  const r = (diameter / 2) * Math.sqrt(step / Math.sin(step));
  return Array.from(
    { length: sides },
    (_, i): Vec2 => [cx + r * Math.cos(i * step), cy + r * Math.sin(i * step)],
  );
}
