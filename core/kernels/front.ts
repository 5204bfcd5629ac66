import { at, both, index, less, more, pair, put, putPair, sum } from './memory';

/*
 * The dense work of a multifrontal elimination, as core/src/strike/front.ts and sparse.ts do it in plain TypeScript: fronts are
 * lower triangles row by row, numbers of eight bytes, places of four.
 */

/** Columns eliminated together: see front.ts. */
const SMALL: i32 = 24;
const LARGE: i32 = 48;
const FROM: i32 = 420;
const NO_PIVOT: f64 = 1e-11;

/** Sets the lower triangle of a front of `m` to nought. */
export function clear(F: usize, m: i32): void {
  for (let i = 0, row = F; i < m; i++, row += (<usize>m) << 3) memory.fill(row, 0, (<usize>(i + 1)) << 3);
}

/** Adds a full element of `n` degrees of freedom to a front where its slots say; −1 is held. */
export function assemble(F: usize, m: i32, K: usize, n: i32, slots: usize): void {
  for (let i = 0; i < n; i++) {
    const r = index(slots, i);
    if (r < 0) continue;
    const row = F + ((<usize>(r * m)) << 3);
    const from = K + ((<usize>(i * n)) << 3);
    for (let j = 0; j < n; j++) {
      const c = index(slots, j);
      if (c >= 0 && c <= r) put(row, c, at(row, c) + at(from, j));
    }
  }
}

/** Adds a packed lower triangle of `n` rows to a front, its rows at the given places. */
export function addBlock(F: usize, m: i32, block: usize, places: usize, n: i32): void {
  let b = block;
  for (let i = 0; i < n; i++) {
    const r = index(places, i);
    const row = F + ((<usize>(r * m)) << 3);
    for (let j = 0; j <= i; j++) {
      const q = index(places, j);
      const f = r >= q ? row + ((<usize>q) << 3) : F + ((<usize>(q * m + r)) << 3);
      store<f64>(f, load<f64>(f) + load<f64>(b));
      b += 8;
    }
  }
}

/** Eliminates the first `k` unknowns of a front; pivots go to `d`. W and L are room for a panel. The pivot that vanished, or −1. */
export function eliminate(F: usize, m: i32, k: i32, d: usize, W: usize, L: usize): i32 {
  const panel = m < FROM ? SMALL : LARGE;
  for (let p = 0; p < k; p += panel) {
    const q = min(p + panel, k);
    const bad = diagonalBlock(F, m, p, q, d, W);
    if (bad >= 0) return bad;
    rowsBelow(F, m, p, q, d, W, L);
    update(F, m, p, q, W, L);
  }
  return -1;
}

function diagonalBlock(F: usize, m: i32, p: i32, q: i32, d: usize, W: usize): i32 {
  for (let c = p; c < q; c++) {
    const rc = F + ((<usize>(c * m)) << 3);
    let pivot = at(rc, c);
    const before = abs(pivot);
    for (let j = p; j < c; j++) {
      const l = at(rc, j);
      const w = l * at(d, j);
      put(W, j - p, w);
      pivot -= l * w;
    }
    if (!(abs(pivot) > NO_PIVOT * before)) return c;
    put(d, c, pivot);
    const n = c - p;
    const even = n & ~1;
    for (let i = c + 1; i < q; i++) {
      const ri = F + ((<usize>(i * m + p)) << 3);
      let s: v128 = f64x2.splat(0);
      for (let j = 0; j < even; j += 2) s = more(s, pair(ri, j), pair(W, j));
      let x = at(ri, n) - sum(s);
      if (even < n) x -= at(ri, even) * at(W, even);
      put(ri, n, x / pivot);
    }
  }
  return -1;
}

