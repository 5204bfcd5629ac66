import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { blankPlan, done, type PlanDocument, takeMeasure } from '../plan';
import { proposalTaken, propose } from '../propose';
import { BODIES, type Body, measuresOf, startingRig } from '../rig';
import { usualWish } from '../testing/random';
import { MM_PER_INCH } from '../units';
import { measureMatters } from './measure-matters';

const suggested = (body: Body): PlanDocument => {
  const doc = blankPlan(startingRig(body), 'own', 'own set');
  const wish = usualWish(doc);
  return proposalTaken(doc, propose(doc, wish), wish);
};
const document = suggested('suv');

describe('what a measure matters', () => {
  it('is what taking it anew does to the figures', () => {
    const m = measureMatters(document, 'crossHeight');
    const was = gatherFacts(document);
    const moved = [-1, 1].map(way => {
      const made = done(takeMeasure, document, {
        measure: 'crossHeight',
        value: (document.rig.measures?.crossHeight ?? 0) + way * MM_PER_INCH,
        how: 'follow',
      });
      if (!made.ok) throw new Error(made.fault);
      return gatherFacts(made.value);
    });
    expect(m?.breakoverDeg).toBeCloseTo(
      Math.max(...moved.map(f => Math.abs(f.angles.breakoverDeg - was.angles.breakoverDeg))),
      9,
    );
    // plates are bolted to crossmembers: an inch is nothing that their bolts bridge
    expect(m?.bolts).toBeGreaterThan(3);
  });

  it('names the clearance that it moves, by as much as the tape is off', () => {
    const m = measureMatters(document, 'panHeight');
    expect(m?.gap?.to).toMatch(/oil pan|engine front/i);
    // the engine's lower parts are placed by it
    expect(m?.gap?.mm).toBeGreaterThan(MM_PER_INCH - 0.01);
  });

  it('is told of every measure of every body, and changes nothing', () => {
    for (const body of BODIES) {
      const doc = suggested(body);
      const before = JSON.stringify(doc);
      let some = 0;
      for (const { id } of measuresOf(body)) {
        const m = measureMatters(doc, id);
        if (!m) continue;
        const { gap, ...figures } = m;
        for (const v of [...Object.values(figures), gap?.mm ?? 0])
          expect(v, `${body} ${id}`).toBeGreaterThanOrEqual(0);
        some += Number(m.bolts > 0 || m.groundMm > 0 || (gap?.mm ?? 0) > 0 || m.axleKg > 0);
      }
      expect(some, body).toBeGreaterThan(measuresOf(body).length / 3);
      expect(JSON.stringify(doc)).toBe(before);
    }
  });

  it('is not known of a vehicle that was not begun from measures', () => {
    const { measures: _, ...rig } = document.rig;
    expect(measureMatters({ ...document, rig }, 'crossHeight')).toBeUndefined();
  });
});
