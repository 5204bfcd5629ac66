import { type FoldedPanel, facetInSpace, holeWidth } from '../fold';
import { add3, cross3, dot3, length3, scale3, sub3, toSpace, unit3, type Vec3 } from '../geometry';
import { isBracket } from '../plan';
import type { ResolvedJoint } from './joint';
import type { JointSeat } from './seat';

/** A way to hang a panel wrong in which all of its bolts would start. */
export const WRONG_WAYS = ['end for end', 'upside down, end for end', 'upside down, side for side'] as const;
export type WrongWay = (typeof WRONG_WAYS)[number];

/** A wrong way as it is said: which way a plate is turned over by is seen soon enough. */
export const saidWay = (way: WrongWay): string => way.split(',')[0] ?? way;

/** Bolts are drawn over by this beside the play of their holes, mm: common practice, no source. */
const DRAWN_OVER = 1;
/** Corners this near to their mirrored place make no difference, mm. */
const SAME = 3;
/** A hole's axis is along its bolt's from this cosine on: 5 degrees. */
const SQUARE = 0.996;
/** Bolts that are one row or one point turn about it: with fewer there is no pattern. */
const LEAST = 2;

/** Half a turn about a line through a place. */
const halfTurn =
  (through: Vec3, axis: Vec3) =>
  (p: Vec3): Vec3 => {
    const from = sub3(p, through);
    return add3(through, sub3(scale3(axis, 2 * dot3(from, axis)), from));
  };

/** Whether every place of one list has a place of another within what `reach` allows the pair, each used once. */
function matched(n: number, near: (i: number, j: number) => boolean): boolean {
  const of = new Array<number>(n).fill(-1);
  const tried = (i: number, seen: Set<number>): boolean => {
    for (let j = 0; j < n; j++) {
      if (seen.has(j) || !near(i, j)) continue;
      seen.add(j);
      if ((of[j] as number) < 0 || tried(of[j] as number, seen)) {
        of[j] = i;
        return true;
      }
    }
    return false;
  };
  return Array.from({ length: n }, (_, i) => i).every(i => tried(i, new Set()));
}

/** A hole of a panel where it hangs: its place in the underside, its bolt's axis, its width and its bolt, mm. */
interface Bored {
  readonly at: Vec3;
  readonly axis: Vec3;
  readonly width: number;
  readonly bolt: number;
}
const boredIn = (
  p: FoldedPanel,
  joints: readonly ResolvedJoint[],
  seats: ReadonlyMap<string, JointSeat>,
): readonly Bored[] =>
  p.holes.flatMap(h => {
    const j = joints.find(x => x.id === h.joint);
    const seat = seats.get(h.joint);
    const frame = p.facets.find(f => f.id === h.facet)?.frame;
    if (!j || !seat || !frame || h.kind === 'uncut') return [];
    return [{ at: toSpace(frame, h.at), axis: seat.axis, width: holeWidth(h.final), bolt: j.thread.d }];
  });

type Motion = (p: Vec3) => Vec3;

/** Axes that turn with two places and a direction across them; undefined where these do not make one. */
function axesOf(a: Vec3, b: Vec3, up: Vec3): readonly [Vec3, Vec3, Vec3] | undefined {
  const d = sub3(b, a);
  const across = sub3(d, scale3(up, dot3(d, up)));
  if (length3(across) < 1) return undefined;
  const x = unit3(across);
  return [x, cross3(up, x), up];
}

/** The rigid motions that bring a panel's first two holes over two bolts of another, either face up. */
function motionsOnto(from: readonly Bored[], to: readonly Bored[]): readonly Motion[] {
  const [a, b] = from;
  if (!a || !b) return [];
  const own = axesOf(a.at, b.at, a.axis);
  if (!own) return [];
  const apart = length3(sub3(b.at, a.at));
  return to.flatMap((p, i) =>
    to.flatMap((q, k) => {
      const reach = (a.width - p.bolt + b.width - q.bolt) / 2 + 2 * DRAWN_OVER;
      if (i === k || Math.abs(length3(sub3(q.at, p.at)) - apart) > reach) return [];
      return [1, -1].flatMap((s): readonly Motion[] => {
        const axes = axesOf(p.at, q.at, scale3(p.axis, s));
        if (!axes) return [];
        // both pairs' middles on one another
        const [m, n] = [scale3(add3(a.at, b.at), 0.5), scale3(add3(p.at, q.at), 0.5)];
        return [
          v => {
            const d = sub3(v, m);
            return own.reduce<Vec3>((sum, e, c) => add3(sum, scale3(axes[c] as Vec3, dot3(d, e))), n);
          },
        ];
      });
    }),
  );
}