/** The rows below a panel's block, eight at a time: L and L·D in packs of four rows, column after column. */
function rowsBelow(F: usize, m: i32, p: i32, q: i32, d: usize, W: usize, L: usize): void {
  const w = q - p;
  const line = (<usize>m) << 3;
  const pack = (<usize>w) << 5;
  for (let i = q; i < m; i += 8) {
    const rows = min(m - i, 8);
    const f0 = F + ((<usize>(i * m + p)) << 3);
    const f1 = rows > 1 ? f0 + line : f0;
    const f2 = rows > 2 ? f0 + 2 * line : f0;
    const f3 = rows > 3 ? f0 + 3 * line : f0;
    const f4 = rows > 4 ? f0 + 4 * line : f0;
    const f5 = rows > 5 ? f0 + 5 * line : f0;
    const f6 = rows > 6 ? f0 + 6 * line : f0;
    const f7 = rows > 7 ? f0 + 7 * line : f0;
    const o = ((<usize>(i - q)) * (<usize>w)) << 3;
    const W0 = W + o;
    const W1 = W0 + pack;
    for (let c = 0; c < w; c++) {
      const rc = F + ((<usize>((p + c) * m + p)) << 3);
      const b = (<usize>c) << 3;
      let s0 = f64x2.replace_lane(v128.load64_zero(f0 + b), 1, load<f64>(f1 + b));
      let s1 = f64x2.replace_lane(v128.load64_zero(f2 + b), 1, load<f64>(f3 + b));
      let s2 = f64x2.replace_lane(v128.load64_zero(f4 + b), 1, load<f64>(f5 + b));
      let s3 = f64x2.replace_lane(v128.load64_zero(f6 + b), 1, load<f64>(f7 + b));
      let x: usize = 0;
      for (let j = 0; j < c; j++) {
        const l = both(rc, j);
        s0 = less(s0, v128.load(W0 + x), l);
        s1 = less(s1, v128.load(W0 + x + 16), l);
        s2 = less(s2, v128.load(W1 + x), l);
        s3 = less(s3, v128.load(W1 + x + 16), l);
        x += 32;
      }
      v128.store(W0 + x, s0);
      v128.store(W0 + x + 16, s1);
      v128.store(W1 + x, s2);
      v128.store(W1 + x + 16, s3);
    }
    const L0 = L + o;
    const L1 = L0 + pack;
    for (let c = 0, x: usize = 0; c < w; c++, x += 32) {
      const r = f64x2.splat(1 / at(d, p + c));
      v128.store(L0 + x, f64x2.mul(v128.load(W0 + x), r));
      v128.store(L0 + x + 16, f64x2.mul(v128.load(W0 + x + 16), r));
      v128.store(L1 + x, f64x2.mul(v128.load(W1 + x), r));
      v128.store(L1 + x + 16, f64x2.mul(v128.load(W1 + x + 16), r));
    }
    for (let a = 0; a < rows; a++) {
      const f = f0 + (<usize>a) * line;
      const from = (a < 4 ? L0 : L1) + ((<usize>(a & 3)) << 3);
      for (let c = 0; c < w; c++) put(f, c, at(from, 4 * c));
    }
  }
}

/** F[i][j] −= Σ (L·D)[i][c]·L[j][c] over the panel, for q ≤ j ≤ i < m, in blocks of 4 × 4. */
function update(F: usize, m: i32, p: i32, q: i32, W: usize, L: usize): void {
  const w = <usize>(q - p);
  const rest = m - q;
  const line = (<usize>m) << 3;
  const corner = F + ((<usize>(q * m + q)) << 3);
  for (let i = 0; i < rest; i += 4) {
    const from = W + (((<usize>i) * w) << 3);
    const end = from + (w << 5);
    const row = corner + (<usize>i) * line;
    const rows = rest - i;
    for (let j = 0; j <= i; j += 4) {
      let y = L + (((<usize>j) * w) << 3);
      let s00 = f64x2.splat(0);
      let s01 = f64x2.splat(0);
      let s10 = f64x2.splat(0);
      let s11 = f64x2.splat(0);
      let s20 = f64x2.splat(0);
      let s21 = f64x2.splat(0);
      let s30 = f64x2.splat(0);
      let s31 = f64x2.splat(0);
      for (let x = from; x < end; x += 32) {
        const b0 = v128.load(y);
        const b1 = v128.load(y, 16);
        const a0 = v128.load_splat<f64>(x);
        s00 = more(s00, a0, b0);
        s01 = more(s01, a0, b1);
        const a1 = v128.load_splat<f64>(x, 8);
        s10 = more(s10, a1, b0);
        s11 = more(s11, a1, b1);
        const a2 = v128.load_splat<f64>(x, 16);
        s20 = more(s20, a2, b0);
        s21 = more(s21, a2, b1);
        const a3 = v128.load_splat<f64>(x, 24);
        s30 = more(s30, a3, b0);
        s31 = more(s31, a3, b1);
        y += 32;
      }
      const f = row + ((<usize>j) << 3);
      if (rows >= 4) {
        take(f, s00, s01);
        take(f + line, s10, s11);
        take(f + 2 * line, s20, s21);
        take(f + 3 * line, s30, s31);
      } else {
        // the last rows: what lies right of the front's own columns is left alone
        const columns = min(4, rest - j);
        takeSome(f, s00, s01, columns);
        if (rows > 1) takeSome(f + line, s10, s11, columns);
        if (rows > 2) takeSome(f + 2 * line, s20, s21, columns);
      }
    }
  }
}

