import type { Kernel } from './kernels';
import type { Factor, FreeMotion, Plan, Step, StiffnessOf } from './sparse';
import { solutions } from './triangular';

/** Columns that `eliminate` takes together at most, and the rows that a panel is filled up by (core/kernels/front.ts). */
const PANEL = 48;
const FILLED = 8;

/** A plan as it lies in a kernel's memory: places in bytes. */
export interface Laid {
  readonly plan: Plan;
  readonly kernel: Kernel;
  /** of every step: its rows, its elements' slots, and the places of what each child hands on */
  readonly rows: Int32Array;
  readonly slots: Int32Array;
  readonly places: readonly Int32Array[];
  readonly front: number;
  readonly stack: number;
  readonly pivots: number;
  /** room for the columns of L of every step; of the largest alone where they are not kept here */
  readonly panels: Int32Array;
  readonly W: number;
  readonly L: number;
  /** room for one element that comes from outside, and for a load */
  readonly element: number;
  readonly load: number;
}

/** Takes room for a plan; where `keep` is set the columns of L stay in the kernel's memory. Numbers are put there by `fill`. */
export function layOut(kernel: Kernel, plan: Plan, keep: boolean): Laid {
  const { steps } = plan;
  const take = (numbers: number): number => kernel.take(8 * numbers);
  const sizes = steps.map(s => s.rows.length * s.own);
  const shared = keep ? 0 : take(Math.max(0, ...sizes));
  return {
    plan,
    kernel,
    rows: Int32Array.from(steps, s => kernel.take(4 * s.rows.length)),
    slots: Int32Array.from(steps, s => kernel.take(4 * s.slots.length)),
    places: steps.map(s => Int32Array.from(s.places, p => kernel.take(4 * p.length))),
    front: take(plan.front ** 2),
    stack: take(plan.stack),
    pivots: take(plan.unknowns),
    panels: Int32Array.from(sizes, n => (keep ? take(n) : shared)),
    W: take((plan.front + FILLED) * PANEL),
    L: take((plan.front + FILLED) * PANEL),
    element: take(plan.widest ** 2),
    load: take(plan.unknowns),
  };
}

/** Puts the whole numbers of a plan where they were laid out. */
export function fill({ kernel, plan, rows, slots, places }: Laid): void {
  plan.steps.forEach((s, k) => {
    kernel.integers(rows[k] as number, s.rows.length).set(s.rows);
    kernel.integers(slots[k] as number, s.slots.length).set(s.slots);
    s.places.forEach((p, c) => {
      kernel.integers((places[k] as Int32Array)[c] as number, p.length).set(p);
    });
  });
}

/** Adds one element to the front of `m` unknowns where the slots at `slots` say; how many degrees of freedom it has. */
export type IntoFront = (e: number, m: number, slots: number) => number;

/** Adds elements that are computed outside. */
export function fromOutside({ kernel, front, element }: Laid, stiffness: StiffnessOf): IntoFront {
  return (e, m, slots) => {
    const K = stiffness(e);
    const n = Math.round(Math.sqrt(K.length));
    kernel.numbers(element, K.length).set(K);
    kernel.run.assemble(front, m, element, n, slots);
    return n;
  };
}

/**
 * Eliminates a structure along a laid plan. `each` is told of every step that is done, while its columns of L lie at
 * `panels[step]`. Pivots below nought are counted; or the freedom that has no stiffness.
 */
function eliminated(laid: Laid, into: IntoFront, each?: (step: number) => void): number | FreeMotion {
  const { kernel, plan, front: F, stack, pivots, W, L } = laid;
  const { run } = kernel;
  const d = kernel.numbers(pivots, plan.unknowns);
  let top = stack;
  let negative = 0;
  for (let k = 0; k < plan.steps.length; k++) {
    const s = plan.steps[k] as Step;
    const m = s.rows.length;
    const { own } = s;
    run.clear(F, m);
    let slot = laid.slots[k] as number;
    for (let x = 0; x < s.elements.length; x++) slot += 4 * into(s.elements[x] as number, m, slot);
    // what the children hand on lies on the stack, the last child's on top
    for (let c = s.places.length - 1; c >= 0; c--) {
      const n = (s.places[c] as Int32Array).length;
      top -= 4 * n * (n + 1);
      run.addBlock(F, m, top, (laid.places[k] as Int32Array)[c] as number, n);
    }
    const base = own > 0 ? (s.rows[0] as number) : 0;
    const stuck = run.eliminate(F, m, own, pivots + 8 * base, W, L);
    if (stuck >= 0) return { free: plan.unknownOf.indexOf(s.rows[stuck] as number) };
    for (let i = 0; i < own; i++) if ((d[base + i] as number) < 0) negative++;
    run.keepPanel(F, m, own, laid.panels[k] as number);
    each?.(k);
    run.handOn(F, m, own, top);
    const on = m - own;
    top += 4 * on * (on + 1);
  }
  return negative;
}

/** Takes a stiffness apart in a kernel; what is needed for its solutions is brought out, and the kernel is free again. */
export function factorizeOnce(kernel: Kernel, plan: Plan, element: StiffnessOf): Factor | FreeMotion {
  const laid = layOut(kernel, plan, false);
  fill(laid);
  const panels: Float64Array[] = [];
  const negative = eliminated(laid, fromOutside(laid, element), k => {
    const s = plan.steps[k] as Step;
    panels.push(kernel.numbers(laid.panels[k] as number, s.rows.length * s.own).slice());
  });
  if (typeof negative !== 'number') return negative;
  return {
    negative,
    ...solutions(plan.steps, panels, kernel.numbers(laid.pivots, plan.unknowns).slice()),
  };
}

/** Takes a stiffness apart and leaves it in the kernel, which solves; spent by the next. */
export function factorizeIn(laid: Laid, into: IntoFront): Factor | FreeMotion {
  const { kernel, plan, rows, panels, load } = laid;
  const { run } = kernel;
  const negative = eliminated(laid, into);
  if (typeof negative !== 'number') return negative;
  const d = kernel.numbers(laid.pivots, plan.unknowns);
  const forward = (x: Float64Array): Float64Array => {
    const inside = kernel.numbers(load, plan.unknowns);
    inside.set(x);
    plan.steps.forEach((s, k) => {
      if (s.own > 0) run.forward(panels[k] as number, rows[k] as number, s.own, s.rows.length, load);
    });
    return inside;
  };
  return {
    negative,
    solve: x => {
      const inside = forward(x);
      for (let i = 0; i < inside.length; i++) inside[i] = (inside[i] as number) / (d[i] as number);
      for (let k = plan.steps.length - 1; k >= 0; k--) {
        const s = plan.steps[k] as Step;
        if (s.own > 0) run.backward(panels[k] as number, rows[k] as number, s.own, s.rows.length, load);
      }
      x.set(inside);
    },
    work: x => forward(x).reduce((s, v, i) => s + (v * v) / (d[i] as number), 0),
  };
}
