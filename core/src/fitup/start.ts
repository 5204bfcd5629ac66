import { factored, solvedBy } from '../geometry';
import type { HoleIn, Model } from './play';

/** Bolts start where none is off by more than this beyond its room, mm. */
const OFF = 0.01;
/** Rooms are taken for this much narrower while a place is looked for, so that it is well within, mm. */
const WITHIN = 0.012;
const ROUNDS = 40;
const HELD = 1e-9;
/** Nothing is gained any more where a round brings less than this of what is left. */
const STILL = 1e-3;

/**
 * A group of bodies that share bolts, made ready to be tried again and again: whether all bolts start with every hole off by so much in its
 * joint's plane (two numbers a hole, bolt after bolt, hole after hole); and if not, which bolt is furthest from it.
 */
export type Trial = (off: Float64Array) => { readonly starts: boolean; readonly worst: number };

/**
 * Tries whether plates can be pushed and turned so that every bolt passes all its holes: the sum of squares of what bolts are out of their
 * rooms is brought down by Newton's steps; it is convex, so where it does not come to nought no place does. Rooms are
 * true circles and slots. Bolts with three holes or more have their own place as unknowns.
 */
export function trialOf(model: Model, bodies: readonly number[], bolts: readonly number[]): Trial {
  const at = new Map(bodies.map((b, i) => [b, 3 * i]));
  let count = 3 * bodies.length;
  interface Pair {
    readonly bolt: number;
    readonly radius: number;
    readonly half: number;
    /** the way that its room is long */
    readonly ax: number;
    readonly ay: number;
    /** places of offsets, and signs: a hole's, less another's */
    readonly plus: number;
    readonly minus: number;
    /** unknowns that move it, and by how much on either direction */
    readonly u: Int32Array;
    readonly x: Float64Array;
    readonly y: Float64Array;
  }
  const pairs: Pair[] = [];
  interface Term {
    readonly u: number;
    readonly x: number;
    readonly y: number;
  }
  const pair = (
    bolt: number,
    room: HoleIn['room'],
    plus: number,
    minus: number,
    terms: readonly Term[],
  ): void => {
    pairs.push({
      bolt,
      radius: room.radius,
      half: room.half,
      ax: room.along[0],
      ay: room.along[1],
      plus,
      minus,
      u: Int32Array.from(terms, t => t.u),
      x: Float64Array.from(terms, t => t.x),
      y: Float64Array.from(terms, t => t.y),
    });
  };
  let first = 0;
  for (const [order, b] of bolts.entries()) {
    const bolt = model.bolts[b];
    if (!bolt) continue;
    const terms = (h: HoleIn, sign: number) => {
      const base = h.body === undefined ? undefined : at.get(h.body);
      if (base === undefined || !h.by) return [];
      const [r1, r2] = h.by;
      return [0, 1, 2].map(k => ({ u: base + k, x: sign * (r1[k] as number), y: sign * (r2[k] as number) }));
    };
    // what other plates would ask for is not asked here
    const holes = bolt.holes
      .map((h, i) => ({ ...h, at: 2 * (first + i) }))
      .filter(h => h.body === undefined || at.has(h.body));
    const slots = holes.filter(h => h.room.half > 0);
    const [p, q] = holes;
    if (p && q && holes.length === 2 && slots.length < 2)
      pair(
        order,
        {
          radius: p.room.radius + q.room.radius,
          half: p.room.half + q.room.half,
          along: slots[0]?.room.along ?? [1, 0],
        },
        p.at,
        q.at,
        [...terms(p, 1), ...terms(q, -1)],
      );
    else if (holes.length > 1) {
      const own = count;
      count += 2;
      for (const h of holes)
        pair(order, h.room, h.at, -1, [...terms(h, 1), { u: own, x: -1, y: 0 }, { u: own + 1, x: 0, y: -1 }]);
    }
    first += bolt.holes.length;
  }
  const n = count;
  const normal = new Float64Array(n * n);
  const right = new Float64Array(n);
  const x = new Float64Array(n);
  return off => {
    x.fill(0);
    let worst = -1;
    let before = Number.POSITIVE_INFINITY;
    for (let round = 0; round < ROUNDS; round++) {
      normal.fill(0);
      right.fill(0);
      worst = -1;
      let most = Number.NEGATIVE_INFINITY;
      let cost = 0;
      for (let k = 0; k < pairs.length; k++) {
        const p = pairs[k] as Pair;
        let dx = off[p.plus] as number;
        let dy = off[p.plus + 1] as number;
        if (p.minus >= 0) {
          dx -= off[p.minus] as number;
          dy -= off[p.minus + 1] as number;
        }
        const terms = p.u.length;
        for (let t = 0; t < terms; t++) {
          const v = x[p.u[t] as number] as number;
          dx += (p.x[t] as number) * v;
          dy += (p.y[t] as number) * v;
        }
        // how far it is out of its room, and which way back in: from the nearest place of the line through the room's middle
        const along = p.half === 0 ? 0 : Math.max(-p.half, Math.min(p.half, dx * p.ax + dy * p.ay));
        const ex = dx - along * p.ax;
        const ey = dy - along * p.ay;
        const far = Math.sqrt(ex * ex + ey * ey);
        const out = far - p.radius;
        if (out > most) {
          most = out;
          worst = p.bolt;
        }
        const over = out + Math.min(WITHIN, p.radius);
        if (over <= 0) continue;
        cost += over * over;
        const wx = far < 1e-12 ? 1 : ex / far;
        const wy = far < 1e-12 ? 0 : ey / far;
        // round the end of a room the way back in turns with the place
        const round = p.half === 0 || Math.abs(along) >= p.half;
        const curve = round ? over / Math.max(over, out + p.radius) : 0;
        for (let t = 0; t < terms; t++) {
          const u = p.u[t] as number;
          const tx = p.x[t] as number;
          const ty = p.y[t] as number;
          const g = wx * tx + wy * ty;
          const h = curve * (wx * ty - wy * tx);
          right[u] = (right[u] as number) - g * over;
          for (let q = 0; q < terms; q++) {
            const v = p.u[q] as number;
            if (v > u) continue;
            const qx = p.x[q] as number;
            const qy = p.y[q] as number;
            const i = u * n + v;
            normal[i] = (normal[i] as number) + g * (wx * qx + wy * qy) + h * (wx * qy - wy * qx);
          }
        }
      }
      if (most <= OFF) return { starts: true, worst: -1 };
      if (cost > before * (1 - STILL) && round > 5) break;
      before = Math.min(before, cost);
      // each unknown is held a little, so that what nothing asks for stays
      const step = solvedBy(factored(normal, n, HELD), right);
      let gain = 0;
      for (let i = 0; i < n; i++) {
        gain += (step[i] as number) * (right[i] as number);
        x[i] = (x[i] as number) + (step[i] as number);
      }
      // nothing can be gained any more: no place lets all of them in
      if (gain < STILL * cost) break;
    }
    return { starts: false, worst };
  };
}
