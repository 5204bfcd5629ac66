import { adjacency, dissect, type Incidence } from './dissect';
import { eliminate } from './front';

/** Degrees of freedom of a node. */
export const DOF_PER_NODE = 6;

/** What is eliminated together: the degrees of freedom of every vertex, and where it is. Most often a node with its six. */
export interface Vertices {
  /** x y z of every vertex */
  readonly at: Float64Array;
  /** vertex v has the degrees of freedom `of[from[v]]` to `of[from[v + 1] - 1]` */
  readonly from: Int32Array;
  readonly of: Int32Array;
}

interface Step {
  /** unknowns of the front: its own first, then those of later steps it touches */
  readonly rows: Int32Array;
  readonly own: number;
  readonly elements: Int32Array;
  /** where the degrees of freedom of its elements stand in the front, one element after another; −1 where held */
  readonly slots: Int32Array;
  readonly children: readonly number[];
  /** where the rows a child hands on stand in this front */
  readonly places: readonly Int32Array[];
}

/** The order of elimination of a structure: made once, used for every stiffness on the same mesh. */
export interface Plan {
  readonly unknowns: number;
  readonly steps: readonly Step[];
  /** unknown of every freedom, −1 where it is held */
  readonly unknownOf: Int32Array;
  /** room for the largest front, and for what steps hand on */
  readonly front: Float64Array;
  readonly stack: Float64Array;
}

/** Every node with its six degrees of freedom, node · 6 + freedom. */
export const nodesAsVertices = (coordinates: Float64Array): Vertices => {
  const n = coordinates.length / 3;
  return {
    at: coordinates,
    from: Int32Array.from({ length: n + 1 }, (_, i) => DOF_PER_NODE * i),
    of: Int32Array.from({ length: DOF_PER_NODE * n }, (_, i) => i),
  };
};

/**
 * Plans the elimination of a structure by nested dissection. Elements are lists of vertices; `held` marks degrees of freedom that do not
 * move.
 */
