import type { Polygon, Vec2 } from '../geometry';

/**
 * An opening's outline with a corner more where a point of the mesh stands so near to one of its sides that this would be no edge: at the
 * foot of the point, from where both halves are clear of it (Ruppert 1995).
 */
export function splitNear(ring: readonly Vec2[], points: readonly Vec2[]): readonly Vec2[] {
  return ring.flatMap((a, i) => {
    const b = ring[(i + 1) % ring.length] as Vec2;
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length2 = dx * dx + dy * dy;
    const feet = points.flatMap(q => {
      const [ax, ay] = [q[0] - a[0], q[1] - a[1]];
      const inCircle = ax * (q[0] - b[0]) + ay * (q[1] - b[1]) < 0;
      const off = Math.abs(dx * ay - dy * ax) / Math.sqrt(length2);
      return inCircle && off > 1e-6 ? [(ax * dx + ay * dy) / length2] : [];
    });
    const cuts = [...new Set(feet)].filter(t => t > 0.02 && t < 0.98).sort((x, y) => x - y);
    return [a, ...cuts.map((t): Vec2 => [a[0] + t * dx, a[1] + t * dy])];
  });
}

/** Points within the circle over a side, of those that are free to go. */
export function overSides(
  xy: Float64Array,
  from: number,
  to: number,
  sides: readonly (readonly [number, number])[],
): ReadonlySet<number> {
  const out = new Set<number>();
  for (const [a, b] of sides) {
    const [ax, ay, bx, by] = [xy[2 * a], xy[2 * a + 1], xy[2 * b], xy[2 * b + 1]] as [
      number,
      number,
      number,
      number,
    ];
    for (let i = from; i < to; i++) {
      const [x, y] = [xy[2 * i] as number, xy[2 * i + 1] as number];
      // seen from it the side spans a right angle or more
      if ((ax - x) * (bx - x) + (ay - y) * (by - y) <= 0) out.add(i);
    }
  }
  return out;
}

/** Points this near to one another are one node, mm. */
const SAME = 2e-3;

/** Points less their repetitions, and the new number of each. */
export function distinct(points: readonly Vec2[]): { kept: Vec2[]; renamed: number[] } {
  const kept: Vec2[] = [];
  const known = new Map<string, number>();
  const renamed = points.map(q => {
    const i = Math.round(q[0] / SAME);
    const j = Math.round(q[1] / SAME);
    for (const [di, dj] of NEARBY) {
      const hit = known.get(`${i + di},${j + dj}`);
      if (hit !== undefined) return hit;
    }
    known.set(`${i},${j}`, kept.length);
    return kept.push(q) - 1;
  });
  return { kept, renamed };
}
const NEARBY = [0, -1, 1].flatMap(i => [0, -1, 1].map(j => [i, j] as const));

/** Rings are cut into so many bands across: a point is held against the sides of its own. */
const BANDS = 64;

/** Whether a point lies within rings taken together (even-odd). */
export function insideOf(rings: readonly Polygon[]): (x: number, y: number) => boolean {
  const all = rings.flat();
  let [low, high] = [Infinity, -Infinity];
  for (const [, y] of all) [low, high] = [Math.min(low, y), Math.max(high, y)];
  const per = BANDS / (high - low || 1);
  const bandOf = (y: number): number => Math.min(BANDS - 1, Math.floor((y - low) * per));
  const sides: number[][] = Array.from({ length: BANDS }, () => []);
  for (const r of rings)
    r.forEach((a, i) => {
      const b = r[(i + 1) % r.length] as Vec2;
      if (a[1] === b[1]) return;
      const last = bandOf(Math.max(a[1], b[1]));
      for (let k = bandOf(Math.min(a[1], b[1])); k <= last; k++) sides[k]?.push(a[0], a[1], b[0], b[1]);
    });
  const bands = sides.map(s => Float64Array.from(s));
  return (x, y) => {
    if (!(y >= low && y <= high)) return false;
    const s = bands[bandOf(y)] as Float64Array;
    let hit = false;
    for (let k = 0; k < s.length; k += 4) {
      const ay = s[k + 1] as number;
      const by = s[k + 3] as number;
      if (ay > y === by > y) continue;
      if (x < (((s[k + 2] as number) - (s[k] as number)) * (y - ay)) / (by - ay) + (s[k] as number))
        hit = !hit;
    }
    return hit;
  };
}

