import { threadNamed } from '../bolt';
import type { Mount } from '../rig';
import type { Lane } from './lanes';
import type { Station } from './stations';

/** Nearest two bolts of a plate sit side by side, mm: common practice, room for two sockets. */
const BOLT_APART = 45;
/** Two bolts of one end of a plate stand at least so far apart, mm: nearer, it turns about them. */
const SPREAD = 64;
/** A new hole keeps so far from one that is there, mm: a rivet nut beside a captive nut. */
const BESIDE = 28;
/** A head and half a socket beside the edge of a plate that the bolt does not hold, mm. */
const HEAD = 24;
/** A hole may lie this far off the middle of its member along the vehicle, and off its face, mm. */
const OFF_MIDDLE = 12;
const OFF_FACE = 0.5;
/** From a bolt to the edge of its plate: a head's half and some sheet, or one and a half diameters and some. */
const edgeFor = (d: number): number => Math.max(18, 1.5 * d + 4);

const boltOf = (m: Mount): number => {
  const t = m.hole.thread === undefined ? undefined : threadNamed(m.hole.thread);
  return t?.ok ? t.value.d : (m.hole.diameter ?? 8) * 0.9;
};

/** Whether a hole that is there can take a bolt of a plate: known thread, in the face, nothing behind that a drill would meet. */
const sound = (m: Mount, s: Station): boolean =>
  m.condition !== 'blocked' &&
  (m.hole.thread === undefined || threadNamed(m.hole.thread).ok) &&
  Math.abs(m.at[2] - s.zBottom) <= OFF_FACE &&
  Math.abs(m.at[0] - s.x) <= OFF_MIDDLE &&
  !(m.behind && (m.hole.kind === 'drill' || m.condition === 'broken-nut' || m.condition === 'stripped'));

/** Whether a bolt there holds a lane's plate well, stands well clear of it, or neither. */
export function placeOf(lane: Lane, y: number, d: number): 'holds' | 'clear' | 'edge' {
  const [y0, y1] = lane.y;
  const edge = edgeFor(d);
  if (y >= y0 + edge && y <= y1 - edge) return 'holds';
  return y <= y0 - HEAD || y >= y1 + HEAD ? 'clear' : 'edge';
}

/** The lanes among some that a bolt there holds; undefined where it would sit on an edge of one of them. */
export function heldThere(lanes: readonly Lane[], y: number, d: number): readonly Lane[] | undefined {
  const places = lanes.map(l => placeOf(l, y, d));
  return places.includes('edge') ? undefined : lanes.filter((_, i) => places[i] === 'holds');
}

export const diameterOf = boltOf;

/**
 * Holes of a station that a lane uses: the outermost two, one or two in the middle of a wide plate, new ones where needed. `here` are all
 * lanes that end or begin there: no bolt may sit on the edge of one of them.
 */
export function holesFor(
  s: Station,
  lane: Lane,
  here: readonly Lane[],
  taken: readonly Mount[],
): { readonly mounts: readonly Mount[]; readonly made: readonly Mount[] } {
  const [y0, y1] = lane.y;
  const fits = (y: number, d: number): boolean => heldThere(here, y, d)?.includes(lane) ?? false;
  const usable = [...s.mounts.filter(m => sound(m, s)), ...taken.filter(m => m.member === s.member.id)]
    .filter(m => fits(m.at[1], boltOf(m)))
    .sort((a, b) => a.at[1] - b.at[1]);
  const made: Mount[] = [];
  const edge = edgeFor(10) + 2;
  const [from, to] = [Math.max(y0 + edge, s.y[0] + 20), Math.min(y1 - edge, s.y[1] - 20)];
  const drill = (y: number): Mount => ({
    id: `${s.member.id}-new-${Math.round(y)}`,
    member: s.member.id,
    at: [s.x, Math.round(y), s.zBottom],
    hole: { kind: 'drill' },
    condition: 'good',
    nutReach: 'none',
  });
  const others = [...s.mounts, ...taken.filter(m => m.member === s.member.id)].map(m => m.at[1]);
  /** the free place nearest to where one is wanted, clear of edges and of other holes */
  const near = (want: number): number | undefined => {
    for (let off = 0; off <= to - from; off += 4)
      for (const y of [want + off, want - off])
        if (y >= from && y <= to && fits(Math.round(y), 8) && others.every(o => Math.abs(o - y) >= BESIDE))
          return Math.round(y);
    return undefined;
  };
  const [first, last] = [usable[0], usable.at(-1)];
  if (!first || !last || last.at[1] - first.at[1] < SPREAD) {
    // one that is there and a new one well away from it, or else two new ones
    const ends = [near(from), near(to)].flatMap(y => (y === undefined ? [] : [y]));
    const pair = usable
      .flatMap(m => ends.map(y => ({ m, y, apart: Math.abs(y - m.at[1]) })))
      .filter(p => p.apart >= SPREAD)
      .sort((a, b) => b.apart - a.apart)[0];
    if (pair) return { mounts: [pair.m], made: [drill(pair.y)] };
    const [a, b] = ends;
    for (const y of a !== undefined && b !== undefined && b - a < BOLT_APART ? [a] : ends)
      made.push(drill(y));
    return { mounts: made.length < 2 && first ? [first] : [], made };
  }
  const middle =
    last.at[1] - first.at[1] > 450
      ? usable
          .filter(m => m !== first && m !== last)
          .sort((a, b) => Math.abs(a.at[1]) - Math.abs(b.at[1]))
          .slice(0, 2)
      : [];
  return { mounts: [first, ...middle, last].sort((a, b) => a.at[1] - b.at[1]), made };
}
