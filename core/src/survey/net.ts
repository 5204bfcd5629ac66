import type { Vec3 } from '../geometry';
import {
  READING_SIGMA,
  type Rig,
  type Survey,
  type SurveyPoint,
  type WholeSurvey,
  wholeSurvey,
} from '../rig';

export const AXES = ['x', 'y', 'z'] as const;
export type Axis = (typeof AXES)[number];

export const READING_KINDS = ['distance', 'height', 'offset', 'pixel'] as const;
export type ReadingKind = (typeof READING_KINDS)[number];

/** One number that was read: a tape distance, a height, an offset, or one of the two coordinates of a mark on a photo. */
export interface Reading {
  readonly kind: ReadingKind;
  readonly id?: string;
  readonly from?: string;
  readonly to?: string;
  readonly point?: string;
  readonly photo?: string;
  /** of an offset x or y; of a mark u (right) or v (down) */
  readonly axis?: 'x' | 'y' | 'u' | 'v';
  /** mm, or px of a mark */
  readonly value: number;
  readonly sigma: number;
}

/** A point with what is known of it before anything is adjusted. */
export interface NetPoint extends Pick<SurveyPoint, 'id' | 'name' | 'mount' | 'corner'> {
  /** coordinates that are held; with `sigma` they are only known as well as that */
  readonly held: readonly (number | undefined)[];
  readonly sigma?: number;
  /** where it was taken to be before the survey: only tells one of two mirrored places from the other */
  readonly hint?: Vec3;
}

export interface Net {
  readonly survey: WholeSurvey;
  readonly points: readonly NetPoint[];
  readonly index: ReadonlyMap<string, number>;
  /** distances, heights, offsets, marks; each in the order of the file */
  readonly readings: readonly Reading[];
}

/** What a rig knew of the place that a point stands for. */
function hintOf(p: SurveyPoint, rig: Pick<Rig, 'mounts' | 'components'> | undefined): Vec3 | undefined {
  if (p.mount !== undefined) return rig?.mounts.find(m => m.id === p.mount)?.at;
  const part = rig?.components.find(c => c.id === p.corner?.component);
  const corner = p.corner && part?.footprint[p.corner.vertex];
  return part && corner ? [corner[0], corner[1], part.zBottom] : undefined;
}

/** A survey as a net of points and readings; readings that name no point of it were refused when it was read. */
export function netOf(survey: Survey, rig?: Pick<Rig, 'mounts' | 'components'>): Net {
  const whole = wholeSurvey(survey);
  const points = whole.points.map((p): NetPoint => {
    const hint = hintOf(p, rig);
    return {
      id: p.id,
      ...(p.name === undefined ? {} : { name: p.name }),
      ...(p.mount === undefined ? {} : { mount: p.mount }),
      ...(p.corner === undefined ? {} : { corner: p.corner }),
      held: [0, 1, 2].map(k => p.at?.[k] ?? undefined),
      ...(p.sigma === undefined ? {} : { sigma: p.sigma }),
      ...(hint ? { hint } : {}),
    };
  });
  const named = (id: string | undefined) => (id === undefined ? {} : { id });
  const readings: Reading[] = [
    ...whole.distances.map(
      (d): Reading => ({
        kind: 'distance',
        ...named(d.id),
        from: d.from,
        to: d.to,
        value: d.mm,
        sigma: d.sigma ?? READING_SIGMA.distance,
      }),
    ),
    ...whole.heights.map(
      (h): Reading => ({
        kind: 'height',
        ...named(h.id),
        point: h.point,
        value: h.mm,
        sigma: h.sigma ?? READING_SIGMA.height,
      }),
    ),
    ...whole.offsets.map(
      (o): Reading => ({
        kind: 'offset',
        ...named(o.id),
        point: o.point,
        axis: o.axis,
        value: o.mm,
        sigma: o.sigma ?? READING_SIGMA.offset,
      }),
    ),
    ...whole.photos.flatMap(f =>
      f.marks.flatMap(m =>
        (['u', 'v'] as const).map(
          (axis, k): Reading => ({
            kind: 'pixel',
            photo: f.id,
            point: m.point,
            axis,
            value: m.px[k] as number,
            sigma: m.sigma ?? READING_SIGMA.pixel,
          }),
        ),
      ),
    ),
  ];
  return { survey: whole, points, index: new Map(points.map((p, i) => [p.id, i])), readings };
}

/** A point as people call it. */
export const pointName = (p: Pick<NetPoint, 'id' | 'name'>): string => p.name ?? p.id;

/** What is known of each coordinate of a point by itself: held, a height, an offset. */
export type Known = readonly (number | undefined)[];

export const knownOf = (net: Net): readonly Known[] => {
  const sums = net.points.map(() => [0, 1, 2].map(() => ({ sum: 0, weight: 0 })));
  for (const r of net.readings) {
    if (r.kind !== 'height' && r.kind !== 'offset') continue;
    const k = r.kind === 'height' ? 2 : r.axis === 'x' ? 0 : 1;
    const s = sums[net.index.get(r.point ?? '') ?? -1]?.[k];
    if (!s) continue;
    const w = 1 / (r.sigma * r.sigma);
    s.sum += w * r.value;
    s.weight += w;
  }
  return net.points.map((p, i) =>
    [0, 1, 2].map(k => {
      const s = sums[i]?.[k];
      return p.held[k] ?? (s && s.weight > 0 ? s.sum / s.weight : undefined);
    }),
  );
};
