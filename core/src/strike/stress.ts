import type { Vec3 } from '../geometry';
import { BENDING, MEMBRANE, POINTS, planeStress, triangleAxes } from './element';
import type { ShellModel } from './model';
import { type Rest, restOf } from './rest';
import { cornersOf } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';

const corners = new Float64Array(9);
const axes = new Float64Array(9);

/** Plane stress of von Mises, MPa. */
export const vonMises = (x: number, y: number, xy: number): number =>
  Math.sqrt(x * x - x * y + y * y + 3 * xy * xy);

/** Stress in the middle of the sheet and from bending (at its upper face) at every point, in the triangle's axes. */
export type PointStress = Float64Array;

/** Displacements of a triangle in its own axes, eighteen, from global ones. */
export function localMoves(mesh: ShellModel['mesh'], e: number, u: Float64Array, out: Float64Array): void {
  for (let i = 0; i < 3; i++) {
    const at = DOF_PER_NODE * (mesh.triangles[3 * e + i] as number);
    for (let half = 0; half < 2; half++)
      for (let r = 0; r < 3; r++) {
        let s = 0;
        for (let k = 0; k < 3; k++) s += (axes[3 * r + k] as number) * (u[at + 3 * half + k] as number);
        out[6 * i + 3 * half + r] = s;
      }
  }
}

const moves = new Float64Array(18);

/**
 * Stresses of every triangle for a small displacement: three points of σx σy τxy in the middle and the same from bending at
 * the upper face, 18 figures a triangle.
 */
export function elasticStress(model: ShellModel, u: Float64Array): Float64Array {
  const { mesh, elastic, thickness } = model;
  const D = planeStress(elastic);
  const rest = restOf(model);
  const out = new Float64Array(mesh.flatOf.length * 18);
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const r = rest[e] as Rest;
    axes.set(r.axes);
    localMoves(mesh, e, u, moves);
    stressFrom(r.B, r.Bb, moves, D, thickness, out, 18 * e);
  }
  return out;
}

/** Stresses at the points of one triangle from its moves in its own axes. */
export function stressFrom(
  B: Float64Array,
  Bb: Float64Array,
  d: Float64Array,
  D: Float64Array,
  thickness: number,
  out: Float64Array,
  at: number,
): void {
  for (let p = 0; p < POINTS; p++) {
    const strain = [0, 0, 0, 0, 0, 0];
    for (let r = 0; r < 3; r++) {
      let [m, b] = [0, 0];
      for (let j = 0; j < 9; j++) {
        m += (B[27 * p + 9 * r + j] as number) * (d[MEMBRANE[j] as number] as number);
        b += (Bb[27 * p + 9 * r + j] as number) * (d[BENDING[j] as number] as number);
      }
      strain[r] = m;
      strain[3 + r] = (b * thickness) / 2;
    }
    for (let half = 0; half < 2; half++)
      for (let r = 0; r < 3; r++)
        out[at + 6 * p + 3 * half + r] =
          (D[3 * r] as number) * (strain[3 * half] as number) +
          (D[3 * r + 1] as number) * (strain[3 * half + 1] as number) +
          (D[3 * r + 2] as number) * (strain[3 * half + 2] as number);
  }
}

/** Stresses of the two faces at a place, from a quadratic fitted to the points round it. */
export interface FaceStress {
  readonly top: number;
  readonly bottom: number;
}

/**
 * Von Mises stress on both faces at a place of the sheet: the six components of the points within `reach` on the same flat are
 * turned into one pair of axes and smoothed by a quadratic (least squares), then taken at the place. MPa.
 */
