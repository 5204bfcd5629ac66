import type { Elastic } from './elastic';

/*
 * A flat three-node shell: discrete Kirchhoff-Mindlin bending (Katili 1993) and the optimal membrane with drilling
 * degrees of freedom (Felippa 2003, "A study of optimal membrane triangles with drilling degrees of freedom"), both as strain-displacement
 * matrices at the middles of the sides, where three points integrate either exactly. Degrees of freedom of a node: u v w θx θy θz.
 */

/** Integration points of a triangle: the middles of its sides, one third of the area each. */
export const POINTS = 3;
/** Sides as corner pairs; point p lies on the middle of side p: 1-2, 2-3, 3-1. */
const ZETA = [
  [0.5, 0.5, 0],
  [0, 0.5, 0.5],
  [0.5, 0, 0.5],
] as const;

/** Corner coordinates of a triangle in its own plane: x1 y1 x2 y2 x3 y3, mm. */
export type Flat = ArrayLike<number>;

/** Twice the area of the triangle, mm²; positive counter-clockwise. */
export const doubleArea = (c: Flat): number => {
  const [x1, y1, x2, y2, x3, y3] = c as unknown as number[] as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return (x2 - x1) * (y3 - y1) - (x3 - x1) * (y2 - y1);
};

/** Felippa's free parameter of the basic stiffness, and the nine of the higher-order strains. */
const ALPHA = 1.5;
const [B1, B2, B3, B4, B5, B6, B7, B8, B9] = [1, 2, 1, 0, 1, -1, -1, -1, -2] as const;
/** Natural strains from corner rotations at the three corners, times side²·3/2A. */
const Q1 = Float64Array.of(B1, B2, B3, B4, B5, B6, B7, B8, B9);
const Q2 = Float64Array.of(B9, B7, B8, B3, B1, B2, B6, B4, B5);
const Q3 = Float64Array.of(B5, B6, B4, B8, B9, B7, B2, B3, B1);

/**
 * Membrane strains (εx, εy, γxy) from u1 v1 θ1 u2 v2 θ2 u3 v3 θ3 at the three points: three matrices of 3 × 9, row by row.
 * The higher-order part is scaled by β0 = ½(1 − 4ν²), which makes bending in the plane exact for any side ratio.
 */
