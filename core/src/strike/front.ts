/** Columns eliminated together before the rest is brought up to date: few in small fronts, more in those that outgrow the cache. */
const PANEL = { small: 24, large: 48, from: 420 } as const;

/** A pivot this small beside what it began with counts as none: the structure can move freely. */
const NO_PIVOT = 1e-11;

/** Room for the rows of one panel, packed: L, and L·D. */
let packedL = new Float64Array(0);
let packedW = new Float64Array(0);

/**
 * Eliminates the first `k` unknowns of a dense symmetric matrix of `m`, kept as its lower triangle row by row: F = L·D·Lᵀ for
 * the first k columns, the rest is left as their Schur complement. `d` receives the pivots from `at` on. Returns the index of
 * a pivot that vanished, or −1. Right-looking in panels, with a kernel of 4 × 4.
 */
export function eliminate(F: Float64Array, m: number, k: number, d: Float64Array, at: number): number {
  if (packedL.length < (m + 4) * PANEL.large) {
    packedL = new Float64Array((m + 4) * PANEL.large);
    packedW = new Float64Array((m + 4) * PANEL.large);
  }
  const panel = m < PANEL.from ? PANEL.small : PANEL.large;
  for (let p = 0; p < k; p += panel) {
    const q = Math.min(p + panel, k);
    const bad = diagonalBlock(F, m, p, q, d, at);
    if (bad >= 0) return bad;
    rowsBelow(F, m, p, q, d, at);
    update(F, m, p, q);
  }
  return -1;
}

/** The panel's own block, column by column. */
function diagonalBlock(
  F: Float64Array,
  m: number,
  p: number,
  q: number,
  d: Float64Array,
  at: number,
): number {
  for (let c = p; c < q; c++) {
    const rc = c * m;
    let pivot = F[rc + c] as number;
    const before = Math.abs(pivot);
    for (let j = p; j < c; j++) {
      const l = F[rc + j] as number;
      pivot -= l * l * (d[at + j] as number);
    }
    if (!(Math.abs(pivot) > NO_PIVOT * before)) return c;
    d[at + c] = pivot;
    // this row times D, so that the rows under it need one product less
    for (let j = p; j < c; j++) packedW[j - p] = (F[rc + j] as number) * (d[at + j] as number);
    for (let i = c + 1; i < q; i++) {
      const ri = i * m;
      let s = F[ri + c] as number;
      for (let j = p; j < c; j++) s -= (F[ri + j] as number) * (packedW[j - p] as number);
      F[ri + c] = s / pivot;
    }
  }
  return -1;
}

/**
 * L and L·D of the rows below the panel's block, packed for the update: four rows side by side, column after column, the last
 * group filled up with noughts in effect (its spare rows are never written back).
 */
function rowsBelow(F: Float64Array, m: number, p: number, q: number, d: Float64Array, at: number): void {
  const w = q - p;
  const W = packedW;
  const L = packedL;
  for (let i = q; i < m; i += 4) {
    const rows = Math.min(m - i, 4);
    const f0 = i * m + p;
    const f1 = rows > 1 ? f0 + m : f0;
    const f2 = rows > 2 ? f0 + 2 * m : f0;
    const f3 = rows > 3 ? f0 + 3 * m : f0;
    const o = (i - q) * w;
    for (let c = 0; c < w; c++) {
      const rc = (p + c) * m + p;
      let s0 = F[f0 + c] as number;
      let s1 = F[f1 + c] as number;
      let s2 = F[f2 + c] as number;
      let s3 = F[f3 + c] as number;
      let x = o;
      for (let j = 0; j < c; j++) {
        const l = F[rc + j] as number;
        s0 -= (W[x] as number) * l;
        s1 -= (W[x + 1] as number) * l;
        s2 -= (W[x + 2] as number) * l;
        s3 -= (W[x + 3] as number) * l;
        x += 4;
      }
      W[x] = s0;
      W[x + 1] = s1;
      W[x + 2] = s2;
      W[x + 3] = s3;
    }
    let x = o;
    for (let c = 0; c < w; c++) {
      const r = 1 / (d[at + p + c] as number);
      L[x] = (W[x] as number) * r;
      L[x + 1] = (W[x + 1] as number) * r;
      L[x + 2] = (W[x + 2] as number) * r;
      L[x + 3] = (W[x + 3] as number) * r;
      x += 4;
    }
    for (let a = 0; a < rows; a++) {
      const f = f0 + a * m;
      for (let c = 0; c < w; c++) F[f + c] = L[o + 4 * c + a] as number;
    }
  }
}