/** Whether a panel goes up in another's place with all of its bolts started, and lies there otherwise than the other does. */
function takesPlace(p: FoldedPanel, own: readonly Bored[], q: FoldedPanel, other: readonly Bored[]): boolean {
  const corners = p.facets.flatMap(facetInSpace);
  const there = q.facets.flatMap(facetInSpace);
  const going = motionsOnto(own, other).filter(move =>
    matched(own.length, (i, j) => {
      const [hole, bolt] = [own[i], other[j]];
      if (!hole || !bolt || hole.width < bolt.bolt) return false;
      const axis = unit3(sub3(move(add3(hole.at, hole.axis)), move(hole.at)));
      const off = sub3(move(hole.at), bolt.at);
      const along = dot3(off, bolt.axis);
      const aside = Math.sqrt(Math.max(0, dot3(off, off) - along * along));
      return (
        Math.abs(dot3(axis, bolt.axis)) > SQUARE &&
        aside <= (hole.width - bolt.bolt) / 2 + DRAWN_OVER &&
        Math.abs(along) <= p.sheet.thickness + DRAWN_OVER
      );
    }),
  );
  const near = SAME + p.sheet.thickness;
  // a part that is the other one, the right way round, is no mistake
  const same = (move: Motion): boolean =>
    corners.length === there.length && corners.every(c => there.some(d => length3(sub3(move(c), d)) < near));
  return going.length > 0 && !going.some(same);
}

/**
 * Pairs of panels that can be taken for one another: each goes up in the other's place with all of its bolts started, and is not the same
 * part there. Brackets among brackets, plates among plates. Source: plane geometry.
 */
export function takenForAnother(
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
  seats: ReadonlyMap<string, JointSeat>,
): readonly (readonly [FoldedPanel, FoldedPanel])[] {
  const all = panels.map(p => ({ p, holes: boredIn(p, joints, seats) })).filter(x => x.holes.length >= LEAST);
  return all.flatMap((a, i) =>
    all
      .slice(i + 1)
      .flatMap((b): readonly (readonly [FoldedPanel, FoldedPanel])[] =>
        isBracket(a.p.panel) === isBracket(b.p.panel) &&
        a.holes.length === b.holes.length &&
        takesPlace(a.p, a.holes, b.p, b.holes) &&
        takesPlace(b.p, b.holes, a.p, a.holes)
          ? [[a.p, b.p]]
          : [],
      ),
  );
}

/**
 * The wrong ways in which a panel goes up as easily as in the right one: turned end for end, or over, every one of its bolts would still
 * start, and what then hangs there is another shape. None where its own shape is the same that way round. Source: plane geometry.
 */
export function wrongWays(
  p: FoldedPanel,
  joints: readonly ResolvedJoint[],
  seats: ReadonlyMap<string, JointSeat>,
): readonly WrongWay[] {
  const [base] = p.facets;
  if (!base) return [];
  const holes = boredIn(p, joints, seats);
  if (holes.length < LEAST) return [];
  const sum = holes.reduce<Vec3>((s, h) => add3(s, h.at), [0, 0, 0]);
  const middle = scale3(sum, 1 / holes.length);
  const { u, v, n } = base.frame;
  // seen from below, half a turn about the plate's own normal is end for end; about its axes it is turned over
  const ways: readonly (readonly [WrongWay, Vec3])[] = [
    ['end for end', n],
    ['upside down, end for end', v],
    ['upside down, side for side', u],
  ];
  const corners = p.facets.flatMap(facetInSpace);
  const openings = p.panel.openings.map(o => toSpace(base.frame, o.at));
  return ways.flatMap(([way, axis]) => {
    const turn = halfTurn(middle, axis);
    const starts = matched(holes.length, (i, j) => {
      const [hole, bolt] = [holes[i], holes[j]];
      if (!hole || !bolt || hole.width < bolt.bolt) return false;
      const off = sub3(turn(hole.at), bolt.at);
      const along = dot3(off, bolt.axis);
      const aside = Math.sqrt(Math.max(0, dot3(off, off) - along * along));
      return (
        aside <= (hole.width - bolt.bolt) / 2 + DRAWN_OVER &&
        Math.abs(along) <= p.sheet.thickness + DRAWN_OVER
      );
    });
    if (!starts) return [];
    const same = (all: readonly Vec3[], thick: boolean): boolean =>
      all.every(c => {
        // turned over, its underside lies where its upper side was
        const at = add3(turn(c), thick && axis !== n ? scale3(n, -p.sheet.thickness) : [0, 0, 0]);
        return all.some(d => Math.hypot(at[0] - d[0], at[1] - d[1], at[2] - d[2]) < SAME + p.sheet.thickness);
      });
    return same(corners, true) && same(openings, false) ? [] : [way];
  });
}