export function membraneB(c: Flat, nu: number, out: Float64Array): void {
  const x1 = c[0] as number;
  const y1 = c[1] as number;
  const x2 = c[2] as number;
  const y2 = c[3] as number;
  const x3 = c[4] as number;
  const y3 = c[5] as number;
  const x12 = x1 - x2;
  const x23 = x2 - x3;
  const x31 = x3 - x1;
  const y12 = y1 - y2;
  const y23 = y2 - y3;
  const y31 = y3 - y1;
  const A = Math.abs(x31 * y12 - x12 * y31) / 2;
  const ll21 = x12 * x12 + y12 * y12;
  const ll32 = x23 * x23 + y23 * y23;
  const ll13 = x31 * x31 + y31 * y31;
  const f = 1 / (2 * A);
  const q = ALPHA / 6;
  // basic: mean strains, rows εx εy γxy (x21 = −x12 and so on)
  basic[0] = y23;
  basic[2] = q * y23 * (-y31 + y12);
  basic[3] = y31;
  basic[5] = q * y31 * (-y12 + y23);
  basic[6] = y12;
  basic[8] = q * y12 * (-y23 + y31);
  basic[10] = -x23;
  basic[11] = -q * x23 * (x31 - x12);
  basic[13] = -x31;
  basic[14] = -q * x31 * (x12 - x23);
  basic[16] = -x12;
  basic[17] = -q * x12 * (x23 - x31);
  basic[18] = -x23;
  basic[19] = y23;
  basic[20] = 2 * q * (-x31 * y31 + x12 * y12);
  basic[21] = -x31;
  basic[22] = y31;
  basic[23] = 2 * q * (-x12 * y12 + x23 * y23);
  basic[24] = -x12;
  basic[25] = y12;
  basic[26] = 2 * q * (-x23 * y23 + x31 * y31);
  // corner rotations less the mean rotation
  const g = 1 / (4 * A);
  mean[0] = -x23 * g;
  mean[1] = -y23 * g;
  mean[3] = -x31 * g;
  mean[4] = -y31 * g;
  mean[6] = -x12 * g;
  mean[7] = -y12 * g;
  // cartesian strains from strains along the sides
  const e = 1 / (4 * A * A);
  te[0] = -y23 * y31 * ll21 * e;
  te[1] = -y31 * y12 * ll32 * e;
  te[2] = -y12 * y23 * ll13 * e;
  te[3] = -x23 * x31 * ll21 * e;
  te[4] = -x31 * x12 * ll32 * e;
  te[5] = -x12 * x23 * ll13 * e;
  te[6] = (y23 * x31 + x23 * y31) * ll21 * e;
  te[7] = (y31 * x12 + x31 * y12) * ll32 * e;
  te[8] = (y12 * x23 + x12 * y23) * ll13 * e;
  const s = (2 * A) / 3;
  const beta0 = Math.max(0.5 * (1 - 4 * nu * nu), 0.01);
  const scale = 1.5 * Math.sqrt(beta0);
  for (let p = 0; p < POINTS; p++) {
    const z = ZETA[p] as readonly [number, number, number];
    // natural strain i from corner rotation k at this point
    for (let k = 0; k < 9; k++) {
      const l = k < 3 ? ll21 : k < 6 ? ll32 : ll13;
      work[k] = (s / l) * (z[0] * (Q1[k] as number) + z[1] * (Q2[k] as number) + z[2] * (Q3[k] as number));
    }
    for (let r = 0; r < 3; r++) {
      const t0 = te[3 * r] as number;
      const t1 = te[3 * r + 1] as number;
      const t2 = te[3 * r + 2] as number;
      const h0 = t0 * (work[0] as number) + t1 * (work[3] as number) + t2 * (work[6] as number);
      const h1 = t0 * (work[1] as number) + t1 * (work[4] as number) + t2 * (work[7] as number);
      const h2 = t0 * (work[2] as number) + t1 * (work[5] as number) + t2 * (work[8] as number);
      const sum = scale * (h0 + h1 + h2);
      const at = 27 * p + 9 * r;
      for (let j = 0; j < 9; j++) out[at + j] = f * (basic[9 * r + j] as number) + sum * (mean[j] as number);
      out[at + 2] = (out[at + 2] as number) + scale * h0;
      out[at + 5] = (out[at + 5] as number) + scale * h1;
      out[at + 8] = (out[at + 8] as number) + scale * h2;
    }
  }
}
const basic = new Float64Array(27);
const mean = new Float64Array(9);
const te = new Float64Array(9);
const work = new Float64Array(9);

/** Share of the section that carries shear. */
const SHEAR = 5 / 6;

/**
 * Curvatures (κx, κy, 2κxy) from w1 θx1 θy1 w2 θx2 θy2 w3 θx3 θy3 at the three points, three matrices of 3 × 9 row by row, and
 * shear strains (γx, γy) there, three of 2 × 9. Discrete Kirchhoff-Mindlin triangle (Katili 1993): where the sheet is thin beside
 * its sides it is the discrete Kirchhoff triangle (Batoz, Bathe and Ho 1980) to the last digit; round bolts, where it is not, it
 * lets the sheet shear. Thickness in mm; 0 gives Kirchhoff's own.
 */
