import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wordsIn } from '../checks';
import {
  bestBuild,
  breaks,
  cheaper,
  GOALS,
  ladderSheets,
  nearest,
  paretoEdge,
  rungOf,
  type StruckRung,
  sheetLimits,
  stops,
  together,
  valueFor,
} from '../compare';
import { type Facts, gatherFacts } from '../derive';
import { SHOPS } from '../fold';
import { MATERIAL_IDS } from '../sheet';
import type { StrikeAnswer } from '../strike';

const facts: Facts = (() => {
  return gatherFacts(demo('bramble'));
})();
const words = wordsIn('metric');

describe('the ladder of a plate', () => {
  const rungs = ladderSheets('inch').map(s => rungOf(facts, 'plate-b', s, words));
  it('holds every material and thickness of the catalog, each once', () => {
    expect(new Set(rungs.map(r => r.id)).size).toBe(rungs.length);
    expect(new Set(rungs.map(r => r.material))).toEqual(new Set(MATERIAL_IDS));
    expect(rungs.length).toBeGreaterThanOrEqual(40);
  });
  it('weighs what its blank weighs: area × thickness × density, and more when thicker', () => {
    for (const r of rungs)
      expect(r.massKg).toBeCloseTo(
        r.folded.blank.areaMm2 * r.thickness * r.folded.material.density * 1e-9,
        6,
      );
    for (const m of MATERIAL_IDS) {
      const of = rungs.filter(r => r.material === m).map(r => r.massKg);
      expect(of).toEqual([...of].sort((a, b) => a - b));
    }
  });
  it('is the plate as it is where the sheet is the one it has', () => {
    const now = facts.panels.find(p => p.panel.id === 'plate-b')!;
    const same = rungs.find(
      r => r.material === now.sheet.material && Math.abs(r.thickness - now.sheet.thickness) < 1e-3,
    )!;
    expect(same.massKg).toBeCloseTo(now.massKg, 9);
    expect(same.cost).toBeCloseTo(facts.weight.panels.find(p => p.id === 'plate-b')!.cost, 9);
    expect(same.against).toEqual([]);
  });
  it('says why plastic cannot be folded, and why a sheet too heavy for the brake cannot be bent', () => {
    const plastic = rungs.filter(r => r.material === 'uhmw-pe');
    for (const r of plastic) expect(r.against.join(' ')).toContain('cannot be bent cold');
    // a small brake folds the thin sheets of a metal and not the thick ones
    const shop = { ...SHOPS[1]!, brake: { ...SHOPS[1]!.brake, force: 300 } };
    const small = gatherFacts({ ...facts.document, plan: { ...facts.document.plan, shop } });
    const steel = ladderSheets('inch')
      .filter(s => s.material === 'steel-ar400')
      .map(s => rungOf(small, 'plate-b', s, words).against.some(t => /the brake at .* gives/.test(t)));
    expect(steel).toContain(true);
    expect(steel[0]).toBe(false);
    expect(steel).toEqual([...steel].sort());
  });
});

const answer = (over: Partial<StrikeAnswer>): StrikeAnswer =>
  ({ gaps: [], dentMm: 0, ringHz: 80, reached: 1, gapMm: 30, deflectionMm: 5, ...over }) as StrikeAnswer;
const struckRung = (over: Partial<StruckRung>, struck: Partial<StrikeAnswer> = {}): StruckRung =>
  ({
    id: 'x',
    material: 'steel-hr36',
    folded: facts.panels[0],
    massKg: 10,
    cost: 50,
    against: [],
    ...over,
    struck: answer(struck),
  }) as StruckRung;

describe('all plates in one sheet', () => {
  it('weigh and cost what they do one by one, and are as good as the worst of them', () => {
    const whole = together([
      struckRung({ massKg: 20, cost: 70 }, { dentMm: 3, ringHz: 50, gaps: [{ component: 'a', gapMm: 12 }] }),
      struckRung({ massKg: 9, cost: 30 }, { dentMm: 1, ringHz: 45, gaps: [{ component: 'b', gapMm: 4 }] }),
    ]);
    expect(whole).toMatchObject({ massKg: 29, heaviestKg: 20, cost: 100 });
    expect(whole?.struck).toMatchObject({ dentMm: 3, ringHz: 45, gapMm: 4, gapTo: 'b', reached: 1 });
    // nobody lifts all plates at once
    const limits = { leastRingHz: 40, mostDentMm: 5, mostKg: 23 };
    expect(breaks(facts, whole!, limits)).toEqual([]);
    expect(breaks(facts, whole!, { ...limits, mostKg: 15 })).toEqual(['lift']);
  });
  it('have no known dent where one of them has none', () => {
    const whole = together([struckRung({}, { dentMm: undefined }), struckRung({}, { dentMm: 1 })]);
    expect(whole?.struck.dentMm).toBeUndefined();
    expect(together([])).toBeUndefined();
  });
});

