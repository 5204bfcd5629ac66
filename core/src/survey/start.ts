import { length3, sub3, type Vec3 } from '../geometry';
import type { SurveyPhoto } from '../rig';
import { err, ok, type Result } from '../units';
import { rayOf } from './camera';
import { type Known, knownOf, type Net } from './net';
import {
  ALIKE,
  apart,
  type Built,
  byTape,
  doubtful,
  hintCost,
  MISFIT,
  markedAt,
  placesOf,
  SAME,
  solvedSmall,
  type Tape,
  tapesOf,
  toPlaced,
} from './places';
import { camerasFor, freedOf } from './pose';
import { scaled } from './scaling';
import { costOf, type Freed, ROUGH, rowsOf, type State, settled, unknownsOf } from './solve';

/** So many of them are settled and compared. */
const SETTLED = 8;
/** No more nets than this are carried on to the photos. */
const NETS = 3;
/** So many ways of setting a photo up are tried. */
const CAMERAS = 3;
/** A state whose readings are off by less than this on the whole, squared, in their doubts, has everything where it belongs. */
const FITS = 4;
/** A photo that misfits all else by more than this, squared, as by two marks that are sixty doubts off, was set up wrongly. */
const WRONG_MARKS = 2 * 60 ** 2;
/** So many points are put elsewhere at the most, of so many that are off most, each where the misfit falls by more than this. */
const [MENDS, WORST, BETTER] = [12, 4, 100];
/** Places of a net that was settled and of one that was not are one if nearer than this, mm. */
const ROUGHLY = 150;
/** Rays that meet at less than this, degrees, tell no place. */
const FLAT_RAYS = 2;

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
  const [x, y, z] = solvedSmall(rows, 0);
  return [x as number, y as number, z as number];
}

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
  /** points that may as well be elsewhere, together with others */
  readonly open: ReadonlySet<number>;
}

/**
 * Start values without anyone's help: what is held or measured by itself, then point after point by tapes to what is placed (every
 * mirrored place kept until a reading tells it from the other), whole nets by classical scaling where nothing is placed yet, photos
 * by homography, and points by their rays. More than one start where tapes fit a mirrored net as well.
 */
export function started(net: Net): readonly Started[] {
  const known = knownOf(net);
  const tapes = tapesOf(net);
  const at = new Map<number, Vec3>();
  known.forEach((k, i) => {
    if (k.every(x => x !== undefined)) at.set(i, k as unknown as Vec3);
  });
  let built: readonly Built[] = byTape(net, known, tapes, at);
  // less than three that are left hang on those that are placed
  if ((built[0]?.at.size ?? 0) <= net.points.length - 3) {
    const whole = scaled(net, known, tapes, built[0]?.at ?? at);
    if (whole.size > (built[0]?.at.size ?? 0)) built = byTape(net, known, tapes, whole);
  }
  const nets = told(net, built);
  const near = nets.filter(b => b.cost - (nets[0] as Built).cost < ALIKE).slice(0, NETS);
  const [first = { at, cost: 0 }] = near;
  const alike = built.filter(b => b.cost - (built[0] as Built).cost < ALIKE);
  if (net.survey.photos.length === 0)
    return (near.length > 0 ? near : [first]).map(b => ({
      state: { at: b.at, cameras: new Map() },
      freed: new Map(),
      faults: new Map(),
      open: differing(alike),
    }));
  // marks tell what tapes leave open: cameras are set up by what is sure
  const begun = [
    withPhotos(net, known, tapes, surelyPlaced(net, known, tapes, first.at, [...near, ...alike])),
  ];
  // photos that do not suit, or what does not fit together: the tapes may have taken another net for the right one
  for (const b of [...near, ...alike].slice(0, NETS)) {
    if (begun.some(x => x.faults.size === 0 && misfit(net, x) < FITS)) break;
    begun.push(withPhotos(net, known, tapes, surelyPlaced(net, known, tapes, b.at, [])));
  }
  return begun;
}