// @ts-ignore: decorator
@inline
function take(f: usize, a: v128, b: v128): void {
  v128.store(f, f64x2.sub(v128.load(f), a));
  v128.store(f, f64x2.sub(v128.load(f, 16), b), 16);
}

function takeSome(f: usize, a: v128, b: v128, columns: i32): void {
  put(f, 0, at(f, 0) - f64x2.extract_lane(a, 0));
  if (columns > 1) put(f, 1, at(f, 1) - f64x2.extract_lane(a, 1));
  if (columns > 2) put(f, 2, at(f, 2) - f64x2.extract_lane(b, 0));
  if (columns > 3) put(f, 3, at(f, 3) - f64x2.extract_lane(b, 1));
}

/** Takes the columns of L of the first `own` unknowns out of a front, row by row. */
export function keepPanel(F: usize, m: i32, own: i32, P: usize): void {
  for (let i = 0; i < m; i++)
    memory.copy(P + ((<usize>(i * own)) << 3), F + ((<usize>(i * m)) << 3), (<usize>min(i, own)) << 3);
}

/** Takes what is handed on out of a front, a packed lower triangle. */
export function handOn(F: usize, m: i32, own: i32, to: usize): void {
  let t = to;
  for (let i = own; i < m; i++) {
    const bytes = (<usize>(i - own + 1)) << 3;
    memory.copy(t, F + ((<usize>(i * m + own)) << 3), bytes);
    t += bytes;
  }
}

// @ts-ignore: decorator
@inline
function product(a: usize, b: usize, n: i32): f64 {
  let s: v128 = f64x2.splat(0);
  let t: v128 = f64x2.splat(0);
  const four = n & ~3;
  for (let j = 0; j < four; j += 4) {
    s = more(s, pair(a, j), pair(b, j));
    t = more(t, pair(a, j + 2), pair(b, j + 2));
  }
  let x = sum(f64x2.add(s, t));
  for (let j = four; j < n; j++) x += at(a, j) * at(b, j);
  return x;
}

/** One step of x := L⁻¹ x: its own unknowns stand one after another at `x`'s place `base`. */
export function forward(L: usize, rows: usize, own: i32, m: i32, x: usize): void {
  const own0 = x + ((<usize>index(rows, 0)) << 3);
  let some = false;
  for (let i = 0; i < own && !some; i++) some = at(own0, i) != 0;
  if (!some) return;
  for (let i = 1; i < own; i++) put(own0, i, at(own0, i) - product(L + ((<usize>(i * own)) << 3), own0, i));
  for (let i = own; i < m; i++) {
    const r = index(rows, i);
    put(x, r, at(x, r) - product(L + ((<usize>(i * own)) << 3), own0, own));
  }
}

/** One step of x := L⁻ᵀ x. */
export function backward(L: usize, rows: usize, own: i32, m: i32, x: usize): void {
  const own0 = x + ((<usize>index(rows, 0)) << 3);
  for (let i = m - 1; i >= own; i--) {
    const v = at(x, index(rows, i));
    if (v != 0) takeRow(own0, L + ((<usize>(i * own)) << 3), v, own);
  }
  for (let i = own - 1; i > 0; i--) takeRow(own0, L + ((<usize>(i * own)) << 3), at(own0, i), i);
}

// @ts-ignore: decorator
@inline
function takeRow(x: usize, row: usize, v: f64, n: i32): void {
  const even = n & ~1;
  const b = f64x2.splat(v);
  for (let j = 0; j < even; j += 2) putPair(x, j, less(pair(x, j), pair(row, j), b));
  if (even < n) put(x, even, at(x, even) - at(row, even) * v);
}