describe('limits of a sheet', () => {
  it('are named in the order they matter', () => {
    const part = facts.rig.components[0]!;
    const quiet = { leastRingHz: 40, mostDentMm: 3, mostKg: 20, materials: ['steel-hr36'] as const };
    expect(breaks(facts, struckRung({}), quiet)).toEqual([]);
    expect(
      breaks(
        facts,
        struckRung(
          { massKg: 25, against: ['too tight'] },
          {
            reached: 0.7,
            dentMm: undefined,
            ringHz: 30,
            gaps: [{ component: part.id, gapMm: part.keepOut - 1 }],
          },
        ),
        quiet,
      ),
    ).toEqual(['cannot be made or used', 'collapses', 'gap', 'dent', 'ring', 'lift']);
    // a sharp nose goes through at a force that the sheet does not shear under
    expect(breaks(facts, struckRung({}, { forceN: 400_000 }), quiet)).toEqual(['sharp rock']);
    // the owner may want less room than the part's own
    const tight = struckRung({}, { gaps: [{ component: part.id, gapMm: part.keepOut - 1 }] });
    expect(breaks(facts, tight, { leastRingHz: 0, mostDentMm: 5, leastGapMm: 2 })).toEqual([]);
    expect(breaks(facts, tight, { leastRingHz: 0, mostDentMm: 5 })).toEqual(['gap']);
    // what is not asked for is not looked at
    const easy = { leastRingHz: 0, mostDentMm: 200 };
    expect(breaks(facts, struckRung({ massKg: 25 }, { ringHz: 30, dentMm: 9 }), easy)).toEqual([]);
  });
  it('are the plan\u2019s, and a dent and a drumming plate are looked at unless it says otherwise', () => {
    expect(sheetLimits({})).toEqual({ mostDentMm: 10, leastRingHz: 40 });
    expect(
      sheetLimits({ maxDent: 2, minGap: 5, minRing: 0, maxLiftKg: 23, materials: ['al-6061-t6'] }),
    ).toEqual({
      mostDentMm: 2,
      leastGapMm: 5,
      leastRingHz: 0,
      mostKg: 23,
      materials: ['al-6061-t6'],
    });
  });
});

const anyRung = fc.record({
  massKg: fc.integer({ min: 1, max: 12 }),
  cost: fc.integer({ min: 5, max: 40 }),
  gapMm: fc.integer({ min: -10, max: 30 }),
  sheet: fc.constantFrom('a', 'b', 'c', 'd'),
});
const made = (r: { massKg: number; cost: number; gapMm: number; sheet: string }): StruckRung =>
  struckRung({ id: r.sheet, massKg: r.massKg, cost: r.cost }, { gapMm: r.gapMm });

