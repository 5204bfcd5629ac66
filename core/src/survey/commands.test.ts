import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Command, checkDocument, done, type PlanDocument, removeEntry } from '../plan';
import { wholeSurvey } from '../rig';
import {
  addPhoto,
  addPoint,
  addReading,
  adjustmentOf,
  changeReading,
  focalFromFilm,
  holdFocal,
  holdPoint,
  markPhoto,
  noteMisfit,
  READING_LISTS,
  removePhoto,
  removePoint,
  removeReading,
  unmarkPhoto,
} from './index';

const must = <A>(c: Command<A>, doc: PlanDocument, args: A): PlanDocument => {
  const r = done(c, doc, args);
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};
/** A plan with a few holes of Pebble surveyed as they are. */
const HOLES = ['h1lo', 'h1ro', 'h2lo', 'h2ro', 'h2li', 'h3lo', 'h3ro'] as const;

describe('changes of a survey', () => {
  it('leave a sound plan whatever is read, changed, held and taken out', () => {
    const act = fc.record({
      what: fc.constantFrom(
        'tape',
        'height',
        'offset',
        'change',
        'unread',
        'hold',
        'free',
        'point',
        'unpoint',
        'misfit',
        'hole',
      ),
      a: fc.nat(20),
      b: fc.nat(20),
      mm: fc.double({ min: 100, max: 1500, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(act, { minLength: 4, maxLength: 16 }), acts => {
        let doc = demo('pebble');
        for (const { what, a, b, mm } of acts) {
          const points = wholeSurvey(doc.rig.survey).points.map(p => p.id);
          const all = [...new Set([...points, ...HOLES.filter(h => doc.rig.mounts.some(m => m.id === h))])];
          const one = all[a % all.length] ?? 'none';
          const two = all[b % all.length] ?? 'none';
          const list = READING_LISTS[a % 3]!;
          const index = b % (wholeSurvey(doc.rig.survey)[list].length || 1);
          const r =
            what === 'tape'
              ? done(addReading, doc, { list: 'distances', reading: { from: one, to: two, mm } })
              : what === 'height'
                ? done(addReading, doc, { list: 'heights', reading: { point: one, mm } })
                : what === 'offset'
                  ? done(addReading, doc, {
                      list: 'offsets',
                      reading: { point: one, axis: a % 2 ? 'x' : 'y', mm },
                    })
                  : what === 'change'
                    ? done(changeReading, doc, { list, index, mm })
                    : what === 'unread'
                      ? done(removeReading, doc, { list, index })
                      : what === 'hold'
                        ? done(holdPoint, doc, { point: one, at: [mm, null, 200] })
                        : what === 'free'
                          ? done(holdPoint, doc, { point: one, at: null })
                          : what === 'point'
                            ? done(addPoint, doc, { name: `mark ${a}` })
                            : what === 'unpoint'
                              ? done(removePoint, doc, { point: one })
                              : what === 'misfit'
                                ? done(noteMisfit, doc, { mount: HOLES[a % HOLES.length]!, by: [2, -1] })
                                : done(removeEntry, doc, { list: 'mounts', id: HOLES[a % HOLES.length]! });
          if (r.ok) doc = r.value;
        }
        // a hole that bolts are in goes with them or not at all; what is left is sound
        const sound = checkDocument(structuredClone(doc));
        const own = sound.ok
          ? []
          : sound.faults.filter(f => f.path.startsWith('rig.survey') || f.path.includes('sigma'));
        expect(own).toEqual([]);
      }),
      { numRuns: Number(process.env.SOAK_EDITS ?? 60) },
    );
  });
  it('move a hole once it is known, and not before', () => {
    let doc = demo('wren');
    const at = (id: string) => doc.rig.mounts.find(m => m.id === id)!.at;
    const before = at('h2li');
    const tape = (from: string, to: string, off = 0) =>
      must(addReading, doc, {
        list: 'distances',
        reading: { from, to, mm: Math.hypot(...at(from).map((x, k) => x - (at(to)[k] as number))) + off },
      });
    for (const id of ['h1li', 'h1ri']) doc = must(holdPoint, doc, { point: id, at: at(id) });
    doc = must(addReading, doc, { list: 'heights', reading: { point: 'h2li', mm: 301 } });
    doc = tape('h1li', 'h2li', 3);
    expect(at('h2li')).toEqual(before);
    expect(adjustmentOf(doc).loose.map(l => l.point)).toEqual(['h2li']);
    doc = tape('h1ri', 'h2li', 3);
    const now = doc.rig.mounts.find(m => m.id === 'h2li')!;
    expect(now.at[2]).toBeCloseTo(301, 1);
    expect(now.at[0]).toBeGreaterThan(before[0] + 1.5);
    expect(now.sigma?.every(s => s > 0 && s < 10)).toBe(true);
    // its mirrored place on the other side of the two was never taken
    expect(Math.abs(now.at[0] - before[0])).toBeLessThan(10);
  });
  it('take what a template showed as two offsets, each known as well as a template shows', () => {
    const doc = must(noteMisfit, demo('wren'), { mount: 'h1li', by: [2, -3] });
    const hole = doc.rig.mounts.find(m => m.id === 'h1li')!;
    expect(hole.at).toEqual([-278, -106, 300]);
    expect(hole.sigma?.slice(0, 2)).toEqual([0.7, 0.7]);
    expect(done(noteMisfit, doc, { mount: 'none', by: [1, 1] }).ok).toBe(false);
  });
});

describe('photos of a survey', () => {
  const bare = (): PlanDocument =>
    must(removePhoto, must(removePhoto, demo('bramble'), { photo: 'survey-front' }), {
      photo: 'survey-rear',
    });
  const marks = wholeSurvey(demo('bramble').rig.survey).photos[1]!.marks;

  it('are marked point by point until they are set up, and every step leaves a sound plan', () => {
    let doc = must(addPhoto, bare(), { id: 'f', name: 'belly', width: 1000, height: 750 });
    marks.forEach(({ point, px }, i) => {
      doc = must(markPhoto, doc, { photo: 'f', point, px });
      expect(checkDocument(doc).ok).toBe(true);
      const known = adjustmentOf(doc).photos.find(p => p.id === 'f');
      if (i < 3) expect(known).toBeUndefined();
      if (i > 4) expect(known?.rmsPx).toBeLessThan(3);
    });
    // marked anew in its place, not a second time
    const [first] = marks;
    doc = must(markPhoto, doc, { photo: 'f', point: first!.point, px: [10, 20] });
    const [photo] = wholeSurvey(doc.rig.survey).photos;
    expect(photo?.marks).toHaveLength(marks.length);
    expect(photo?.marks[0]?.px).toEqual([10, 20]);
    doc = must(unmarkPhoto, doc, { photo: 'f', point: first!.point });
    expect(wholeSurvey(doc.rig.survey).photos[0]?.marks).toHaveLength(marks.length - 1);
    expect(wholeSurvey(must(removePhoto, doc, { photo: 'f' }).rig.survey).photos).toEqual([]);
  });
  it('bring a hole into the survey that was not in it', () => {
    const doc = must(markPhoto, demo('bramble'), { photo: 'survey-rear', point: 'h5li', px: [500, 700] });
    expect(wholeSurvey(doc.rig.survey).points.some(p => p.mount === 'h5li')).toBe(true);
  });
  it('are refused outside of their pictures, and where they are no pictures to measure on', () => {
    const refused = <A>(c: Command<A>, doc: PlanDocument, args: A): string => {
      const r = done(c, doc, args);
      return r.ok ? '' : r.fault;
    };
    const doc = demo('bramble');
    expect(refused(markPhoto, doc, { photo: 'survey-rear', point: 'h3lo', px: [1001, 3] })).toContain(
      'outside the picture',
    );
    expect(refused(markPhoto, doc, { photo: 'none', point: 'h3lo', px: [1, 3] })).toContain('no photo none');
    expect(refused(markPhoto, doc, { photo: 'survey-rear', point: 'h99', px: [1, 3] })).toContain(
      'no hole h99',
    );
    expect(refused(addPhoto, doc, { id: 'x', name: 'x', width: 3, height: 2 })).toContain('3 by 2 pixels');
    expect(refused(addPhoto, doc, { id: 'survey-rear', name: 'x', width: 300, height: 200 })).toContain(
      'already',
    );
    expect(refused(holdFocal, doc, { photo: 'survey-rear', focalPx: 0 })).toContain('more than nought');
  });
  it('have their focal length held or found, within 5 % of the lens that they were drawn through', () => {
    for (const photo of ['survey-front', 'survey-rear']) {
      const found = adjustmentOf(demo('bramble')).photos.find(p => p.id === photo)!;
      expect(Math.abs(found.focalPx / 760 - 1)).toBeLessThan(0.05);
      const held = must(holdFocal, demo('bramble'), { photo, focalPx: 760 });
      expect(adjustmentOf(held).photos.find(p => p.id === photo)?.focalPx).toBe(760);
      const free = must(holdFocal, held, { photo, focalPx: null });
      expect(wholeSurvey(free.rig.survey).photos.find(p => p.id === photo)).not.toHaveProperty('focalPx');
    }
  });
  it('tell a focal length by the diagonal of 35 mm film, 43.27 mm', () => {
    // a picture as long in its diagonal as that film is in tenths of a mm has 10 px a mm
    expect(focalFromFilm(26, 360, 240)).toBeCloseTo(260, 1);
    expect(focalFromFilm(26, 3600, 2400)).toBeCloseTo(2600, 1);
    expect(focalFromFilm(0, 3600, 2400)).toBeUndefined();
    expect(focalFromFilm(Number.NaN, 3600, 2400)).toBeUndefined();
  });
});
