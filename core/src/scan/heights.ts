import type { Vec2, Vec3 } from '../geometry';

/** A scan as it came: places in its own axes, and triangles of them. */
export interface Mesh {
  /** x y z of every vertex */
  readonly positions: Float32Array;
  /** three vertices a triangle */
  readonly index: Uint32Array;
}

/** Heights on a square grid: of column i and row j the height over (from[0] + i step, from[1] + j step) is `z[j width + i]`; NaN where nothing is. */
export interface Heights {
  readonly from: Vec2;
  readonly step: number;
  readonly width: number;
  readonly height: number;
  readonly z: Float32Array;
}

/** Where a mesh's places go: three rows, each with its shift last. */
export type Placing = readonly [
  readonly [number, number, number, number],
  readonly [number, number, number, number],
  readonly [number, number, number, number],
];

/** A grid has no more heights than this. */
export const MOST_HEIGHTS = 6_000_000;

/** The box of a placed mesh, least and greatest; undefined for a mesh without places. */
export function boxOfMesh(
  { positions }: Mesh,
  placing: Placing,
): { readonly low: Vec3; readonly high: Vec3 } | undefined {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let v = 0; v < positions.length; v += 3)
    for (let k = 0; k < 3; k++) {
      const r = placing[k] as Placing[0];
      const x =
        r[0] * (positions[v] as number) +
        r[1] * (positions[v + 1] as number) +
        r[2] * (positions[v + 2] as number) +
        r[3];
      if (x < (low[k] as number)) low[k] = x;
      if (x > (high[k] as number)) high[k] = x;
    }
  return (low[0] as number) <= (high[0] as number)
    ? { low: low as unknown as Vec3, high: high as unknown as Vec3 }
    : undefined;
}

/**
 * The lowest surface of a placed mesh over every place of a grid: what is seen from straight below. Triangles are filled where a grid's place lies in
 * them (edges in), the least height kept.
 */
export function lowestOf(
  { positions, index }: Mesh,
  placing: Placing,
  grid: Pick<Heights, 'from' | 'step' | 'width' | 'height'>,
): Heights {
  const { from, step, width, height } = grid;
  const z = new Float32Array(width * height).fill(Number.NaN);
  const n = positions.length / 3;
  // all places once, in steps of the grid and mm of height
  const at = new Float64Array(3 * n);
  const [rx, ry, rz] = placing;
  for (let v = 0; v < n; v++) {
    const [x, y, w] = [
      positions[3 * v] as number,
      positions[3 * v + 1] as number,
      positions[3 * v + 2] as number,
    ];
    at[3 * v] = (rx[0] * x + rx[1] * y + rx[2] * w + rx[3] - from[0]) / step;
    at[3 * v + 1] = (ry[0] * x + ry[1] * y + ry[2] * w + ry[3] - from[1]) / step;
    at[3 * v + 2] = rz[0] * x + rz[1] * y + rz[2] * w + rz[3];
  }
  for (let t = 0; t + 2 < index.length; t += 3) {
    const [a, b, c] = [3 * (index[t] as number), 3 * (index[t + 1] as number), 3 * (index[t + 2] as number)];
    const [ax, ay, az] = [at[a] as number, at[a + 1] as number, at[a + 2] as number];
    const [bx, by, bz] = [at[b] as number, at[b + 1] as number, at[b + 2] as number];
    const [cx, cy, cz] = [at[c] as number, at[c + 1] as number, at[c + 2] as number];
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (!(Math.abs(area) > 1e-12)) continue;
    const j0 = Math.max(0, Math.ceil(Math.min(ay, by, cy) - 1e-9));
    const j1 = Math.min(height - 1, Math.floor(Math.max(ay, by, cy) + 1e-9));
    const i0 = Math.max(0, Math.ceil(Math.min(ax, bx, cx) - 1e-9));
    const i1 = Math.min(width - 1, Math.floor(Math.max(ax, bx, cx) + 1e-9));
    for (let j = j0; j <= j1; j++)
      for (let i = i0; i <= i1; i++) {
        const p = ((bx - i) * (cy - j) - (cx - i) * (by - j)) / area;
        const q = ((cx - i) * (ay - j) - (ax - i) * (cy - j)) / area;
        const r = 1 - p - q;
        if (p < -1e-9 || q < -1e-9 || r < -1e-9) continue;
        const w = p * az + q * bz + r * cz;
        const k = j * width + i;
        if (!((z[k] as number) <= w)) z[k] = w;
      }
  }
  return { from, step, width, height, z };
}

/** The grid over a box, its places whole steps from nought; coarser than asked where it would have too many. */
export function gridOver(
  low: readonly [number, number, ...number[]],
  high: readonly [number, number, ...number[]],
  step: number,
): Pick<Heights, 'from' | 'step' | 'width' | 'height'> {
  const area = (high[0] - low[0]) * (high[1] - low[1]);
  const s = Math.max(step, Math.sqrt(area / MOST_HEIGHTS));
  const from: Vec2 = [Math.floor(low[0] / s) * s, Math.floor(low[1] / s) * s];
  return {
    from,
    step: s,
    width: Math.max(1, Math.floor((high[0] - from[0]) / s) + 1),
    height: Math.max(1, Math.floor((high[1] - from[1]) / s) + 1),
  };
}

/** Height over a place, between the four round it, or of the nearest where one of them is missing; undefined where nothing is. */
export function heightOver({ from, step, width, height, z }: Heights, [x, y]: Vec2): number | undefined {
  const [u, v] = [(x - from[0]) / step, (y - from[1]) / step];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const of = (a: number, b: number): number =>
    a >= 0 && b >= 0 && a < width && b < height ? (z[b * width + a] as number) : Number.NaN;
  const [p, q] = [u - i, v - j];
  const smooth =
    (1 - q) * ((1 - p) * of(i, j) + p * of(i + 1, j)) + q * ((1 - p) * of(i, j + 1) + p * of(i + 1, j + 1));
  if (!Number.isNaN(smooth)) return smooth;
  const near = of(Math.round(u), Math.round(v));
  return Number.isNaN(near) ? undefined : near;
}
