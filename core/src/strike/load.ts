import { dot3, sub3, type Vec2, type Vec3 } from '../geometry';
import type { ShellMesh } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';

const node = ({ coordinates }: ShellMesh, n: number): Vec3 => [
  coordinates[3 * n] as number,
  coordinates[3 * n + 1] as number,
  coordinates[3 * n + 2] as number,
];
const cornersAt = (mesh: ShellMesh, e: number): [Vec3, Vec3, Vec3] =>
  [0, 1, 2].map(i => node(mesh, mesh.triangles[3 * e + i] as number)) as [Vec3, Vec3, Vec3];

/** Convex polygon cut by a rectangle, in the plane (Sutherland and Hodgman 1974). */
function clipped(
  p: readonly Vec2[],
  [x0, y0, x1, y1]: readonly [number, number, number, number],
): readonly Vec2[] {
  let out = p;
  for (const [axis, at, sign] of [
    [0, x0, 1],
    [0, x1, -1],
    [1, y0, 1],
    [1, y1, -1],
  ] as const) {
    const from = out;
    const off = (q: Vec2): number => sign * (q[axis] - at);
    out = from.flatMap((a, i) => {
      const b = from[(i + 1) % from.length] as Vec2;
      const [da, db] = [off(a), off(b)];
      const cut: Vec2 = [a[0] + ((b[0] - a[0]) * da) / (da - db), a[1] + ((b[1] - a[1]) * da) / (da - db)];
      if (da >= 0) return db >= 0 ? [a] : [a, cut];
      return db > 0 ? [cut] : [];
    });
  }
  return out;
}

/** Adds a force to the corners of a triangle as its linear shape functions share it at a point of its plan. */
function shared(
  load: Float64Array,
  mesh: ShellMesh,
  e: number,
  weights: readonly number[],
  force: Vec3,
): void {
  for (let i = 0; i < 3; i++) {
    const at = DOF_PER_NODE * (mesh.triangles[3 * e + i] as number);
    for (let k = 0; k < 3; k++)
      load[at + k] = (load[at + k] as number) + (weights[i] as number) * (force[k] as number);
  }
}

