import { length3, sub3, type Vec3 } from '../geometry';
import { rayOf } from './camera';
import { type Known, knownOf, type Net } from './net';
import { cameraFor } from './pose';
import { scaled } from './scaling';
import type { Freed, State } from './solve';

/** So many half-built nets are kept side by side while a mirrored place is not yet told from the other. */
const BEAM = 24;
/** Places nearer than this are one, mm. */
const SAME = 25;
/** A hint tells no more than this, mm: what was typed for a hole before may be well off. */
const HINT = 150;
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
    beam = grown.sort((a, b) => a.cost - b.cost).slice(0, BEAM);
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

/** A net with a place for all that readings can place, near enough to be adjusted; and why a photo could not be set up. */
export interface Started {
  readonly state: State;
  readonly freed: ReadonlyMap<number, Freed>;
  /** by photo */
  readonly faults: ReadonlyMap<number, string>;
  /** points that are as well somewhere else, mirrored: no reading tells which */
  readonly mirrored: readonly number[];
}

/**
 * Start values without anyone's help: what is held or measured by itself, then point after point by tapes to what is placed (every
 * mirrored place kept until a reading tells it from the other), whole nets by classical scaling where nothing is placed yet, photos
 * by homography, and points by their rays.
 */
export function started(net: Net): Started {
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
  const [best, second] = built;
  const places = new Map(best?.at ?? at);
  const mirrored =
    best && second && second.cost - best.cost < 9
      ? [...best.at.keys()].filter(
          i => length3(sub3(best.at.get(i) as Vec3, second.at.get(i) as Vec3)) > SAME,
        )
      : [];

  const cameras = new Map<number, ReturnType<typeof cameraFor> & { ok: true }>();
  const faults = new Map<number, string>();
  for (let again = true; again; ) {
    again = false;
    net.survey.photos.forEach((f, i) => {
      if (cameras.has(i)) return;
      const made = cameraFor(net, f, places);
      if (made.ok) {
        cameras.set(i, made);
        faults.delete(i);
        again = true;
      } else faults.set(i, made.fault);
    });
    net.points.forEach((_, i) => {
      if (places.has(i)) return;
      const rays = net.survey.photos.flatMap((f, k) => {
        const camera = cameras.get(k)?.value.camera;
        const mark = f.marks.find(m => net.index.get(m.point) === i);
        return camera && mark ? [{ from: camera.at, way: rayOf(camera, [f.width, f.height], mark.px) }] : [];
      });
      const k = known[i] ?? [];
      const axis = [2, 0, 1].find(a => k[a] !== undefined);
      const [ray] = rays;
      if (ray && axis !== undefined && Math.abs(ray.way[axis] as number) > 0.05 * length3(ray.way)) {
        const s = ((k[axis] as number) - (ray.from[axis] as number)) / (ray.way[axis] as number);
        places.set(i, ray.way.map((w, n) => k[n] ?? (ray.from[n] as number) + s * w) as unknown as Vec3);
        again = true;
      } else if (rays.length > 1) {
        const p = whereRaysMeet(rays);
        if (p) {
          places.set(i, p);
          again = true;
        }
      }
    });
    if (again) {
      const more = byTape(net, known, tapes, places)[0];
      for (const [i, p] of more?.at ?? []) places.set(i, p);
    }
  }
  return {
    state: { at: places, cameras: new Map([...cameras].map(([i, c]) => [i, c.value.camera])) },
    freed: new Map([...cameras].map(([i, c]) => [i, c.value.freed])),
    faults,
    mirrored,
  };
}
