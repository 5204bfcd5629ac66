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
 * Factors equations of `count` unknowns, row by row, with `damping` added to each unknown's one; goes on past an unknown that nothing
 * tells as if it were held.
 */
export function factored(n: Float64Array, count: number, damping = 0): Factor {
  const scale = new Float64Array(count);
  const l = new Float64Array(count * count);
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
  for (let i = 0; i < count; i++) {
    const row = i * count;
    for (let j = begin[i] as number; j <= i; j++) {
      const other = j * count;
      // what stands before the first of either row is nought; four sums side by side, since one would wait for itself
      const from = Math.max(begin[i] as number, begin[j] as number);
      const whole = from + ((j - from) & ~3);
      let s0 = 0;
      let s1 = 0;
      let s2 = 0;
      let s3 = 0;
      for (let k = from; k < whole; k += 4) {
        s0 += (l[row + k] as number) * (l[other + k] as number);
        s1 += (l[row + k + 1] as number) * (l[other + k + 1] as number);
        s2 += (l[row + k + 2] as number) * (l[other + k + 2] as number);
        s3 += (l[row + k + 3] as number) * (l[other + k + 3] as number);
      }
      for (let k = whole; k < j; k++) s0 += (l[row + k] as number) * (l[other + k] as number);
      const s =
        (n[row + j] as number) * (scale[i] as number) * (scale[j] as number) +
        (i === j ? damping : 0) -
        (s0 + s1 + (s2 + s3));
      if (i !== j) l[row + j] = s / (l[other + j] as number);
      else {
        rest[i] = s;
        if (s <= LEAST) {
          for (let k = 0; k < i; k++) l[row + k] = 0;
          l[row + i] = 1e9;
        } else l[row + i] = Math.sqrt(s);
      }
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
