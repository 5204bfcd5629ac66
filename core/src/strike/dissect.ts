/** Elements as lists of nodes: element e has the nodes `nodes[from[e]]` to `nodes[from[e + 1] - 1]`. */
export interface Incidence {
  readonly from: Int32Array;
  readonly nodes: Int32Array;
}

/** One step of an elimination: the nodes it takes out, after all its children. */
export interface Separator {
  readonly own: Int32Array;
  readonly children: readonly number[];
}

/** Sets of nodes this small are taken out together. */
const LEAF = 6;

/** Neighbors of every node over shared elements, as one list with offsets. */
export function adjacency(nodeCount: number, { from, nodes }: Incidence): Incidence {
  const touching = new Int32Array(nodeCount + 1);
  for (const n of nodes) touching[n + 1] = (touching[n + 1] as number) + 1;
  for (let i = 0; i < nodeCount; i++) touching[i + 1] = (touching[i + 1] as number) + (touching[i] as number);
  const of = new Int32Array(nodes.length);
  const at = touching.slice();
  for (let e = 0; e + 1 < from.length; e++)
    for (let k = from[e] as number; k < (from[e + 1] as number); k++) {
      const n = nodes[k] as number;
      of[at[n] as number] = e;
      at[n] = (at[n] as number) + 1;
    }
  const seen = new Int32Array(nodeCount).fill(-1);
  const out: number[] = [];
  const start = new Int32Array(nodeCount + 1);
  for (let n = 0; n < nodeCount; n++) {
    seen[n] = n;
    for (let k = touching[n] as number; k < (touching[n + 1] as number); k++) {
      const e = of[k] as number;
      for (let j = from[e] as number; j < (from[e + 1] as number); j++) {
        const m = nodes[j] as number;
        if (seen[m] === n) continue;
        seen[m] = n;
        out.push(m);
      }
    }
    start[n + 1] = out.length;
  }
  return { from: start, nodes: Int32Array.from(out) };
}

/** A cut along the folds is taken before one across the flats if it asks for no more unknowns than so many times its own. */
const FOLDS = 1.5;

/**
 * Nested dissection by place (George 1973): the vertices are halved across their longest extent, the side that touches the
 * other less gives the separator, and both halves go on alike; pieces that do not touch go on by themselves. Vertices of more
 * degrees of freedom than most (where flats meet) are tried as a separator of their own. Returned children first. Coordinates x y z and
 * degrees of freedom (`weight`) of every vertex; `chosen` are the vertices that take part.
 */
export function dissect(
  chosen: Int32Array,
  coordinates: Float64Array,
  neighbors: Incidence,
  weight: Int32Array,
): readonly Separator[] {
  const out: Separator[] = [];
  const count = coordinates.length / 3;
  const side = new Int32Array(count).fill(-1);
  let mark = 0;
  const split = chosen.some(v => (weight[v] as number) < 4) && chosen.some(v => (weight[v] as number) > 3);
  const sum = (set: readonly number[]): number => set.reduce((s, v) => s + (weight[v] as number), 0);
  const halves = (set: Int32Array, axis: number): { a: number[]; b: number[]; cut: number[] } => {
    const sorted = set
      .slice()
      .sort((p, q) => (coordinates[3 * p + axis] as number) - (coordinates[3 * q + axis] as number) || p - q);
    const middle = sorted.length >> 1;
    const [A, B] = [++mark, ++mark];
    sorted.forEach((n, i) => {
      side[n] = i < middle ? A : B;
    });
    const touches = (n: number, other: number): boolean => {
      for (let k = neighbors.from[n] as number; k < (neighbors.from[n + 1] as number); k++)
        if (side[neighbors.nodes[k] as number] === other) return true;
      return false;
    };
    const [a, b, fromA, fromB]: [number[], number[], number[], number[]] = [[], [], [], []];
    sorted.forEach((n, i) => {
      if (i < middle) (touches(n, B) ? fromA : a).push(n);
      else (touches(n, A) ? fromB : b).push(n);
    });
    return sum(fromA) <= sum(fromB)
      ? { a, b: [...b, ...fromB], cut: fromA }
      : { a: [...a, ...fromA], b, cut: fromB };
  };
  /** The pieces of a set that do not touch one another. */
  const pieces = (set: ArrayLike<number>): number[][] => {
    const own = ++mark;
    for (let i = 0; i < set.length; i++) side[set[i] as number] = own;
    const found: number[][] = [];
    for (let i = 0; i < set.length; i++) {
      if (side[set[i] as number] !== own) continue;
      const piece = [set[i] as number];
      side[set[i] as number] = -1;
      for (let h = 0; h < piece.length; h++) {
        const v = piece[h] as number;
        for (let k = neighbors.from[v] as number; k < (neighbors.from[v + 1] as number); k++) {
          const n = neighbors.nodes[k] as number;
          if (side[n] !== own) continue;
          side[n] = -1;
          piece.push(n);
        }
      }
      found.push(piece);
    }
    return found;
  };
  const one = (set: Int32Array): number => {
    if (set.length <= LEAF) return out.push({ own: set, children: [] }) - 1;
    const extent = [0, 1, 2].map(axis => {
      let [low, high] = [Infinity, -Infinity];
      for (const n of set) {
        const v = coordinates[3 * n + axis] as number;
        if (v < low) low = v;
        if (v > high) high = v;
      }
      return { axis, length: high - low };
    });
    extent.sort((p, q) => q.length - p.length);
    const [first, second] = extent as [{ axis: number; length: number }, { axis: number; length: number }];
    let best = halves(set, first.axis);
    if (second.length > 0.4 * first.length) {
      const other = halves(set, second.axis);
      if (sum(other.cut) < 0.8 * sum(best.cut)) best = other;
    }
    if (split) {
      const folds = [...set].filter(v => (weight[v] as number) > 3);
      if (folds.length > 0 && folds.length < set.length && sum(folds) <= FOLDS * sum(best.cut)) {
        const rest = [...set].filter(v => (weight[v] as number) <= 3);
        if (pieces(rest).length > 1) best = { a: rest, b: [], cut: folds };
      }
    }
    if (best.cut.length === 0 || best.a.length + best.b.length === 0)
      return out.push({ own: set, children: [] }) - 1;
    const children = [...all(best.a), ...all(best.b)];
    return out.push({ own: Int32Array.from(best.cut), children }) - 1;
  };
  const all = (set: readonly number[]): number[] => pieces(set).map(p => one(Int32Array.from(p)));
  all([...chosen]);
  return out;
}
