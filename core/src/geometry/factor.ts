/**
 * Symmetric equations with a positive diagonal, scaled to ones on it and factored (Cholesky), with the least of what was left of each
 * unknown's one: nought where the others tell it already, or nothing does. Kept by hand because that rest is what is asked for.
 */
export interface Factor {
  readonly count: number;
  /** the factor of the scaled equations, lower, row by row */
  readonly l: Float64Array;
  readonly scale: Float64Array;
  /** what was left of each unknown's one when the unknowns before it were known */
  readonly rest: Float64Array;
}

/** An unknown is not told where less than this of its own one is left. */
export const UNTOLD = 1e-9;
/** Nothing more is left of an unknown's one than rounding. */
const LEAST = 1e-11;

/**
 * Factors equations of `count` unknowns, two rows by two at a time, with `damping` added to each unknown's one; goes on past an unknown that
 * nothing tells as if it were held. `room`: `count` by `count` numbers that it may write over, and gives back as the factor.
 */
export function factored(n: Float64Array, count: number, damping = 0, room?: Float64Array): Factor {
  const scale = new Float64Array(count);
  const l = room?.fill(0) ?? new Float64Array(count * count);
  const rest = new Float64Array(count);
  /** the first unknown that an equation holds */
  const begin = new Int32Array(count);
  for (let i = 0; i < count; i++) {
    const d = n[i * count + i] as number;
    scale[i] = d > 0 ? 1 / Math.sqrt(d) : 1;
    let j = 0;
    while (j < i && n[i * count + j] === 0) j++;
    begin[i] = j;
  }
  /** what the equations hold, scaled */
  const held = (i: number, j: number): number =>
    (n[i * count + j] as number) * (scale[i] as number) * (scale[j] as number);
  /** sum over the unknowns before `end` of what two rows hold of them */
  const sum = (i: number, j: number, end: number): number => {
    let s = 0;
    for (let k = Math.max(begin[i] as number, begin[j] as number); k < end; k++)
      s += (l[i * count + k] as number) * (l[j * count + k] as number);
    return s;
  };
  const close = (i: number): void => {
    const s = held(i, i) + damping - sum(i, i, i);
    rest[i] = s;
    if (s <= LEAST) {
      l.fill(0, i * count, i * count + i);
      l[i * count + i] = 1e9;
    } else l[i * count + i] = Math.sqrt(s);
  };
  for (let i = 0; i < count; i += 2) {
    const first = Math.min(begin[i] as number, i + 1 < count ? (begin[i + 1] as number) : i);
    const p = i * count;
    // a last row without another beside it goes with itself
    const q = i + 1 < count ? p + count : p;
    const other = i + 1 < count ? i + 1 : i;
    for (let j = first & ~1; j < i; j += 2) {
      const u = j * count;
      const v = u + count;
      // what stands before the first of either pair is nought; what is read once is used twice
      const from = Math.max(first, Math.min(begin[j] as number, begin[j + 1] as number));
      let pu = 0;
      let pv = 0;
      let qu = 0;
      let qv = 0;
      for (let k = from; k < j; k++) {
        const a = l[p + k] as number;
        const b = l[q + k] as number;
        const c = l[u + k] as number;
        const d = l[v + k] as number;
        pu += a * c;
        pv += a * d;
        qu += b * c;
        qv += b * d;
      }
      const below = l[v + j] as number;
      const pj = (held(i, j) - pu) / (l[u + j] as number);
      const qj = (held(other, j) - qu) / (l[u + j] as number);
      l[p + j] = pj;
      l[q + j] = qj;
      l[p + j + 1] = (held(i, j + 1) - pv - pj * below) / (l[v + j + 1] as number);
      l[q + j + 1] = (held(other, j + 1) - qv - qj * below) / (l[v + j + 1] as number);
    }
    close(i);
    if (other > i) {
      l[q + i] = (held(other, i) - sum(other, i, i)) / (l[p + i] as number);
      close(other);
    }
  }
  return { count, l, scale, rest };
}

/** Solves the scaled equations of the first `size` unknowns in place: `x` is their right side, and then what they are. */
export function solveFirst({ count, l }: Pick<Factor, 'count' | 'l'>, x: Float64Array, size: number): void {
  for (let i = 0; i < size; i++) {
    let s = x[i] as number;
    for (let k = 0; k < i; k++) s -= (l[i * count + k] as number) * (x[k] as number);
    x[i] = s / (l[i * count + i] as number);
  }
  for (let i = size - 1; i >= 0; i--) {
    const v = (x[i] as number) / (l[i * count + i] as number);
    x[i] = v;
    for (let k = 0; k < i; k++) x[k] = (x[k] as number) - (l[i * count + k] as number) * v;
  }
}

/** What the unknowns are for a right side. */
export function solvedBy(factor: Factor, g: ArrayLike<number>): Float64Array {
  const { count, scale } = factor;
  const x = new Float64Array(count);
  for (let i = 0; i < count; i++) x[i] = (g[i] as number) * (scale[i] as number);
  solveFirst(factor, x, count);
  for (let i = 0; i < count; i++) x[i] = (x[i] as number) * (scale[i] as number);
  return x;
}

/** What the inverse holds of one unknown itself: its variance, where the equations are weighted by doubts. */
export function varianceAt({ count, l, scale }: Factor, unknown: number): number {
  // the unknown's column of the factor's inverse, and its square
  const x = new Float64Array(count);
  let square = 0;
  for (let i = unknown; i < count; i++) {
    let s = i === unknown ? 1 : 0;
    for (let k = unknown; k < i; k++) s -= (l[i * count + k] as number) * (x[k] as number);
    x[i] = s / (l[i * count + i] as number);
    square += (x[i] as number) ** 2;
  }
  return square * (scale[unknown] as number) ** 2;
}

/** The inverse of what was factored, row by row: covariances, where the equations are weighted by doubts. */
export function inverseOf({ count, l, scale }: Factor): Float64Array {
  // the inverse of the factor, lower, then its own square
  const m = new Float64Array(count * count);
  for (let i = 0; i < count; i++) {
    const row = i * count;
    const own = 1 / (l[row + i] as number);
    for (let k = 0; k < i; k++) {
      const a = l[row + k] as number;
      if (a === 0) continue;
      const above = k * count;
      for (let j = 0; j <= k; j++) m[row + j] = (m[row + j] as number) - a * (m[above + j] as number);
    }
    for (let j = 0; j < i; j++) m[row + j] = (m[row + j] as number) * own;
    m[row + i] = own;
  }
  const out = new Float64Array(count * count);
  for (let k = 0; k < count; k++)
    for (let i = 0; i <= k; i++) {
      const a = m[k * count + i] as number;
      if (a === 0) continue;
      for (let j = 0; j <= i; j++) {
        const at = i * count + j;
        out[at] = (out[at] as number) + a * (m[k * count + j] as number);
      }
    }
  for (let i = 0; i < count; i++)
    for (let j = 0; j <= i; j++) {
      const v = (out[i * count + j] as number) * (scale[i] as number) * (scale[j] as number);
      out[i * count + j] = v;
      out[j * count + i] = v;
    }
  return out;
}