/** How far the readings of a start are off, squared, each in its doubt: in the mean. */
function misfit(net: Net, { state, freed }: Started): number {
  const rows = rowsOf(net, state, unknownsOf(net, state, freed), freed);
  return costOf(rows) / Math.max(1, rows.length);
}

/** Points that some of these nets have elsewhere than the first of them. */
const differing = ([first, ...others]: readonly Built[]): ReadonlySet<number> =>
  new Set(
    [...(first?.at ?? new Map<number, Vec3>()).keys()].filter(i =>
      others.some(o => o.at.has(i) && apart((first as Built).at, o.at, i) > ROUGHLY),
    ),
  );

/**
 * Start values from those of a net that was alike: its places and cameras stay, and what it had none for is set up and placed from them.
 * Undefined where its readings are off by more than they may be on the whole: the old places may be the wrong ones.
 */
export function continued(net: Net, from: State): Started | undefined {
  const begun = withPhotos(net, knownOf(net), tapesOf(net), from.at, from.cameras);
  const state = settled(net, begun.state, begun.freed, 15, ROUGH);
  const found = { ...begun, state };
  return misfit(net, found) < FITS ? found : undefined;
}

/** Places of a net that all others which fit alike agree on, and that no point's own tapes leave open. */
function surelyPlaced(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly Tape[])[],
  first: ReadonlyMap<number, Vec3>,
  others: readonly Built[],
): ReadonlyMap<number, Vec3> {
  const open = doubtful(net, known, tapes, first);
  return new Map(
    [...first].filter(
      ([i]) => !open.has(i) && others.every(o => !o.at.has(i) || apart(first, o.at, i) < ROUGHLY),
    ),
  );
}

/** A net of tapes with the photos that it sets up, and the points that those and the tapes place then. */
function withPhotos(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly Tape[])[],
  from: ReadonlyMap<number, Vec3>,
  cameras: State['cameras'] = new Map(),
): Started {
  let state: State = { at: from, cameras };
  let freed: ReadonlyMap<number, Freed> = new Map(
    [...cameras.keys()].map(i => [i, freedOf(net.survey.photos[i] as SurveyPhoto)]),
  );
  const faults = new Map<number, string>();
  const waiting = new Set([...net.survey.photos.keys()].filter(i => !cameras.has(i)));
  const marksOf = (i: number) => net.survey.photos[i]?.marks ?? [];
  const seenBy = (i: number): number =>
    marksOf(i).filter(m => state.at.has(net.index.get(m.point) ?? -1)).length;
  /** everything settled with one more photo, and with the points that it places; or why not. `fits`: only where all fits then. */
  const withPhoto = (
    i: number,
    fits: boolean,
  ): Result<{ readonly state: State; readonly freed: ReadonlyMap<number, Freed> }> => {
    const photo = net.survey.photos[i] as SurveyPhoto;
    const made = camerasFor(net, photo, state.at);
    if (!made.ok) return made;
    const now = new Map([...freed, [i, made.value.freed]]);
    const before = costOf(rowsOf(net, state, unknownsOf(net, state, freed), freed));
    let best: { readonly state: State; readonly cost: number } | undefined;
    for (const camera of made.value.cameras.slice(0, CAMERAS)) {
      const more = { at: new Map(state.at), cameras: new Map([...state.cameras, [i, camera]]) };
      net.points.forEach((_, k) => {
        const p = more.at.has(k) ? undefined : byRays(net, more, known[k] ?? [], k);
        if (p) more.at.set(k, p);
      });
      const end = settled(net, more, now, 15, ROUGH);
      const rows = rowsOf(net, end, unknownsOf(net, end, now), now);
      const off = rows
        .filter(r => r.reading !== undefined && net.readings[r.reading]?.photo === photo.id)
        .map(r => Math.abs(r.off) / r.sigma)
        .sort((p, q) => p - q);
      if ((off[Math.floor(off.length / 2)] ?? 0) > MISFIT) continue;
      const cost = costOf(rows);
      // as good as it gets: no other is looked at
      if (cost < FITS * rows.length) return ok({ state: end, freed: now });
      if (!fits && cost < before + WRONG_MARKS && (!best || cost < best.cost)) best = { state: end, cost };
    }
    if (best) return ok({ state: best.state, freed: now });
    return err(
      `the marks on the photo "${photo.name}" do not agree with the rest: look whether each is at its own point`,
    );
  };
  let open: ReadonlySet<number> = new Set();
  /** the next photo that can be set up: those first that see most of what is placed; one that does not fit yet may when more is placed */
  const another = (fits: boolean): boolean =>
    [...waiting]
      .sort((p, q) => seenBy(q) - seenBy(p))
      .some(i => {
        const made = withPhoto(i, fits);
        if (!made.ok) {
          faults.set(i, made.fault);
          return false;
        }
        ({ state, freed } = made.value);
        waiting.delete(i);
        faults.delete(i);
        return true;
      });
  for (let again = true; again; ) {
    again = another(true);
    if (again) continue;
    if (state.at.size === net.points.length) {
      again = another(false);
      continue;
    }
    // what no photo sees, or what a photo that waits may want
    const built = byTape(net, known, tapes, state.at, state.cameras);
    const [first] = built;
    if (!first || first.at.size === state.at.size) {
      again = another(false);
      continue;
    }
    open = new Set([...open, ...differing(built.filter(b => b.cost - first.cost < ALIKE))]);
    state = { at: first.at, cameras: state.cameras };
    again = waiting.size > 0;
  }
  return { state: mended(net, known, tapes, state, freed), freed, faults, open };
}

