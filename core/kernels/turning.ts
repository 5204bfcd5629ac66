import { at, index, more, pair, put, putPair } from './memory';

/*
 * What the turning of a triangle adds to its force and tangent: core/src/strike/corotate.ts in the kernels. One triangle is in work at a time; it
 * stands here.
 */

/** Moves that spin the axes: the three corners along z, the first side's ends across it. */
const COLUMNS = memory.data<i32>([2, 8, 14, 1, 7]);
export const axes = memory.data(72, 16);
export const flat = memory.data(48, 16);
export const own = memory.data(144, 16);
export const force = memory.data(144, 16);
export const fixedForce = memory.data(144, 16);
export const tangent = memory.data(324 * 8, 16);
export const outK = memory.data(324 * 8, 16);
const H = memory.data(72, 16);
const Ls = memory.data(72, 16);
const KSpin = memory.data(54 * 8, 16);
const SKS = memory.data(72, 16);
export const TILTX = memory.data(24, 16);
export const TILTY = memory.data(24, 16);
let turn: f64 = 0;

/** Spin in the plane of a unit move of the first side's end across it, as `tilts` left it. */
export function turnInPlane(): f64 {
  return turn;
}

/** From the rotation vector of a corner to its spin. */
export function spinsOf(i: i32, wantTangent: bool): void {
  const k0 = 6 * i + 3;
  const x = at(own, k0);
  const y = at(own, k0 + 1);
  const z = at(own, k0 + 2);
  const t2 = x * x + y * y + z * z;
  if (t2 < 1e-14) return;
  const eta = 1.0 / 12.0 + t2 / 720 + (t2 * t2) / 30240;
  const h0 = 1 - eta * (y * y + z * z);
  const h1 = eta * x * y + z / 2;
  const h2 = eta * x * z - y / 2;
  const h3 = eta * x * y - z / 2;
  const h4 = 1 - eta * (x * x + z * z);
  const h5 = eta * y * z + x / 2;
  const h6 = eta * x * z + y / 2;
  const h7 = eta * y * z - x / 2;
  const h8 = 1 - eta * (x * x + y * y);
  const p = at(force, k0);
  const q = at(force, k0 + 1);
  const r = at(force, k0 + 2);
  put(force, k0, h0 * p + h3 * q + h6 * r);
  put(force, k0 + 1, h1 * p + h4 * q + h7 * r);
  put(force, k0 + 2, h2 * p + h5 * q + h8 * r);
  // a thousandth of a turn does not show in a tangent
  if (!wantTangent || t2 < 1e-6) return;
  for (let j = 0; j < 18; j++) {
    const k = 18 * j + k0;
    const a = at(tangent, k);
    const b = at(tangent, k + 1);
    const d = at(tangent, k + 2);
    put(tangent, k, a * h0 + b * h3 + d * h6);
    put(tangent, k + 1, a * h1 + b * h4 + d * h7);
    put(tangent, k + 2, a * h2 + b * h5 + d * h8);
  }
  for (let j = 0; j < 18; j += 2) {
    const k = 18 * k0 + j;
    const a = pair(tangent, k);
    const b = pair(tangent, k + 18);
    const d = pair(tangent, k + 36);
    putPair(tangent, k, three(a, b, d, h0, h3, h6));
    putPair(tangent, k + 18, three(a, b, d, h1, h4, h7));
    putPair(tangent, k + 36, three(a, b, d, h2, h5, h8));
  }
  put(H, 0, h0);
  put(H, 1, h1);
  put(H, 2, h2);
  put(H, 3, h3);
  put(H, 4, h4);
  put(H, 5, h5);
  put(H, 6, h6);
  put(H, 7, h7);
  put(H, 8, h8);
  const mu = 1.0 / 360.0 + t2 / 7560;
  const dot = x * p + y * q + z * r;
  // spin(θ)² p
  const sx = x * dot - p * t2;
  const sy = y * dot - q * t2;
  const sz = z * dot - r * t2;
  // η[(θ·p) I + θ pᵀ − 2 p θᵀ] + μ spin(θ)² p θᵀ − ½ spin(p)
  put(Ls, 0, eta * (dot + x * p - 2 * p * x) + mu * sx * x);
  put(Ls, 1, eta * (x * q - 2 * p * y) + mu * sx * y + r / 2);
  put(Ls, 2, eta * (x * r - 2 * p * z) + mu * sx * z - q / 2);
  put(Ls, 3, eta * (y * p - 2 * q * x) + mu * sy * x - r / 2);
  put(Ls, 4, eta * (dot + y * q - 2 * q * y) + mu * sy * y);
  put(Ls, 5, eta * (y * r - 2 * q * z) + mu * sy * z + p / 2);
  put(Ls, 6, eta * (z * p - 2 * r * x) + mu * sz * x + q / 2);
  put(Ls, 7, eta * (z * q - 2 * r * y) + mu * sz * y - p / 2);
  put(Ls, 8, eta * (dot + z * r - 2 * r * z) + mu * sz * z);
  for (let a = 0; a < 3; a++)
    for (let b = 0; b < 3; b++) {
      let s: f64 = 0;
      for (let c = 0; c < 3; c++) s += at(Ls, 3 * a + c) * at(H, 3 * c + b) + at(Ls, 3 * b + c) * at(H, 3 * c + a);
      const k = 18 * (k0 + a) + k0 + b;
      put(tangent, k, at(tangent, k) + s / 2);
    }
}

