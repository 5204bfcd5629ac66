import { adjacency, dissect, type Incidence } from './dissect';

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

/** What is eliminated in one front. */
export interface Step {
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
  /** unknowns of the largest front, and the most numbers that steps have handed on at a time */
  readonly front: number;
  readonly stack: number;
  /** degrees of freedom of the largest element */
  readonly widest: number;
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
  let widest = 0;
  for (let e = 0; e + 1 < incidence.from.length; e++) {
    let first = -1;
    let width = 0;
    for (let k = incidence.from[e] as number; k < (incidence.from[e + 1] as number); k++) {
      const v = incidence.nodes[k] as number;
      const s = stepOf[v] as number;
      if (s >= 0 && (first < 0 || s < first)) first = s;
      width += (vertices.from[v + 1] as number) - (vertices.from[v] as number);
    }
    widest = Math.max(widest, width);
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
  return { unknowns, steps, unknownOf, front, stack: high, widest };
}

/** A stiffness taken apart: solves for as many loads as there are. */
export interface Factor {
  /** pivots below nought: more than none means that the structure has passed a limit */
  readonly negative: number;
  /** overwrites a load by its displacement, both by unknown */
  readonly solve: (load: Float64Array) => void;
  /** work of a load on its own displacement, from half a solution; overwrites the load */
  readonly work: (load: Float64Array) => number;
}

/** The full stiffness of an element over the degrees of freedom of its vertices, row by row; the array may be used again between calls. */
export type StiffnessOf = (e: number) => Float64Array;

/** A freedom without any stiffness. */
export interface FreeMotion {
  /** which of all degrees of freedom it is */
  readonly free: number;
}
