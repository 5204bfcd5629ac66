import { assemble } from './front';
import { at, both, index, more, pair, put, putPair, sum } from './memory';
import { LAYERS, layerPoint, setSheet, staysElastic } from './plastic';
import {
  axes,
  balanced,
  fixedForce,
  flat,
  force,
  outK,
  own,
  spinsOf,
  TILTX,
  TILTY,
  tangent,
  tilts,
  turnBack,
  turnForce,
  turnInPlane,
} from './turning';

/*
 * The triangles of a structure on its way: core/src/strike/corotate.ts in the kernels, with the same names. What does not change about a
 * triangle stands in `rest`, in numbers: strains of the three points from the moves in its plane and from those out of it (nine rows
 * of nine, each filled up to ten), elastic stiffness of either and of shear alone (nine rows filled up to ten), axes, corners, area.
 */

const B: i32 = 0;
const BB: i32 = 90;
const KM: i32 = 180;
const KB: i32 = 270;
const KS: i32 = 360;
const AXES: i32 = 450;
const FLAT: i32 = 459;
const AREA: i32 = 465;
/** Numbers of a triangle's `rest`. */
export const REST: i32 = 466;

let rest: usize = 0;
let triangles: usize = 0;
let places: usize = 0;
let turned: usize = 0;
let inner: usize = 0;
/** own moves, axes and corners where the force was last asked for, and the own moves foretold */
let toldOwn: usize = 0;
let toldAxes: usize = 0;
let toldFlat: usize = 0;
let toldNext: usize = 0;
let yields: bool = false;

export function setStructure(
  restAt: usize,
  trianglesAt: usize,
  placesAt: usize,
  turnedAt: usize,
  innerAt: usize,
  own: usize,
  axesAt: usize,
  flatAt: usize,
  next: usize,
): void {
  rest = restAt;
  triangles = trianglesAt;
  places = placesAt;
  turned = turnedAt;
  inner = innerAt;
  toldOwn = own;
  toldAxes = axesAt;
  toldFlat = flatAt;
  toldNext = next;
}

/** What a sheet is made of; `plastic` where it may yield. MPa and mm. */
export function setMaterial(E: f64, nu: f64, limit: f64, hardening: f64, thickness: f64, plastic: bool): void {
  setSheet(E, nu, limit, hardening, thickness);
  yields = plastic;
}

// places of the degrees of freedom in the plane and out of it among the eighteen
const MEMBRANE = memory.data<i32>([0, 1, 5, 6, 7, 11, 12, 13, 17]);
const BENDING = memory.data<i32>([2, 3, 4, 8, 9, 10, 14, 15, 16]);

const corner = memory.data(72, 16);
/** own moves in the plane and out of it, filled up with a nought */
const inPlane = memory.data(80, 16);
const outOf = memory.data(80, 16);
const strains = memory.data(18 * 8, 16);
const sums = memory.data(18 * 8, 16);
const moduli = memory.data(18 * 8, 16);
/** moduli times strain matrices, nine rows of ten: in the plane, between, and out of it */
const AB = memory.data(90 * 8, 16);
const CB = memory.data(90 * 8, 16);
const DB = memory.data(90 * 8, 16);
const spunP = memory.data(72, 16);

/** Forces of all triangles as they stand, into `inner` by node · 6 + freedom; what they were found from is noted. */
export function gather(count: i32): void {
  for (let e = 0; e < count; e++) {
    const R = rest + (<usize>e * <usize>REST << 3);
    local(R, e);
    memory.copy(toldOwn + <usize>e * 144, own, 144);
    memory.copy(toldAxes + <usize>e * 72, axes, 72);
    memory.copy(toldFlat + <usize>e * 48, flat, 48);
    within(R, e, false);
    for (let i = 0; i < 3; i++) spinsOf(i, false);
    tilts(flat);
    balanced();
    turnForce();
    for (let i = 0; i < 3; i++) {
      const to = inner + (<usize>(6 * index(triangles, 3 * e + i)) << 3);
      const from = fixedForce + (<usize>(6 * i) << 3);
      for (let c = 0; c < 6; c += 2) putPair(to, c, f64x2.add(pair(to, c), pair(from, c)));
    }
  }
}

/** The tangent stiffness of a triangle as it stands, or as it is foretold, added to a front where its slots say. */
export function tangentInto(F: usize, m: i32, e: i32, slots: usize, foretold: bool): void {
  assemble(F, m, tangentOf(e, foretold), 18, slots);
}