// @ts-ignore: decorator
@inline
function three(a: v128, b: v128, d: v128, x: f64, y: f64, z: f64): v128 {
  return more(more(f64x2.mul(a, f64x2.splat(x)), b, f64x2.splat(y)), d, f64x2.splat(z));
}

/** Takes the turning of the axes into account, and turns the tangent to fixed axes, to `outK`. */
export function turnBack(): void {
  tilts(flat);
  for (let r = 0; r < 18; r++) {
    let s0: f64 = 0;
    let s1: f64 = 0;
    let s2: f64 = 0;
    for (let i = 0; i < 3; i++) {
      const k = tangent + (<usize>(18 * r + 6 * i) << 3);
      const x = at(flat, 2 * i);
      const y = at(flat, 2 * i + 1);
      const w = at(k, 2);
      s0 += w * y + at(k, 3);
      s1 += at(k, 4) - w * x;
      s2 += at(k, 1) * x - at(k, 0) * y + at(k, 5);
    }
    put(KSpin, 3 * r, s0);
    put(KSpin, 3 * r + 1, s1);
    put(KSpin, 3 * r + 2, s2);
  }
  for (let c = 0; c < 3; c++) {
    let s0: f64 = 0;
    let s1: f64 = 0;
    let s2: f64 = 0;
    for (let i = 0; i < 3; i++) {
      const k = 18 * i + c;
      const x = at(flat, 2 * i);
      const y = at(flat, 2 * i + 1);
      const w = at(KSpin, k + 6);
      s0 += w * y + at(KSpin, k + 9);
      s1 += at(KSpin, k + 12) - w * x;
      s2 += at(KSpin, k + 3) * x - at(KSpin, k) * y + at(KSpin, k + 15);
    }
    put(SKS, c, s0);
    put(SKS, 3 + c, s1);
    put(SKS, 6 + c, s2);
  }
  balanced();
  memory.copy(outK, tangent, 324 * 8);
  let nx: f64 = 0;
  let xx: f64 = 0;
  let xy: f64 = 0;
  let yy: f64 = 0;
  let xz: f64 = 0;
  let yz: f64 = 0;
  for (let i = 0; i < 3; i++) {
    const x = at(flat, 2 * i);
    const y = at(flat, 2 * i + 1);
    const p = at(force, 6 * i);
    const q = at(force, 6 * i + 1);
    const t = at(force, 6 * i + 2);
    nx += p * x + q * y;
    xx += x * p;
    yy += y * q;
    xy += (x * q + y * p) / 2;
    xz += (x * t) / 2;
    yz += (y * t) / 2;
    // what the turning of the forces adds; moments count half with either term
    for (let half = 0; half < 2; half++) {
      const r = 18 * i + 9 * half;
      const share: f64 = half ? 0.5 : 1;
      const a = share * at(force, 6 * i + 3 * half);
      const b = share * at(force, 6 * i + 3 * half + 1);
      const c = share * at(force, 6 * i + 3 * half + 2);
      put(KSpin, r + 1, at(KSpin, r + 1) - c);
      put(KSpin, r + 2, at(KSpin, r + 2) + b);
      put(KSpin, r + 3, at(KSpin, r + 3) + c);
      put(KSpin, r + 5, at(KSpin, r + 5) - a);
      put(KSpin, r + 6, at(KSpin, r + 6) - b);
      put(KSpin, r + 7, at(KSpin, r + 7) + a);
    }
  }
  const c00 = at(SKS, 0) - nx + xx;
  const c11 = at(SKS, 4) - nx + yy;
  const c22 = at(SKS, 8) - nx;
  const c01 = at(SKS, 1) + xy;
  const c02 = at(SKS, 2) + xz;
  const c12 = at(SKS, 5) + yz;
  for (let i = 0; i < 5; i++) {
    const c = index(COLUMNS, i);
    const g0: f64 = i < 3 ? at(TILTX, i) : 0;
    const g1: f64 = i < 3 ? at(TILTY, i) : 0;
    const g2: f64 = i < 3 ? 0 : i == 3 ? -turn : turn;
    for (let r = 0; r < 18; r++) {
      const v = at(KSpin, 3 * r) * g0 + at(KSpin, 3 * r + 1) * g1 + at(KSpin, 3 * r + 2) * g2;
      put(outK, 18 * r + c, at(outK, 18 * r + c) - v);
      put(outK, 18 * c + r, at(outK, 18 * c + r) - v);
    }
    const s0 = c00 * g0 + c01 * g1 + c02 * g2;
    const s1 = c01 * g0 + c11 * g1 + c12 * g2;
    const s2 = c02 * g0 + c12 * g1 + c22 * g2;
    for (let j = 0; j < 5; j++) {
      const k = 18 * c + index(COLUMNS, j);
      put(
        outK,
        k,
        at(outK, k) + (j < 3 ? s0 * at(TILTX, j) + s1 * at(TILTY, j) : j == 3 ? -turn * s2 : turn * s2),
      );
    }
  }
  toFixed();
}

