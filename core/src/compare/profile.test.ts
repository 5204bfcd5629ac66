import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  besideBest,
  converterShields,
  hardwareChange,
  type ProfileTerm,
  profileOf,
  rustOf,
  TERM_WORDS,
} from '../compare';
import { type Facts, gatherFacts } from '../derive';
import { PRIORITIES, withSheet } from '../plan';
import type { StrikeAnswer } from '../strike';

const bramble = demo('bramble');
const facts = gatherFacts(bramble);
const inSheet = (
  panel: string,
  material: 'steel-hr36' | 'al-6061-t6' | 'uhmw-pe',
  thickness: number,
): Facts => gatherFacts(withSheet(bramble, facts.build.id, panel, { material, thickness }));

describe('a profile', () => {
  const terms = profileOf(facts, converterShields(facts));
  it('has a figure, or none, for every priority, and words on how each is found', () => {
    for (const p of PRIORITIES) {
      expect(terms[p].of).toBe(p);
      expect(TERM_WORDS[p].how).toMatch(/[Cc]omputed|estimate|practice|Added up/);
    }
    expect(terms.weight.value).toBe(facts.weight.netKg);
    expect(terms.cost.value).toBe(facts.weight.cost);
  });
  it('takes toughness from the plate that least force dents, once every plate is struck', () => {
    const dents = (change: Partial<StrikeAnswer>, panel: string) =>
      facts.plates.map(
        p =>
          ({
            panel: p.panel.id,
            forceN: 5000,
            ringHz: 60,
            dentMm: 1,
            ...(p.panel.id === panel ? change : {}),
          }) as unknown as StrikeAnswer,
      );
    expect(profileOf(facts, []).toughness.value).toBeUndefined();
    expect(profileOf(facts, [], dents({ dentMm: 4, dentingN: 3100 }, 'plate-c')).toughness).toMatchObject({
      by: 'plate-c',
      value: 3100,
    });
    // none dents by 2 mm: they bear at least what struck them
    expect(profileOf(facts, [], dents({}, '')).toughness).toMatchObject({ value: 5000, atLeast: true });
    expect(
      profileOf(facts, [], dents({ dentMm: 4, dentingN: 3100 }, 'plate-c')).toughness.atLeast,
    ).toBeUndefined();
    // of one the dent was not found: nothing is said
    expect(profileOf(facts, [], dents({ dentMm: undefined }, 'plate-c')).toughness.value).toBeUndefined();
  });
  it('knows no tone before every plate is struck', () => {
    expect(terms.quiet.value).toBeUndefined();
    const struck = facts.plates.map(
      (p, i) => ({ panel: p.panel.id, ringHz: 90 - 10 * i }) as unknown as StrikeAnswer,
    );
    expect(profileOf(facts, [], struck.slice(1)).quiet.value).toBeUndefined();
    expect(profileOf(facts, [], struck).quiet).toMatchObject({
      value: Math.min(...struck.map(s => s.ringHz)),
      by: facts.plates.at(-1)!.panel.id,
    });
  });
  it('takes theft from how far hands are kept off, and says nothing where there is no converter', () => {
    expect(terms.theft.value).toBeGreaterThan(0.5);
    expect(profileOf(facts, []).theft.value).toBeUndefined();
  });
});

describe('wet and salt', () => {
  it('treat bare steel worst and plastic best, and bolts far off in metal make it worse', () => {
    const of = (f: Facts, panel: string) => rustOf(f, f.panels.find(p => p.panel.id === panel)!);
    const bare = (m: Parameters<typeof inSheet>[1], t: number): Facts => {
      const f = inSheet('plate-a', m, t);
      const build = f.build;
      const sheets = { ...build.sheets, 'plate-a': { ...build.sheets['plate-a']!, finish: 'raw' as const } };
      return gatherFacts({
        ...f.document,
        plan: {
          ...f.document.plan,
          builds: f.document.plan.builds.map(b => (b.id === build.id ? { ...b, sheets } : b)),
        },
      });
    };
    expect(of(bare('steel-hr36', 4.7625), 'plate-a').place).toBe(1);
    expect(of(bare('uhmw-pe', 9.525), 'plate-a')).toEqual({ place: 5, apart: 0 });
    // zinc on the bolts lies 0.35 V from bare aluminum
    const al = of(bare('al-6061-t6', 6.35), 'plate-a');
    expect(al.apart).toBeCloseTo(0.35, 9);
    expect(al.place).toBe(2);
  });
});

describe('the best of some builds', () => {
  const term = (better: 'more' | 'less', value?: number): ProfileTerm => ({
    of: 'weight',
    better,
    ...(value === undefined ? {} : { value }),
  });
  it('is 1, and no other is more', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -50, max: 300, noNaN: true }), { minLength: 1, maxLength: 8 }),
        fc.constantFrom('more', 'less') as fc.Arbitrary<'more' | 'less'>,
        (values, better) => {
          const all = values.map(v => term(better, v));
          const shares = all.map(t => besideBest(t, all)!);
          const best = better === 'more' ? Math.max(...values) : Math.min(...values);
          expect(shares[values.indexOf(best)]).toBe(1);
          for (const s of shares) {
            expect(s).toBeGreaterThanOrEqual(0);
            expect(s).toBeLessThanOrEqual(1);
          }
        },
      ),
    );
  });
  it('is not known for what is not known', () => {
    expect(besideBest(term('less'), [term('less', 3)])).toBeUndefined();
  });
});

describe('hardware', () => {
  it('stays as it is between a build and itself', () => {
    expect(hardwareChange(facts, facts)).toEqual([]);
  });
  it('gets longer where the sheet gets thicker, bolt by bolt', () => {
    const thick = inSheet('plate-c', 'al-6061-t6', 12.7);
    const changes = hardwareChange(facts, thick).filter(c => c.what === 'bolt');
    expect(changes.length).toBeGreaterThan(0);
    // the plate's own bolts, and those of the plates outside it, which hang lower on spacers now
    const after = new Map(thick.joints.map(j => [j.id, j]));
    for (const c of changes)
      for (const id of c.joints) {
        const before = facts.joints.find(j => j.id === id)!;
        expect(after.get(id)!.gripMm).toBeGreaterThan(before.gripMm);
        expect(after.get(id)!.lengthMm).toBeGreaterThan(before.lengthMm);
      }
    expect(changes.flatMap(c => c.joints)).toContain('j12');
  });
});
