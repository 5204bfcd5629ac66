import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { check, mended, newlyGrave, SURE_TO_BOLT } from '../checks';
import { gatherFacts } from '../derive';
import { fitOf, measuredFirst, modelOf } from '../fitup';
import { checkDocument } from '../plan';
import { anyPlan } from '../testing/random';
import { boltUp, boltUpWords } from './bolt-up';

describe('what makes a plan bolt up', () => {
  it('a few slots bring a plan whose holes are measured over the mark, and each of them is needed', () => {
    const doc = demo('heron');
    const facts = gatherFacts(doc);
    const b = boltUp(facts, { measured: true });
    expect(b.before).toBeLessThan(SURE_TO_BOLT);
    expect(b.chance).toBeGreaterThan(0.94);
    expect(b.changes.length).toBeGreaterThan(0);
    expect(b.changes.length).toBeLessThan(6);
    // what is told is what the plan after it has, tried anew
    const after = gatherFacts(mended(doc, b.mend!));
    const known = measuredFirst(modelOf(facts));
    expect(fitOf(after, 2000, known).all.chance).toBe(b.chance);
    const words = boltUpWords(b, 'metric').join(' ');
    for (const c of b.changes) expect(words).toContain(c.joint);
    expect(words).toMatch(/a chance of \d+ %; without, \d+ %\./);
    // one of them left out, the mark is missed
    for (const { joint } of b.changes) {
      const args = b.mend!.args as { joints: { joint: string }[] };
      const less = { ...b.mend!, args: { joints: args.joints.filter(j => j.joint !== joint) } };
      const fit = fitOf(gatherFacts(less.args.joints.length > 0 ? mended(doc, less) : doc), 400, known);
      expect(fit.all.chance, joint).toBeLessThan(SURE_TO_BOLT);
    }
  });
  it('asks for nothing where all bolts start', () => {
    const b = boltUp(gatherFacts(demo('pebble')), { measured: true });
    expect(b).toMatchObject({ changes: [], chance: b.before });
    expect(b.mend).toBeUndefined();
    expect(boltUpWords(b, 'inch')).toEqual([
      'No hole has to be changed: every bolt starts with a chance of 100 %.',
    ]);
  });
  it('leaves no random plan worse than it was', () => {
    let helped = 0;
    fc.assert(
      fc.property(anyPlan(), fc.boolean(), (doc, measured) => {
        const facts = gatherFacts(doc);
        const b = boltUp(facts, { measured });
        expect(b.chance).toBeGreaterThan(b.before - 0.05);
        if (!b.mend) return;
        if (b.chance > b.before + 0.05) helped++;
        const after = mended(doc, b.mend);
        const read = checkDocument(structuredClone(after));
        expect(read.ok ? [] : read.faults).toEqual([]);
        expect(newlyGrave(check(facts), check(gatherFacts(after)))).toEqual([]);
      }),
      { numRuns: Number(process.env.SOAK_FITS ?? 2), seed: Number(process.env.SOAK_SEED ?? 2) },
    );
    expect(helped).toBeGreaterThan(0);
  });
});
