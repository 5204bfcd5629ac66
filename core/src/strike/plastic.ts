import type { Elastic } from './elastic';
import { planeStress } from './element';

/** Layers through the thickness: three of Gauss in either half, exact for a sheet that is elastic and for one that flows right through. */
export const LAYERS = 6;
const [INNER, OUTER] = [0.5 - Math.sqrt(0.15), 0.5 + Math.sqrt(0.15)];
const Z = [-OUTER, -0.5, -INNER, INNER, 0.5, OUTER] as const;
const WEIGHT = [5 / 18, 8 / 18, 5 / 18, 5 / 18, 8 / 18, 5 / 18] as const;

/** The plastic strains of a sheet: three and their measure for every layer of every point; now, and at the last balance. */
export interface Layers {
  readonly elastic: Elastic;
  readonly D: Float64Array;
  readonly yield: number;
  /** isotropic hardening, MPa */
  readonly hardening: number;
  readonly strain: Float64Array;
  readonly measure: Float64Array;
  readonly strain0: Float64Array;
  readonly measure0: Float64Array;
  /** 1 for a triangle of which some layer has yielded */
  readonly touched: Uint8Array;
}

export function makeLayers(
  elastic: Elastic,
  yieldStress: number,
  hardening: number,
  triangles: number,
  points: number,
): Layers {
  const n = triangles * points * LAYERS;
  return {
    elastic,
    D: planeStress(elastic),
    yield: yieldStress,
    hardening,
    strain: new Float64Array(3 * n),
    measure: new Float64Array(n),
    strain0: new Float64Array(3 * n),
    measure0: new Float64Array(n),
    touched: new Uint8Array(triangles),
  };
}

/** Takes what was reached as the new state to start from. */
export function settle(l: Layers): void {
  const each = l.measure.length / l.touched.length;
  for (let e = 0; e < l.touched.length; e++)
    for (let i = e * each; i < (e + 1) * each && !l.touched[e]; i++)
      if ((l.measure[i] as number) > 0) l.touched[e] = 1;
  l.strain0.set(l.strain);
  l.measure0.set(l.measure);
}

/** How a sheet has yielded at a balance. */
export type Yielding = Pick<Layers, 'strain0' | 'measure0' | 'touched'>;

export const keptLayers = (l: Layers): Yielding => ({
  strain0: l.strain0.slice(),
  measure0: l.measure0.slice(),
  touched: l.touched.slice(),
});

/** Takes a sheet back to how it had yielded then. */
export function putBack(l: Layers, to: Yielding): void {
  l.strain0.set(to.strain0);
  l.strain.set(to.strain0);
  l.measure0.set(to.measure0);
  l.measure.set(to.measure0);
  l.touched.set(to.touched);
}

/** True where neither face of a point can have passed its yield: strains in the middle and curvatures, six. */
export function staysElastic({ D, yield: limit }: Layers, strain: Float64Array, thickness: number): boolean {
  for (let face = -1; face <= 1; face += 2) {
    const z = (face * thickness) / 2;
    const x = (strain[0] as number) + z * (strain[3] as number);
    const y = (strain[1] as number) + z * (strain[4] as number);
    const t = (strain[2] as number) + z * (strain[5] as number);
    const sx = (D[0] as number) * x + (D[1] as number) * y;
    const sy = (D[3] as number) * x + (D[4] as number) * y;
    const st = (D[8] as number) * t;
    if (sx * sx - sx * sy + sy * sy + 3 * st * st > limit * limit) return false;
  }
  return true;
}

const sigma = new Float64Array(3);
const tangent = new Float64Array(9);

/**
 * Resultants N and M (six, `sums`) and their moduli (A, B, D blocks of nine, `moduli`) of one point from the middle strain and
 * the curvature (six), by plane-stress von Mises with isotropic hardening, layer by layer.
 */
export function layerPoint(
  layers: Layers,
  first: number,
  strain: Float64Array,
  thickness: number,
  sums: Float64Array,
  moduli: Float64Array | undefined,
): void {
  sums.fill(0);
  moduli?.fill(0);
  for (let k = 0; k < LAYERS; k++) {
    const z = ((Z[k] as number) * thickness) / 2;
    const w = ((WEIGHT[k] as number) * thickness) / 2;
    const at = first + k;
    returned(
      layers,
      at,
      (strain[0] as number) + z * (strain[3] as number),
      (strain[1] as number) + z * (strain[4] as number),
      (strain[2] as number) + z * (strain[5] as number),
      moduli !== undefined,
    );
    for (let r = 0; r < 3; r++) {
      const s = w * (sigma[r] as number);
      sums[r] = (sums[r] as number) + s;
      sums[3 + r] = (sums[3 + r] as number) + z * s;
    }
    if (moduli)
      for (let i = 0; i < 9; i++) {
        const d = w * (tangent[i] as number);
        moduli[i] = (moduli[i] as number) + d;
        moduli[9 + i] = (moduli[9 + i] as number) + z * d;
        moduli[18 + i] = (moduli[18 + i] as number) + z * z * d;
      }
  }
}