export function bendingB(
  c: Flat,
  thickness: number,
  nu: number,
  out: Float64Array,
  shear: Float64Array,
): void {
  const x1 = c[0] as number;
  const y1 = c[1] as number;
  const x2 = c[2] as number;
  const y2 = c[3] as number;
  const x3 = c[4] as number;
  const y3 = c[5] as number;
  const a2 = (x2 - x1) * (y3 - y1) - (x3 - x1) * (y2 - y1);
  // derivatives of the linear shape functions
  DX[0] = (y2 - y3) / a2;
  DX[1] = (y3 - y1) / a2;
  DX[2] = (y1 - y2) / a2;
  DY[0] = (x3 - x2) / a2;
  DY[1] = (x1 - x3) / a2;
  DY[2] = (x2 - x1) / a2;
  const f = (2 * thickness * thickness) / (SHEAR * (1 - nu));
  for (let k = 0; k < 3; k++) {
    const i = k;
    const j = (k + 1) % 3;
    const dx = (c[2 * j] as number) - (c[2 * i] as number);
    const dy = (c[2 * j + 1] as number) - (c[2 * i + 1] as number);
    const l = Math.sqrt(dx * dx + dy * dy);
    COS[k] = dx / l;
    SIN[k] = dy / l;
    const phi = f / (l * l);
    PHI[k] = phi;
    // Δβ along the side from w θx θy of both ends: −3 / (2 l (1 + φ)) · (wj − wi + l/2 · (βi + βj)), β = C·θy − S·θx
    const g = -1.5 / (l * (1 + phi));
    for (let q = 0; q < 9; q++) SIDE[9 * k + q] = 0;
    for (const end of [i, j]) {
      SIDE[9 * k + 3 * end] = end === i ? -g : g;
      SIDE[9 * k + 3 * end + 1] = (-g * l * (SIN[k] as number)) / 2;
      SIDE[9 * k + 3 * end + 2] = (g * l * (COS[k] as number)) / 2;
    }
  }
  for (let p = 0; p < POINTS; p++) {
    const z = ZETA[p] as readonly [number, number, number];
    const at = 27 * p;
    for (let n = 0; n < 3; n++) {
      // βx = θy, βy = −θx
      out[at + 3 * n] = 0;
      out[at + 3 * n + 1] = 0;
      out[at + 3 * n + 2] = DX[n] as number;
      out[at + 9 + 3 * n] = 0;
      out[at + 9 + 3 * n + 1] = -(DY[n] as number);
      out[at + 9 + 3 * n + 2] = 0;
      out[at + 18 + 3 * n] = 0;
      out[at + 18 + 3 * n + 1] = -(DX[n] as number);
      out[at + 18 + 3 * n + 2] = DY[n] as number;
    }
    for (let k = 0; k < 3; k++) {
      const i = k;
      const j = (k + 1) % 3;
      const px = 4 * ((DX[i] as number) * (z[j] as number) + (DX[j] as number) * (z[i] as number));
      const py = 4 * ((DY[i] as number) * (z[j] as number) + (DY[j] as number) * (z[i] as number));
      const cx = px * (COS[k] as number);
      const cy = py * (SIN[k] as number);
      const cxy = py * (COS[k] as number) + px * (SIN[k] as number);
      for (let q = 0; q < 9; q++) {
        const s = SIDE[9 * k + q] as number;
        out[at + q] = (out[at + q] as number) + cx * s;
        out[at + 9 + q] = (out[at + 9 + q] as number) + cy * s;
        out[at + 18 + q] = (out[at + 18 + q] as number) + cxy * s;
      }
    }
    // shear along each side, −2/3 φ Δβ, laid over the element from the two sides that meet at each corner
    for (let q = 0; q < 18; q++) shear[18 * p + q] = 0;
    for (let n = 0; n < 3; n++) {
      const m = (n + 2) % 3;
      const det = (COS[n] as number) * (SIN[m] as number) - (COS[m] as number) * (SIN[n] as number);
      const w = (z[n] as number) / det;
      const fn = (-2 / 3) * (PHI[n] as number);
      const fm = (-2 / 3) * (PHI[m] as number);
      for (let q = 0; q < 9; q++) {
        const gn = fn * (SIDE[9 * n + q] as number);
        const gm = fm * (SIDE[9 * m + q] as number);
        shear[18 * p + q] =
          (shear[18 * p + q] as number) + w * ((SIN[m] as number) * gn - (SIN[n] as number) * gm);
        shear[18 * p + 9 + q] =
          (shear[18 * p + 9 + q] as number) + w * (-(COS[m] as number) * gn + (COS[n] as number) * gm);
      }
    }
  }
}
const DX = new Float64Array(3);
const DY = new Float64Array(3);
const COS = new Float64Array(3);
const SIN = new Float64Array(3);
const PHI = new Float64Array(3);
const SIDE = new Float64Array(27);