/**
 * A state with points that readings do not want where they stand put where those want them more, one after another: by their other place
 * among the tapes, or where rays meet.
 */
function mended(
  net: Net,
  known: readonly Known[],
  tapes: readonly (readonly Tape[])[],
  from: State,
  freed: ReadonlyMap<number, Freed>,
): State {
  const ends = (r: Net['readings'][number]): readonly number[] =>
    [r.from, r.to, r.point].flatMap(id => (id === undefined ? [] : (net.index.get(id) ?? [])));
  let state = from;
  for (let round = 0; round < MENDS; round++) {
    const unknowns = unknownsOf(net, state, freed);
    const rows = rowsOf(net, state, unknowns, freed);
    const cost = costOf(rows);
    if (cost < FITS * rows.length) return state;
    const own = new Map<number, number>();
    for (const r of rows) {
      const reading = r.reading === undefined ? undefined : net.readings[r.reading];
      if (reading) for (const i of ends(reading)) own.set(i, (own.get(i) ?? 0) + (r.off / r.sigma) ** 2);
    }
    let better: State | undefined;
    const movable = [...own].filter(([i]) => known[i]?.some(x => x === undefined));
    for (const [i] of movable.sort((a, b) => b[1] - a[1]).slice(0, WORST)) {
      const mine = toPlaced(tapes[i], state.at);
      const ray = byRays(net, state, known[i] ?? [], i);
      const ways = [
        ...(ray ? [ray] : []),
        ...(mine.length > 0 ? placesOf(known[i] ?? [], mine) : []).map(w => w.at),
      ];
      const now = state.at.get(i) as Vec3;
      /** what its own tapes and marks have against a place */
      const against = (p: Vec3): number =>
        mine.reduce((sum, t) => sum + ((length3(sub3(p, t.to)) - t.mm) / t.sigma) ** 2, 0) +
        markedAt(net, state.cameras, i, p);
      const most = against(now) - ALIKE;
      for (const p of ways) {
        if (length3(sub3(p, now)) < SAME || against(p) > most) continue;
        const tried = settled(
          net,
          { at: new Map([...state.at, [i, p]]), cameras: state.cameras },
          freed,
          6,
          ROUGH,
        );
        const after = rowsOf(net, tried, unknownsOf(net, tried, freed), freed);
        if (after.length === rows.length && costOf(after) < cost - BETTER) {
          better = tried;
          break;
        }
      }
      if (better) break;
    }
    if (!better) return state;
    state = better;
  }
  return state;
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
