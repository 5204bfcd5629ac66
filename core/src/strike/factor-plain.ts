import { eliminate } from './front';
import type { Factor, FreeMotion, Plan, Step, StiffnessOf } from './sparse';
import { solutions } from './triangular';

/** Room for the largest front, and for what steps hand on, kept from one structure to the next. */
let front = new Float64Array(0);
let stack = new Float64Array(0);

/**
 * Takes a stiffness apart along a plan (multifrontal L·D·Lᵀ; Duff and Reid 1983). `element(e)` gives the full stiffness of
 * an element over the degrees of freedom of its vertices in order, row by row; the array may be used again between calls.
 */
export function factorizePlain(plan: Plan, element: StiffnessOf): Factor | FreeMotion {
  const { steps, unknowns } = plan;
  if (front.length < plan.front ** 2) front = new Float64Array(plan.front ** 2);
  if (stack.length < plan.stack) stack = new Float64Array(plan.stack);
  const F = front;
  const panels: Float64Array[] = [];
  const d = new Float64Array(unknowns);
  let top = 0;
  let negative = 0;
  for (let k = 0; k < steps.length; k++) {
    const s = steps[k] as Step;
    const m = s.rows.length;
    const { own } = s;
    for (let i = 0, row = 0; i < m; i++, row += m) F.fill(0, row, row + i + 1);
    assemble(F, m, s, element);
    // what the children hand on lies on the stack, the last child's on top
    for (let c = s.places.length - 1; c >= 0; c--) {
      const places = s.places[c] as Int32Array;
      const n = places.length;
      top -= (n * (n + 1)) / 2;
      addBlock(F, m, stack, top, places);
    }
    const base = own > 0 ? (s.rows[0] as number) : 0;
    const stuck = eliminate(F, m, own, d, base);
    if (stuck >= 0) return { free: plan.unknownOf.indexOf(s.rows[stuck] as number) };
    for (let i = 0; i < own; i++) if ((d[base + i] as number) < 0) negative++;
    const L = new Float64Array(m * own);
    for (let i = 0; i < m; i++) {
      const [to, from, n] = [i * own, i * m, Math.min(i, own)];
      for (let j = 0; j < n; j++) L[to + j] = F[from + j] as number;
    }
    panels.push(L);
    for (let i = own; i < m; i++) {
      const from = i * m;
      for (let j = own; j <= i; j++) stack[top++] = F[from + j] as number;
    }
  }
  return { negative, ...solutions(steps, panels, d) };
}

/** Adds the elements of a step to its front. */
function assemble(
  F: Float64Array,
  m: number,
  { elements, slots }: Step,
  element: (e: number) => Float64Array,
): void {
  let at = 0;
  for (let x = 0; x < elements.length; x++) {
    const K = element(elements[x] as number);
    const n = Math.round(Math.sqrt(K.length));
    for (let i = 0; i < n; i++) {
      const r = slots[at + i] as number;
      if (r < 0) continue;
      const [row, from] = [r * m, i * n];
      for (let j = 0; j < n; j++) {
        const c = slots[at + j] as number;
        if (c >= 0 && c <= r) F[row + c] = (F[row + c] as number) + (K[from + j] as number);
      }
    }
    at += n;
  }
}

/** Adds a packed lower triangle to a front, its rows at the given places. */
function addBlock(F: Float64Array, m: number, block: Float64Array, from: number, places: Int32Array): void {
  let at = from;
  for (let i = 0; i < places.length; i++) {
    const r = places[i] as number;
    const row = r * m;
    for (let j = 0; j <= i; j++) {
      const q = places[j] as number;
      const f = r >= q ? row + q : q * m + r;
      F[f] = (F[f] as number) + (block[at++] as number);
    }
  }
}
