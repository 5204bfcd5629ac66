import * as yup from 'yup';
import { type Survey, wholeSurvey } from '../rig';
import { id, list, num, number, oneOf, positive } from './fields';

const sigma = () => num().moreThan(0).max(1000).optional();
/** A list that may be left out: nothing of the kind was read. */
const some = <T extends yup.Schema>(of: T) => list(of).optional().default(undefined);

export const surveySchema = yup.object({
  points: some(
    yup.object({
      id: id(),
      name: yup.string(),
      at: yup
        .array()
        .of(num().nullable().defined())
        .length(3, 'must be three coordinates, null where one is not known')
        .optional(),
      mount: yup.string(),
      corner: yup
        .object({ component: id(), vertex: number().integer().min(0) })
        .optional()
        .default(undefined),
      sigma: sigma(),
    }),
  ),
  distances: some(yup.object({ id: yup.string(), from: id(), to: id(), mm: positive(), sigma: sigma() })),
  heights: some(yup.object({ id: yup.string(), point: id(), mm: number(), sigma: sigma() })),
  offsets: some(
    yup.object({ id: yup.string(), point: id(), axis: oneOf(['x', 'y']), mm: number(), sigma: sigma() }),
  ),
  photos: some(
    yup.object({
      id: id(),
      name: yup.string().defined(),
      width: positive(),
      height: positive(),
      focalPx: num().moreThan(0).optional(),
      marks: list(
        yup.object({
          point: id(),
          px: yup.tuple([number(), number()]).required(),
          sigma: sigma(),
        }),
      ),
    }),
  ),
});

/** Faults of a survey that no single key shows, with the holes and parts that its points may stand for; `path` is where it stands. */
export function surveyFaults(
  given: Survey,
  path: string,
  say: (path: string, fault: string) => void,
  known?: { readonly mounts: ReadonlySet<string>; readonly corners: ReadonlyMap<string, number> },
): void {
  const survey = wholeSurvey(given);
  const points = new Set<string>();
  const holes = new Map<string, string>();
  survey.points.forEach((p, i) => {
    const at = `${path}.points[${i}]`;
    if (points.has(p.id)) say(`${at}.id`, `is "${p.id}", which an earlier entry already has`);
    points.add(p.id);
    if (p.mount !== undefined) {
      if (known && !known.mounts.has(p.mount))
        say(`${at}.mount`, `names hole "${p.mount}", which does not exist`);
      const other = holes.get(p.mount);
      if (other !== undefined) say(`${at}.mount`, `is hole "${p.mount}", which point "${other}" is already`);
      holes.set(p.mount, p.id);
    }
    if (p.corner && known) {
      const corners = known.corners.get(p.corner.component);
      if (corners === undefined)
        say(`${at}.corner.component`, `names component "${p.corner.component}", which does not exist`);
      else if (p.corner.vertex >= corners)
        say(`${at}.corner.vertex`, `is ${p.corner.vertex}, but that part has ${corners} corners`);
    }
  });
  const there = (where: string, id: string): void => {
    if (!points.has(id)) say(where, `names point "${id}", which does not exist`);
  };
  survey.distances.forEach((d, i) => {
    there(`${path}.distances[${i}].from`, d.from);
    there(`${path}.distances[${i}].to`, d.to);
    if (d.from === d.to) say(`${path}.distances[${i}].to`, `is "${d.to}", where it began`);
  });
  survey.heights.forEach((h, i) => {
    there(`${path}.heights[${i}].point`, h.point);
  });
  survey.offsets.forEach((o, i) => {
    there(`${path}.offsets[${i}].point`, o.point);
  });
  const photos = new Set<string>();
  survey.photos.forEach((f, i) => {
    const at = `${path}.photos[${i}]`;
    if (photos.has(f.id)) say(`${at}.id`, `is "${f.id}", which an earlier entry already has`);
    photos.add(f.id);
    const marked = new Set<string>();
    f.marks.forEach((m, k) => {
      there(`${at}.marks[${k}].point`, m.point);
      if (marked.has(m.point)) say(`${at}.marks[${k}].point`, `marks point "${m.point}" a second time`);
      marked.add(m.point);
      if (m.px[0] < 0 || m.px[1] < 0 || m.px[0] > f.width || m.px[1] > f.height)
        say(`${at}.marks[${k}].px`, `is ${m.px.join(', ')}, outside a picture of ${f.width} by ${f.height}`);
    });
  });
}