/** Shear stiffness of a sheet, N/mm. */
export const shearStiffness = ({ E, nu }: Elastic, thickness: number): number =>
  (SHEAR * E * thickness) / (2 * (1 + nu));

/** Adds w·Bᵀ·B of one point's shear (2 × 9) to the bending places of an 18 × 18 matrix. */
export function addShear(k: Float64Array, B: Float64Array, at: number, w: number): void {
  for (let i = 0; i < 9; i++) {
    const x = w * (B[at + i] as number);
    const y = w * (B[at + 9 + i] as number);
    const row = 18 * (BENDING[i] as number);
    for (let j = 0; j < 9; j++) {
      const c = row + (BENDING[j] as number);
      k[c] = (k[c] as number) + x * (B[at + j] as number) + y * (B[at + 9 + j] as number);
    }
  }
}

/** Places of the membrane's and of the bending degrees of freedom among the eighteen. */
export const MEMBRANE = [0, 1, 5, 6, 7, 11, 12, 13, 17] as const;
export const BENDING = [2, 3, 4, 8, 9, 10, 14, 15, 16] as const;

/** Plane-stress matrix of an elastic sheet, row by row, MPa. */
export function planeStress({ E, nu }: Elastic): Float64Array {
  const k = E / (1 - nu * nu);
  return new Float64Array([k, k * nu, 0, k * nu, k, 0, 0, 0, (k * (1 - nu)) / 2]);
}

/** Adds w·Bᵀ·D·B of one point (D 3 × 3, B 3 × 9) to the given places of an 18 × 18 matrix. */
export function addBDB(
  k: Float64Array,
  B: Float64Array,
  at: number,
  D: ArrayLike<number>,
  w: number,
  rows: readonly number[],
  B2: Float64Array = B,
  cols: readonly number[] = rows,
): void {
  for (let i = 0; i < 9; i++) {
    const b0 = B[at + i] as number;
    const b1 = B[at + 9 + i] as number;
    const b2 = B[at + 18 + i] as number;
    if (b0 === 0 && b1 === 0 && b2 === 0) continue;
    const d0 = w * (b0 * (D[0] as number) + b1 * (D[3] as number) + b2 * (D[6] as number));
    const d1 = w * (b0 * (D[1] as number) + b1 * (D[4] as number) + b2 * (D[7] as number));
    const d2 = w * (b0 * (D[2] as number) + b1 * (D[5] as number) + b2 * (D[8] as number));
    const row = 18 * (rows[i] as number);
    for (let j = 0; j < 9; j++) {
      const c = row + (cols[j] as number);
      k[c] =
        (k[c] as number) +
        d0 * (B2[at + j] as number) +
        d1 * (B2[at + 9 + j] as number) +
        d2 * (B2[at + 18 + j] as number);
    }
  }
}

/**
 * Stiffness of an elastic element in its own plane's axes, 18 × 18 row by row, from its strains (`membraneB`, `bendingB`) and its area, mm²; added to
 * `out`. Thickness in mm.
 */
