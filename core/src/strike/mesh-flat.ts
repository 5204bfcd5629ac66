import Delaunator from 'delaunator';
import { type Polygon, signedArea, type Vec2 } from '../geometry';
import { distinct, insideOf, nearness, overSides, splitNear } from './mesh-outline';
import type { Spacing } from './spacing';

/** A flat piece to be meshed: its outlines already cut into the node spacing wanted along them. */
export interface FlatPiece {
  /** counter-clockwise */
  readonly outline: Polygon;
  /** clockwise or not: what is inside them is open */
  readonly holes: readonly Polygon[];
  /** points that must be nodes, and chains of points whose links must be sides of triangles */
  readonly points: readonly Vec2[];
  readonly chains: readonly (readonly Vec2[])[];
  readonly spacing: Spacing;
}

/** Nodes and triangles in a plane; the first nodes are outline, holes, chains and points, in that order. */
export interface FlatMesh {
  readonly nodes: readonly Vec2[];
  readonly triangles: readonly (readonly [number, number, number])[];
}

/** Why a piece could not be meshed, and where. */
export interface MeshFault {
  readonly fault: string;
  readonly at: Vec2;
}

/** Free points keep this share of the spacing from fixed ones, so that fixed links stay sides of triangles. */
const CLEAR = 0.62;
/** Tries to win back sides that were lost. */
const MENDS = 4;
const ROUNDS = 28;
/** Points are triangulated anew once one has moved by this share of its spacing. */
const MOVED = 0.25;
/** Links are under pressure until they are this much longer than asked: the pressure spreads the points. */
const PRESSURE = 1.18;

/** Repeatable numbers in 0..1, so that the same plate always gets the same mesh. */
function repeatable(seed: number): () => number {
  let s = seed;
  return () => {
    s = (s * 16807) % 2147483647;
    return (s - 1) / 2147483646;
  };
}

/**
 * Triangles of a flat piece, graded by its spacing: points from a hexagonal grid thinned by the spacing, moved by the forces
 * of a truss of their links (Persson and Strang 2004), triangulated by Delaunay, and cut to the outline. Fixed links are sides
 * of triangles because free points keep away from them; where one is not, the place is told.
 */
