import { length3, sub3, type Vec3 } from '../geometry';
import { READING_SIGMA } from '../rig';
import { seen } from './camera';
import type { Known, Net } from './net';
import { costOf, type Freed, ROUGH, rowsOf, type State, settled, unknownsOf } from './solve';

/** So many half-built nets are kept side by side while a mirrored place is not yet told from the other. */
const BEAM = 24;
/** A half-built net that fits worse than the best by more than two gross errors is dropped: squares of 17 doubts, an inch. */
const BLUNDER = 600;
/** Two nets fit alike where their squared misfits differ by less than this: three standard deviations. */
export const ALIKE = 9;
/** Places nearer than this are one, mm. */
export const SAME = 25;
/** A hint tells no more than this, mm: what was typed for a hole before may be well off. */
const HINT = 150;
/** Half-built nets are pulled straight where the best of them misfits by more than this and two a point, squared; and by so many rounds. */
const [SUSPICIOUS, PULLS] = [40, 8];
/** Neither a hint nor a mark tells more than this, squared: either may be wrong. */
const MOST = 50;
/** A photo half of whose marks are off by more than this, in their doubts, was set up wrongly. */
export const MISFIT = 8;

export interface Tape {
  readonly to: number;
  readonly mm: number;
  readonly sigma: number;
}

/** The tapes to each point. */
export function tapesOf(net: Net): readonly (readonly Tape[])[] {
  const tapes = net.points.map((): Tape[] => []);
  for (const r of net.readings) {
    if (r.kind !== 'distance') continue;
    const [i, j] = [net.index.get(r.from ?? '') ?? -1, net.index.get(r.to ?? '') ?? -1];
    tapes[i]?.push({ to: j, mm: r.value, sigma: r.sigma });
    tapes[j]?.push({ to: i, mm: r.value, sigma: r.sigma });
  }
  return tapes;
}

/** Those of a point's tapes that lead to a place. */
export const toPlaced = (
  mine: readonly Tape[] | undefined,
  at: ReadonlyMap<number, Vec3>,
): readonly { readonly to: Vec3; readonly mm: number; readonly sigma: number }[] =>
  (mine ?? []).flatMap(t => {
    const to = at.get(t.to);
    return to ? [{ to, mm: t.mm, sigma: t.sigma }] : [];
  });

/** A net half built: places so far, and how far its readings are off, squared, each in its doubt. */
export interface Built {
  readonly at: ReadonlyMap<number, Vec3>;
  readonly cost: number;
}

/** Directions that a search for a place sets out in, by how many coordinates are free. */
const WAYS: readonly (readonly (readonly number[])[])[] = [
  [[]],
  [[1], [-1]],
  [0, 1, 2, 3, 4, 5, 6, 7].map(i => [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)]),
  [-1, 1].flatMap(a => [-1, 1].flatMap(b => [-1, 1].map(c => [a, b, c].map(x => x / Math.sqrt(3))))),
];
const PLACED_ROUNDS = 40;

