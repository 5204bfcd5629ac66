import { at, put } from './memory';

/*
 * A sheet that yields, layer by layer: core/src/strike/plastic.ts in the kernels. Plane stress of von Mises with isotropic
 * hardening, the return along the radius and its consistent tangent by Simo and Taylor 1986.
 */

export const LAYERS: i32 = 6;
const OUTER: f64 = 0.5 + 0.3872983346207417;
const INNER: f64 = 0.5 - 0.3872983346207417;
const SQRT2: f64 = 1.4142135623730951;

/** How a sheet yields, and where the plastic strains of every layer of every point stand: three and their measure, now and at the last balance. */
let E: f64 = 0;
let nu: f64 = 0;
let limit0: f64 = 0;
let H: f64 = 0;
let d0: f64 = 0;
let d1: f64 = 0;
let d8: f64 = 0;
let thickness: f64 = 0;
let strain: usize = 0;
let measure: usize = 0;
let strain0: usize = 0;
let measure0: usize = 0;
let touched: usize = 0;

export function setSheet(modulus: f64, poisson: f64, limit: f64, hardening: f64, t: f64): void {
  E = modulus;
  nu = poisson;
  limit0 = limit;
  H = hardening;
  thickness = t;
  d0 = E / (1 - nu * nu);
  d1 = d0 * nu;
  d8 = (d0 * (1 - nu)) / 2;
}

export function setLayers(now: usize, nowMeasure: usize, before: usize, beforeMeasure: usize, yielded: usize): void {
  strain = now;
  measure = nowMeasure;
  strain0 = before;
  measure0 = beforeMeasure;
  touched = yielded;
}

/** What a triangle had of plastic strain is taken back where it has not yielded and its strains (three points of six) do not ask for it. */
export function staysElastic(e: i32, strains: usize): bool {
  if (load<u8>(touched + <usize>e)) return false;
  for (let p = 0; p < 3; p++) {
    const s = strains + ((<usize>(6 * p)) << 3);
    if (!within(s, -thickness / 2) || !within(s, thickness / 2)) return false;
  }
  const from = <usize>(3 * LAYERS * e);
  memory.fill(strain + 24 * from, 0, 24 * 3 * <usize>LAYERS);
  memory.fill(measure + 8 * from, 0, 8 * 3 * <usize>LAYERS);
  return true;
}

// @ts-ignore: decorator
@inline
function within(s: usize, z: f64): bool {
  const x = at(s, 0) + z * at(s, 3);
  const y = at(s, 1) + z * at(s, 4);
  const t = at(s, 2) + z * at(s, 5);
  const sx = d0 * x + d1 * y;
  const sy = d1 * x + d0 * y;
  const st = d8 * t;
  return sx * sx - sx * sy + sy * sy + 3 * st * st <= limit0 * limit0;
}

// stress of one layer, and the six of its tangent that are not the same twice: xx, xy, xt, yy, yt, tt
let sx: f64 = 0;
let sy: f64 = 0;
let st: f64 = 0;
let txx: f64 = 0;
let txy: f64 = 0;
let txt: f64 = 0;
let tyy: f64 = 0;
let tyt: f64 = 0;
let ttt: f64 = 0;

/**
 * Resultants (six, to `sums`) of a point from its strains (six, at `s`); with `moduli` the blocks A, B and D, six each. `first` is
 * the point's first layer.
 */
export function layerPoint(first: i32, s: usize, sums: usize, moduli: usize): void {
  memory.fill(sums, 0, 48);
  if (moduli) memory.fill(moduli, 0, 144);
  for (let k = 0; k < LAYERS; k++) {
    const half = k < 3 ? 2 - k : k - 3;
    const away: f64 = half == 2 ? OUTER : half == 1 ? 0.5 : INNER;
    const z = ((k < 3 ? -away : away) * thickness) / 2;
    const w = ((half == 1 ? 8.0 / 18.0 : 5.0 / 18.0) * thickness) / 2;
    layer(first + k, at(s, 0) + z * at(s, 3), at(s, 1) + z * at(s, 4), at(s, 2) + z * at(s, 5), moduli != 0);
    put(sums, 0, at(sums, 0) + w * sx);
    put(sums, 1, at(sums, 1) + w * sy);
    put(sums, 2, at(sums, 2) + w * st);
    put(sums, 3, at(sums, 3) + z * w * sx);
    put(sums, 4, at(sums, 4) + z * w * sy);
    put(sums, 5, at(sums, 5) + z * w * st);
    if (moduli) {
      add(moduli, 0, w);
      add(moduli, 6, z * w);
      add(moduli, 12, z * z * w);
    }
  }
}