export function meshFlat(piece: FlatPiece): FlatMesh | MeshFault {
  const spacing = sampled(piece);
  const fixed: Vec2[] = [];
  const links: (readonly [number, number])[] = [];
  const ring = (p: readonly Vec2[], closed: boolean): void => {
    const from = fixed.length;
    for (const q of p) fixed.push(q);
    for (let i = 0; i + 1 < p.length; i++) links.push([from + i, from + i + 1]);
    if (closed) links.push([from + p.length - 1, from]);
  };
  ring(piece.outline, true);
  for (const h of piece.holes) ring(splitNear(h, piece.points), true);
  for (const c of piece.chains) ring(c, false);
  for (const q of piece.points) fixed.push(q);
  // a point given twice (a chain that ends on the outline) is one node: the later one goes
  const { kept, renamed } = distinct(fixed);
  const sides = links
    .map(([a, b]) => [renamed[a] as number, renamed[b] as number] as const)
    .filter(([a, b]) => a !== b);
  const inside = insideOf([piece.outline, ...piece.holes]);
  const near = nearness(kept, sides);
  const free = seeds(piece, spacing).filter(q => {
    const clear = CLEAR * spacing(q[0], q[1]);
    return near(q[0], q[1], clear) > clear && inside(q[0], q[1]);
  });
  const n0 = kept.length;
  const xy = new Float64Array(2 * (n0 + free.length));
  [...kept, ...free].forEach((q, i) => {
    xy[2 * i] = q[0];
    xy[2 * i + 1] = q[1];
  });
  let count = n0 + free.length;
  let tri = inner(xy, count, inside);
  let bars = barsOf(tri);
  let since = xy.slice();
  for (let round = 0; round < ROUNDS && count > n0; round++) {
    const force = new Float64Array(2 * count);
    let [sumL2, sumH2] = [0, 0];
    const want = new Float64Array(bars.length / 2);
    for (let b = 0; b < bars.length; b += 2) {
      const i = bars[b] as number;
      const j = bars[b + 1] as number;
      const dx = (xy[2 * i] as number) - (xy[2 * j] as number);
      const dy = (xy[2 * i + 1] as number) - (xy[2 * j + 1] as number);
      const h = spacing(
        ((xy[2 * i] as number) + (xy[2 * j] as number)) / 2,
        ((xy[2 * i + 1] as number) + (xy[2 * j + 1] as number)) / 2,
      );
      want[b / 2] = h;
      sumL2 += dx * dx + dy * dy;
      sumH2 += h * h;
    }
    const scale = PRESSURE * Math.sqrt(sumL2 / sumH2);
    for (let b = 0; b < bars.length; b += 2) {
      const i = bars[b] as number;
      const j = bars[b + 1] as number;
      const dx = (xy[2 * i] as number) - (xy[2 * j] as number);
      const dy = (xy[2 * i + 1] as number) - (xy[2 * j + 1] as number);
      const l = Math.sqrt(dx * dx + dy * dy) || 1e-9;
      const f = Math.max((want[b / 2] as number) * scale - l, 0) / l;
      force[2 * i] = (force[2 * i] as number) + f * dx;
      force[2 * i + 1] = (force[2 * i + 1] as number) + f * dy;
      force[2 * j] = (force[2 * j] as number) - f * dx;
      force[2 * j + 1] = (force[2 * j + 1] as number) - f * dy;
    }
    let far = 0;
    for (let i = n0; i < count; i++) {
      const ox = xy[2 * i] as number;
      const oy = xy[2 * i + 1] as number;
      const nx = ox + 0.2 * (force[2 * i] as number);
      const ny = oy + 0.2 * (force[2 * i + 1] as number);
      const h = spacing(nx, ny);
      // a step that comes too near to an edge is not taken; one that keeps off cannot leave the piece
      if (near(nx, ny, CLEAR * h) < CLEAR * h || Math.hypot(nx - ox, ny - oy) > CLEAR * h) continue;
      xy[2 * i] = nx;
      xy[2 * i + 1] = ny;
      far = Math.max(far, Math.hypot(nx - (since[2 * i] as number), ny - (since[2 * i + 1] as number)) / h);
    }
    if (far > MOVED || round === ROUNDS - 1) {
      tri = inner(xy, count, inside);
      bars = barsOf(tri);
      since = xy.slice();
    }
    // points pressed together are thinned out once on the way
    if (round === 10) {
      const crowded = tooClose(xy, n0, count, spacing);
      if (crowded.size > 0) {
        count = without(xy, n0, count, crowded);
        tri = inner(xy, count, inside);
        bars = barsOf(tri);
        since = xy.slice();
      }
    }
  }
  // a side of the outline is an edge of the mesh where no point lies within the circle over it: what strayed there is taken out
  for (let mend = 0; ; mend++) {
    const edges = new Set<number>();
    for (let k = 0; k < bars.length; k += 2) edges.add((bars[k] as number) * count + (bars[k + 1] as number));
    const lost = sides.filter(([a, b]) => !edges.has(Math.min(a, b) * count + Math.max(a, b)));
    const first = lost[0];
    if (!first) break;
    const strays = mend < MENDS ? overSides(xy, n0, count, lost) : new Set<number>();
    if (strays.size === 0)
      return {
        fault: 'the outline is too fine or too crooked there to be meshed',
        at: kept[first[0]] as Vec2,
      };
    count = without(xy, n0, count, strays);
    tri = inner(xy, count, inside);
    bars = barsOf(tri);
  }
  const nodes: Vec2[] = [];
  for (let i = 0; i < count; i++) nodes.push([xy[2 * i] as number, xy[2 * i + 1] as number]);
  const triangles: [number, number, number][] = [];
  for (let k = 0; k < tri.length; k += 3)
    triangles.push([tri[k] as number, tri[k + 1] as number, tri[k + 2] as number]);
  return { nodes, triangles };
}

/** Takes points out of a list, the others moving up; gives how many are left. */
function without(xy: Float64Array, from: number, count: number, gone: ReadonlySet<number>): number {
  let to = from;
  for (let i = from; i < count; i++) {
    if (gone.has(i)) continue;
    xy[2 * to] = xy[2 * i] as number;
    xy[2 * to + 1] = xy[2 * i + 1] as number;
    to++;
  }
  return to;
}

/** A spacing looked up on a grid and laid straight between its points: it is asked for some hundred thousand times. */
function sampled({ outline, spacing }: FlatPiece): Spacing {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of outline)
    [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
  const size = Math.max(x1 - x0, y1 - y0) / 100;
  const nx = Math.ceil((x1 - x0) / size) + 2;
  const ny = Math.ceil((y1 - y0) / size) + 2;
  const at = new Float64Array(nx * ny);
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) at[j * nx + i] = spacing(x0 + i * size, y0 + j * size);
  return (x, y) => {
    const u = Math.max(0, Math.min(nx - 1.001, (x - x0) / size));
    const v = Math.max(0, Math.min(ny - 1.001, (y - y0) / size));
    const i = Math.floor(u);
    const j = Math.floor(v);
    const k = j * nx + i;
    const s = u - i;
    const t = v - j;
    return (
      (1 - t) * ((1 - s) * (at[k] as number) + s * (at[k + 1] as number)) +
      t * ((1 - s) * (at[k + nx] as number) + s * (at[k + nx + 1] as number))
    );
  };
}