/** The tangent stiffness of a triangle, 18 × 18 row by row in fixed axes. */
export function tangentOf(e: i32, foretold: bool): usize {
  const R = rest + (<usize>e * <usize>REST << 3);
  local(R, e);
  if (foretold) memory.copy(own, toldNext + <usize>e * 144, 144);
  within(R, e, true);
  for (let i = 0; i < 3; i++) spinsOf(i, true);
  turnBack();
  return outK;
}

/** Predicts the own moves after a move of all nodes, from the tangent that it was found with. */
export function predict(count: i32, du: usize): void {
  const d = own;
  for (let e = 0; e < count; e++) {
    const a = toldAxes + <usize>e * 72;
    const f = toldFlat + <usize>e * 48;
    for (let i = 0; i < 6; i++) {
      const n = du + (<usize>(6 * index(triangles, 3 * e + (i >> 1)) + 3 * (i & 1)) << 3);
      const x = at(n, 0);
      const y = at(n, 1);
      const z = at(n, 2);
      for (let c = 0; c < 3; c++) put(d, 3 * i + c, at(a, 3 * c) * x + at(a, 3 * c + 1) * y + at(a, 3 * c + 2) * z);
    }
    tilts(f);
    // less the rigid spin in it
    let wx: f64 = 0;
    let wy: f64 = 0;
    for (let i = 0; i < 3; i++) {
      wx += at(TILTX, i) * at(d, 6 * i + 2);
      wy += at(TILTY, i) * at(d, 6 * i + 2);
    }
    const wz = turnInPlane() * (at(d, 7) - at(d, 1));
    const next = toldNext + <usize>e * 144;
    const was = toldOwn + <usize>e * 144;
    for (let i = 0; i < 3; i++) {
      const x = at(f, 2 * i);
      const y = at(f, 2 * i + 1);
      const k = 6 * i;
      put(next, k, at(was, k) + at(d, k) + wz * y);
      put(next, k + 1, at(was, k + 1) + at(d, k + 1) - wz * x);
      put(next, k + 2, at(was, k + 2) + at(d, k + 2) - wx * y + wy * x);
      put(next, k + 3, at(was, k + 3) + at(d, k + 3) - wx);
      put(next, k + 4, at(was, k + 4) + at(d, k + 4) - wy);
      put(next, k + 5, at(was, k + 5) + at(d, k + 5) - wz);
    }
  }
}

/** The moves of a triangle seen from its own axes, to `own`; `axes` and `flat` as it stands now. */
function local(R: usize, e: i32): void {
  for (let i = 0; i < 3; i++) {
    const n = places + (<usize>(3 * index(triangles, 3 * e + i)) << 3);
    put(corner, 3 * i, at(n, 0));
    put(corner, 3 * i + 1, at(n, 1));
    put(corner, 3 * i + 2, at(n, 2));
  }
  const ox = at(corner, 0);
  const oy = at(corner, 1);
  const oz = at(corner, 2);
  let ux = at(corner, 3) - ox;
  let uy = at(corner, 4) - oy;
  let uz = at(corner, 5) - oz;
  const length = sqrt(ux * ux + uy * uy + uz * uz);
  ux /= length;
  uy /= length;
  uz /= length;
  const wx = at(corner, 6) - ox;
  const wy = at(corner, 7) - oy;
  const wz = at(corner, 8) - oz;
  let nx = uy * wz - uz * wy;
  let ny = uz * wx - ux * wz;
  let nz = ux * wy - uy * wx;
  const area = sqrt(nx * nx + ny * ny + nz * nz);
  nx /= area;
  ny /= area;
  nz /= area;
  const vx = ny * uz - nz * uy;
  const vy = nz * ux - nx * uz;
  const vz = nx * uy - ny * ux;
  put(axes, 0, ux);
  put(axes, 1, uy);
  put(axes, 2, uz);
  put(axes, 3, vx);
  put(axes, 4, vy);
  put(axes, 5, vz);
  put(axes, 6, nx);
  put(axes, 7, ny);
  put(axes, 8, nz);
  const A = R + (<usize>AXES << 3);
  const f0 = R + (<usize>FLAT << 3);
  for (let i = 0; i < 3; i++) {
    const dx = at(corner, 3 * i) - ox;
    const dy = at(corner, 3 * i + 1) - oy;
    const dz = at(corner, 3 * i + 2) - oz;
    const fx = ux * dx + uy * dy + uz * dz;
    const fy = vx * dx + vy * dy + vz * dz;
    put(flat, 2 * i, fx);
    put(flat, 2 * i + 1, fy);
    put(own, 6 * i, fx - at(f0, 2 * i));
    put(own, 6 * i + 1, fy - at(f0, 2 * i + 1));
    put(own, 6 * i + 2, 0);
    // rotation from the axes at rest to the corner as it has turned, seen from the axes now: its skew part
    const r = turned + (<usize>(9 * index(triangles, 3 * e + i)) << 3);
    for (let a = 0; a < 3; a++) {
      const x = at(axes, 3 * a);
      const y = at(axes, 3 * a + 1);
      const z = at(axes, 3 * a + 2);
      put(spunP, 3 * a, x * at(r, 0) + y * at(r, 3) + z * at(r, 6));
      put(spunP, 3 * a + 1, x * at(r, 1) + y * at(r, 4) + z * at(r, 7));
      put(spunP, 3 * a + 2, x * at(r, 2) + y * at(r, 5) + z * at(r, 8));
    }
    const x = (spun(A, 2, 1) - spun(A, 1, 2)) / 2;
    const y = (spun(A, 0, 2) - spun(A, 2, 0)) / 2;
    const z = (spun(A, 1, 0) - spun(A, 0, 1)) / 2;
    const sin = sqrt(x * x + y * y + z * z);
    const f = sin < 1e-9 ? 1 : Math.asin(min(1, sin)) / sin;
    put(own, 6 * i + 3, f * x);
    put(own, 6 * i + 4, f * y);
    put(own, 6 * i + 5, f * z);
  }
}

