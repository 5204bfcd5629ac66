import { command, freshId, type PlanDocument } from '../plan';
import { type Survey, type SurveyPhoto, type SurveyPoint, type WholeSurvey, wholeSurvey } from '../rig';
import { err, ok, type Result, roundTo } from '../units';
import { type Adjustment, adjusted } from './adjust';
import { type Net, netOf, pointName } from './net';

/** Lists of readings that are typed. */
export const READING_LISTS = ['distances', 'heights', 'offsets'] as const;
export type ReadingList = (typeof READING_LISTS)[number];
type Entry<L extends ReadingList> = WholeSurvey[L][number];

/** A hole follows its point once that is known this well, mm on its worst axis: a half-typed net moves nothing. */
const FOLLOWS = 10;
/** Places are kept to this many decimals of a mm, doubts too. */
const DECIMALS = 2;

/** The net of a document's survey, with what its rig knows. */
export const netIn = ({ rig }: Pick<PlanDocument, 'rig'>): Net => netOf(rig.survey ?? {}, rig);

/** So few readings may be other ones for a survey to be taken for the same. */
const OTHERS = 4;
/** Whether two nets are one survey before and after a reading or two. */
function hardlyDiffer(a: Net, b: Net): boolean {
  const of = ({ readings }: Net): ReadonlySet<string> =>
    new Set(readings.map(r => [r.kind, r.from ?? r.point, r.to ?? r.photo, r.axis, r.value].join()));
  const [p, q] = [of(a), of(b)];
  const missing = (x: ReadonlySet<string>, y: ReadonlySet<string>): number =>
    [...x].filter(k => !y.has(k)).length;
  return missing(p, q) <= OTHERS && missing(q, p) <= OTHERS && p.size > OTHERS;
}

const known = new WeakMap<Survey, Adjustment>();
let last: Adjustment | undefined;
/** A document's survey adjusted, once for as long as nothing of it changes. */
export function adjustmentOf(doc: Pick<PlanDocument, 'rig'>): Adjustment {
  const { survey } = doc.rig;
  if (!survey) return adjusted(netIn(doc));
  const before = known.get(survey);
  if (before) return before;
  const net = netIn(doc);
  // what was adjusted last is most likely the same survey with one reading more; a start that leads astray is not taken
  const near = last && hardlyDiffer(net, last.solution.net) ? adjusted(net, last) : undefined;
  const made = near && near.suspects.length === 0 ? near : adjusted(net);
  known.set(survey, made);
  last = made;
  return made;
}

/** The holes where their points are, as far as those are known: the places, and how well they are. */
export function followed(doc: PlanDocument): PlanDocument {
  const a = adjustmentOf(doc);
  const loose = new Set(a.loose.map(l => l.point));
  const at = new Map(
    a.points.flatMap(p => {
      const mount = a.solution.net.points.find(q => q.id === p.id)?.mount;
      return mount !== undefined && !loose.has(p.id) && Math.max(...p.sigma) <= FOLLOWS
        ? [[mount, p] as const]
        : [];
    }),
  );
  if (at.size === 0) return doc;
  const mounts = doc.rig.mounts.map(m => {
    const p = at.get(m.id);
    if (!p) return m;
    const [x, y, z] = p.at.map(v => roundTo(v, DECIMALS)) as [number, number, number];
    // what is held is known as well as a drawing tells it
    const [a1, b1, c1] = p.sigma.map(s => Math.max(0.01, roundTo(s, DECIMALS))) as [number, number, number];
    return { ...m, at: [x, y, z] as const, sigma: [a1, b1, c1] as const };
  });
  return { ...doc, rig: { ...doc.rig, mounts } };
}

/** The document with its survey changed, and its holes where that puts them. */
const withSurvey = (doc: PlanDocument, change: (s: WholeSurvey) => Survey): PlanDocument =>
  followed({ ...doc, rig: { ...doc.rig, survey: change(wholeSurvey(doc.rig.survey)) } });

