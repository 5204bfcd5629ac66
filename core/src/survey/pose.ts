import type { Vec2, Vec3 } from '../geometry';
import type { SurveyPhoto } from '../rig';
import { err, ok, type Result } from '../units';
import type { Camera } from './camera';
import { camerasOf, focalOf, homographyOf, planeThrough } from './homography';
import type { Net } from './net';
import { costOf, type Freed, rowsOf, type State, settled, unknownsOf } from './solve';

/** A phone's main lens sees so many focal lengths across the longer side of its picture: common practice, no source. */
const LIKELY_FOCAL = 0.8;
/** Focal lengths that are tried beside what the homography asks for, in longer sides of the picture. */
const TRIED = [0.6, 0.8, 1, 1.4, 2] as const;
/** So many marks at places that are known set a photo up. */
const LEAST = 4;

/**
 * A camera for a photo from marks at points whose place is known: a homography of the plane nearest to them, its focal length or likely
 * ones, and of all these the one whose marks come nearest after settling. Faults say what is wanting.
 */
export function cameraFor(
  net: Net,
  photo: SurveyPhoto,
  places: ReadonlyMap<number, Vec3>,
): Result<{ readonly camera: Camera; readonly freed: Freed }> {
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
          ...(own !== undefined && own > 0.2 * long && own < 8 * long ? [own] : []),
          ...TRIED.map(k => k * long),
        ]
      : [photo.focalPx];
  const i = net.survey.photos.findIndex(f => f.id === photo.id);
  const freed: Freed = { focal: photo.focalPx === undefined, k1: false, likely };
  // the places stand still while the camera finds its own
  const still: Net = {
    ...net,
    points: net.points.map((p, k) => ({ id: p.id, held: places.get(k) ?? p.held })),
  };
  const here = new Map(marks.map(m => [net.index.get(m.point) as number, m.at]));
  let best: { readonly camera: Camera; readonly cost: number } | undefined;
  for (const focal of tried)
    for (const from of camerasOf(h, focal, plane)) {
      const state: State = { at: here, cameras: new Map([[i, from]]) };
      const free = new Map([[i, freed]]);
      const end = settled(still, state, free, 25);
      const camera = end.cameras.get(i);
      if (!camera) continue;
      const rows = rowsOf(still, end, unknownsOf(still, end, free), free).filter(
        r => r.reading === undefined || net.readings[r.reading]?.kind === 'pixel',
      );
      // every mark must lie before the camera
      if (rows.filter(r => r.reading !== undefined).length < 2 * marks.length) continue;
      const cost = costOf(rows);
      if (!best || cost < best.cost) best = { camera, cost };
    }
  return best
    ? ok({ camera: best.camera, freed })
    : err(`the photo "${photo.name}" cannot be set up from its marks: look whether each is at its own point`);
}
