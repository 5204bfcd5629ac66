import { length3, sub3, type Vec3 } from '../geometry';
import type { SurveyPhoto } from '../rig';
import { err, ok, type Result } from '../units';
import { rayOf } from './camera';
import { type Known, knownOf, type Net } from './net';
import { camerasFor } from './pose';
import { scaled } from './scaling';
import { costOf, type Freed, ROUGH, rowsOf, type State, settled, unknownsOf } from './solve';

/** So many half-built nets are kept side by side while a mirrored place is not yet told from the other. */
const BEAM = 24;
/** A half-built net that fits worse than the best by more than two gross errors is dropped: squares of 17 doubts, an inch. */
const BLUNDER = 600;
/** So many of them are settled and compared. */
const SETTLED = 8;
/** No more nets than this are carried on to the photos. */
const NETS = 3;
/** Two nets fit alike where their squared misfits differ by less than this: three standard deviations. */
export const ALIKE = 9;
/** Places nearer than this are one, mm. */
export const SAME = 25;
/** A hint tells no more than this, mm: what was typed for a hole before may be well off. */
const HINT = 150;
/** So many ways of setting a photo up are tried. */
const CAMERAS = 3;
/** A photo half of whose marks are off by more than this, in their doubts, was set up wrongly. */
const MISFIT = 8;
/** Rays that meet at less than this, degrees, tell no place. */
const FLAT_RAYS = 2;

interface Tape {
  readonly to: number;
  readonly mm: number;
  readonly sigma: number;
}

/** A net half built: places so far, and how far its readings are off, squared, each in its doubt. */
interface Built {
  readonly at: ReadonlyMap<number, Vec3>;
  readonly cost: number;
}

/** Places where a point may be, with what is known of it and tapes to places that are: each local best, the nearest fit first. */
function placesOf(
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
function solvedSmall(rows: readonly (readonly number[])[], damping: number): readonly number[] {
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

/** Points that tapes can place, one after another from those whose place is known; the nets that fit best first. */
function byTape(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly Tape[])[],
  from: ReadonlyMap<number, Vec3>,
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
        const there = (tapes[i] ?? []).filter(t => first.at.has(t.to)).length;
        return { i, free, there, spare: there - free };
      })
      .filter(x => x.spare >= 0 && x.there > 0)
      .sort((a, b) => b.spare - a.spare || b.there - a.there)[0];
    if (!next) return beam;
    const grown = beam.flatMap((b): Built[] => {
      const mine = (tapes[next.i] ?? []).flatMap(t => {
        const to = b.at.get(t.to);
        return to ? [{ to, mm: t.mm, sigma: t.sigma }] : [];
      });
      const hint = net.points[next.i]?.hint;
      return placesOf(known[next.i] as Known, mine).map(p => ({
        at: new Map([...b.at, [next.i, p.at]]),
        cost: b.cost + p.cost + (hint ? Math.min(50, (length3(sub3(p.at, hint)) / HINT) ** 2) : 0),
      }));
    });
    grown.sort((a, b) => a.cost - b.cost);
    beam = grown.slice(0, BEAM).filter(b => b.cost <= (grown[0]?.cost ?? 0) + BLUNDER);
  }
}

/** Where two rays or more come nearest to one another; undefined where they run side by side. */
function whereRaysMeet(rays: readonly { readonly from: Vec3; readonly way: Vec3 }[]): Vec3 | undefined {
  const unit = rays.map(r => ({ from: r.from, way: r.way.map(x => x / length3(r.way)) as unknown as Vec3 }));
  const [a] = unit;
  const spread = Math.max(
    ...unit.map(r =>
      Math.acos(Math.min(1, Math.abs(r.way.reduce((s, x, k) => s + x * (a?.way[k] as number), 0)))),
    ),
  );
  if (spread < (FLAT_RAYS * Math.PI) / 180) return undefined;
  // the sum of squared distances from the lines is least where (I - w wT) p adds up to (I - w wT) from
  const rows = [0, 1, 2].map(i => {
    const row = [0, 1, 2].map(j =>
      unit.reduce((s, r) => s + (i === j ? 1 : 0) - (r.way[i] as number) * (r.way[j] as number), 0),
    );
    const right = unit.reduce((s, r) => {
      const along = r.way.reduce((d, x, k) => d + x * (r.from[k] as number), 0);
      return s + (r.from[i] as number) - along * (r.way[i] as number);
    }, 0);
    return [...row, right];
  });
  return solvedSmall(rows, 0) as unknown as Vec3;
}

export const apart = (a: ReadonlyMap<number, Vec3>, b: ReadonlyMap<number, Vec3>, i: number): number =>
  length3(sub3(a.get(i) as Vec3, b.get(i) as Vec3));

/** How far a net is from where its points were taken to be, squared, in the little that this counts. */
export const hintCost = (net: Net, at: ReadonlyMap<number, Vec3>): number =>
  [...at].reduce((s, [i, p]) => {
    const hint = net.points[i]?.hint;
    return hint ? s + Math.min(50, (length3(sub3(p, hint)) / HINT) ** 2) : s;
  }, 0);

/** Half-built nets settled on their tapes, heights and offsets: those that are not the same, the nearest fit first. */
function told(net: Net, built: readonly Built[]): readonly Built[] {
  const none = new Map<number, Freed>();
  const out: Built[] = [];
  for (const b of built.slice(0, SETTLED)) {
    const state = settled(net, { at: b.at, cameras: new Map() }, none, 30, ROUGH);
    if (out.some(o => [...o.at.keys()].every(i => apart(o.at, state.at, i) < SAME))) continue;
    const cost = costOf(rowsOf(net, state, unknownsOf(net, state, none), none));
    out.push({ at: state.at, cost: cost + hintCost(net, state.at) });
  }
  return out.sort((a, b) => a.cost - b.cost);
}