/** The survey with a point for what a reading is taken to: one of its own, or a hole of the vehicle by its id. */
function withPoint(doc: PlanDocument, s: WholeSurvey, id: string): Result<WholeSurvey> {
  if (s.points.some(p => p.id === id)) return ok(s);
  if (!doc.rig.mounts.some(m => m.id === id)) return err(`there is no point and no hole ${id}`);
  return ok({ ...s, points: [...s.points, { id, mount: id }] });
}

const nameIn = (doc: PlanDocument, id: string): string => {
  const p = wholeSurvey(doc.rig.survey).points.find(q => q.id === id);
  return p ? pointName(p) : id;
};

/** One more reading. Points that are not in the survey yet are holes of the vehicle, and come with it. */
export const addReading = command<
  { [L in ReadingList]: { readonly list: L; readonly reading: Omit<Entry<L>, 'id'> } }[ReadingList]
>({
  id: 'survey.read',
  label: () => 'add a reading',
  run: (doc, { list, reading }) => {
    const of = list === 'distances' ? [reading.from, reading.to] : [reading.point];
    if (new Set(of).size < of.length) return err('A distance goes from one point to another.');
    let s = wholeSurvey(doc.rig.survey);
    for (const id of of) {
      const r = withPoint(doc, s, id);
      if (!r.ok) return r;
      s = r.value;
    }
    const ids = READING_LISTS.flatMap((l): readonly { readonly id?: string }[] => s[l]).flatMap(r =>
      r.id === undefined ? [] : [{ id: r.id }],
    );
    const entry = { ...reading, id: freshId('r', ids) };
    return ok(withSurvey(doc, () => ({ ...s, [list]: [...s[list], entry] })));
  },
});

/** A reading read again. */
export const changeReading = command<{
  readonly list: ReadingList;
  readonly index: number;
  readonly mm: number;
}>({
  id: 'survey.change',
  label: () => 'change a reading',
  run: (doc, { list, index, mm }) =>
    withSurvey(doc, s => ({
      ...s,
      [list]: (s[list] as readonly Entry<ReadingList>[]).map((r, i) => (i === index ? { ...r, mm } : r)),
    })),
});

/** A reading taken out. */
export const removeReading = command<{ readonly list: ReadingList; readonly index: number }>({
  id: 'survey.unread',
  label: () => 'take a reading out',
  run: (doc, { list, index }) =>
    withSurvey(doc, s => ({
      ...s,
      [list]: (s[list] as readonly Entry<ReadingList>[]).filter((_, i) => i !== index),
    })),
});

/** A template that is held up shows where a hole is to about this, mm: common practice, no source. */
const TEMPLATE_SIGMA = 0.7;

/**
 * What a template that was held up showed: the hole lies so far rearward and to the right of where it was drawn. It goes into the survey as two
 * offsets, known as well as a template shows; a hole that is not surveyed yet comes in with its height as it was taken to be.
 */
export const noteMisfit = command<{ readonly mount: string; readonly by: readonly [number, number] }>({
  id: 'survey.misfit',
  label: (_, { mount }) => `move hole ${mount} by its template`,
  run: (doc, { mount, by }) => {
    const hole = doc.rig.mounts.find(m => m.id === mount);
    if (!hole) return err(`there is no hole ${mount} in the vehicle`);
    const r = withPoint(doc, wholeSurvey(doc.rig.survey), mount);
    if (!r.ok) return r;
    const s = r.value;
    const point = s.points.find(p => p.mount === mount)?.id ?? mount;
    const ids = READING_LISTS.flatMap((l): readonly { readonly id?: string }[] => s[l]).flatMap(e =>
      e.id === undefined ? [] : [{ id: e.id }],
    );
    const x = freshId('r', ids);
    const second = freshId('r', [...ids, { id: x }]);
    const third = freshId('r', [...ids, { id: x }, { id: second }]);
    const high = s.heights.some(h => h.point === point);
    const [hx, hy, hz] = hole.at;
    const mm = (v: number): number => roundTo(v, DECIMALS);
    return ok(
      withSurvey(doc, () => ({
        ...s,
        offsets: [
          ...s.offsets,
          { id: x, point, axis: 'x' as const, mm: mm(hx + by[0]), sigma: TEMPLATE_SIGMA },
          { id: second, point, axis: 'y' as const, mm: mm(hy + by[1]), sigma: TEMPLATE_SIGMA },
        ],
        heights: high ? s.heights : [...s.heights, { id: third, point, mm: mm(hz) }],
      })),
    );
  },
});

