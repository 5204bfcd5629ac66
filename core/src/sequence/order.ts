import { distance2, type Vec2 } from '../geometry';
import type { Start } from '../plan';

/** A bolt on the plate, seen from above: x rearward, y right. */
export interface Spot {
  readonly id: string;
  readonly x: number;
  readonly y: number;
}

const at = (s: Spot): Vec2 => [s.x, s.y];
const middle = (spots: readonly Spot[]): Vec2 => [
  spots.reduce((s, p) => s + p.x, 0) / spots.length,
  spots.reduce((s, p) => s + p.y, 0) / spots.length,
];

/** Bolts of about the same distance from the middle form a ring; rings from the inside out, each by angle. */
function rings(spots: readonly Spot[]): readonly (readonly Spot[])[] {
  const c = middle(spots);
  const angle = (s: Spot): number => Math.atan2(s.y - c[1], s.x - c[0]);
  const sorted = [...spots].sort((a, b) => distance2(at(a), c) - distance2(at(b), c));
  const reach = distance2(at(sorted.at(-1) as Spot), c);
  const out: Spot[][] = [];
  let from = Number.NEGATIVE_INFINITY;
  for (const s of sorted) {
    const r = distance2(at(s), c);
    if (r - from > 0.1 * reach) {
      out.push([]);
      from = r;
    }
    out.at(-1)?.push(s);
  }
  // by angle, beginning at the bolt that comes first in the list
  return out.map(ring => {
    const first = spots.find(s => ring.includes(s)) as Spot;
    const turn = (s: Spot): number => (angle(s) - angle(first) + 4 * Math.PI + 1e-9) % (2 * Math.PI);
    return ring.sort((a, b) => turn(a) - turn(b));
  });
}

/**
 * The cross pattern of one ring: a bolt, the one opposite, then the pair across; the next four start where the
 * bolts are farthest from those already done, and among equals farthest from the last four. On an even bolt circle
 * this is the published pattern (ASME PCC-1, legacy table).
 */
function crossPattern(ring: readonly Spot[], c: Vec2): readonly Spot[] {
  const left = [...ring];
  const done: Spot[] = [];
  const take = (s: Spot | undefined): void => {
    if (!s) return;
    left.splice(left.indexOf(s), 1);
    done.push(s);
  };
  const best = (score: (s: Spot) => readonly number[]): Spot | undefined =>
    left.reduce<Spot | undefined>((winner, s) => {
      if (!winner) return s;
      const [a, b] = [score(s), score(winner)];
      const i = a.findIndex((v, k) => Math.abs(v - (b[k] as number)) > 1e-6);
      return i >= 0 && (a[i] as number) > (b[i] as number) ? s : winner;
    }, undefined);
  const opposite = (s: Spot): Spot | undefined =>
    best(q => [-distance2(at(q), [2 * c[0] - s.x, 2 * c[1] - s.y])]);
  let last: readonly Spot[] = [];
  while (left.length > 0) {
    const nearest = (s: Spot): number[] => done.map(d => distance2(at(s), at(d))).sort((a, b) => a - b);
    const start =
      done.length === 0
        ? left[0]
        : best(s => {
            const n = nearest(s);
            return [n[0] ?? 0, n[1] ?? 0, Math.min(...last.map(d => distance2(at(s), at(d))))];
          });
    const from = done.length;
    take(start);
    take(start && opposite(start));
    if (ring.length > 2 * 1 && left.length > 0) {
      const quad = done.slice(from);
      const across = best(s => [Math.min(...quad.map(d => distance2(at(s), at(d)))), nearest(s)[0] ?? 0]);
      take(across);
      take(across && opposite(across));
    }
    last = done.slice(from);
  }
  return done;
}

/** Tightening order: from the middle, where the plate is held stiffest, outward (RCSC), crossing over each time. */
export function tighteningOrder(spots: readonly Spot[]): readonly string[] {
  if (spots.length < 3) return spots.map(s => s.id);
  const c = middle(spots);
  return rings(spots).flatMap(ring => crossPattern(ring, c).map(s => s.id));
}

/** Alternates between the two sides of the middle line, starting with the bolt nearest to it. */
function alternate(spots: readonly Spot[], y0: number): Spot[] {
  const near = (a: Spot, b: Spot): number => Math.abs(a.y - y0) - Math.abs(b.y - y0);
  const right = spots.filter(s => s.y >= y0).sort(near);
  const left = spots.filter(s => s.y < y0).sort(near);
  const out: Spot[] = [];
  while (right.length + left.length > 0) {
    const first = left.shift();
    const second = right.shift();
    if (first) out.push(first);
    if (second) out.push(second);
  }
  return out;
}

/** Bolts in rows across the vehicle, front row first; a row is 60 mm deep. */
function rows(spots: readonly Spot[]): readonly Spot[][] {
  const out: Spot[][] = [];
  for (const s of [...spots].sort((a, b) => a.x - b.x)) {
    const row = out.at(-1);
    if (row?.[0] && s.x - row[0].x < 60) row.push(s);
    else out.push([s]);
  }
  return out;
}

/** How many rows a plate hangs by: across the vehicle as they lie, or, where that is one, along it. */
export function rowsOf(spots: readonly Spot[]): number {
  if (spots.length < 2) return spots.length;
  const turned = spots.map(s => ({ ...s, x: s.y, y: s.x }));
  const [across, along] = [rows(spots).length, rows(turned).length];
  // one row of bolts is a hinge whichever way it runs
  return Math.min(across, along) < 2 ? 1 : across;
}

/**
 * The order in which bolts are started by hand, by school:
 * front row, rear row, then the middle so that it does not bind; the rear center bolt first and from there by
 * distance; front to rear; or rear to front.
 */
export function startOrder(spots: readonly Spot[], school: Start): readonly string[] {
  if (spots.length === 0) return [];
  const y0 = middle(spots)[1];
  const lines = rows(spots);
  const walk = (list: readonly Spot[][]): string[] => list.flatMap(row => alternate(row, y0)).map(s => s.id);
  switch (school) {
    case 'front-to-rear':
      return walk(lines);
    case 'rear-to-front':
      return walk([...lines].reverse());
    case 'front-rear-centre': {
      if (lines.length < 3) return walk(lines);
      return walk([lines[0] as Spot[], lines.at(-1) as Spot[], ...lines.slice(1, -1)]);
    }
    case 'rear-centre-first': {
      const first = [...(lines.at(-1) as Spot[])].sort(
        (a, b) => Math.abs(a.y - y0) - Math.abs(b.y - y0),
      )[0] as Spot;
      return [...spots]
        .sort((a, b) => distance2(at(a), at(first)) - distance2(at(b), at(first)))
        .map(s => s.id);
    }
  }
}