export function faceStressAt(
  model: Pick<ShellModel, 'mesh'>,
  stress: Float64Array,
  at: Vec3,
  reach: number,
  flat0: number,
): FaceStress {
  const { mesh } = model;
  const rows: { x: number; y: number; s: number[] }[] = [];
  let ref: Float64Array | undefined;
  for (let e = 0; e < mesh.flatOf.length; e++) {
    if (mesh.flatOf[e] !== flat0) continue;
    cornersOf(mesh, e, corners);
    const c = [0, 1, 2].map(
      k => ((corners[k] as number) + (corners[3 + k] as number) + (corners[6 + k] as number)) / 3,
    );
    if (Math.hypot((c[0] as number) - at[0], (c[1] as number) - at[1], (c[2] as number) - at[2]) > reach)
      continue;
    triangleAxes(corners, axes);
    ref ??= axes.slice();
    const dot = (a: number, b: number): number =>
      [0, 1, 2].reduce(
        (s, k) => s + (axes[3 * a + k] as number) * ((ref as Float64Array)[3 * b + k] as number),
        0,
      );
    const [cos, sin] = [dot(0, 0), dot(0, 1)];
    for (let p = 0; p < POINTS; p++) {
      const [i, j] = [p, (p + 1) % 3];
      const q = [0, 1, 2].map(
        k => ((corners[3 * i + k] as number) + (corners[3 * j + k] as number)) / 2 - at[k as 0],
      );
      const r = ref;
      const x = q.reduce((s, v, k) => s + v * (r[k] as number), 0);
      const y = q.reduce((s, v, k) => s + v * (r[3 + k] as number), 0);
      const s: number[] = [];
      for (let half = 0; half < 2; half++) {
        const [sx, sy, t] = [0, 1, 2].map(k => stress[18 * e + 6 * p + 3 * half + k] as number) as [
          number,
          number,
          number,
        ];
        s.push(
          sx * cos * cos + sy * sin * sin - 2 * t * sin * cos,
          sx * sin * sin + sy * cos * cos + 2 * t * sin * cos,
          (sx - sy) * sin * cos + t * (cos * cos - sin * sin),
        );
      }
      rows.push({ x, y, s });
    }
  }
  const basis = (x: number, y: number): number[] =>
    rows.length >= 12 ? [1, x, y, x * x, x * y, y * y] : [1];
  const value = [0, 1, 2, 3, 4, 5].map(k =>
    fitted(rows.map(r => ({ b: basis(r.x / reach, r.y / reach), v: r.s[k] as number }))),
  );
  const [m0, m1, m2, b0, b1, b2] = value as [number, number, number, number, number, number];
  return { top: vonMises(m0 + b0, m1 + b1, m2 + b2), bottom: vonMises(m0 - b0, m1 - b1, m2 - b2) };
}

/** The constant of a least-squares fit. */
function fitted(rows: readonly { b: readonly number[]; v: number }[]): number {
  const n = rows[0]?.b.length ?? 0;
  if (n === 0) return 0;
  const a = Array.from({ length: n }, () => new Array<number>(n + 1).fill(0));
  for (const { b, v } of rows)
    for (let i = 0; i < n; i++) {
      const row = a[i] as number[];
      for (let j = 0; j < n; j++) row[j] = (row[j] as number) + (b[i] as number) * (b[j] as number);
      row[n] = (row[n] as number) + (b[i] as number) * v;
    }
  for (let i = n - 1; i > 0; i--)
    for (let r = 0; r < i; r++) {
      const f = ((a[r] as number[])[i] as number) / (((a[i] as number[])[i] as number) || 1e-30);
      for (let c = 0; c <= n; c++)
        (a[r] as number[])[c] = ((a[r] as number[])[c] as number) - f * ((a[i] as number[])[c] as number);
    }
  return ((a[0] as number[])[n] as number) / (((a[0] as number[])[0] as number) || 1e-30);
}

/** Stress of von Mises of a triangle, the mean of its points, the higher of its faces, MPa. */
export function elementStress(stress: Float64Array, e: number): number {
  let most = 0;
  for (const face of [1, -1]) {
    const s = [0, 0, 0];
    for (let p = 0; p < 3; p++)
      for (let k = 0; k < 3; k++)
        s[k] =
          (s[k] as number) +
          ((stress[18 * e + 6 * p + k] as number) + face * (stress[18 * e + 6 * p + 3 + k] as number)) / 3;
    most = Math.max(most, vonMises(s[0] as number, s[1] as number, s[2] as number));
  }
  return most;
}
