import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toolList } from '../bolt';
import { type Facts, gatherFacts } from '../derive';
import type { HoleCut, PlanDocument } from '../plan';
import { proposalTaken, propose } from '../propose';
import { anyBlankPlan, usualWish } from '../testing/random';
import { holeWork } from './hole-work';
import { installationOf } from './index';

/** A suggested set on a vehicle at random, taken; how the shop cuts the holes at rivet nuts may be told. */
function suggested(blank: PlanDocument, cut?: HoleCut): Facts {
  const wish = usualWish(blank);
  const doc = proposalTaken(blank, propose(blank, wish), wish);
  const joints = doc.plan.joints.map(j => (cut && j.nut === 'rivet-nut' ? { ...j, cut } : j));
  return gatherFacts({ ...doc, plan: { ...doc.plan, joints } });
}
const rounds = { numRuns: Number(process.env.SOAK_RIGS ?? 5), seed: Number(process.env.SOAK_SEED ?? 3) };

describe('a hole that is drilled in the vehicle with the plate down', () => {
  it('is cut full in the plate, which only marks it: nothing is left to be opened', () => {
    let marked = 0;
    for (const f of [
      ...['pebble', 'wren'].map(n => gatherFacts(demo(n))),
      ...fc.sample(anyBlankPlan, rounds).map(b => suggested(b)),
    ])
      for (const h of f.panels.flatMap(p => p.holes)) {
        const joint = f.joints.find(j => j.id === h.joint);
        if (!joint || !holeWork({ doc: f.document, units: 'metric' }, joint).setsNut) continue;
        marked++;
        expect(h.kind, h.joint).not.toBe('pilot');
      }
    expect(marked).toBeGreaterThan(40);
  });
});

describe('a pilot that a plate comes with', () => {
  it('is opened to its full size, in every plate of the stack, before that plate is raised for good', () => {
    let opened = 0;
    fc.assert(
      fc.property(anyBlankPlan, blank => {
        const facts = suggested(blank, 'pilot');
        const { steps } = installationOf(facts);
        const roll = toolList(facts.joints, facts).map(t => t.tool);
        for (const p of facts.panels)
          for (const h of p.holes) {
            const joint = facts.joints.find(j => j.id === h.joint);
            // what is drilled in place is drilled through the plate, which opens it
            if (
              h.kind !== 'pilot' ||
              !joint ||
              !holeWork({ doc: facts.document, units: 'metric' }, joint).marked
            )
              continue;
            const of = `${h.joint} in ${p.panel.mark}`;
            const told = steps.findIndex(
              s =>
                s.panels?.includes(p.panel.id) &&
                s.hows?.some(t => new RegExp(`\\b${h.joint}\\b.* to `).test(t)),
            );
            expect(told, of).toBeGreaterThanOrEqual(0);
            const bits = steps[told]?.tools?.filter(t => t.startsWith('drill:')) ?? [];
            expect(bits.length, of).toBeGreaterThan(0);
            // what is not on the roll is missed under the vehicle
            expect(roll, of).toEqual(expect.arrayContaining(bits));
            expect(told, of).toBeLessThan(
              steps.findIndex(s => s.stage === 'start' && s.panels.includes(p.panel.id)),
            );
            opened++;
          }
      }),
      rounds,
    );
    expect(opened).toBeGreaterThan(3);
  });
});
