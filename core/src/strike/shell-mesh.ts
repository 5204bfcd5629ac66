import {
  add3,
  cross3,
  dot3,
  length3,
  type Polygon,
  scale3,
  signedArea,
  sub3,
  type Vec2,
  type Vec3,
} from '../geometry';
import { type MeshFault, meshFlat } from './mesh-flat';
import type { SpaceSpacing } from './spacing';

/** A flat of a shell: its middle surface in space, mm. Flats that share an edge are joined there. */
export interface Flat3 {
  readonly name: string;
  readonly polygon: readonly Vec3[];
  readonly holes: readonly (readonly Vec3[])[];
}

/** What a mesh has to follow besides its flats: rings round bolts and the like, points, and lines on a flat. */
export interface MeshWish {
  readonly flats: readonly Flat3[];
  /** closed rings of nodes, as they are */
  readonly rings: readonly (readonly Vec3[])[];
  readonly points: readonly Vec3[];
  /** straight lines whose nodes follow one another */
  readonly lines: readonly (readonly [Vec3, Vec3])[];
  /** spacing of nodes wanted at a place, mm */
  readonly spacing: SpaceSpacing;
}

/** Triangles in space: x y z of every node, three nodes of every triangle, the flat each belongs to. */
export interface ShellMesh {
  readonly coordinates: Float64Array;
  readonly triangles: Int32Array;
  readonly flatOf: Int32Array;
}

export const nodeAt = ({ coordinates: c }: ShellMesh, n: number): Vec3 => [
  c[3 * n] as number,
  c[3 * n + 1] as number,
  c[3 * n + 2] as number,
];

/** Corner coordinates of a triangle, x y z after one another. */
export function cornersOf({ coordinates, triangles }: ShellMesh, e: number, out: Float64Array): void {
  for (let i = 0; i < 3; i++) {
    const n = 3 * (triangles[3 * e + i] as number);
    out[3 * i] = coordinates[n] as number;
    out[3 * i + 1] = coordinates[n + 1] as number;
    out[3 * i + 2] = coordinates[n + 2] as number;
  }
}

/** Nodes no further from a place than a disc's radius and a hair. */
export function discNodes(mesh: ShellMesh, at: Vec3, radius: number): readonly number[] {
  const out: number[] = [];
  for (let n = 0; n < mesh.coordinates.length / 3; n++)
    if (length3(sub3(nodeAt(mesh, n), at)) <= 1.08 * radius) out.push(n);
  return out;
}

/** The node nearest to a place. */
export function nearestNode(mesh: ShellMesh, at: Vec3): number {
  let best = { n: 0, d: Infinity };
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    const d = length3(sub3(nodeAt(mesh, n), at));
    if (d < best.d) best = { n, d };
  }
  return best.n;
}

/** The middle of a triangle. */
export const middleOf = (mesh: ShellMesh, e: number): Vec3 =>
  [0, 1, 2].reduce<Vec3>(
    (s, i) => add3(s, scale3(nodeAt(mesh, mesh.triangles[3 * e + i] as number), 1 / 3)),
    [0, 0, 0],
  );

export interface ShellMeshFault {
  readonly fault: string;
  readonly flat: string;
  readonly at: Vec3;
}

/** Points this near to a plane, an edge or one another are taken to lie there, mm. */
const TOUCH = 1e-3;

/** A plane with two axes, the first along the polygon's first side. */
export interface Plane3 {
  readonly origin: Vec3;
  readonly u: Vec3;
  readonly v: Vec3;
  readonly n: Vec3;
}

