import type { Factor, Step } from './sparse';

/** Solutions by the columns of L of every step (rows of the front by its own unknowns, row by row) and the pivots. */
export const solutions = (
  steps: readonly Step[],
  panels: readonly Float64Array[],
  d: Float64Array,
): Pick<Factor, 'solve' | 'work'> => ({
  solve: x => {
    forward(steps, panels, x);
    for (let i = 0; i < d.length; i++) x[i] = (x[i] as number) / (d[i] as number);
    backward(steps, panels, x);
  },
  work: x => {
    forward(steps, panels, x);
    let s = 0;
    for (let i = 0; i < d.length; i++) s += ((x[i] as number) * (x[i] as number)) / (d[i] as number);
    return s;
  },
});

/** x := L⁻¹ x; steps whose unknowns are all nought hand nothing on. */
function forward(steps: readonly Step[], panels: readonly Float64Array[], x: Float64Array): void {
  for (let k = 0; k < steps.length; k++) {
    const { rows, own } = steps[k] as Step;
    if (own === 0) continue;
    const L = panels[k] as Float64Array;
    const base = rows[0] as number;
    let some = false;
    for (let i = 0; i < own && !some; i++) some = x[base + i] !== 0;
    if (!some) continue;
    for (let i = 1; i < own; i++) {
      let s = 0;
      const row = i * own;
      for (let j = 0; j < i; j++) s += (L[row + j] as number) * (x[base + j] as number);
      x[base + i] = (x[base + i] as number) - s;
    }
    for (let i = own; i < rows.length; i++) {
      let s = 0;
      const row = i * own;
      for (let j = 0; j < own; j++) s += (L[row + j] as number) * (x[base + j] as number);
      const r = rows[i] as number;
      x[r] = (x[r] as number) - s;
    }
  }
}

/** x := L⁻ᵀ x. */
function backward(steps: readonly Step[], panels: readonly Float64Array[], x: Float64Array): void {
  for (let k = steps.length - 1; k >= 0; k--) {
    const { rows, own } = steps[k] as Step;
    if (own === 0) continue;
    const L = panels[k] as Float64Array;
    const base = rows[0] as number;
    for (let i = rows.length - 1; i >= own; i--) {
      const v = x[rows[i] as number] as number;
      if (v === 0) continue;
      const row = i * own;
      for (let j = 0; j < own; j++) x[base + j] = (x[base + j] as number) - (L[row + j] as number) * v;
    }
    for (let i = own - 1; i > 0; i--) {
      const v = x[base + i] as number;
      const row = i * own;
      for (let j = 0; j < i; j++) x[base + j] = (x[base + j] as number) - (L[row + j] as number) * v;
    }
  }
}