/** Places where a point may be, with what is known of it and tapes to places that are: each local best, the nearest fit first. */
export function placesOf(
  known: Known,
  tapes: readonly { readonly to: Vec3; readonly mm: number; readonly sigma: number }[],
): readonly { readonly at: Vec3; readonly cost: number }[] {
  const free = [0, 1, 2].filter(k => known[k] === undefined);
  const m = free.length;
  const many = tapes.length;
  // the ends of the tapes, what they read, and how surely: nothing is allocated in a round
  const told = new Float64Array(5 * many);
  const middle = [0, 0, 0];
  let far = 0;
  for (let t = 0; t < many; t++) {
    const { to, mm, sigma } = tapes[t] as (typeof tapes)[number];
    for (let k = 0; k < 3; k++) {
      told[5 * t + k] = to[k] as number;
      middle[k] = (middle[k] as number) + (to[k] as number) / many;
    }
    told[5 * t + 3] = mm;
    told[5 * t + 4] = 1 / sigma;
    far += mm / many;
  }
  const costAt = (p: Float64Array): number => {
    let sum = 0;
    for (let t = 0; t < told.length; t += 5) {
      const x = (p[0] as number) - (told[t] as number);
      const y = (p[1] as number) - (told[t + 1] as number);
      const z = (p[2] as number) - (told[t + 2] as number);
      const off = (Math.sqrt(x * x + y * y + z * z) - (told[t + 3] as number)) * (told[t + 4] as number);
      sum += off * off;
    }
    return sum;
  };
  const found: { at: Vec3; cost: number }[] = [];
  const rows = Array.from({ length: m }, () => new Float64Array(m + 1));
  const [away, slope] = [new Float64Array(3), new Float64Array(3)];
  let [p, next] = [new Float64Array(3), new Float64Array(3)];
  for (const way of WAYS[m] as (typeof WAYS)[number]) {
    for (let k = 0; k < 3; k++)
      p[k] = known[k] ?? (middle[k] as number) + far * (way[free.indexOf(k)] as number);
    let cost = costAt(p);
    let damping = 1e-3;
    for (let round = 0; round < PLACED_ROUNDS && m > 0; round++) {
      for (const row of rows) row.fill(0);
      for (let t = 0; t < told.length; t += 5) {
        let l = 0;
        for (let k = 0; k < 3; k++) {
          const d = (p[k] as number) - (told[t + k] as number);
          away[k] = d;
          l += d * d;
        }
        l = Math.sqrt(l) || 1e-9;
        const sure = told[t + 4] as number;
        const off = ((told[t + 3] as number) - l) * sure;
        for (let a = 0; a < m; a++) slope[a] = ((away[free[a] as number] as number) / l) * sure;
        for (let a = 0; a < m; a++) {
          const row = rows[a] as Float64Array;
          const own = slope[a] as number;
          for (let b = 0; b < m; b++) row[b] = (row[b] as number) + own * (slope[b] as number);
          row[m] = (row[m] as number) + own * off;
        }
      }
      const step = solvedSmall(rows, damping);
      next.set(p);
      for (let a = 0; a < m; a++) {
        const k = free[a] as number;
        next[k] = (next[k] as number) + (step[a] as number);
      }
      const nextCost = costAt(next);
      if (nextCost <= cost) {
        const still = cost - nextCost < 1e-9 * (1 + cost);
        [p, next] = [next, p];
        cost = nextCost;
        damping /= 5;
        if (still) break;
      } else damping *= 8;
      if (damping > 1e9) break;
    }
    const at: Vec3 = [p[0] as number, p[1] as number, p[2] as number];
    if (!found.some(f => length3(sub3(f.at, at)) < SAME)) found.push({ at, cost });
  }
  return found.sort((a, b) => a.cost - b.cost);
}

/** A few equations with their right side behind them, something added to their diagonal, by elimination; the equations stay as they are. */
export function solvedSmall(rows: readonly ArrayLike<number>[], damping: number): Float64Array {
  const m = rows.length;
  const wide = m + 1;
  const a = new Float64Array(m * wide);
  for (let i = 0; i < m; i++) {
    const row = rows[i] as ArrayLike<number>;
    for (let j = 0; j <= m; j++)
      a[i * wide + j] = i === j ? (row[j] as number) * (1 + damping) + 1e-12 : (row[j] as number);
  }
  for (let i = 0; i < m; i++)
    for (let r = i + 1; r < m; r++) {
      const f = (a[r * wide + i] as number) / (a[i * wide + i] as number);
      for (let c = i; c <= m; c++)
        a[r * wide + c] = (a[r * wide + c] as number) - f * (a[i * wide + c] as number);
    }
  const x = new Float64Array(m);
  for (let i = m - 1; i >= 0; i--) {
    let s = a[i * wide + m] as number;
    for (let c = i + 1; c < m; c++) s -= (a[i * wide + c] as number) * (x[c] as number);
    x[i] = s / (a[i * wide + i] as number);
  }
  return x;
}

/** How far a place is from where it was taken to be, squared, in the little that this counts. */
const hintedAt = (hint: Vec3 | undefined, p: Vec3): number =>
  hint ? Math.min(MOST, (length3(sub3(p, hint)) / HINT) ** 2) : 0;

/** How far a net is from where its points were taken to be, as above. */
export const hintCost = (net: Net, at: ReadonlyMap<number, Vec3>): number =>
  [...at].reduce((s, [i, p]) => s + hintedAt(net.points[i]?.hint, p), 0);

/** How far a point's marks are from where cameras that stand roughly see its place, squared, in what they may well be off. */
export function markedAt(net: Net, cameras: State['cameras'], i: number, p: Vec3): number {
  let cost = 0;
  for (const [k, camera] of cameras) {
    const f = net.survey.photos[k];
    const mark = f?.marks.find(m => net.index.get(m.point) === i);
    if (!f || !mark) continue;
    const at = seen(camera, [f.width, f.height], p);
    const off = at ? Math.hypot(at[0] - mark.px[0], at[1] - mark.px[1]) : Number.POSITIVE_INFINITY;
    cost += Math.min(MOST, (off / (MISFIT * (mark.sigma ?? READING_SIGMA.pixel))) ** 2);
  }
  return cost;
}

