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

/** Neighbours of every node over shared elements, as one list with offsets. */
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

/**
 * Nested dissection by place (George 1973): the nodes are halved across their longest extent, the side that touches the
 * other less gives the separator, and both halves go on alike. Returned children first. Coordinates x y z of every node;
 * `chosen` are the nodes that take part.
 */
export function dissect(
  chosen: Int32Array,
  coordinates: Float64Array,
  neighbours: Incidence,
): readonly Separator[] {
  const out: Separator[] = [];
  const side = new Int32Array(coordinates.length / 3).fill(-1);
  let mark = 0;
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
      for (let k = neighbours.from[n] as number; k < (neighbours.from[n + 1] as number); k++)
        if (side[neighbours.nodes[k] as number] === other) return true;
      return false;
    };
    const [a, b, fromA, fromB]: [number[], number[], number[], number[]] = [[], [], [], []];
    sorted.forEach((n, i) => {
      if (i < middle) (touches(n, B) ? fromA : a).push(n);
      else (touches(n, A) ? fromB : b).push(n);
    });
    return fromA.length <= fromB.length
      ? { a, b: [...b, ...fromB], cut: fromA }
      : { a: [...a, ...fromA], b, cut: fromB };
  };
  const go = (set: Int32Array): number => {
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
      if (other.cut.length < 0.8 * best.cut.length) best = other;
    }
    if (best.a.length === 0 || best.b.length === 0) return out.push({ own: set, children: [] }) - 1;
    const children = [go(Int32Array.from(best.a)), go(Int32Array.from(best.b))];
    return out.push({ own: Int32Array.from(best.cut), children }) - 1;
  };
  if (chosen.length > 0) go(chosen);
  return out;
}
