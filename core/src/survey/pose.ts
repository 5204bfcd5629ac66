import { length3, sub3, type Vec2, type Vec3 } from '../geometry';
import type { SurveyPhoto } from '../rig';
import { err, ok, type Result } from '../units';
import type { Camera } from './camera';
import { cameraOf, camerasAbout, camerasOf, focalOf, homographyOf, planeThrough } from './homography';
import type { Net } from './net';
import { costOf, type Freed, ROUGH, rowsOf, settled, unknownsOf } from './solve';

/** A phone's main lens sees so many focal lengths across the longer side of its picture: common practice, no source. */
const LIKELY_FOCAL = 0.75;
/** Focal lengths that are tried beside what the homography asks for, in longer sides of the picture. */
const TRIED = [0.6, 0.8, 1, 1.4, 2] as const;
/** So many starts are settled at all. */
const BEGUN = 9;
/** Rounds with the focal length held, starts that are freed then, and rounds for those. */
const [FIRST_ROUNDS, FREED, LAST_ROUNDS] = [20, 3, 60];

/** Places that stand out of their plane by more than this, beside how far they spread on it, are begun with otherwise too: so many of them. */
const [FLAT, ABOUT] = [0.03, 8];

/** Cameras nearer than this are one, mm. */
const SAME_CAMERA = 40;

/** What of a photo's camera is looked for. */
export const freedOf = (photo: SurveyPhoto): Freed => ({
  focal: photo.focalPx === undefined,
  k1: true,
  likely: LIKELY_FOCAL * Math.max(photo.width, photo.height),
  straight: true,
});

interface Tried {
  readonly camera: Camera;
  readonly cost: number;
}

/** No lens that people have at hand is shorter or longer than this, in longer sides of the picture: common practice, no source. */
const [LEAST_FOCAL, MOST_FOCAL] = [0.3, 5];
/** So many marks at places that are known set a photo up. */
const LEAST = 4;

/**
 * Cameras for a photo from marks at points whose place is known: from a homography of the plane nearest to them, its focal length or likely
 * ones, and from other starts where the points stand out of that plane; settled, those whose marks come nearest first. Few marks may leave
 * two that fit alike. Faults say what is wanting.
 */
export function camerasFor(
  net: Net,
  photo: SurveyPhoto,
  places: ReadonlyMap<number, Vec3>,
): Result<{ readonly cameras: readonly Camera[]; readonly freed: Freed }> {
  const marks = photo.marks.flatMap(m => {
    const at = places.get(net.index.get(m.point) ?? -1);
    return at ? [{ px: m.px, at, point: m.point }] : [];
  });
  if (marks.length < LEAST)
    return err(
      `the photo "${photo.name}" has ${marks.length} marks at points whose place is known and needs ${LEAST}: mark more of them`,
    );
  const fit = planeThrough(marks.map(m => m.at));
  if (!fit)
    return err(
      `the marks on the photo "${photo.name}" lie in one line: mark a point beside that line as well`,
    );
  const { plane } = fit;
  const on = marks.map((m): Vec2 => {
    const d = m.at.map((x, k) => x - (plane.origin[k] as number));
    const along = (v: Vec3): number => d.reduce((s, x, k) => s + x * (v[k] as number), 0);
    return [along(plane.u), along(plane.v)];
  });
  const middle: Vec2 = [photo.width / 2, photo.height / 2];
  const h = homographyOf(
    on,
    marks.map((m): Vec2 => [m.px[0] - middle[0], m.px[1] - middle[1]]),
  );
  if (!h)
    return err(
      `the marks on the photo "${photo.name}" lie in one line: mark a point beside that line as well`,
    );
  const long = Math.max(photo.width, photo.height);
  const own = focalOf(h);
  const likely = LIKELY_FOCAL * long;
  const tried =
    photo.focalPx === undefined
      ? [
          ...(own !== undefined && own > LEAST_FOCAL * long && own < MOST_FOCAL * long ? [own] : []),
          ...TRIED.map(k => k * long),
        ]
      : [photo.focalPx];
  const i = net.survey.photos.findIndex(f => f.id === photo.id);
  const freed = freedOf(photo);
  // the places stand still while the camera finds its own, and nothing else is looked at
  const still: Net = {
    ...net,
    readings: net.readings.filter(
      r => r.photo === photo.id && places.has(net.index.get(r.point ?? '') ?? -1),
    ),
    points: net.points.map((p, k) => ({ id: p.id, held: places.get(k) ?? p.held })),
  };
  const here = new Map(marks.map(m => [net.index.get(m.point) as number, m.at]));
  const whole = cameraOf(
    marks.map(m => m.at),
    marks.map((m): Vec2 => [m.px[0] - middle[0], m.px[1] - middle[1]]),
  );
  const begins = [
    ...tried.flatMap(focal => camerasOf(h, focal, plane)),
    ...(fit.flat > FLAT
      ? camerasAbout(
          marks.map(m => m.at),
          marks.map((m): Vec2 => [m.px[0] - middle[0], m.px[1] - middle[1]]),
          photo.focalPx ?? likely,
          plane,
        ).slice(0, ABOUT)
      : []),
    ...(whole ? [{ ...whole, focalPx: photo.focalPx ?? whole.focalPx }] : []),
  ];
  const settledFrom = (from: Camera, free: Freed, rounds: number): Tried | undefined => {
    const now = new Map([[i, free]]);
    const end = settled(still, { at: here, cameras: new Map([[i, from]]) }, now, rounds, ROUGH);
    const camera = end.cameras.get(i);
    if (!camera) return undefined;
    const rows = rowsOf(still, end, unknownsOf(still, end, now), now);
    const seen = rows.filter(r => r.reading !== undefined);
    // every mark must lie before the camera
    if (seen.length < 2 * marks.length) return undefined;
    return { camera, cost: costOf(seen) };
  };
  /** how far the marks are off as a camera begins */
  const offOf = (from: Camera): number => {
    const now = new Map([[i, { focal: false, k1: false }]]);
    const state = { at: here, cameras: new Map([[i, from]]) };
    const rows = rowsOf(still, state, unknownsOf(still, state, now), now);
    return rows.length < 2 * marks.length ? Number.POSITIVE_INFINITY : costOf(rows);
  };
  // the likeliest with their focal length held first, then the nearest few freed
  const near = begins
    .map(from => ({ from, off: offOf(from) }))
    .sort((a, b) => a.off - b.off)
    .slice(0, BEGUN)
    .flatMap(({ from }) => settledFrom(from, { focal: false, k1: false }, FIRST_ROUNDS) ?? [])
    .sort((a, b) => a.cost - b.cost)
    .slice(0, FREED);
  const free = near.flatMap(t => settledFrom(t.camera, freed, LAST_ROUNDS) ?? []);
  const plausible = free.filter(
    t => t.camera.focalPx > LEAST_FOCAL * long && t.camera.focalPx < MOST_FOCAL * long,
  );
  const all = (plausible.length > 0 ? plausible : near).sort((p, q) => p.cost - q.cost);
  const cameras = all
    .map(t => t.camera)
    .filter((c, k) => !all.slice(0, k).some(t => length3(sub3(t.camera.at, c.at)) < SAME_CAMERA));
  return cameras.length > 0
    ? ok({ cameras, freed })
    : err(`the photo "${photo.name}" cannot be set up from its marks: look whether each is at its own point`);
}