describe('the edge of mass against gap', () => {
  it('holds what no other beats in both, and nothing else', () => {
    fc.assert(
      fc.property(fc.array(anyRung, { minLength: 1, maxLength: 25 }), list => {
        const rungs = list.map(made);
        const edge = paretoEdge(rungs);
        for (const r of rungs) {
          const beaten = rungs.some(
            o =>
              o.massKg <= r.massKg &&
              o.struck.gapMm! >= r.struck.gapMm! &&
              (o.massKg < r.massKg || o.struck.gapMm! > r.struck.gapMm!),
          );
          if (edge.includes(r)) expect(beaten).toBe(false);
          else
            expect(beaten || edge.some(o => o.massKg === r.massKg && o.struck.gapMm === r.struck.gapMm)).toBe(
              true,
            );
        }
      }),
    );
  });
});
describe('the best build', () => {
  it('is the one that trying all of them finds, under a budget, a weight and few different sheets', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(anyRung, { minLength: 1, maxLength: 5 }), { minLength: 1, maxLength: 4 }),
        fc.option(fc.integer({ min: 10, max: 140 }), { nil: undefined }),
        fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined }),
        fc.option(fc.double({ min: 0.1, max: 1, noNaN: true }), { nil: undefined }),
        fc.constantFrom(...GOALS),
        (plates, budget, mostSheets, light, goal) => {
          const rungs = plates.map(p => p.map(made));
          const value = valueFor(goal);
          // somewhere between the lightest and the heaviest of all
          const heaviest = rungs.reduce((sum, p) => sum + Math.max(...p.map(r => r.massKg)), 0);
          const mostKg = light === undefined ? undefined : light * heaviest;
          let want: { value: number; cost: number } | undefined;
          const all = (i: number, taken: readonly StruckRung[]): void => {
            if (i === rungs.length) {
              const cost = taken.reduce((s, r) => s + r.cost, 0);
              if (budget !== undefined && cost > budget) return;
              if (mostKg !== undefined && taken.reduce((s, r) => s + r.massKg, 0) > mostKg + 1e-9) return;
              if (mostSheets !== undefined && new Set(taken.map(r => r.id)).size > mostSheets) return;
              const v = taken.reduce((s, r) => s + value(r), 0);
              if (!want || v < want.value || (v === want.value && cost < want.cost))
                want = { value: v, cost };
              return;
            }
            for (const r of rungs[i]!) all(i + 1, [...taken, r]);
          };
          all(0, []);
          const got = bestBuild(rungs, value, {
            ...(budget === undefined ? {} : { budget }),
            ...(mostSheets === undefined ? {} : { mostSheets }),
            ...(mostKg === undefined ? {} : { mostKg }),
          });
          expect(got === undefined).toBe(want === undefined);
          if (!got || !want) return;
          expect(got.rungs.reduce((s, r) => s + value(r), 0)).toBeCloseTo(want.value, 9);
          expect(got.cost).toBeCloseTo(want.cost, 9);
          expect(got.massKg).toBeCloseTo(
            got.rungs.reduce((s, r) => s + r.massKg, 0),
            9,
          );
        },
      ),
      { numRuns: 300 },
    );
  });
  it('does not exist for a plate that nothing suits', () => {
    expect(bestBuild([[struckRung({})], []], r => r.massKg)).toBeUndefined();
  });
});

describe('the nearest sheets', () => {
  const limits = { mostDentMm: 5, leastRingHz: 40 };
  const good = struckRung({ id: 'good' });
  const one = struckRung({ id: 'one' }, { dentMm: 8 });
  const two = struckRung({ id: 'two' }, { dentMm: 8, ringHz: 20 });
  const tighter = struckRung({ id: 'tighter' }, { dentMm: 7, gapMm: 3 });
  it('are those that break nothing, or the one that breaks fewest limits and leaves most gap', () => {
    expect(nearest(facts, [two, good, one], limits)).toEqual({ rungs: [good], broken: 0 });
    expect(nearest(facts, [two, tighter, one], limits)).toEqual({ rungs: [one], broken: 1 });
    expect(nearest(facts, [], limits)).toEqual({ rungs: [], broken: 0 });
  });
});

describe('beside the best build', () => {
  const [first] = facts.panels;
  const one = { ...facts, panels: [first] } as Facts;
  const limits = { mostDentMm: 5, leastRingHz: 40 };
  const light = struckRung({ id: 'light', massKg: 8, cost: 60 }, { dentMm: 9 });
  const lighter = struckRung({ id: 'lighter', massKg: 6, cost: 70 }, { dentMm: 15, ringHz: 20 });
  const cheap = struckRung({ id: 'cheap', massKg: 14, cost: 40 }, { gapMm: 35 });
  const unmade = struckRung({ id: 'unmade', massKg: 12, cost: 45, against: ['it would crack'] });
  const best = struckRung({ id: 'best' });
  const ladder = [[lighter, light, best, cheap, unmade]];
  it('the next better sheet is named with the limits that stop it', () => {
    expect(stops(one, ladder, [best], valueFor('mass'), limits)).toEqual([
      { panel: first!.panel.id, rung: light, breaks: ['dent'] },
    ]);
    expect(stops(one, ladder, [lighter], valueFor('mass'), limits)).toEqual([]);
  });
  it('one step cheaper is the next sheet that can be made, and its limits are said', () => {
    expect(cheaper(one, ladder, [best], limits)).toMatchObject([{ rung: cheap, breaks: [] }]);
    expect(cheaper(one, ladder, [cheap], limits)).toEqual([]);
  });
});
