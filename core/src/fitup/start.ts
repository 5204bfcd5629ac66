import { factored, solvedBy, type Vec2 } from '../geometry';
import type { HoleIn, Model } from './play';

/** Bolts start where none is off by more than this beyond its room, mm. */
const OFF = 0.01;
/** Rooms are taken for this much narrower while a place is looked for, so that it is well within, mm. */
const WITHIN = 0.012;
const ROUNDS = 40;
const HELD = 1e-9;
/** Nothing is gained any more where a round brings less than this of what is left. */
const STILL = 1e-3;

/** How far a place is out of a hole's room and which way back in, in the joint's plane; no way where it is in. */
function outOf(
  room: HoleIn['room'],
  x: number,
  y: number,
): { readonly off: number; readonly way: Vec2; readonly round: boolean } {
  const along = Math.max(-room.half, Math.min(room.half, x * room.along[0] + y * room.along[1]));
  const [dx, dy] = [x - along * room.along[0], y - along * room.along[1]];
  const l = Math.hypot(dx, dy);
  const round = room.half === 0 || Math.abs(along) >= room.half;
  return l < 1e-12
    ? { off: -room.radius, way: [1, 0], round }
    : { off: l - room.radius, way: [dx / l, dy / l], round };
}

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
    readonly room: HoleIn['room'];
    /** places of offsets, and signs: a hole's, less another's */
    readonly plus: number;
    readonly minus: number;
    readonly terms: readonly { readonly u: number; readonly x: number; readonly y: number }[];
  }
  const pairs: Pair[] = [];
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
      pairs.push({
        bolt: order,
        room: {
          radius: p.room.radius + q.room.radius,
          half: p.room.half + q.room.half,
          along: slots[0]?.room.along ?? [1, 0],
        },
        plus: p.at,
        minus: q.at,
        terms: [...terms(p, 1), ...terms(q, -1)],
      });
    else if (holes.length > 1) {
      const own = count;
      count += 2;
      for (const h of holes)
        pairs.push({
          bolt: order,
          room: h.room,
          plus: h.at,
          minus: -1,
          terms: [...terms(h, 1), { u: own, x: -1, y: 0 }, { u: own + 1, x: 0, y: -1 }],
        });
    }
    first += bolt.holes.length;
  }
  const n = count;
  const normal = new Float64Array(n * n);
  const right = new Float64Array(n);
  const x = new Float64Array(n);
  return off => {
    x.fill(0);
    let worst = { bolt: -1, off: 0 };
    let before = Number.POSITIVE_INFINITY;
    for (let round = 0; round < ROUNDS; round++) {
      normal.fill(0);
      right.fill(0);
      worst = { bolt: -1, off: Number.NEGATIVE_INFINITY };
      let cost = 0;
      for (const p of pairs) {
        let dx = (off[p.plus] as number) - (p.minus < 0 ? 0 : (off[p.minus] as number));
        let dy = (off[p.plus + 1] as number) - (p.minus < 0 ? 0 : (off[p.minus + 1] as number));
        for (const t of p.terms) {
          dx += t.x * (x[t.u] as number);
          dy += t.y * (x[t.u] as number);
        }
        const out = outOf(p.room, dx, dy);
        if (out.off > worst.off) worst = { bolt: p.bolt, off: out.off };
        const over = out.off + Math.min(WITHIN, p.room.radius);
        if (over <= 0) continue;
        cost += over * over;
        // round the end of a room the way back in turns with the place
        const curve = out.round ? over / Math.max(over, out.off + p.room.radius) : 0;
        const [wx, wy] = out.way;
        for (const t of p.terms) {
          const [g, h] = [wx * t.x + wy * t.y, wx * t.y - wy * t.x];
          right[t.u] = (right[t.u] as number) - g * over;
          for (const s of p.terms) {
            if (s.u > t.u) continue;
            const i = t.u * n + s.u;
            normal[i] = (normal[i] as number) + g * (wx * s.x + wy * s.y) + curve * h * (wx * s.y - wy * s.x);
          }
        }
      }
      if (worst.off <= OFF) return { starts: true, worst: -1 };
      // nothing is gained any more: no place lets all of them in
      if (cost > before * (1 - STILL) && round > 5) break;
      before = Math.min(before, cost);
      // each unknown is held a little, so that what nothing asks for stays
      const step = solvedBy(factored(normal, n, HELD), right);
      for (let i = 0; i < n; i++) x[i] = (x[i] as number) + (step[i] as number);
    }
    return { starts: false, worst: worst.bolt };
  };
}