// @ts-ignore: decorator
@inline
function add(moduli: usize, i: i32, w: f64): void {
  put(moduli, i, at(moduli, i) + w * txx);
  put(moduli, i + 1, at(moduli, i + 1) + w * txy);
  put(moduli, i + 2, at(moduli, i + 2) + w * txt);
  put(moduli, i + 3, at(moduli, i + 3) + w * tyy);
  put(moduli, i + 4, at(moduli, i + 4) + w * tyt);
  put(moduli, i + 5, at(moduli, i + 5) + w * ttt);
}

function layer(n: i32, ex: f64, ey: f64, gxy: f64, wantTangent: bool): void {
  const now = strain + <usize>n * 24;
  const before = strain0 + <usize>n * 24;
  const p0 = at(before, 0);
  const p1 = at(before, 1);
  const p2 = at(before, 2);
  const a0 = at(measure0, n);
  const x = ex - p0;
  const y = ey - p1;
  const t = gxy - p2;
  sx = d0 * x + d1 * y;
  sy = d1 * x + d0 * y;
  st = d8 * t;
  const limit = limit0 + H * a0;
  if (sx * sx - sx * sy + sy * sy + 3 * st * st <= limit * limit * (1 + 1e-10)) {
    put(now, 0, p0);
    put(now, 1, p1);
    put(now, 2, p2);
    put(measure, n, a0);
    txx = d0;
    txy = d1;
    txt = 0;
    tyy = d0;
    tyt = 0;
    ttt = d8;
    return;
  }
  // in sums and differences the elastic matrix and von Mises' are both diagonal
  const s = (sx + sy) / SQRT2;
  const r = (sy - sx) / SQRT2;
  const k1 = E / (3 * (1 - nu));
  const k2 = E / (1 + nu);
  const a = (s * s) / 6;
  const b = 0.5 * r * r + st * st;
  // as if both shrank alike: near enough that two or three rounds find it
  let equivalent = sqrt(3 * (a + b));
  let g = (equivalent / limit - 1) / ((k1 * a + k2 * b) / (a + b));
  for (let i = 0; i < 40; i++) {
    const m1 = 1 / (1 + k1 * g);
    const m2 = 1 / (1 + k2 * g);
    const am = a * m1 * m1;
    const bm = b * m2 * m2;
    const phi2 = am + bm;
    equivalent = sqrt(3 * phi2);
    const yields = limit0 + H * (a0 + g * equivalent * (2.0 / 3.0));
    const value = phi2 - (yields * yields) / 3;
    if (abs(value) < 1e-11 * yields * yields) break;
    const dphi2 = -2 * (k1 * am * m1 + k2 * bm * m2);
    const dEq = equivalent > 0 ? (1.5 * dphi2) / equivalent : 0;
    const dAlpha = (2.0 / 3.0) * (equivalent + g * dEq);
    g -= value / (dphi2 - (2.0 / 3.0) * yields * H * dAlpha);
    if (!(g > 0)) g = 1e-12;
  }
  const ss = s / (1 + k1 * g);
  const rr = r / (1 + k2 * g);
  sx = (ss - rr) / SQRT2;
  sy = (ss + rr) / SQRT2;
  st = st / (1 + k2 * g);
  // flow along P σ
  const fx = (2 * sx - sy) / 3;
  const fy = (2 * sy - sx) / 3;
  const ft = 2 * st;
  put(now, 0, p0 + g * fx);
  put(now, 1, p1 + g * fy);
  put(now, 2, p2 + g * ft);
  put(measure, n, a0 + g * equivalent * (2.0 / 3.0));
  if (!wantTangent) return;
  // Ξ = (D⁻¹ + g P)⁻¹
  const c11 = 1 / E + (2.0 / 3.0) * g;
  const c12 = -nu / E - g / 3;
  const det = c11 * c11 - c12 * c12;
  const h11 = c11 / det;
  const h12 = -c12 / det;
  const h33 = 1 / ((2 * (1 + nu)) / E + 2 * g);
  const vx = h11 * fx + h12 * fy;
  const vy = h12 * fx + h11 * fy;
  const vt = h33 * ft;
  const theta2 = 1 - (2.0 / 3.0) * H * g;
  const beta = ((2.0 / 3.0) * H * (2.0 / 3.0) * equivalent * equivalent) / max(theta2, 0.05);
  const f = 1 / (fx * vx + fy * vy + ft * vt + beta);
  txx = h11 - f * vx * vx;
  txy = h12 - f * vx * vy;
  txt = -f * vx * vt;
  tyy = h11 - f * vy * vy;
  tyt = -f * vy * vt;
  ttt = h33 - f * vt * vt;
}