/** Stress of one layer and its consistent tangent (Simo and Taylor 1986: return mapping in plane stress). */
function returned(l: Layers, at: number, ex: number, ey: number, gxy: number, wantTangent: boolean): void {
  const { D, hardening: H } = l;
  const p0 = l.strain0[3 * at] as number;
  const p1 = l.strain0[3 * at + 1] as number;
  const p2 = l.strain0[3 * at + 2] as number;
  const a0 = l.measure0[at] as number;
  const d0 = D[0] as number;
  const d1 = D[1] as number;
  const d4 = D[4] as number;
  const d8 = D[8] as number;
  const x = ex - p0;
  const y = ey - p1;
  const t = gxy - p2;
  const sx = d0 * x + d1 * y;
  const sy = d1 * x + d4 * y;
  const st = d8 * t;
  const limit = l.yield + H * a0;
  const f2 = sx * sx - sx * sy + sy * sy + 3 * st * st;
  if (f2 <= limit * limit * (1 + 1e-10)) {
    sigma[0] = sx;
    sigma[1] = sy;
    sigma[2] = st;
    l.strain[3 * at] = p0;
    l.strain[3 * at + 1] = p1;
    l.strain[3 * at + 2] = p2;
    l.measure[at] = a0;
    if (wantTangent) tangent.set(D);
    return;
  }
  const { E, nu } = l.elastic;
  // in sums and differences the elastic matrix and von Mises' are both diagonal
  const s = (sx + sy) / Math.SQRT2;
  const r = (sy - sx) / Math.SQRT2;
  const k1 = E / (3 * (1 - nu));
  const k2 = E / (1 + nu);
  let g = 0;
  let equivalent = 0;
  for (let i = 0; i < 40; i++) {
    const m1 = 1 + k1 * g;
    const m2 = 1 + k2 * g;
    const phi2 = (s * s) / (6 * m1 * m1) + (0.5 * r * r + st * st) / (m2 * m2);
    equivalent = Math.sqrt(3 * phi2);
    const alpha = a0 + g * equivalent * (2 / 3);
    const now = l.yield + H * alpha;
    const value = 0.5 * 2 * phi2 - (now * now) / 3;
    if (Math.abs(value) < 1e-11 * now * now) break;
    const dphi2 = (-2 * k1 * s * s) / (6 * m1 ** 3) - (2 * k2 * (0.5 * r * r + st * st)) / m2 ** 3;
    const dEq = equivalent > 0 ? (1.5 * dphi2) / equivalent : 0;
    const dAlpha = (2 / 3) * (equivalent + g * dEq);
    g -= value / (dphi2 - (2 / 3) * now * H * dAlpha);
    if (!(g > 0)) g = 1e-12;
  }
  const m1 = 1 + k1 * g;
  const m2 = 1 + k2 * g;
  const ss = s / m1;
  const rr = r / m2;
  const nx = (ss - rr) / Math.SQRT2;
  const ny = (ss + rr) / Math.SQRT2;
  const nt = st / m2;
  sigma[0] = nx;
  sigma[1] = ny;
  sigma[2] = nt;
  // flow along P σ
  const fx = (2 * nx - ny) / 3;
  const fy = (2 * ny - nx) / 3;
  const ft = 2 * nt;
  l.strain[3 * at] = p0 + g * fx;
  l.strain[3 * at + 1] = p1 + g * fy;
  l.strain[3 * at + 2] = p2 + g * ft;
  l.measure[at] = a0 + g * equivalent * (2 / 3);
  if (!wantTangent) return;
  // Ξ = (D⁻¹ + g P)⁻¹
  const c11 = 1 / E + (2 / 3) * g;
  const c12 = -nu / E - g / 3;
  const c33 = (2 * (1 + nu)) / E + 2 * g;
  const det = c11 * c11 - c12 * c12;
  const h11 = c11 / det;
  const h12 = -c12 / det;
  const h33 = 1 / c33;
  const vx = h11 * fx + h12 * fy;
  const vy = h12 * fx + h11 * fy;
  const vt = h33 * ft;
  const below = fx * vx + fy * vy + ft * vt;
  const theta2 = 1 - (2 / 3) * H * g;
  const beta = ((2 / 3) * H * (2 / 3) * equivalent * equivalent) / Math.max(theta2, 0.05);
  const n = 1 / (below + beta);
  tangent[0] = h11 - n * vx * vx;
  tangent[1] = h12 - n * vx * vy;
  tangent[2] = -n * vx * vt;
  tangent[3] = tangent[1] as number;
  tangent[4] = h11 - n * vy * vy;
  tangent[5] = -n * vy * vt;
  tangent[6] = tangent[2] as number;
  tangent[7] = tangent[5] as number;
  tangent[8] = h33 - n * vt * vt;
}

/** Stresses of the three points of a triangle: middle, and half the difference of the faces, as `elasticStress` gives them. */
export function faceStresses(
  layers: Layers,
  e: number,
  points: number,
  strains: Float64Array,
  thickness: number,
  out: Float64Array,
): void {
  for (let p = 0; p < points; p++) {
    const faces: number[][] = [];
    for (const k of [0, LAYERS - 1]) {
      const at = (points * e + p) * LAYERS + k;
      // at the face itself while its layer is elastic, in that layer where it flows
      const z =
        (((layers.measure[at] as number) > 0 ? (Z[k] as number) : Math.sign(Z[k] as number)) * thickness) / 2;
      const s = [0, 1, 2].map(
        r =>
          (strains[6 * p + r] as number) +
          z * (strains[6 * p + 3 + r] as number) -
          (layers.strain[3 * at + r] as number),
      );
      const D = layers.D;
      faces.push(
        [0, 1, 2].map(r =>
          [0, 1, 2].reduce((sum, c) => sum + (D[3 * r + c] as number) * (s[c] as number), 0),
        ),
      );
    }
    for (let r = 0; r < 3; r++) {
      const low = (faces[0] as number[])[r] as number;
      const high = (faces[1] as number[])[r] as number;
      out[18 * e + 6 * p + r] = (low + high) / 2;
      out[18 * e + 6 * p + 3 + r] = (high - low) / 2;
    }
  }
}
