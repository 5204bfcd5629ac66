import { check } from '@plate-fold/core/checks';
import { gatherFacts } from '@plate-fold/core/derive';
import { checkDocument, type PlanDocument, writeDocument } from '@plate-fold/core/plan';
import { anyMutation } from '@plate-fold/core/testing';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EXPORTS } from './export';
import { VERBS } from './verbs';

const DEMOS = ['bramble', 'pebble', 'heron', 'wren'].map(name => demo(name));
/** Striking a plate takes seconds by itself, the book its fonts: both work from what the others have checked. */
const verbs = Object.entries(VERBS).filter(([name]) => name !== 'strike');
const exports_ = Object.entries(EXPORTS).filter(([name]) => name !== 'pdf');
/** Processor time nobody waits longer for, ms; far beyond what any call takes, so that only what hangs fails. */
const MOST_MS = 2000;

/** Where a value holds a number that is none; undefined where none does. */
function strange(value: unknown, path = ''): string | undefined {
  if (typeof value === 'number') return Number.isFinite(value) ? undefined : `${path} is ${value}`;
  if (typeof value !== 'object' || value === null) return undefined;
  for (const [k, v] of Object.entries(value)) {
    const found = strange(v, `${path}.${k}`);
    if (found) return found;
  }
  return undefined;
}
const spent = <T>(call: () => T): { readonly made: T; readonly ms: number } => {
  const from = process.cpuUsage();
  const made = call();
  const { user, system } = process.cpuUsage(from);
  return { made, ms: (user + system) / 1000 };
};

/** A fit is tried so often here: whether it answers does not hang on how often. */
const FIT_TRIALS = 20;

describe('plans mutated at random', () => {
  it('are refused with a path, or every verb and export answers them: no crash, no NaN, in a bounded time', () => {
    const runs = Number(process.env.SOAK_MUTATIONS ?? 16);
    const worst: Record<string, number> = {};
    let taken = 0;
    const timed = <T>(name: string, call: () => T): T => {
      const { made, ms } = spent(call);
      worst[name] = Math.max(worst[name] ?? 0, ms);
      return made;
    };
    fc.assert(
      fc.property(
        fc.tuple(fc.constantFrom(...DEMOS), fc.boolean()).chain(([doc, mild]) => anyMutation(doc, mild)),
        value => {
          const read = timed('read', () => checkDocument(value));
          if (!read.ok) {
            expect(read.faults[0]?.path).toMatch(/\S/);
            return;
          }
          taken++;
          const doc = JSON.parse(writeDocument(read.document)) as PlanDocument;
          const facts = timed('facts', () => gatherFacts(doc));
          timed('check', () => check(facts));
          for (const [name, verb] of verbs) {
            const { json, text } = timed(name, () => verb(facts, 'inch', { trials: FIT_TRIALS }));
            expect(strange(json), name).toBeUndefined();
            expect(text, name).not.toMatch(/NaN|Infinity|undefined/);
          }
          for (const [name, files] of exports_)
            for (const [file, content] of timed(name, () => files(facts, 'metric')))
              if (typeof content === 'string') expect(content, file).not.toMatch(/\bNaN\b|Infinity/);
        },
      ),
      { numRuns: runs, endOnFailure: true },
    );
    // enough of them get past the door for the verbs to be tried
    expect(taken).toBeGreaterThan(runs / 20);
    if (!process.env.SOAK_MUTATIONS) return;
    // held where the machine is given to it alone; what hangs fails anyway
    for (const [name, ms] of Object.entries(worst)) expect(ms, name).toBeLessThan(MOST_MS);
    console.log(`${runs} mutated plans, ${taken} taken; most processor time, ms:`, worst);
  });
});
