import { factored, inverseOf, length3, sub3, UNTOLD, type Vec3, varianceAt } from '../geometry';
import type { Camera } from './camera';
import { chiSquareAt } from './chi-square';
import { AXES, knownOf, type Net, pointName, type Reading } from './net';
import { ALIKE, apart, doubtful, hintCost, SAME, tapesOf } from './places';
import {
  costOf,
  type Freed,
  normalOf,
  type Row,
  rowsOf,
  type State,
  settled,
  type Unknowns,
  unknownsOf,
} from './solve';
import { continued, type Started, started } from './start';
import { determined, type Loose, whyLoose } from './untold';

/** A reading whose standardized residual is over this is suspected: Baarda's test at 0.1 %, both ways (Ghilani, Adjustment Computations). */
export const SUSPECT = 3.29;
/** Share of variance factors that lie within their bounds where every doubt is as stated. */
const BOUNDS = 0.95;
/** The marks of a photo tell its focal length where its doubt is under this share of it. */
const FOCAL_TOLD = 0.1;
/** They tell its radial coefficient where that is known to this. */
const K1_TOLD = 0.05;
/** Variances and covariances of a place, mm², row by row. */
export type Covariance = readonly [Vec3, Vec3, Vec3];

export interface AdjustedPoint {
  readonly id: string;
  readonly at: Vec3;
  /** one standard deviation on each axis, mm; nought where it is held */
  readonly sigma: Vec3;
  readonly covariance: Covariance;
}
export interface AdjustedPhoto {
  readonly id: string;
  readonly focalPx: number;
  readonly k1: number;
  readonly at: Vec3;
  /** turn of the camera: its right, down and forward in the vehicle's frame */
  readonly turn: readonly [Vec3, Vec3, Vec3];
  readonly rmsPx: number;
}
export interface AdjustedReading extends Reading {
  /** computed less read, mm or px */
  readonly residual: number;
  /** residual beside its own doubt; nought where no other reading holds this one */
  readonly standardised: number;
  /** share of it that the other readings hold, 0 to 1 */
  readonly redundancy: number;
}
export interface Adjustment {
  readonly points: readonly AdjustedPoint[];
  readonly photos: readonly AdjustedPhoto[];
  /** readings that take part, in the order of the file */
  readonly readings: readonly AdjustedReading[];
  /** places in `readings`, worst first */
  readonly suspects: readonly number[];
  /** sum of squares in their doubts, a degree of freedom; one where doubts are as stated, nought where nothing is left over */
  readonly varianceFactor: number;
  /** between these it lies 19 times of 20 where all is as stated; missing without freedom */
  readonly varianceBounds?: readonly [number, number];
  readonly freedom: number;
  readonly loose: readonly Loose[];
  /** for what to measure next: the state, its unknowns and their covariances */
  readonly solution: Solution;
}
export interface Solution {
  readonly net: Net;
  readonly state: State;
  readonly unknowns: Unknowns;
  /** row by row */
  readonly cofactors: Float64Array;
}

/** Cameras freed of their likely focal length and of the nought that their radial coefficient is held near, where the marks tell them. */
function camerasFreed(
  net: Net,
  from: State,
  freed: ReadonlyMap<number, Freed>,
): { readonly state: State; readonly freed: ReadonlyMap<number, Freed> } {
  if (freed.size === 0) return { state: from, freed };
  // as if nothing were likely: where that is told well enough it stays so
  let now: ReadonlyMap<number, Freed> = new Map(
    [...freed].map(([i, f]) => [i, { focal: f.focal, k1: f.k1 }]),
  );
  for (let again = true; again; ) {
    again = false;
    const unknowns = unknownsOf(net, from, now);
    const { n } = normalOf(rowsOf(net, from, unknowns, now), unknowns.count);
    const factor = factored(n, unknowns.count);
    const doubt = (u: number | undefined): number =>
      u === undefined
        ? 0
        : (factor.rest[u] as number) <= UNTOLD
          ? Number.POSITIVE_INFINITY
          : Math.sqrt(varianceAt(factor, u));
    now = new Map(
      [...now].map(([i, f]) => {
        const [u, own] = [unknowns.camera.get(i), freed.get(i)];
        const focal = from.cameras.get(i)?.focalPx ?? 0;
        const likely = f.likely ?? (doubt(u?.focal) < FOCAL_TOLD * focal ? undefined : own?.likely);
        const straight = f.straight ?? (doubt(u?.k1) < K1_TOLD ? undefined : own?.straight);
        if (likely !== f.likely || straight !== f.straight) again = true;
        return [
          i,
          { focal: f.focal, k1: f.k1, ...(likely ? { likely } : {}), ...(straight ? { straight } : {}) },
        ];
      }),
    );
  }
  return { state: settled(net, from, now), freed: now };
}