/**
 * Distance to the nearest fixed point or link. Distances are kept on a grid as they are asked for: where the grid alone says
 * that a place is further off than `enough`, that bound is the answer.
 */
export function nearness(
  points: readonly Vec2[],
  links: readonly (readonly [number, number])[],
): (x: number, y: number, enough: number) => number {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
  }
  const size = Math.max((x1 - x0) / 60, (y1 - y0) / 60, 1);
  const nx = Math.ceil((x1 - x0) / size) + 1;
  const ny = Math.ceil((y1 - y0) / size) + 1;
  const cells: number[][] = Array.from({ length: nx * ny }, () => []);
  const ends: number[] = [];
  const put = (p: Vec2, q: Vec2): void => {
    const k = ends.push(p[0], p[1], q[0], q[1]) - 4;
    const n = Math.max(1, Math.ceil(Math.hypot(q[0] - p[0], q[1] - p[1]) / (size / 2)));
    let last = -1;
    for (let i = 0; i <= n; i++) {
      const cell =
        Math.floor((p[1] + ((q[1] - p[1]) * i) / n - y0) / size) * nx +
        Math.floor((p[0] + ((q[0] - p[0]) * i) / n - x0) / size);
      if (cell !== last) (cells[cell] as number[] | undefined)?.push(k);
      last = cell;
    }
  };
  for (const [a, b] of links) put(points[a] as Vec2, points[b] as Vec2);
  for (const p of points) put(p, p);
  const e = Float64Array.from(ends);
  const exact = (x: number, y: number): number => {
    const ci = Math.floor((x - x0) / size);
    const cj = Math.floor((y - y0) / size);
    let best = Infinity;
    for (let reach = 0; reach < Math.max(nx, ny); reach++) {
      for (let j = Math.max(0, cj - reach); j <= Math.min(ny - 1, cj + reach); j++) {
        const edge = Math.abs(j - cj) === reach;
        for (let i = ci - reach; i <= ci + reach; i += edge || reach === 0 ? 1 : 2 * reach) {
          if (i < 0 || i >= nx) continue;
          for (const k of cells[j * nx + i] as number[]) {
            const px = e[k] as number;
            const py = e[k + 1] as number;
            const dx = (e[k + 2] as number) - px;
            const dy = (e[k + 3] as number) - py;
            const l2 = dx * dx + dy * dy;
            const t = l2 === 0 ? 0 : Math.max(0, Math.min(1, ((x - px) * dx + (y - py) * dy) / l2));
            const ex = x - px - t * dx;
            const ey = y - py - t * dy;
            best = Math.min(best, ex * ex + ey * ey);
          }
        }
      }
      // a link that crosses a cell's corner may be listed one cell further on
      if (best <= ((reach - 1) * size) ** 2) break;
    }
    return Math.sqrt(best);
  };
  const known = new Float64Array(nx * ny).fill(-1);
  return (x, y, enough) => {
    const i = Math.round((x - x0) / size);
    const j = Math.round((y - y0) / size);
    const k = j * nx + i;
    if (i >= 0 && i < nx && j >= 0 && j < ny) {
      if ((known[k] as number) < 0) known[k] = exact(x0 + i * size, y0 + j * size);
      const bound = (known[k] as number) - Math.hypot(x - x0 - i * size, y - y0 - j * size);
      if (bound > enough) return bound;
    }
    return exact(x, y);
  };
}
