import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { checkDocument } from '../plan';
import { anyPlan } from '../testing/random';
import { check, type Finding, remediesOf, vettedRemedy } from './index';
import { mended } from './mended';

/** Plans looked at here; hundreds of them are the soak's. */
const PLANS = Number(process.env.SOAK_PLANS ?? 8);

const same = (a: Finding, b: Finding): boolean =>
  a.rule === b.rule && [...a.about].sort().join() === [...b.about].sort().join();

describe('remedies never make it worse', () => {
  it('what is offered makes its finding go, and brings no stop or fix that it has not told', () => {
    const offered = new Map<string, { clean: number; told: number; none: number }>();
    fc.assert(
      fc.property(anyPlan(), doc => {
        const facts = gatherFacts(doc);
        const before = check(facts);
        for (const f of before) {
          if (remediesOf(f).length === 0) continue;
          const count = offered.get(f.rule) ?? { clean: 0, told: 0, none: 0 };
          offered.set(f.rule, count);
          const r = vettedRemedy(facts, f, 'metric', before);
          if (!r) {
            count.none++;
            continue;
          }
          if (r.brings.length === 0) count.clean++;
          else count.told++;
          const after = mended(doc, r.mend);
          const read = checkDocument(structuredClone(after));
          expect(read.ok ? [] : read.faults).toEqual([]);
          const now = check(gatherFacts(after));
          expect(now.filter(x => same(x, f) && x.severity === f.severity)).toEqual([]);
          const fresh = now.filter(x => x.severity !== 'note' && !before.some(b => same(b, x)));
          for (const x of fresh)
            expect(
              r.brings.some(b => same(b, x)),
              `${f.rule}: ${r.remedy} -> ${x.text}`,
            ).toBe(true);
        }
      }),
      { numRuns: PLANS, seed: Number(process.env.SOAK_SEED ?? 5) },
    );
    if (process.env.SOAK_PLANS)
      for (const [rule, n] of offered)
        console.log(`${rule}: ${n.clean} clean, ${n.told} told with what they bring, ${n.none} not offered`);
    expect([...offered.values()].reduce((s, n) => s + n.clean, 0)).toBeGreaterThan(0);
  });
});