/** A net with a place for all that readings can place, near enough to be adjusted; and why a photo could not be set up. */
export interface Started {
  readonly state: State;
  readonly freed: ReadonlyMap<number, Freed>;
  /** by photo */
  readonly faults: ReadonlyMap<number, string>;
}

/**
 * Start values without anyone's help: what is held or measured by itself, then point after point by tapes to what is placed (every
 * mirrored place kept until a reading tells it from the other), whole nets by classical scaling where nothing is placed yet, photos
 * by homography, and points by their rays. More than one start where tapes fit a mirrored net as well.
 */
export function started(net: Net): readonly Started[] {
  const known = knownOf(net);
  const tapes = net.points.map((): Tape[] => []);
  for (const r of net.readings) {
    if (r.kind !== 'distance') continue;
    const [i, j] = [net.index.get(r.from ?? '') ?? -1, net.index.get(r.to ?? '') ?? -1];
    tapes[i]?.push({ to: j, mm: r.value, sigma: r.sigma });
    tapes[j]?.push({ to: i, mm: r.value, sigma: r.sigma });
  }
  const at = new Map<number, Vec3>();
  known.forEach((k, i) => {
    if (k.every(x => x !== undefined)) at.set(i, k as unknown as Vec3);
  });
  let built: readonly Built[] = byTape(net, known, tapes, at);
  if ((built[0]?.at.size ?? 0) < net.points.length) {
    const whole = scaled(net, known, tapes, built[0]?.at ?? at);
    if (whole.size > (built[0]?.at.size ?? 0)) built = byTape(net, known, tapes, whole);
  }
  const nets = told(net, built);
  const near = nets.filter(b => b.cost - (nets[0] as Built).cost < ALIKE).slice(0, NETS);
  return (near.length > 0 ? near : [{ at, cost: 0 }]).map(b => withPhotos(net, known, tapes, b.at));
}

/** A net of tapes with the photos that it sets up, and the points that those place. */
function withPhotos(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly Tape[])[],
  from: ReadonlyMap<number, Vec3>,
): Started {
  let state: State = { at: from, cameras: new Map() };
  let freed: ReadonlyMap<number, Freed> = new Map();
  const faults = new Map<number, string>();
  const waiting = new Set(net.survey.photos.map((_, i) => i));
  const marksOf = (i: number) => net.survey.photos[i]?.marks ?? [];
  const seenBy = (i: number): number =>
    marksOf(i).filter(m => state.at.has(net.index.get(m.point) ?? -1)).length;
  /** everything settled with one more photo, and with the points that it places; or why not */
  const withPhoto = (
    i: number,
  ): Result<{ readonly state: State; readonly freed: ReadonlyMap<number, Freed> }> => {
    const photo = net.survey.photos[i] as SurveyPhoto;
    const made = camerasFor(net, photo, state.at);
    if (!made.ok) return made;
    const now = new Map([...freed, [i, made.value.freed]]);
    for (const camera of made.value.cameras.slice(0, CAMERAS)) {
      const more = { at: new Map(state.at), cameras: new Map([...state.cameras, [i, camera]]) };
      net.points.forEach((_, k) => {
        const p = more.at.has(k) ? undefined : byRays(net, more, known[k] ?? [], k);
        if (p) more.at.set(k, p);
      });
      const at = byTape(net, known, tapes, more.at)[0]?.at ?? more.at;
      const end = settled(net, { at, cameras: more.cameras }, now, 15, ROUGH);
      const off = rowsOf(net, end, unknownsOf(net, end, now), now)
        .filter(r => r.reading !== undefined && net.readings[r.reading]?.photo === photo.id)
        .map(r => Math.abs(r.off) / r.sigma)
        .sort((p, q) => p - q);
      if ((off[Math.floor(off.length / 2)] ?? 0) <= MISFIT) return ok({ state: end, freed: now });
    }
    return err(
      `the marks on the photo "${photo.name}" do not agree with the rest: look whether each is at its own point`,
    );
  };
  for (let again = true; again; ) {
    // those first that see most of what is placed; one that does not fit yet may when more is placed
    again = [...waiting]
      .sort((p, q) => seenBy(q) - seenBy(p))
      .some(i => {
        const made = withPhoto(i);
        if (!made.ok) {
          faults.set(i, made.fault);
          return false;
        }
        ({ state, freed } = made.value);
        waiting.delete(i);
        faults.delete(i);
        return true;
      });
  }
  return { state, freed, faults };
}

/** A point's place by its marks: where its ray meets a coordinate that is known, or where rays meet. */
function byRays(net: Net, state: State, known: Known, i: number): Vec3 | undefined {
  const rays = net.survey.photos.flatMap((f, k) => {
    const camera = state.cameras.get(k);
    const mark = f.marks.find(m => net.index.get(m.point) === i);
    return camera && mark ? [{ from: camera.at, way: rayOf(camera, [f.width, f.height], mark.px) }] : [];
  });
  const axis = [2, 0, 1].find(a => known[a] !== undefined);
  const [ray] = rays;
  if (ray && axis !== undefined && Math.abs(ray.way[axis] as number) > 0.05 * length3(ray.way)) {
    const s = ((known[axis] as number) - (ray.from[axis] as number)) / (ray.way[axis] as number);
    return ray.way.map((w, n) => known[n] ?? (ray.from[n] as number) + s * w) as unknown as Vec3;
  }
  return rays.length > 1 ? whereRaysMeet(rays) : undefined;
}
