import { adjacency, dissect, type Incidence } from './dissect';
import { eliminate } from './front';

/** Freedoms of a node. */
export const FREEDOMS = 6;

interface Step {
  /** unknowns of the front: its own first, then those of later steps it touches */
  readonly rows: Int32Array;
  readonly own: number;
  readonly elements: Int32Array;
  readonly children: readonly number[];
  /** where the rows a child hands on stand in this front */
  readonly places: readonly Int32Array[];
}

/** The order of elimination of a structure: made once, used for every stiffness on the same mesh. */
export interface Plan {
  readonly unknowns: number;
  readonly steps: readonly Step[];
  /** unknown of every freedom, −1 where it is held: node · 6 + freedom */
  readonly unknownOf: Int32Array;
  readonly incidence: Incidence;
}

/**
 * Plans the elimination of a structure by nested dissection on its nodes. `held` marks freedoms that do not move, node · 6 +
 * freedom; coordinates x y z of every node.
 */
export function planElimination(coordinates: Float64Array, incidence: Incidence, held: Uint8Array): Plan {
  const nodeCount = coordinates.length / 3;
  const unknownOf = new Int32Array(FREEDOMS * nodeCount).fill(-1);
  const used = new Uint8Array(nodeCount);
  for (const n of incidence.nodes) used[n] = 1;
  const chosen: number[] = [];
  for (let n = 0; n < nodeCount; n++) {
    if (!used[n]) continue;
    for (let i = 0; i < FREEDOMS; i++)
      if (!held[FREEDOMS * n + i]) {
        chosen.push(n);
        break;
      }
  }
  const separators = dissect(Int32Array.from(chosen), coordinates, adjacency(nodeCount, incidence));
  const stepOf = new Int32Array(nodeCount).fill(-1);
  const place = new Int32Array(nodeCount);
  let count = 0;
  let unknowns = 0;
  separators.forEach((s, k) => {
    for (const n of s.own) {
      stepOf[n] = k;
      place[n] = count++;
      for (let i = 0; i < FREEDOMS; i++)
        if (!held[FREEDOMS * n + i]) unknownOf[FREEDOMS * n + i] = unknowns++;
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
  const seen = new Int32Array(nodeCount).fill(-1);
  const touched: Int32Array[] = [];
  const steps: Step[] = [];
  const positionOf = new Int32Array(unknowns).fill(-1);
  const unknownsOf = (nodes: ArrayLike<number>, out: number[]): void => {
    for (let j = 0; j < nodes.length; j++)
      for (let i = 0; i < FREEDOMS; i++) {
        const u = unknownOf[FREEDOMS * (nodes[j] as number) + i] as number;
        if (u >= 0) out.push(u);
      }
  };
  separators.forEach((s, k) => {
    const later: number[] = [];
    for (const n of s.own) seen[n] = k;
    const take = (n: number): void => {
      if (seen[n] === k || (stepOf[n] as number) <= k) return;
      seen[n] = k;
      later.push(n);
    };
    for (const e of elementsOf[k] as number[])
      for (let j = incidence.from[e] as number; j < (incidence.from[e + 1] as number); j++)
        take(incidence.nodes[j] as number);
    for (const c of s.children) for (const n of touched[c] as Int32Array) take(n);
    later.sort((a, b) => (place[a] as number) - (place[b] as number));
    touched.push(Int32Array.from(later));
    const rows: number[] = [];
    unknownsOf(s.own, rows);
    const own = rows.length;
    unknownsOf(later, rows);
    rows.forEach((u, i) => {
      positionOf[u] = i;
    });
    const places = s.children.map(c => {
      const child = steps[c] as Step;
      return child.rows.slice(child.own).map(u => positionOf[u] as number);
    });
    steps.push({
      rows: Int32Array.from(rows),
      own,
      elements: Int32Array.from(elementsOf[k] as number[]),
      children: s.children,
      places,
    });
  });
  return { unknowns, steps, unknownOf, incidence };
}

/** A stiffness taken apart: solves for as many loads as there are. */
export interface Factor {
  /** pivots below nought: more than none means that the structure has passed a limit */
  readonly negative: number;
  /** overwrites a load by its displacement, both by unknown */
  readonly solve: (load: Float64Array) => void;
}

/** A freedom without any stiffness: its node and which of the six it is. */
export interface FreeMotion {
  readonly node: number;
  readonly freedom: number;
}

/**
 * Takes a stiffness apart along a plan (multifrontal L·D·Lᵀ; Duff and Reid 1983). `element(e)` gives the full stiffness of
 * an element, its nodes' six freedoms in order, row by row; the array may be used again between calls.
 */
export function factorise(plan: Plan, element: (e: number) => Float64Array): Factor | FreeMotion {
  const { steps, unknowns, unknownOf, incidence } = plan;
  const panels: Float64Array[] = [];
  const d = new Float64Array(unknowns);
  const kept: (Float64Array | undefined)[] = [];
  const positionOf = new Int32Array(unknowns).fill(-1);
  let negative = 0;
  let widest = 0;
  for (let e = 0; e + 1 < incidence.from.length; e++)
    widest = Math.max(widest, (incidence.from[e + 1] as number) - (incidence.from[e] as number));
  const dofs = new Int32Array(widest * FREEDOMS);
  for (let k = 0; k < steps.length; k++) {
    const s = steps[k] as Step;
    const m = s.rows.length;
    const F = new Float64Array(m * m);
    for (let i = 0; i < m; i++) positionOf[s.rows[i] as number] = i;
    for (const e of s.elements) {
      const K = element(e);
      const from = incidence.from[e] as number;
      const n = ((incidence.from[e + 1] as number) - from) * FREEDOMS;
      for (let i = 0; i < n; i++) {
        const node = incidence.nodes[from + Math.floor(i / FREEDOMS)] as number;
        const u = unknownOf[FREEDOMS * node + (i % FREEDOMS)] as number;
        dofs[i] = u < 0 ? -1 : (positionOf[u] as number);
      }
      for (let i = 0; i < n; i++) {
        const r = dofs[i] as number;
        if (r < 0) continue;
        for (let j = 0; j < n; j++) {
          const c = dofs[j] as number;
          if (c < 0 || c > r) continue;
          F[r * m + c] = (F[r * m + c] as number) + (K[i * n + j] as number);
        }
      }
    }
    s.children.forEach((c, which) => {
      const child = steps[c] as Step;
      const U = kept[c] as Float64Array;
      const places = s.places[which] as Int32Array;
      const cm = child.rows.length;
      const own = child.own;
      for (let i = own; i < cm; i++) {
        const r = places[i - own] as number;
        const row = i * cm;
        for (let j = own; j <= i; j++) {
          const q = places[j - own] as number;
          const at = r >= q ? r * m + q : q * m + r;
          F[at] = (F[at] as number) + (U[row + j] as number);
        }
      }
      kept[c] = undefined;
    });
    const base = s.own > 0 ? (s.rows[0] as number) : 0;
    const stuck = eliminate(F, m, s.own, d, base);
    if (stuck >= 0) {
      const at = unknownOf.indexOf(s.rows[stuck] as number);
      return { node: Math.floor(at / FREEDOMS), freedom: at % FREEDOMS };
    }
    for (let i = 0; i < s.own; i++) if ((d[base + i] as number) < 0) negative++;
    const L = new Float64Array(m * s.own);
    for (let i = 0; i < m; i++) L.set(F.subarray(i * m, i * m + Math.min(s.own, i)), i * s.own);
    panels.push(L);
    kept.push(F);
  }
  const solve = (x: Float64Array): void => {
    for (let k = 0; k < steps.length; k++) {
      const { rows, own } = steps[k] as Step;
      const L = panels[k] as Float64Array;
      const base = own > 0 ? (rows[0] as number) : 0;
      for (let i = 1; i < own; i++) {
        let s = 0;
        for (let j = 0; j < i; j++) s += (L[i * own + j] as number) * (x[base + j] as number);
        x[base + i] = (x[base + i] as number) - s;
      }
      for (let i = own; i < rows.length; i++) {
        let s = 0;
        for (let j = 0; j < own; j++) s += (L[i * own + j] as number) * (x[base + j] as number);
        const r = rows[i] as number;
        x[r] = (x[r] as number) - s;
      }
    }
    for (let i = 0; i < unknowns; i++) x[i] = (x[i] as number) / (d[i] as number);
    for (let k = steps.length - 1; k >= 0; k--) {
      const { rows, own } = steps[k] as Step;
      const L = panels[k] as Float64Array;
      const base = own > 0 ? (rows[0] as number) : 0;
      for (let i = rows.length - 1; i >= own; i--) {
        const v = x[rows[i] as number] as number;
        if (v === 0) continue;
        for (let j = 0; j < own; j++) x[base + j] = (x[base + j] as number) - (L[i * own + j] as number) * v;
      }
      for (let i = own - 1; i > 0; i--) {
        const v = x[base + i] as number;
        for (let j = 0; j < i; j++) x[base + j] = (x[base + j] as number) - (L[i * own + j] as number) * v;
      }
    }
  };
  return { negative, solve };
}