/** The plane of a flat, its normal by the polygon's winding (Newell). */
export function planeOf(polygon: readonly Vec3[]): Plane3 {
  let n: Vec3 = [0, 0, 0];
  polygon.forEach((p, i) => {
    n = add3(n, cross3(p, polygon[(i + 1) % polygon.length] as Vec3));
  });
  n = scale3(n, 1 / (length3(n) || 1));
  const origin = polygon[0] as Vec3;
  const side = sub3(polygon[1] as Vec3, origin);
  const u = scale3(side, 1 / (length3(side) || 1));
  return { origin, u, v: cross3(n, u), n };
}
export const inPlane2 = ({ origin, u, v }: Plane3, p: Vec3): Vec2 => {
  const d = sub3(p, origin);
  return [dot3(d, u), dot3(d, v)];
};
export const offPlane = ({ origin, n }: Plane3, p: Vec3): number => dot3(sub3(p, origin), n);
const inSpace = ({ origin, u, v }: Plane3, [x, y]: Vec2): Vec3 =>
  add3(origin, add3(scale3(u, x), scale3(v, y)));

/** One order of any two points, so that a line is cut alike from either end. */
const before = (a: Vec3, b: Vec3): boolean =>
  a[0] - b[0] < -1e-6 ||
  (Math.abs(a[0] - b[0]) <= 1e-6 && (a[1] - b[1] < -1e-6 || (Math.abs(a[1] - b[1]) <= 1e-6 && a[2] < b[2])));

/** Nodes between two points, both ends left out, as dense as the spacing wants; the same from either end. */
export function cutLine(a: Vec3, b: Vec3, spacing: (p: Vec3) => number): readonly Vec3[] {
  const length = length3(sub3(b, a));
  if (length < TOUCH) return [];
  if (before(b, a)) return [...cutLine(b, a, spacing)].reverse();
  const steps = 64;
  const sum = [0];
  for (let i = 0; i < steps; i++) {
    const h = spacing(add3(a, scale3(sub3(b, a), (i + 0.5) / steps)));
    sum.push((sum[i] as number) + length / steps / h);
  }
  const n = Math.max(1, Math.round(sum[steps] as number));
  const out: Vec3[] = [];
  let k = 0;
  for (let i = 1; i < n; i++) {
    const want = ((sum[steps] as number) * i) / n;
    while ((sum[k + 1] as number) < want) k++;
    const t = (k + (want - (sum[k] as number)) / ((sum[k + 1] as number) - (sum[k] as number))) / steps;
    out.push(add3(a, scale3(sub3(b, a), t)));
  }
  return out;
}

/** A polygon with the points that lie on its sides put in, in order along them. */
function withPointsOn(polygon: readonly Vec3[], points: readonly Vec3[]): readonly Vec3[] {
  return polygon.flatMap((a, i) => {
    const b = polygon[(i + 1) % polygon.length] as Vec3;
    const d = sub3(b, a);
    const l = length3(d);
    const on = points
      .map(p => ({ p, t: dot3(sub3(p, a), d) / l }))
      .filter(({ p, t }) => t > TOUCH && t < l - TOUCH && length3(sub3(sub3(p, a), scale3(d, t / l))) < TOUCH)
      .sort((x, y) => x.t - y.t)
      .filter((x, k, all) => k === 0 || x.t - (all[k - 1] as { t: number }).t > TOUCH);
    return [a, ...on.map(x => x.p)];
  });
}

const cutRing = (ring: readonly Vec3[], spacing: MeshWish['spacing']): readonly Vec3[] =>
  ring.flatMap((a, i) => [a, ...cutLine(a, ring[(i + 1) % ring.length] as Vec3, spacing)]);

/** Nodes this near along every axis are one, mm. */
const SAME = 3e-3;

