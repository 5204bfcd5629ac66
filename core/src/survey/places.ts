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

/** Places where a point may be, with what is known of it and tapes to places that are: each local best, the nearest fit first. */
export function placesOf(
  known: Known,
  tapes: readonly { readonly to: Vec3; readonly mm: number; readonly sigma: number }[],
): readonly { readonly at: Vec3; readonly cost: number }[] {
  const free = [0, 1, 2].filter(k => known[k] === undefined);
  const middle = [0, 1, 2].map(k => tapes.reduce((s, t) => s + (t.to[k] as number), 0) / tapes.length);
  const far = tapes.reduce((s, t) => s + t.mm, 0) / tapes.length;
  const ways: readonly (readonly number[])[] =
    free.length === 1
      ? [[1], [-1]]
      : free.length === 2
        ? [0, 1, 2, 3, 4, 5, 6, 7].map(i => [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)])
        : [-1, 1].flatMap(a => [-1, 1].flatMap(b => [-1, 1].map(c => [a, b, c].map(x => x / Math.sqrt(3)))));
  const found: { at: Vec3; cost: number }[] = [];
  const costAt = (p: readonly number[]): number =>
    tapes.reduce(
      (s, t) => s + ((Math.hypot(...p.map((x, k) => x - (t.to[k] as number))) - t.mm) / t.sigma) ** 2,
      0,
    );
  for (const way of ways) {
    let p = [0, 1, 2].map(k => known[k] ?? (middle[k] as number) + far * (way[free.indexOf(k)] as number));
    let cost = costAt(p);
    let damping = 1e-3;
    for (let round = 0; round < 40; round++) {
      const m = free.length;
      const n = Array.from({ length: m }, () => Array<number>(m + 1).fill(0));
      for (const t of tapes) {
        const d = p.map((x, k) => x - (t.to[k] as number));
        const l = Math.hypot(...d) || 1e-9;
        const off = t.mm - l;
        free.forEach((k, a) => {
          const ga = (d[k] as number) / l / t.sigma;
          free.forEach((q, b) => {
            (n[a] as number[])[b] = (n[a]?.[b] as number) + ga * ((d[q] as number) / l / t.sigma);
          });
          (n[a] as number[])[m] = (n[a]?.[m] as number) + (ga * off) / t.sigma;
        });
      }
      const step = solvedSmall(n, damping);
      const next = p.map((x, k) => (free.includes(k) ? x + (step[free.indexOf(k)] as number) : x));
      const nextCost = costAt(next);
      if (nextCost <= cost) {
        const still = cost - nextCost < 1e-9 * (1 + cost);
        [p, cost] = [next, nextCost];
        damping /= 5;
        if (still) break;
      } else damping *= 8;
      if (damping > 1e9) break;
    }
    const at = p as unknown as Vec3;
    if (!found.some(f => length3(sub3(f.at, at)) < SAME)) found.push({ at, cost });
  }
  return found.sort((a, b) => a.cost - b.cost);
}

/** A few equations with their right side behind them, something added to their diagonal, by elimination. */
export function solvedSmall(rows: readonly (readonly number[])[], damping: number): readonly number[] {
  const m = rows.length;
  const a = rows.map((r, i) => r.map((x, j) => (i === j ? x * (1 + damping) + 1e-12 : x)));
  for (let i = 0; i < m; i++)
    for (let r = i + 1; r < m; r++) {
      const f = (a[r]?.[i] as number) / (a[i]?.[i] as number);
      for (let c = i; c <= m; c++) (a[r] as number[])[c] = (a[r]?.[c] as number) - f * (a[i]?.[c] as number);
    }
  const x = Array<number>(m).fill(0);
  for (let i = m - 1; i >= 0; i--) {
    let s = a[i]?.[m] as number;
    for (let c = i + 1; c < m; c++) s -= (a[i]?.[c] as number) * (x[c] as number);
    x[i] = s / (a[i]?.[i] as number);
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
