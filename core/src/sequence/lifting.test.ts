import { demo } from '@plate-fold/demo';
// The revised NIOSH lifting equation (Pub. 94-110) against its worked examples.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { check } from '../checks';
import { gatherFacts } from '../derive';
import { inPlan, wingsOf } from '../plan';
import { liftingLimit, overheadLimitKg } from './lifting';
import { installationOf } from './sequence';

const CM = 2.54;

describe('the lifting equation', () => {
  it('gives the manual’s punch press example: 16.3 lb where it is picked up, 14.5 lb where it is put down (rounded, and in inches)', () => {
    const load = { horizontal: 23 * CM, distance: 49 * CM, twist: 0, frequency: 1 };
    const pounds = (kg: number): number => (kg / 23) * 51;
    expect(
      Math.abs(pounds(liftingLimit({ ...load, vertical: 15 * CM, coupling: 0.95 })) / 16.3 - 1),
    ).toBeLessThan(0.052);
    expect(
      Math.abs(pounds(liftingLimit({ ...load, vertical: 64 * CM, coupling: 1 })) / 14.5 - 1),
    ).toBeLessThan(0.052);
  });
  it('gives cases worked by hand from its multipliers', () => {
    expect(
      liftingLimit({ horizontal: 35, vertical: 75, distance: 40, twist: 0, frequency: 0.97, coupling: 1 }),
    ).toBeCloseTo(14.86, 2);
    expect(
      liftingLimit({
        horizontal: 30,
        vertical: 100,
        distance: 80,
        twist: 45,
        frequency: 0.85,
        coupling: 0.95,
      }),
    ).toBeCloseTo(10.738, 2);
  });
  it('never leaves more than the load constant, and nothing out of reach', () => {
    const d = (max: number) => fc.double({ min: 0, max, noNaN: true });
    fc.assert(
      fc.property(d(80), d(200), d(200), d(160), (horizontal, vertical, distance, twist) => {
        const kg = liftingLimit({ horizontal, vertical, distance, twist, frequency: 1, coupling: 1 });
        expect(kg).toBeGreaterThanOrEqual(0);
        expect(kg).toBeLessThanOrEqual(23);
        if (horizontal > 63 || vertical > 175) expect(kg).toBe(0);
      }),
    );
  });
});

describe('a plate over one’s head', () => {
  it('of more than 9 kg goes up on its jack with a word on it, below 23 kg with one person', () => {
    expect(overheadLimitKg('two-post')).toBeCloseTo(8.85, 1);
    // lying down the equation does not apply: no more is taken
    expect(overheadLimitKg('ground')).toBe(overheadLimitKg('two-post'));
    const doc = demo('bramble');
    const facts = gatherFacts(doc, 'B');
    const note = check(facts).find(f => f.rule === 'too-heavy')!;
    expect(note.severity).toBe('note');
    const { steps } = installationOf(facts);
    const wings = wingsOf(doc.plan);
    for (const p of facts.plates.filter(x => !wings.has(x.panel.id))) {
      const step = steps.find(s => s.id === `support-${p.panel.id}`)!;
      const over = p.massKg > overheadLimitKg(doc.plan.method.lift);
      expect(note.about.includes(p.panel.id)).toBe(over);
      expect(step.cautions.some(c => c.includes('hold overhead'))).toBe(over);
      expect(step.people).toBe(1);
    }
  });
  it('on its side is carried before one: the load constant itself', () => {
    const doc = demo('bramble');
    const side = inPlan(doc, { method: { ...doc.plan.method, lift: 'side' } });
    expect(check(gatherFacts(side, 'B')).some(f => f.rule === 'too-heavy')).toBe(false);
  });
});