// @ts-ignore: decorator
@inline
function spun(A: usize, a: i32, b: i32): f64 {
  return at(spunP, 3 * a) * at(A, 3 * b) + at(spunP, 3 * a + 1) * at(A, 3 * b + 1) + at(spunP, 3 * a + 2) * at(A, 3 * b + 2);
}

/** Row of ten times ten. */
// @ts-ignore: decorator
@inline
function ten(a: usize, b: usize): f64 {
  let s = f64x2.mul(pair(a, 0), pair(b, 0));
  s = more(s, pair(a, 2), pair(b, 2));
  s = more(s, pair(a, 4), pair(b, 4));
  s = more(s, pair(a, 6), pair(b, 6));
  s = more(s, pair(a, 8), pair(b, 8));
  return sum(s);
}

// @ts-ignore: decorator
@inline
function row(R: usize, first: i32, r: i32): usize {
  return R + ((<usize>(first + 10 * r)) << 3);
}

/** Force (and tangent) of a triangle for its own moves, in its own axes. */
function within(R: usize, e: i32, wantTangent: bool): void {
  for (let j = 0; j < 9; j++) {
    put(inPlane, j, at(own, index(MEMBRANE, j)));
    put(outOf, j, at(own, index(BENDING, j)));
  }
  if (yields) {
    for (let p = 0; p < 3; p++)
      for (let q = 0; q < 3; q++) {
        put(strains, 6 * p + q, ten(row(R, B, 3 * p + q), inPlane));
        put(strains, 6 * p + 3 + q, ten(row(R, BB, 3 * p + q), outOf));
      }
    if (!staysElastic(e, strains)) {
      plasticForce(R, e, wantTangent);
      return;
    }
  }
  for (let i = 0; i < 9; i++) {
    put(force, index(MEMBRANE, i), ten(row(R, KM, i), inPlane));
    put(force, index(BENDING, i), ten(row(R, KB, i), outOf));
  }
  if (!wantTangent) return;
  memory.fill(tangent, 0, 324 * 8);
  for (let i = 0; i < 9; i++) {
    const m = tangent + (<usize>(18 * index(MEMBRANE, i)) << 3);
    const b = tangent + (<usize>(18 * index(BENDING, i)) << 3);
    const km = row(R, KM, i);
    const kb = row(R, KB, i);
    for (let j = 0; j < 9; j++) {
      put(m, index(MEMBRANE, j), at(km, j));
      put(b, index(BENDING, j), at(kb, j));
    }
  }
}