export function planElimination(vertices: Vertices, incidence: Incidence, held: Uint8Array): Plan {
  const count = vertices.at.length / 3;
  const unknownOf = new Int32Array(held.length).fill(-1);
  const used = new Uint8Array(count);
  for (const v of incidence.nodes) used[v] = 1;
  const moves = (v: number): number => {
    let n = 0;
    for (let i = vertices.from[v] as number; i < (vertices.from[v + 1] as number); i++)
      if (!held[vertices.of[i] as number]) n++;
    return n;
  };
  const weight = Int32Array.from({ length: count }, (_, v) => (used[v] ? moves(v) : 0));
  const chosen = Int32Array.from({ length: count }, (_, v) => v).filter(v => (weight[v] as number) > 0);
  const separators = dissect(chosen, vertices.at, adjacency(count, incidence), weight);
  const stepOf = new Int32Array(count).fill(-1);
  const place = new Int32Array(count);
  let order = 0;
  let unknowns = 0;
  separators.forEach((s, k) => {
    for (const v of s.own) {
      stepOf[v] = k;
      place[v] = order++;
      for (let i = vertices.from[v] as number; i < (vertices.from[v + 1] as number); i++) {
        const f = vertices.of[i] as number;
        if (!held[f]) unknownOf[f] = unknowns++;
      }
    }
  });
  const elementsOf: number[][] = separators.map(() => []);
  for (let e = 0; e + 1 < incidence.from.length; e++) {
    let first = -1;
    for (let k = incidence.from[e] as number; k < (incidence.from[e + 1] as number); k++) {
      const s = stepOf[incidence.nodes[k] as number] as number;
      if (s >= 0 && (first < 0 || s < first)) first = s;
    }
    if (first >= 0) (elementsOf[first] as number[]).push(e);
  }
  const seen = new Int32Array(count).fill(-1);
  const touched: Int32Array[] = [];
  const steps: Step[] = [];
  const positionOf = new Int32Array(unknowns).fill(-1);
  const each = (of: ArrayLike<number>, take: (unknown: number) => void): void => {
    for (let j = 0; j < of.length; j++) {
      const v = of[j] as number;
      for (let i = vertices.from[v] as number; i < (vertices.from[v + 1] as number); i++)
        take(unknownOf[vertices.of[i] as number] as number);
    }
  };
  let [front, stack, high] = [0, 0, 0];
  separators.forEach((s, k) => {
    const later: number[] = [];
    for (const v of s.own) seen[v] = k;
    const take = (v: number): void => {
      if (seen[v] === k || (stepOf[v] as number) <= k) return;
      seen[v] = k;
      later.push(v);
    };
    const elements = elementsOf[k] as number[];
    for (const e of elements)
      for (let j = incidence.from[e] as number; j < (incidence.from[e + 1] as number); j++)
        take(incidence.nodes[j] as number);
    for (const c of s.children) for (const v of touched[c] as Int32Array) take(v);
    later.sort((a, b) => (place[a] as number) - (place[b] as number));
    touched.push(Int32Array.from(later));
    const rows: number[] = [];
    const put = (u: number): void => {
      if (u >= 0) rows.push(u);
    };
    each(s.own, put);
    const own = rows.length;
    each(later, put);
    rows.forEach((u, i) => {
      positionOf[u] = i;
    });
    const slots: number[] = [];
    for (const e of elements)
      each(incidence.nodes.subarray(incidence.from[e], incidence.from[e + 1]), u => {
        slots.push(u < 0 ? -1 : (positionOf[u] as number));
      });
    const places = s.children.map(c => {
      const child = steps[c] as Step;
      return child.rows.slice(child.own).map(u => positionOf[u] as number);
    });
    for (const p of places) stack -= (p.length * (p.length + 1)) / 2;
    const on = rows.length - own;
    stack += (on * (on + 1)) / 2;
    high = Math.max(high, stack);
    front = Math.max(front, rows.length);
    steps.push({
      rows: Int32Array.from(rows),
      own,
      elements: Int32Array.from(elements),
      slots: Int32Array.from(slots),
      children: s.children,
      places,
    });
  });
  return {
    unknowns,
    steps,
    unknownOf,
    front: new Float64Array(front * front),
    stack: new Float64Array(high),
  };
}

/** A stiffness taken apart: solves for as many loads as there are. */
export interface Factor {
  /** pivots below nought: more than none means that the structure has passed a limit */
  readonly negative: number;
  /** overwrites a load by its displacement, both by unknown */
  readonly solve: (load: Float64Array) => void;
  /** work of a load on its own displacement, from half a solution; overwrites the load */
  readonly work: (load: Float64Array) => number;
  /** the columns of L of every step, and the pivots */
  readonly panels: readonly Float64Array[];
  readonly pivots: Float64Array;
}

/** A freedom without any stiffness. */
export interface FreeMotion {
  /** which of all degrees of freedom it is */
  readonly free: number;
}

/**
 * Takes a stiffness apart along a plan (multifrontal L·D·Lᵀ; Duff and Reid 1983). `element(e)` gives the full stiffness of
 * an element over the degrees of freedom of its vertices in order, row by row; the array may be used again between calls. Where `old` is
 * given its room is used again, and it is spent.
 */
export function factorize(
  plan: Plan,
  element: (e: number) => Float64Array,
  old?: Factor,
): Factor | FreeMotion {
  const { steps, unknowns, front: F, stack } = plan;
  const panels: Float64Array[] = [];
  const d = old?.pivots ?? new Float64Array(unknowns);
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
    const L = old?.panels[k] ?? new Float64Array(m * own);
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
  return {
    negative,
    panels,
    pivots: d,
    solve: x => {
      forward(steps, panels, x);
      for (let i = 0; i < unknowns; i++) x[i] = (x[i] as number) / (d[i] as number);
      backward(steps, panels, x);
    },
    work: x => {
      forward(steps, panels, x);
      let s = 0;
      for (let i = 0; i < unknowns; i++) s += ((x[i] as number) * (x[i] as number)) / (d[i] as number);
      return s;
    },
  };
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
