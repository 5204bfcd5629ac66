import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { Vec3 } from '../geometry';
import type { Known, Net } from './net';

/**
 * Places of a set of points from distances between them all, up to where they lie and how they are turned: the first `dims` directions of
 * the doubly centered squares. Source: Torgerson's classical scaling, 1952, from memory.
 */
export function classicalScaling(
  distances: readonly (readonly number[])[],
  dims: 2 | 3,
): readonly (readonly number[])[] {
  const n = distances.length;
  const squares = distances.map(row => row.map(d => d * d));
  const rows = squares.map(row => row.reduce((s, x) => s + x, 0) / n);
  const all = rows.reduce((s, x) => s + x, 0) / n;
  const b = squares.map((row, i) =>
    row.map((x, j) => -0.5 * (x - (rows[i] as number) - (rows[j] as number) + all)),
  );
  const e = new EigenvalueDecomposition(new Matrix(b), { assumeSymmetric: true });
  const order = e.realEigenvalues.map((v, k) => ({ v, k })).sort((p, q) => q.v - p.v);
  return distances.map((_, i) =>
    order.slice(0, dims).map(({ v, k }) => Math.sqrt(Math.max(0, v)) * e.eigenvectorMatrix.get(i, k)),
  );
}

/** Shortest ways over what was measured, by Floyd and Warshall; Infinity where two points do not hang together. */
function shortest(
  tapes: readonly (readonly { readonly to: number; readonly mm: number }[])[],
  of: readonly number[],
): number[][] {
  const place = new Map(of.map((i, k) => [i, k]));
  const d = of.map((_, a) => of.map((_, b) => (a === b ? 0 : Number.POSITIVE_INFINITY)));
  of.forEach((i, a) => {
    for (const t of tapes[i] ?? []) {
      const b = place.get(t.to);
      if (b !== undefined) (d[a] as number[])[b] = Math.min(d[a]?.[b] as number, t.mm);
    }
  });
  for (let k = 0; k < of.length; k++)
    for (let a = 0; a < of.length; a++)
      for (let b = 0; b < of.length; b++)
        (d[a] as number[])[b] = Math.min(d[a]?.[b] as number, (d[a]?.[k] as number) + (d[k]?.[b] as number));
  return d;
}

/** Points that hang together by tape, one list a net. */
function nets(
  count: number,
  tapes: readonly (readonly { readonly to: number }[])[],
): readonly (readonly number[])[] {
  const seen = new Set<number>();
  const out: number[][] = [];
  for (let i = 0; i < count; i++) {
    if (seen.has(i)) continue;
    const net: number[] = [];
    const open = [i];
    seen.add(i);
    for (let k = open.pop(); k !== undefined; k = open.pop()) {
      net.push(k);
      for (const t of tapes[k] ?? [])
        if (!seen.has(t.to)) {
          seen.add(t.to);
          open.push(t.to);
        }
    }
    out.push(net);
  }
  return out;
}

const TURNS = 72;
const ROUNDS = 60;

/**
 * Whole nets of which too little is known point by point: drawn by classical scaling of their level distances, pulled onto what the tape
 * reads, then turned, mirrored and shifted onto whatever coordinates are known. Only nets whose heights are all known are drawn so: a
 * vehicle's underside is nearly level, and nothing else tells up from down.
 */
export function scaled(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly { readonly to: number; readonly mm: number; readonly sigma: number }[])[],
  placed: ReadonlyMap<number, Vec3>,
): ReadonlyMap<number, Vec3> {
  const out = new Map(placed);
  const z = (i: number): number | undefined => placed.get(i)?.[2] ?? known[i]?.[2];
  const level = tapes.map((mine, i) =>
    mine.flatMap(t => {
      const [a, b] = [z(i), z(t.to)];
      if (a === undefined || b === undefined) return [];
      return [{ to: t.to, mm: Math.sqrt(Math.max(1, t.mm * t.mm - (a - b) ** 2)), sigma: t.sigma }];
    }),
  );
  for (const of of nets(net.points.length, level)) {
    if (of.length < 3 || of.every(i => placed.has(i))) continue;
    const drawn = classicalScaling(shortest(level, of), 2).map(
      ([x = 0, y = 0]) => [x, y] as [number, number],
    );
    const place = new Map(of.map((i, k) => [i, k]));
    // pulled onto the readings: each point a little toward where its tapes want it
    for (let round = 0; round < ROUNDS; round++)
      of.forEach((i, a) => {
        const mine = level[i] ?? [];
        const pull = [0, 0];
        for (const t of mine) {
          const q = drawn[place.get(t.to) as number] as [number, number];
          const p = drawn[a] as [number, number];
          const l = Math.hypot(p[0] - q[0], p[1] - q[1]) || 1e-6;
          for (const k of [0, 1] as const)
            pull[k] = (pull[k] as number) + (((p[k] - q[k]) / l) * (t.mm - l)) / mine.length;
        }
        (drawn[a] as [number, number])[0] += pull[0] as number;
        (drawn[a] as [number, number])[1] += pull[1] as number;
      });
    // turned and mirrored as the known coordinates want it
    let best: { readonly off: number; readonly at: readonly (readonly [number, number])[] } | undefined;
    for (const mirror of [1, -1])
      for (let k = 0; k < TURNS; k++) {
        const [c, s] = [Math.cos((2 * Math.PI * k) / TURNS), Math.sin((2 * Math.PI * k) / TURNS)];
        const turned = drawn.map(([x, y]) => [x * c - mirror * y * s, x * s + mirror * y * c] as const);
        const shift = [0, 1].map(axis => {
          const want = of.flatMap((i, a) => {
            const w = placed.get(i)?.[axis] ?? known[i]?.[axis] ?? net.points[i]?.hint?.[axis];
            return w === undefined ? [] : [w - (turned[a]?.[axis] as number)];
          });
          return { by: want.length > 0 ? want.reduce((p, q) => p + q, 0) / want.length : 0, want };
        });
        const off = shift.reduce((sum, { by, want }) => sum + want.reduce((p, w) => p + (w - by) ** 2, 0), 0);
        if (!best || off < best.off)
          best = {
            off,
            at: turned.map(([x, y]) => [x + (shift[0]?.by ?? 0), y + (shift[1]?.by ?? 0)] as const),
          };
      }
    of.forEach((i, a) => {
      const p = best?.at[a];
      if (p && !out.has(i)) out.set(i, [known[i]?.[0] ?? p[0], known[i]?.[1] ?? p[1], z(i) as number]);
    });
  }
  return out;
}