export function addStiffness(
  { B, Bb, Bs }: { readonly B: Float64Array; readonly Bb: Float64Array; readonly Bs: Float64Array },
  area: number,
  thickness: number,
  elastic: Elastic,
  out: Float64Array,
): void {
  const D = planeStress(elastic);
  const shear = shearStiffness(elastic, thickness);
  const w = area / POINTS;
  for (let p = 0; p < POINTS; p++) {
    addBDB(out, B, 27 * p, D, w * thickness, MEMBRANE);
    addBDB(out, Bb, 27 * p, D, (w * thickness ** 3) / 12, BENDING);
    addShear(out, Bs, 18 * p, w * shear);
  }
}

/** The axes of a triangle in space, row by row: along its first side, across it in its plane, and its normal. */
export function triangleAxes(p: ArrayLike<number>, out: Float64Array): void {
  const x1 = p[0] as number;
  const y1 = p[1] as number;
  const z1 = p[2] as number;
  const x2 = p[3] as number;
  const y2 = p[4] as number;
  const z2 = p[5] as number;
  const x3 = p[6] as number;
  const y3 = p[7] as number;
  const z3 = p[8] as number;
  let ux = x2 - x1;
  let uy = y2 - y1;
  let uz = z2 - z1;
  const l = Math.sqrt(ux * ux + uy * uy + uz * uz);
  ux /= l;
  uy /= l;
  uz /= l;
  const wx = x3 - x1;
  const wy = y3 - y1;
  const wz = z3 - z1;
  let nx = uy * wz - uz * wy;
  let ny = uz * wx - ux * wz;
  let nz = ux * wy - uy * wx;
  const n = Math.sqrt(nx * nx + ny * ny + nz * nz);
  nx /= n;
  ny /= n;
  nz /= n;
  out[0] = ux;
  out[1] = uy;
  out[2] = uz;
  out[3] = ny * uz - nz * uy;
  out[4] = nz * ux - nx * uz;
  out[5] = nx * uy - ny * ux;
  out[6] = nx;
  out[7] = ny;
  out[8] = nz;
}

/** A triangle's corners in its own axes, its first corner the origin. */
export function inPlane(p: ArrayLike<number>, axes: Float64Array, out: Float64Array): void {
  for (let i = 0; i < 3; i++) {
    const dx = (p[3 * i] as number) - (p[0] as number);
    const dy = (p[3 * i + 1] as number) - (p[1] as number);
    const dz = (p[3 * i + 2] as number) - (p[2] as number);
    out[2 * i] = (axes[0] as number) * dx + (axes[1] as number) * dy + (axes[2] as number) * dz;
    out[2 * i + 1] = (axes[3] as number) * dx + (axes[4] as number) * dy + (axes[5] as number) * dz;
  }
}

/** Turns an n × n matrix of blocks of three from local axes to global ones: K := Tᵀ K T, axes row by row. */
export function toGlobal(k: Float64Array, n: number, axes: Float64Array): void {
  const a = axes[0] as number;
  const b = axes[1] as number;
  const c = axes[2] as number;
  const d = axes[3] as number;
  const e = axes[4] as number;
  const f = axes[5] as number;
  const g = axes[6] as number;
  const h = axes[7] as number;
  const i = axes[8] as number;
  for (let r = 0; r < n; r++)
    for (let s = 0; s < n; s += 3) {
      const at = r * n + s;
      const p = k[at] as number;
      const q = k[at + 1] as number;
      const t = k[at + 2] as number;
      k[at] = p * a + q * d + t * g;
      k[at + 1] = p * b + q * e + t * h;
      k[at + 2] = p * c + q * f + t * i;
    }
  for (let r = 0; r < n; r += 3)
    for (let s = 0; s < n; s++) {
      const at = r * n + s;
      const p = k[at] as number;
      const q = k[at + n] as number;
      const t = k[at + 2 * n] as number;
      k[at] = p * a + q * d + t * g;
      k[at + n] = p * b + q * e + t * h;
      k[at + 2 * n] = p * c + q * f + t * i;
    }
}
