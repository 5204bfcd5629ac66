import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../../derive';
import { blankPlan, checkDocument, done, type PlanDocument, takeMeasure, weighAxles } from '../../plan';
import { proposalTaken, propose } from '../../propose';
import { assumedFirst, BODIES, FIRST_MEASURES, measuresOf, startingRig, takenMeasures } from '../../rig';
import { usualWish } from '../../testing/random';
import { check } from '../index';

const begun = (body: (typeof BODIES)[number]): PlanDocument => blankPlan(startingRig(body), 'x', 'x');
const suggested = (doc: PlanDocument): PlanDocument => {
  const wish = usualWish(doc);
  return proposalTaken(doc, propose(doc, wish), wish);
};
const told = (doc: PlanDocument) =>
  check(gatherFacts(doc), 'inch').filter(f => f.rule === 'assumed-measures');
const after = (
  doc: PlanDocument,
  measure: Parameters<typeof takeMeasure.run>[1]['measure'],
  value: number,
) => {
  const r = done(takeMeasure, doc, { measure, value });
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};

describe('measures that were not taken', () => {
  it('are twelve at the most for a first set, on every body', () => {
    for (const body of BODIES) {
      const first = assumedFirst(begun(body).rig);
      expect(first.length, body).toBeGreaterThan(7);
      expect(first.length, body).toBeLessThanOrEqual(12);
      expect(first.every(m => FIRST_MEASURES.has(m.id) && m.of[body])).toBe(true);
    }
  });
  it('are told with their names while there are plates, fewer with each that is taken, also where it was right by chance', () => {
    const doc = suggested(begun('suv'));
    expect(told(begun('suv'))).toEqual([]);
    const before = assumedFirst(doc.rig).length;
    expect(told(doc)[0]?.text).toMatch(
      new RegExp(`^${before} of the 12 main measurements are assumed, not measured: wheelbase`),
    );
    const same = after(doc, 'wheelbase', doc.rig.measures!.wheelbase as number);
    expect(takenMeasures(same.rig)).toEqual(new Set(['wheelbase']));
    expect(told(same)[0]?.text).toMatch(new RegExp(`^${before - 1} of`));
    let all: PlanDocument = doc;
    for (const m of measuresOf('suv')) all = after(all, m.id, doc.rig.measures![m.id] as number);
    expect(told(all)).toEqual([]);
    expect(checkDocument(JSON.parse(JSON.stringify(all))).ok).toBe(true);
  });
  it('are taken from a file that does not say by what differs from the usual; a rig not begun from measures has none', () => {
    const doc = begun('truck');
    const old = { ...doc.rig, measures: { ...doc.rig.measures, panHeight: 401 } };
    expect([...takenMeasures(old)!]).toEqual(['panHeight']);
    const weighed = weighAxles.run({ ...doc, rig: old }, { frontKg: 1210, rearKg: 990 }) as PlanDocument;
    expect(weighed.rig.measured).toEqual(['panHeight', 'frontAxleKg', 'rearAxleKg']);
    expect(takenMeasures(demo('bramble').rig)).toBeUndefined();
    expect(assumedFirst(demo('bramble').rig)).toEqual([]);
  });
});