function plasticForce(R: usize, e: i32, wantTangent: bool): void {
  const w = at(R, AREA) / 3;
  const weight = f64x2.splat(w);
  for (let p = 0; p < 3; p++) {
    layerPoint((3 * e + p) * LAYERS, strains + (<usize>(6 * p) << 3), sums + (<usize>(6 * p) << 3), wantTangent ? moduli : 0);
    if (wantTangent) {
      times(AB, 3 * p, 0, R, B, weight);
      times(CB, 3 * p, 6, R, B, weight);
      times(DB, 3 * p, 12, R, BB, weight);
    }
  }
  for (let j = 0; j < 10; j += 2) {
    let m = f64x2.splat(0);
    let b = f64x2.splat(0);
    for (let r = 0; r < 9; r++) {
      const k = 6 * (r / 3) + (r % 3);
      m = more(m, pair(row(R, B, r), j), both(sums, k));
      b = more(b, pair(row(R, BB, r), j), both(sums, k + 3));
    }
    m = f64x2.mul(m, weight);
    b = f64x2.mul(b, weight);
    put(force, index(MEMBRANE, j), f64x2.extract_lane(m, 0));
    put(force, index(BENDING, j), f64x2.extract_lane(b, 0));
    if (j < 8) {
      put(force, index(MEMBRANE, j + 1), f64x2.extract_lane(m, 1));
      put(force, index(BENDING, j + 1), f64x2.extract_lane(b, 1));
    }
  }
  // shear stays elastic
  for (let i = 0; i < 9; i++) {
    const b = index(BENDING, i);
    put(force, b, at(force, b) + ten(row(R, KS, i), outOf));
  }
  if (!wantTangent) return;
  for (let i = 0; i < 9; i++) {
    block(R, B, i, AB, i, MEMBRANE, MEMBRANE, 0);
    block(R, BB, i, DB, i, BENDING, BENDING, row(R, KS, i));
    block(R, BB, i, CB, i, BENDING, MEMBRANE, 0);
  }
}

/** Three rows of moduli (six at `d`) times the strain rows of a point. */
function times(to: usize, first: i32, d: i32, R: usize, b: i32, weight: v128): void {
  const xx = f64x2.mul(both(moduli, d), weight);
  const xy = f64x2.mul(both(moduli, d + 1), weight);
  const xt = f64x2.mul(both(moduli, d + 2), weight);
  const yy = f64x2.mul(both(moduli, d + 3), weight);
  const yt = f64x2.mul(both(moduli, d + 4), weight);
  const tt = f64x2.mul(both(moduli, d + 5), weight);
  const b0 = row(R, b, first);
  const b1 = row(R, b, first + 1);
  const b2 = row(R, b, first + 2);
  const t0 = row(to, 0, first);
  const t1 = row(to, 0, first + 1);
  const t2 = row(to, 0, first + 2);
  for (let j = 0; j < 10; j += 2) {
    const x = pair(b0, j);
    const y = pair(b1, j);
    const t = pair(b2, j);
    putPair(t0, j, more(more(f64x2.mul(xx, x), xy, y), xt, t));
    putPair(t1, j, more(more(f64x2.mul(xy, x), yy, y), yt, t));
    putPair(t2, j, more(more(f64x2.mul(xt, x), yt, y), tt, t));
  }
}

/** Row `i` of Bᵀ·(D·B) over the nine strain rows, put into the tangent; what is not on its diagonal blocks on both sides. */
function block(R: usize, b: i32, i: i32, D: usize, at0: i32, rows: usize, columns: usize, start: usize): void {
  let s0 = f64x2.splat(0);
  let s1 = s0;
  let s2 = s0;
  let s3 = s0;
  let s4 = s0;
  if (start) {
    s0 = pair(start, 0);
    s1 = pair(start, 2);
    s2 = pair(start, 4);
    s3 = pair(start, 6);
    s4 = pair(start, 8);
  }
  for (let r = 0; r < 9; r++) {
    const x = both(row(R, b, r), i);
    const d = row(D, 0, r);
    s0 = more(s0, x, pair(d, 0));
    s1 = more(s1, x, pair(d, 2));
    s2 = more(s2, x, pair(d, 4));
    s3 = more(s3, x, pair(d, 6));
    s4 = more(s4, x, pair(d, 8));
  }
  const k = index(rows, at0);
  const line = tangent + (<usize>(18 * k) << 3);
  place(line, k, columns, 0, s0, rows != columns);
  place(line, k, columns, 2, s1, rows != columns);
  place(line, k, columns, 4, s2, rows != columns);
  place(line, k, columns, 6, s3, rows != columns);
  const c = index(columns, 8);
  const v = f64x2.extract_lane(s4, 0);
  put(line, c, v);
  if (rows != columns) put(tangent, 18 * c + k, v);
}

// @ts-ignore: decorator
@inline
function place(line: usize, k: i32, columns: usize, j: i32, v: v128, mirrored: bool): void {
  const c0 = index(columns, j);
  const c1 = index(columns, j + 1);
  const a = f64x2.extract_lane(v, 0);
  const b = f64x2.extract_lane(v, 1);
  put(line, c0, a);
  put(line, c1, b);
  if (mirrored) {
    put(tangent, 18 * c0 + k, a);
    put(tangent, 18 * c1 + k, b);
  }
}