/** One more point that is no hole: a mark on the ground, a corner, a bolt head that can be hooked on. */
export const addPoint = command<{ readonly name: string }>({
  id: 'survey.point',
  label: (_, { name }) => `add point ${name}`,
  run: (doc, { name }) => {
    const s = wholeSurvey(doc.rig.survey);
    const taken = [...s.points, ...doc.rig.mounts];
    if (s.points.some(p => pointName(p) === name)) return err(`There is a point ${name} already.`);
    const point: SurveyPoint = { id: freshId('p', taken), name };
    return ok(withSurvey(doc, () => ({ ...s, points: [...s.points, point] })));
  },
});

/** A point whose place is taken as it stands, wholly or in some coordinates; `null` lets one go. */
export const holdPoint = command<{ readonly point: string; readonly at: readonly (number | null)[] | null }>({
  id: 'survey.hold',
  label: (doc, { point, at }) => `${at ? 'hold' : 'let go'} ${nameIn(doc, point)}`,
  run: (doc, { point, at }) => {
    const r = withPoint(doc, wholeSurvey(doc.rig.survey), point);
    if (!r.ok) return r;
    return ok(
      withSurvey(doc, () => ({
        ...r.value,
        points: r.value.points.map(p => {
          if (p.id !== point) return p;
          const { at: _, ...free } = p;
          return at ? { ...free, at } : free;
        }),
      })),
    );
  },
});

/** A point taken out, with all that was read to it. */
export const removePoint = command<{ readonly point: string }>({
  id: 'survey.unpoint',
  label: (doc, { point }) => `take ${nameIn(doc, point)} out of the survey`,
  run: (doc, { point }) =>
    withSurvey(doc, s => ({
      ...s,
      points: s.points.filter(p => p.id !== point),
      distances: s.distances.filter(d => d.from !== point && d.to !== point),
      heights: s.heights.filter(h => h.point !== point),
      offsets: s.offsets.filter(o => o.point !== point),
      photos: s.photos.map(f => ({ ...f, marks: f.marks.filter(m => m.point !== point) })),
    })),
});

/** No picture has fewer or more pixels on a side. */
const [LEAST_SIDE, MOST_SIDE] = [64, 20_000];
/** A full frame of 35 mm film is so long across, mm: what focal lengths are told as if for (CIPA DCG-001, from memory). */
const FILM_DIAGONAL = Math.hypot(36, 24);

/**
 * Focal length in pixels of a picture of that size, from what its file tells: the length that it would be on 35 mm film, mm, which is told by the
 * diagonals. Undefined where that is no length of a lens.
 */
export const focalFromFilm = (mm35: number, width: number, height: number): number | undefined =>
  Number.isFinite(mm35) && mm35 >= 5 && mm35 <= 1500
    ? roundTo((mm35 / FILM_DIAGONAL) * Math.hypot(width, height), 1)
    : undefined;