/** Points of a hexagonal grid as fine as the finest spacing, each kept with the chance its own spacing leaves it. */
function seeds(piece: FlatPiece, spacing: Spacing): Vec2[] {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of piece.outline)
    [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
  const chance = repeatable(20_011);
  const out: Vec2[] = [];
  // blocks of the plane are filled with a grid as fine as they want: fine ones do not spread over the whole
  const block = Math.max(x1 - x0, y1 - y0) / 12;
  for (let by = y0; by < y1; by += block)
    for (let bx = x0; bx < x1; bx += block) {
      let h = Infinity;
      for (let i = 0; i <= 6; i++)
        for (let j = 0; j <= 6; j++) h = Math.min(h, spacing(bx + (block * i) / 6, by + (block * j) / 6));
      const rise = (h * Math.sqrt(3)) / 2;
      let row = 0;
      for (let y = by + rise / 2; y < Math.min(by + block, y1); y += rise, row++)
        for (let x = bx + (row % 2 ? h / 2 : 0) + h / 4; x < Math.min(bx + block, x1); x += h) {
          const own = spacing(x, y);
          if (chance() < (h / own) ** 2) out.push([x, y]);
        }
    }
  return out;
}

/** Delaunay triangles whose middle lies in the piece; slivers on the outline are left out. */
function inner(xy: Float64Array, count: number, inside: (x: number, y: number) => boolean): Int32Array {
  const { triangles } = new Delaunator(xy.subarray(0, 2 * count));
  const out: number[] = [];
  for (let k = 0; k < triangles.length; k += 3) {
    const a = triangles[k] as number;
    const b = triangles[k + 1] as number;
    const c = triangles[k + 2] as number;
    const ax = xy[2 * a] as number;
    const ay = xy[2 * a + 1] as number;
    const bx = xy[2 * b] as number;
    const by = xy[2 * b + 1] as number;
    const cx = xy[2 * c] as number;
    const cy = xy[2 * c + 1] as number;
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    const longest = Math.max(
      (bx - ax) ** 2 + (by - ay) ** 2,
      (cx - bx) ** 2 + (cy - by) ** 2,
      (ax - cx) ** 2 + (ay - cy) ** 2,
    );
    if (Math.abs(area) < 1e-6 * longest) continue;
    if (!inside((ax + bx + cx) / 3, (ay + by + cy) / 3)) continue;
    if (area > 0) out.push(a, b, c);
    else out.push(a, c, b);
  }
  return Int32Array.from(out);
}

/** Every side once, lower node first. */
function barsOf(tri: Int32Array): Int32Array {
  const seen = new Set<number>();
  const out: number[] = [];
  for (let k = 0; k < tri.length; k += 3)
    for (let s = 0; s < 3; s++) {
      const a = tri[k + s] as number;
      const b = tri[k + ((s + 1) % 3)] as number;
      const [i, j] = a < b ? [a, b] : [b, a];
      const key = i * 4_194_304 + j;
      if (seen.has(key)) continue;
      seen.add(key);
      out.push(i, j);
    }
  return Int32Array.from(out);
}

/** Free points that stand nearer to another than 0.55 of their spacing: one of each pair. */
function tooClose(xy: Float64Array, n0: number, count: number, spacing: Spacing): ReadonlySet<number> {
  const { triangles } = new Delaunator(xy.subarray(0, 2 * count));
  const out = new Set<number>();
  for (let k = 0; k < triangles.length; k++) {
    const i = triangles[k] as number;
    const j = triangles[k % 3 === 2 ? k - 2 : k + 1] as number;
    if (i < n0 || i < j || out.has(i) || out.has(j)) continue;
    const x = xy[2 * i] as number;
    const y = xy[2 * i + 1] as number;
    if (Math.hypot(x - (xy[2 * j] as number), y - (xy[2 * j + 1] as number)) < 0.55 * spacing(x, y))
      out.add(i);
  }
  return out;
}

/** The least angle of every triangle, degrees. */
export const leastAngles = ({ nodes, triangles }: FlatMesh): readonly number[] =>
  triangles.map(t => {
    const [a, b, c] = t.map(i => nodes[i] as Vec2) as [Vec2, Vec2, Vec2];
    const [la, lb, lc] = [
      [b, c],
      [c, a],
      [a, b],
    ].map(([p, q]) => Math.hypot((p as Vec2)[0] - (q as Vec2)[0], (p as Vec2)[1] - (q as Vec2)[1])) as [
      number,
      number,
      number,
    ];
    const area2 = Math.abs(signedArea([a, b, c])) * 2;
    return (Math.asin(Math.min(1, area2 / Math.max(la * lb, lb * lc, lc * la))) * 180) / Math.PI;
  });