export const apart = (a: ReadonlyMap<number, Vec3>, b: ReadonlyMap<number, Vec3>, i: number): number =>
  length3(sub3(a.get(i) as Vec3, b.get(i) as Vec3));

/**
 * Points of a net that by their own tapes may as well lie elsewhere, mirrored about those that they are measured from, and that nothing else
 * tells; of those that fewer tapes hold nothing is said.
 */
export function doubtful(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly Tape[])[],
  at: ReadonlyMap<number, Vec3>,
  cameras: State['cameras'] = new Map(),
): ReadonlySet<number> {
  const out = new Set<number>();
  for (const [i, p] of at) {
    const own = known[i] ?? [];
    const free = own.filter(x => x === undefined).length;
    const mine = toPlaced(tapes[i], at);
    // what fewer tapes hold was not placed by them
    if (free === 0 || mine.length < free) continue;
    const hint = net.points[i]?.hint;
    const ways = placesOf(own, mine).map(w => ({
      at: w.at,
      cost: w.cost + hintedAt(hint, w.at) + markedAt(net, cameras, i, w.at),
    }));
    const here = ways.reduce((a, b) => (length3(sub3(b.at, p)) < length3(sub3(a.at, p)) ? b : a));
    if (ways.some(w => w !== here && length3(sub3(w.at, p)) > SAME && w.cost < here.cost + ALIKE)) out.add(i);
  }
  return out;
}

/**
 * Half-built nets pulled straight: a point that was placed by lines that hardly cross leaves those placed from it far off, and their misfit says
 * nothing of which mirrored place was right until all of them give way.
 */
function pulled(net: Net, beam: readonly Built[], cameras: State['cameras']): readonly Built[] {
  const none = new Map<number, Freed>();
  const out: Built[] = [];
  for (const b of beam) {
    const { at } = settled(net, { at: b.at, cameras: new Map() }, none, PULLS, ROUGH);
    if (out.some(o => [...at.keys()].every(i => apart(o.at, at, i) < SAME))) continue;
    const state = { at, cameras: new Map() };
    let cost = costOf(rowsOf(net, state, unknownsOf(net, state, none), none)) + hintCost(net, at);
    if (cameras.size > 0) for (const [i, p] of at) cost += markedAt(net, cameras, i, p);
    out.push({ at, cost });
  }
  return out.sort((a, b) => a.cost - b.cost);
}

/**
 * Points that tapes can place, one after another from those whose place is known, where cameras that are set up see them; the nets that fit
 * best first.
 */
export function byTape(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly Tape[])[],
  from: ReadonlyMap<number, Vec3>,
  cameras: State['cameras'] = new Map(),
): readonly Built[] {
  let beam: readonly Built[] = [{ at: from, cost: 0 }];
  for (;;) {
    const [first] = beam;
    if (!first) return beam;
    // all of a beam have placed the same points
    const next = net.points
      .map((_, i) => i)
      .filter(i => !first.at.has(i))
      .map(i => {
        const free = (known[i] ?? []).filter(x => x === undefined).length;
        const mine = tapes[i] ?? [];
        const there = mine.filter(t => first.at.has(t.to)).length;
        return { i, free, there, spare: there - free, to: mine.length - there };
      })
      .filter(x => x.spare >= 0 && x.there > 0)
      // where all are left as well on either side, one that others hang on, which may tell
      .sort((a, b) => b.spare - a.spare || b.to - a.to || b.there - a.there)[0];
    if (!next) return beam;
    const grown = beam.flatMap((b): Built[] => {
      const mine = toPlaced(tapes[next.i], b.at);
      const hint = net.points[next.i]?.hint;
      const ways = placesOf(known[next.i] as Known, mine).map(p => ({
        at: new Map([...b.at, [next.i, p.at]]),
        cost: b.cost + p.cost + hintedAt(hint, p.at) + markedAt(net, cameras, next.i, p.at),
      }));
      if (next.spare > 0 || next.to > 0) return ways;
      // no tape will tell one side from the other: nets that differ by nothing else are not carried on
      return [ways.reduce((p, q) => (q.cost < p.cost ? q : p))];
    });
    grown.sort((a, b) => a.cost - b.cost);
    const wants = SUSPICIOUS + 2 * first.at.size;
    const all = (grown[0]?.cost ?? 0) > wants ? pulled(net, grown.slice(0, BEAM), cameras) : grown;
    beam = all.slice(0, BEAM).filter(b => b.cost <= (all[0]?.cost ?? 0) + BLUNDER);
  }
}