/**
 * One weighted least-squares adjustment of every reading at once: tape distances, heights, offsets and marks on photos; with covariances,
 * redundancy numbers, standardized residuals and the variance factor with its bounds. Places in mm in the vehicle's frame.
 * What no reading tells is left out and named in `loose`. Source: Ghilani, Adjustment Computations (observation equations, redundancy,
 * data snooping after Baarda); Hartley and Zisserman, Multiple View Geometry (cameras). `last`: the adjustment before a reading was added or
 * changed, which is begun from where it still has a place for everything.
 */
export function adjusted(net: Net, last?: Adjustment): Adjustment {
  const from = last && startedFrom(net, last);
  const begins = (from ? [from] : started(net))
    .map(begun => {
      const first = settled(net, begun.state, begun.freed);
      const rows = rowsOf(net, first, unknownsOf(net, first, begun.freed), begun.freed);
      // what sets more points is better than what merely fits
      return { begun, first, cost: costOf(rows) + hintCost(net, first.at) - 1e3 * rows.length };
    })
    .sort((p, q) => p.cost - q.cost);
  const [{ begun, first, cost }, second] = begins as [(typeof begins)[0], (typeof begins)[0]?];
  const alike = second !== undefined && second.cost - cost < ALIKE;
  const loose: Loose[] = [];
  const sound = determined(net, first, begun.freed);
  loose.push(...sound.loose);
  let { state, freed } = camerasFreed(net, sound.state, begun.freed);
  if (sound.loose.length > 0 && freed === begun.freed) state = settled(net, state, freed);
  if (sound.adrift !== undefined) loose.push({ why: sound.adrift });
  net.points.forEach((p, i) => {
    if (!state.at.has(i) && !loose.some(l => l.point === p.id))
      loose.push({ point: p.id, why: whyLoose(net, i, state.at) });
  });
  for (const [i, why] of begun.faults) loose.push({ photo: net.survey.photos[i]?.id ?? '', why });
  const elsewhere = doubtful(net, knownOf(net), tapesOf(net), state.at, state.cameras);
  for (const i of state.at.keys())
    if (
      // where it was taken to be tells one side from the other
      net.points[i]?.hint === undefined &&
      (elsewhere.has(i) ||
        begun.open.has(i) ||
        (alike && second?.first.at.has(i) && apart(first.at, second.first.at, i) > SAME))
    )
      loose.push({
        point: net.points[i]?.id ?? '',
        why: 'may as well be on the other side of a line through the points that it is measured from: read a distance to a point off that line',
      });
  if (sound.adrift !== undefined) {
    // without a datum no place means anything
    state = { at: new Map(), cameras: new Map() };
    freed = new Map();
  }
  const unknowns = unknownsOf(net, state, freed);
  const rows = rowsOf(net, state, unknowns, freed);
  const { n } = normalOf(rows, unknowns.count);
  const cofactors = inverseOf(factored(n, unknowns.count));
  return told({ net, state, unknowns, cofactors }, rows, loose);
}

/**
 * The places and cameras of another adjustment as a start, but for those that it had something to say against; nothing where it had no place
 * at all, or where they do not suit any more.
 */