/** Weights of a point in a triangle of the plan. */
function weightsOf([a, b, c]: readonly [Vec2, Vec2, Vec2], p: Vec2): readonly [number, number, number] {
  const d = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
  const w1 = ((p[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (p[1] - a[1])) / d;
  const w2 = ((b[0] - a[0]) * (p[1] - a[1]) - (p[0] - a[0]) * (b[1] - a[1])) / d;
  return [1 - w1 - w2, w1, w2];
}

/** True for a triangle that in plan lies to one side of a box. */
function beside(
  { coordinates: c, triangles: t }: ShellMesh,
  e: number,
  box: readonly [number, number, number, number],
): boolean {
  const i = 3 * (t[3 * e] as number);
  const j = 3 * (t[3 * e + 1] as number);
  const k = 3 * (t[3 * e + 2] as number);
  for (let axis = 0; axis < 2; axis++) {
    const [p, q, r] = [c[i + axis] as number, c[j + axis] as number, c[k + axis] as number];
    if (Math.max(p, q, r) <= (box[axis] as number) || Math.min(p, q, r) >= (box[axis + 2] as number))
      return true;
  }
  return false;
}

/**
 * A force spread evenly over a rectangle in plan with sides along x and y, on the sheet that lies nearest to the height of
 * its middle: exact over cut triangles. Returns the share of the rectangle that lies on sheet.
 */
export function patchLoad(
  load: Float64Array,
  mesh: ShellMesh,
  at: Vec3,
  [a, b]: readonly [number, number],
  force: Vec3,
  reach = Infinity,
): number {
  const box = [at[0] - a / 2, at[1] - b / 2, at[0] + a / 2, at[1] + b / 2] as const;
  const parts: { e: number; weights: readonly number[]; area: number }[] = [];
  let covered = 0;
  for (let e = 0; e < mesh.flatOf.length; e++) {
    if (beside(mesh, e, box)) continue;
    const c = cornersAt(mesh, e);
    const plan = c.map((p): Vec2 => [p[0], p[1]]) as [Vec2, Vec2, Vec2];
    if (Math.abs((c[0][2] + c[1][2] + c[2][2]) / 3 - at[2]) > reach) continue;
    const turned =
      (plan[1][0] - plan[0][0]) * (plan[2][1] - plan[0][1]) -
      (plan[2][0] - plan[0][0]) * (plan[1][1] - plan[0][1]);
    if (Math.abs(turned) < 1e-6) continue;
    const cut = clipped(turned > 0 ? plan : [plan[0], plan[2], plan[1]], box);
    const o = cut[0];
    if (!o) continue;
    for (let i = 1; i + 1 < cut.length; i++) {
      const [p, q] = [cut[i] as Vec2, cut[i + 1] as Vec2];
      const area = ((p[0] - o[0]) * (q[1] - o[1]) - (q[0] - o[0]) * (p[1] - o[1])) / 2;
      covered += area;
      parts.push({ e, area, weights: weightsOf(plan, [(o[0] + p[0] + q[0]) / 3, (o[1] + p[1] + q[1]) / 3]) });
    }
  }
  for (const { e, area, weights } of parts)
    shared(load, mesh, e, weights, [
      (force[0] * area) / covered,
      (force[1] * area) / covered,
      (force[2] * area) / covered,
    ]);
  return covered / (a * b);
}

/** Pressure over all sheet in a fixed direction, MPa. */
export function pressureLoad(load: Float64Array, mesh: ShellMesh, mpa: number, direction: Vec3): void {
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const [a, b, c] = cornersAt(mesh, e);
    const [u, v] = [sub3(b, a), sub3(c, a)];
    const area =
      Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
    shared(load, mesh, e, [1 / 3, 1 / 3, 1 / 3], direction.map(d => d * mpa * area) as unknown as Vec3);
  }
}

/** A force spread evenly along a line of nodes, N in all. */
export function lineLoad(load: Float64Array, mesh: ShellMesh, from: Vec3, to: Vec3, force: Vec3): void {
  const along = sub3(to, from);
  const l2 = dot3(along, along);
  const on: { n: number; t: number }[] = [];
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    const d = sub3(node(mesh, n), from);
    const t = dot3(d, along) / l2;
    if (t < -1e-6 || t > 1 + 1e-6) continue;
    if (Math.hypot(d[0] - t * along[0], d[1] - t * along[1], d[2] - t * along[2]) < 1e-2) on.push({ n, t });
  }
  on.sort((p, q) => p.t - q.t);
  on.forEach(({ n, t }, i) => {
    const half = ((on[i + 1]?.t ?? t) - (on[i - 1]?.t ?? t)) / 2;
    for (let k = 0; k < 3; k++) {
      const at = DOF_PER_NODE * n + k;
      load[at] = (load[at] as number) + half * (force[k] as number);
    }
  });
}

/** The triangle a point lies in (nearest where it lies in none), and its weights there. */
export function triangleAt(
  mesh: ShellMesh,
  p: Vec3,
): { readonly e: number; readonly weights: readonly [number, number, number] } {
  let best = { e: 0, weights: [1, 0, 0] as readonly [number, number, number], off: Infinity };
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const [a, b, c] = cornersAt(mesh, e);
    const [u, v, d] = [sub3(b, a), sub3(c, a), sub3(p, a)];
    const [uu, uv, vv, du, dv] = [dot3(u, u), dot3(u, v), dot3(v, v), dot3(d, u), dot3(d, v)];
    const det = uu * vv - uv * uv;
    const [s, t] = [(vv * du - uv * dv) / det, (uu * dv - uv * du) / det];
    const r: Vec3 = [d[0] - s * u[0] - t * v[0], d[1] - s * u[1] - t * v[1], d[2] - s * u[2] - t * v[2]];
    const outside = Math.max(0, -s, -t, s + t - 1) * Math.sqrt(Math.max(uu, vv));
    const off = Math.hypot(...r) + outside;
    if (off < best.off) best = { e, weights: [1 - s - t, s, t], off };
  }
  return best;
}

/** A force at a point, shared by the triangle it lies in. */
export function pointLoad(load: Float64Array, mesh: ShellMesh, at: Vec3, force: Vec3): void {
  const { e, weights } = triangleAt(mesh, at);
  shared(load, mesh, e, weights, force);
}

/** Displacement of a point of the sheet, mm. */
export function displacementAt(mesh: ShellMesh, u: Float64Array, at: Vec3): Vec3 {
  const { e, weights } = triangleAt(mesh, at);
  return [0, 1, 2].map(k =>
    weights.reduce(
      (s, w, i) => s + w * (u[DOF_PER_NODE * (mesh.triangles[3 * e + i] as number) + k] as number),
      0,
    ),
  ) as unknown as Vec3;
}