/** K := Tᵀ K T over blocks of three. */
function toFixed(): void {
  const a = at(axes, 0);
  const b = at(axes, 1);
  const c = at(axes, 2);
  const d = at(axes, 3);
  const e = at(axes, 4);
  const f = at(axes, 5);
  const g = at(axes, 6);
  const h = at(axes, 7);
  const i = at(axes, 8);
  for (let k = outK; k < outK + 324 * 8; k += 24) {
    const p = at(k, 0);
    const q = at(k, 1);
    const t = at(k, 2);
    put(k, 0, p * a + q * d + t * g);
    put(k, 1, p * b + q * e + t * h);
    put(k, 2, p * c + q * f + t * i);
  }
  for (let r = 0; r < 18; r += 3)
    for (let s = 0; s < 18; s += 2) {
      const k = 18 * r + s;
      const p = pair(outK, k);
      const q = pair(outK, k + 18);
      const t = pair(outK, k + 36);
      putPair(outK, k, three(p, q, t, a, d, g));
      putPair(outK, k + 18, three(p, q, t, b, e, h));
      putPair(outK, k + 36, three(p, q, t, c, f, i));
    }
}

/** The forces of a triangle in fixed axes. */
export function turnForce(): void {
  for (let i = 0; i < 6; i++)
    for (let c = 0; c < 3; c++)
      put(
        fixedForce,
        3 * i + c,
        at(axes, c) * at(force, 3 * i) + at(axes, 3 + c) * at(force, 3 * i + 1) + at(axes, 6 + c) * at(force, 3 * i + 2),
      );
}

/** f := (I − S G)ᵀ f: what a rigid spin would work is taken off. */
export function balanced(): void {
  let m0: f64 = 0;
  let m1: f64 = 0;
  let m2: f64 = 0;
  for (let i = 0; i < 3; i++) {
    const x = at(flat, 2 * i);
    const y = at(flat, 2 * i + 1);
    const w = at(force, 6 * i + 2);
    m0 += w * y + at(force, 6 * i + 3);
    m1 += at(force, 6 * i + 4) - w * x;
    m2 += at(force, 6 * i + 1) * x - at(force, 6 * i) * y + at(force, 6 * i + 5);
  }
  for (let i = 0; i < 3; i++)
    put(force, 6 * i + 2, at(force, 6 * i + 2) - at(TILTX, i) * m0 - at(TILTY, i) * m1);
  put(force, 1, at(force, 1) + turn * m2);
  put(force, 7, at(force, 7) - turn * m2);
}

/** Spin of the axes for moves of the corners. */
export function tilts(c: usize): void {
  const x1 = at(c, 0);
  const y1 = at(c, 1);
  const x2 = at(c, 2);
  const y2 = at(c, 3);
  const x3 = at(c, 4);
  const y3 = at(c, 5);
  const a2 = (x2 - x1) * (y3 - y1) - (x3 - x1) * (y2 - y1);
  put(TILTX, 0, (x3 - x2) / a2);
  put(TILTX, 1, (x1 - x3) / a2);
  put(TILTX, 2, (x2 - x1) / a2);
  put(TILTY, 0, (y3 - y2) / a2);
  put(TILTY, 1, (y1 - y3) / a2);
  put(TILTY, 2, (y2 - y1) / a2);
  turn = 1 / (x2 - x1);
}