/** A picture that points are to be marked on. */
export const addPhoto = command<Omit<SurveyPhoto, 'marks'>>({
  id: 'survey.photo',
  label: (_, { name }) => `add photo ${name}`,
  run: (doc, photo) => {
    const s = wholeSurvey(doc.rig.survey);
    if (s.photos.some(p => p.id === photo.id)) return err(`There is a photo ${photo.id} already.`);
    const sides = [photo.width, photo.height];
    if (sides.some(v => !(v >= LEAST_SIDE && v <= MOST_SIDE)))
      return err(
        `A picture of ${sides.join(' by ')} pixels is none to measure on: ${LEAST_SIDE} to ${MOST_SIDE} a side.`,
      );
    return ok(withSurvey(doc, () => ({ ...s, photos: [...s.photos, { ...photo, marks: [] }] })));
  },
});

/** The document with one of its photos changed. */
const withPhoto = (
  doc: PlanDocument,
  s: WholeSurvey,
  id: string,
  change: (p: SurveyPhoto) => SurveyPhoto,
): Result<PlanDocument> =>
  s.photos.some(p => p.id === id)
    ? ok(withSurvey(doc, () => ({ ...s, photos: s.photos.map(p => (p.id === id ? change(p) : p)) })))
    : err(`there is no photo ${id}`);

const photoIn = (doc: PlanDocument, id: string): string =>
  wholeSurvey(doc.rig.survey).photos.find(p => p.id === id)?.name ?? id;

/** A point marked on a picture, or marked anew. A hole that is not in the survey yet comes with it. */
export const markPhoto = command<{
  readonly photo: string;
  readonly point: string;
  readonly px: readonly [number, number];
}>({
  id: 'survey.mark',
  label: (doc, { photo, point }) => `mark ${nameIn(doc, point)} on ${photoIn(doc, photo)}`,
  run: (doc, { photo, point, px }) => {
    const r = withPoint(doc, wholeSurvey(doc.rig.survey), point);
    if (!r.ok) return r;
    const of = r.value.photos.find(p => p.id === photo);
    if (of && !(px[0] >= 0 && px[1] >= 0 && px[0] <= of.width && px[1] <= of.height))
      return err('That place is outside the picture.');
    const mark = { point, px: [roundTo(px[0], 1), roundTo(px[1], 1)] as const };
    return withPhoto(doc, r.value, photo, p => ({
      ...p,
      marks: p.marks.some(m => m.point === point)
        ? p.marks.map(m => (m.point === point ? { ...m, ...mark } : m))
        : [...p.marks, mark],
    }));
  },
});

/** A mark taken off a picture. */
export const unmarkPhoto = command<{ readonly photo: string; readonly point: string }>({
  id: 'survey.unmark',
  label: (doc, { photo, point }) => `remove the mark of ${nameIn(doc, point)} from ${photoIn(doc, photo)}`,
  run: (doc, { photo, point }) =>
    withPhoto(doc, wholeSurvey(doc.rig.survey), photo, p => ({
      ...p,
      marks: p.marks.filter(m => m.point !== point),
    })),
});

/** The focal length of a picture held at so many pixels, or found by the survey (`null`). */
export const holdFocal = command<{ readonly photo: string; readonly focalPx: number | null }>({
  id: 'survey.focal',
  label: (doc, { photo, focalPx }) =>
    `${focalPx === null ? 'find' : 'hold'} the focal length of ${photoIn(doc, photo)}`,
  run: (doc, { photo, focalPx }) => {
    if (focalPx !== null && !(focalPx > 0)) return err('A focal length is more than nought.');
    return withPhoto(doc, wholeSurvey(doc.rig.survey), photo, ({ focalPx: _, ...p }) =>
      focalPx === null ? p : { ...p, focalPx },
    );
  },
});

/** A picture taken out with its marks; the picture itself stays with the plan, so that this can be undone. */
export const removePhoto = command<{ readonly photo: string }>({
  id: 'survey.unphoto',
  label: (doc, { photo }) => `remove photo ${photoIn(doc, photo)}`,
  run: (doc, { photo }) => withSurvey(doc, s => ({ ...s, photos: s.photos.filter(p => p.id !== photo) })),
});
