import type { Net } from './net';

const kept = new WeakMap<Net, readonly number[]>();

/**
 * The order in which points stand among the unknowns, by index: along the tapes between them from a point at the edge of the net, turned round,
 * so that what a tape ties together stands near (Cuthill and McKee 1969, reversed as George 1971). Factoring then fills little.
 */
export function orderOf(net: Net): readonly number[] {
  const known = kept.get(net);
  if (known) return known;
  const near: Set<number>[] = net.points.map(() => new Set());
  for (const r of net.readings) {
    if (r.kind !== 'distance') continue;
    const [i, j] = [net.index.get(r.from ?? ''), net.index.get(r.to ?? '')];
    if (i === undefined || j === undefined || i === j) continue;
    near[i]?.add(j);
    near[j]?.add(i);
  }
  const degree = (i: number): number => near[i]?.size ?? 0;
  const out: number[] = [];
  const seen = new Set<number>();
  /** all that tapes reach from there, nearest first, those with fewer tapes before those with more */
  const spread = (from: number, into: Set<number>): readonly number[] => {
    const queue = [from];
    into.add(from);
    for (let k = 0; k < queue.length; k++)
      for (const n of [...(near[queue[k] as number] ?? [])].sort((a, b) => degree(a) - degree(b) || a - b))
        if (!into.has(n)) {
          into.add(n);
          queue.push(n);
        }
    return queue;
  };
  for (const i of [...net.points.keys()].sort((a, b) => degree(a) - degree(b) || a - b)) {
    if (seen.has(i)) continue;
    // the point furthest from any is at an edge
    const far = spread(i, new Set()).at(-1) as number;
    out.push(...spread(far, seen));
  }
  const order = out.reverse();
  kept.set(net, order);
  return order;
}