/** The node at a place: one that is known there, or a new one, put after the coordinates. Nodes are found by cells of a millimeter. */
function sharedNodes(coordinates: number[]): (p: Vec3) => number {
  const cells = new Map<number, number[]>();
  const cell = (x: number, y: number, z: number): number =>
    (Math.floor(x) * 65_536 + Math.floor(y)) * 65_536 + Math.floor(z);
  const off = (n: number, p: Vec3): number =>
    Math.max(
      Math.abs((coordinates[3 * n] as number) - p[0]),
      Math.abs((coordinates[3 * n + 1] as number) - p[1]),
      Math.abs((coordinates[3 * n + 2] as number) - p[2]),
    );
  return p => {
    const [x, y, z] = p;
    // a place on the border of two cells looks into both
    for (let d = 0; d < 8; d++) {
      const [dx, dy, dz] = [d & 1 ? SAME : -SAME, d & 2 ? SAME : -SAME, d & 4 ? SAME : -SAME];
      const first =
        (!(d & 1) || Math.floor(x + dx) !== Math.floor(x - SAME)) &&
        (!(d & 2) || Math.floor(y + dy) !== Math.floor(y - SAME)) &&
        (!(d & 4) || Math.floor(z + dz) !== Math.floor(z - SAME));
      if (!first) continue;
      const hit = cells.get(cell(x + dx, y + dy, z + dz))?.find(n => off(n, p) < SAME);
      if (hit !== undefined) return hit;
    }
    const n = coordinates.push(x, y, z) / 3 - 1;
    const own = cell(x, y, z);
    const there = cells.get(own);
    if (there) there.push(n);
    else cells.set(own, [n]);
    return n;
  };
}

/** Meshes the flats of a shell so that they share their nodes along common edges. */
export function meshShell(wish: MeshWish): ShellMesh | ShellMeshFault {
  const { spacing } = wish;
  const corners = wish.flats.flatMap(f => f.polygon);
  const ends = wish.lines.flat();
  const coordinates: number[] = [];
  const triangles: number[] = [];
  const flatOf: number[] = [];
  const nodeAt = sharedNodes(coordinates);
  for (const [index, flat] of wish.flats.entries()) {
    const plane = planeOf(flat.polygon);
    const lies = (p: Vec3): boolean => Math.abs(offPlane(plane, p)) < TOUCH;
    const polygon = withPointsOn(flat.polygon, [
      ...corners,
      ...ends.filter(lies),
      ...wish.points.filter(lies),
    ]);
    const outline = cutRing(polygon, spacing).map(p => inPlane2(plane, p));
    const hole = (h: readonly Vec3[]): Polygon => cutRing(h, spacing).map(p => inPlane2(plane, p));
    const within = (p: Vec3): boolean => lies(p) && inOrOn(outline, inPlane2(plane, p));
    const rings = wish.rings.filter(r => r.every(within)).map(r => r.map(p => inPlane2(plane, p)));
    const lines = wish.lines
      .filter(([a, b]) => within(a) && within(b))
      .map(line =>
        // a line runs through the points that lie on it
        withPointsOn(line, wish.points.filter(within))
          .slice(0, -1)
          .concat([line[1]])
          .flatMap((p, i, all) => (i === 0 ? [p] : [...cutLine(all[i - 1] as Vec3, p, spacing), p]))
          .map(p => inPlane2(plane, p)),
      );
    const made = meshFlat({
      outline: signedArea(outline) > 0 ? outline : [...outline].reverse(),
      holes: flat.holes.map(hole),
      points: wish.points.filter(within).map(p => inPlane2(plane, p)),
      chains: [...rings.map(r => [...r, r[0] as Vec2]), ...lines],
      spacing: spacing.on?.(plane) ?? ((x, y) => spacing(inSpace(plane, [x, y]))),
    });
    if ('fault' in made)
      return { fault: (made as MeshFault).fault, flat: flat.name, at: inSpace(plane, made.at) };
    const ids = made.nodes.map(q => nodeAt(inSpace(plane, q)));
    for (const t of made.triangles) {
      triangles.push(ids[t[0]] as number, ids[t[1]] as number, ids[t[2]] as number);
      flatOf.push(index);
    }
  }
  return {
    coordinates: Float64Array.from(coordinates),
    triangles: Int32Array.from(triangles),
    flatOf: Int32Array.from(flatOf),
  };
}

/** True inside or on an outline, within the touch. */
function inOrOn(outline: Polygon, [x, y]: Vec2): boolean {
  let hit = false;
  for (let i = 0; i < outline.length; i++) {
    const [a, b] = [outline[i] as Vec2, outline[(i + 1) % outline.length] as Vec2];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const t = Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1)));
    if (Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy) < TOUCH) return true;
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) hit = !hit;
  }
  return hit;
}