/** F[i][j] −= Σ (L·D)[i][c]·L[j][c] over the panel, for q ≤ j ≤ i < m. */
function update(F: Float64Array, m: number, p: number, q: number): void {
  const w = q - p;
  const rest = m - q;
  const whole = rest & ~3;
  blocks(F, packedW, packedL, m, q * m + q, whole, w);
  if (whole < rest) lastRows(F, m, q, whole, rest, w);
}

/** The whole groups of four rows. Blocks on the diagonal are computed in full: what lies above it is never read. */
function blocks(
  F: Float64Array,
  W: Float64Array,
  L: Float64Array,
  m: number,
  corner: number,
  whole: number,
  w: number,
): void {
  for (let i = 0; i < whole; i += 4) {
    const from = i * w;
    const end = from + 4 * w;
    for (let j = 0; j <= i; j += 4) {
      let y = j * w;
      let s00 = 0;
      let s01 = 0;
      let s02 = 0;
      let s03 = 0;
      let s10 = 0;
      let s11 = 0;
      let s12 = 0;
      let s13 = 0;
      let s20 = 0;
      let s21 = 0;
      let s22 = 0;
      let s23 = 0;
      let s30 = 0;
      let s31 = 0;
      let s32 = 0;
      let s33 = 0;
      for (let x = from; x < end; x += 4) {
        const a0 = W[x] as number;
        const a1 = W[x + 1] as number;
        const a2 = W[x + 2] as number;
        const a3 = W[x + 3] as number;
        const b0 = L[y] as number;
        s00 += a0 * b0;
        s10 += a1 * b0;
        s20 += a2 * b0;
        s30 += a3 * b0;
        const b1 = L[y + 1] as number;
        s01 += a0 * b1;
        s11 += a1 * b1;
        s21 += a2 * b1;
        s31 += a3 * b1;
        const b2 = L[y + 2] as number;
        s02 += a0 * b2;
        s12 += a1 * b2;
        s22 += a2 * b2;
        s32 += a3 * b2;
        const b3 = L[y + 3] as number;
        s03 += a0 * b3;
        s13 += a1 * b3;
        s23 += a2 * b3;
        s33 += a3 * b3;
        y += 4;
      }
      let f = corner + i * m + j;
      F[f] = (F[f] as number) - s00;
      F[f + 1] = (F[f + 1] as number) - s01;
      F[f + 2] = (F[f + 2] as number) - s02;
      F[f + 3] = (F[f + 3] as number) - s03;
      f += m;
      F[f] = (F[f] as number) - s10;
      F[f + 1] = (F[f + 1] as number) - s11;
      F[f + 2] = (F[f + 2] as number) - s12;
      F[f + 3] = (F[f + 3] as number) - s13;
      f += m;
      F[f] = (F[f] as number) - s20;
      F[f + 1] = (F[f + 1] as number) - s21;
      F[f + 2] = (F[f + 2] as number) - s22;
      F[f + 3] = (F[f + 3] as number) - s23;
      f += m;
      F[f] = (F[f] as number) - s30;
      F[f + 1] = (F[f + 1] as number) - s31;
      F[f + 2] = (F[f + 2] as number) - s32;
      F[f + 3] = (F[f + 3] as number) - s33;
    }
  }
}

/** The rows that make no group of four. */
function lastRows(F: Float64Array, m: number, q: number, whole: number, rest: number, w: number): void {
  const W = packedW;
  const L = packedL;
  for (let i = whole; i < rest; i++)
    for (let j = 0; j <= i; j++) {
      let x = whole * w + (i - whole);
      let y = (j & ~3) * w + (j & 3);
      let s = 0;
      for (let c = 0; c < w; c++) {
        s += (W[x] as number) * (L[y] as number);
        x += 4;
        y += 4;
      }
      const f = (q + i) * m + q + j;
      F[f] = (F[f] as number) - s;
    }
}