function startedFrom(net: Net, { loose, solution }: Adjustment): Started | undefined {
  const unsure = new Set(loose.flatMap(l => l.point ?? l.photo ?? []));
  if (loose.some(l => l.point === undefined && l.photo === undefined)) return undefined;
  const at = new Map<number, Vec3>();
  for (const [i, p] of net.points.entries()) {
    const known = unsure.has(p.id) ? undefined : solution.state.at.get(solution.net.index.get(p.id) ?? -1);
    if (known) at.set(i, known.map((x, k) => p.held[k] ?? x) as unknown as Vec3);
  }
  const cameras = new Map<number, Camera>();
  for (const [i, f] of net.survey.photos.entries()) {
    const before = solution.net.survey.photos.findIndex(g => g.id === f.id);
    const camera = unsure.has(f.id) ? undefined : solution.state.cameras.get(before);
    if (camera) cameras.set(i, camera);
  }
  return continued(net, { at, cameras });
}

/** How well a combination of unknowns is known: its variance. */
export const varianceOf = (
  { unknowns: { count }, cofactors }: Pick<Solution, 'unknowns' | 'cofactors'>,
  by: Row['by'],
): number =>
  by.reduce(
    (s, [i, a]) => s + by.reduce((t, [j, b]) => t + a * b * (cofactors[i * count + j] as number), 0),
    0,
  );

function told(solution: Solution, rows: readonly Row[], loose: readonly Loose[]): Adjustment {
  const { net, state, unknowns, cofactors } = solution;
  const { count } = unknowns;
  const covariance = (i: number): Covariance =>
    AXES.map((_, a) =>
      AXES.map((_x, b) => {
        const [p, q] = [unknowns.point.get(i)?.[a], unknowns.point.get(i)?.[b]];
        return p === undefined || q === undefined ? 0 : (cofactors[p * count + q] as number);
      }),
    ) as unknown as Covariance;
  const readings = rows.flatMap((row): AdjustedReading[] => {
    const r = row.reading === undefined ? undefined : net.readings[row.reading];
    if (!r) return [];
    const redundancy = Math.min(1, Math.max(0, 1 - varianceOf(solution, row.by) / row.sigma ** 2));
    return [
      {
        ...r,
        residual: -row.off,
        redundancy,
        standardised: redundancy > 1e-3 ? -row.off / row.sigma / Math.sqrt(redundancy) : 0,
      },
    ];
  });
  const freedom = rows.length - count;
  const share = (1 - BOUNDS) / 2;
  return {
    points: net.points.flatMap(({ id }, i) => {
      const at = state.at.get(i);
      if (!at) return [];
      const c = covariance(i);
      const sigma = c.map((row, k) => Math.sqrt(Math.max(0, row[k] as number))) as unknown as Vec3;
      return [{ id, at, sigma, covariance: c }];
    }),
    photos: [...state.cameras].map(([i, c]) => {
      const id = net.survey.photos[i]?.id ?? '';
      const mine = readings.filter(r => r.photo === id);
      return {
        id,
        focalPx: c.focalPx,
        k1: c.k1,
        at: c.at,
        turn: c.turn,
        rmsPx: Math.sqrt(mine.reduce((s, r) => s + r.residual ** 2, 0) / Math.max(1, mine.length / 2)),
      };
    }),
    readings,
    suspects: readings
      .map((r, i) => ({ i, w: Math.abs(r.standardised) }))
      .filter(x => x.w > SUSPECT)
      .sort((a, b) => b.w - a.w)
      .map(x => x.i),
    varianceFactor: freedom > 0 ? costOf(rows) / freedom : 0,
    ...(freedom > 0
      ? {
          varianceBounds: [
            chiSquareAt(share, freedom) / freedom,
            chiSquareAt(1 - share, freedom) / freedom,
          ] as const,
        }
      : {}),
    freedom,
    loose: [...loose, ...together(net, state)],
    solution,
  };
}

/** Points that came to lie on one place. */
function together(net: Net, state: State): readonly Loose[] {
  const all = [...state.at];
  return all.flatMap(([i, a], k) =>
    all.slice(k + 1).flatMap(([j, b]): Loose[] => {
      if (length3(sub3(a, b)) > 0.5) return [];
      const [p, q] = [net.points[i], net.points[j]] as [Net['points'][number], Net['points'][number]];
      return [{ point: q.id, why: `lies on one place with ${pointName(p)}: is it the same point twice?` }];
    }),
  );
}

/** What a reading seems to want to be, by all the others: as it was read, less its own error. */
export const wanted = (r: AdjustedReading): number =>
  r.redundancy > 1e-3 ? r.value + r.residual / r.redundancy : r.value;
