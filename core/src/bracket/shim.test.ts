import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { partNames } from '../bolt';
import { check } from '../checks';
import { type Facts, gatherFacts } from '../derive';
import {
  changeJoints,
  done,
  growSpacers,
  inPlan,
  lowerPlates,
  type PlanDocument,
  panelsRemoved,
  tiedTo,
} from '../plan';
import { installationOf } from '../sequence';

const legged = demo('heron');
/** Legs from the engine mounts to plate A, whose rear bolts hold plate B as well. */
const LEGS = ['bracket-7', 'bracket-8'];
const heron = panelsRemoved(legged, LEGS);
const own = legged.plan.joints.find(j => j.mount === undefined && j.panels.includes('bracket-7'))?.id ?? '';
const seats = (f: Facts): readonly string[] =>
  check(f)
    .filter(x => x.rule === 'seat')
    .map(x => x.text);
const inBuild = (doc: PlanDocument, activeBuild: string): Facts => gatherFacts(inPlan(doc, { activeBuild }));
const jointOf = (f: Facts) => {
  const j = f.joints.find(x => x.id === own);
  if (!j) throw new Error('no bolt');
  return j;
};

describe('a plate on a bracket and on bolts that hold another plate too', () => {
  it('keeps its seats in a thicker sheet: a shim fills what is left to the bracket', () => {
    expect(seats(inBuild(legged, 'A'))).toEqual([]);
    const thick = inBuild(legged, 'C');
    expect(seats(thick)).toEqual([]);
    // plate A hangs lower by its own growth and by that of plate B inside it, the bracket does not
    expect(jointOf(inBuild(legged, 'A')).joint.spacer).toBe(0);
    expect(jointOf(thick).joint.spacer).toBeCloseTo(6.35 - 4.763, 3);
    expect(jointOf(thick).gripMm - jointOf(inBuild(legged, 'A')).gripMm).toBeCloseTo(2 * (6.35 - 4.763), 3);
    expect(partNames(jointOf(thick)).join()).toContain('spacer 1.5 mm for M10');
    const hang = installationOf(thick).steps.find(s => s.id === 'hang-plate-1');
    expect(hang?.hows?.join(' ')).toMatch(new RegExp(`on top of the plate first.*${own}`));
  });

  it('has its seats whatever the sheets of the plates are', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(3.18, 4.763, 6.35, 9.53), { minLength: 6, maxLength: 6 }), ts => {
        const sheets = Object.fromEntries(
          ['plate-1', 'plate-2', 'plate-3', 'plate-4', 'plate-5', 'plate-6'].map((p, i) => [
            p,
            { material: 'steel-hr36' as const, thickness: ts[i] as number, finish: 'powder' as const },
          ]),
        );
        const doc = inPlan(legged, { builds: [...legged.plan.builds, { id: 'any', name: 'any', sheets }] });
        const without = inPlan(heron, { builds: [...heron.plan.builds, { id: 'any', name: 'any', sheets }] });
        const was = new Set(seats(inBuild(without, 'any')));
        expect(seats(inBuild(doc, 'any')).filter(t => !was.has(t))).toEqual([]);
      }),
      { numRuns: 25 },
    );
  });

  it('that is off its bracket is offered the shim', () => {
    const long = done(changeJoints, legged, { joints: [{ joint: own, part: { spacer: 3 } }] });
    if (!long.ok) throw new Error(long.fault);
    const found = check(gatherFacts(long.value)).find(f => f.rule === 'seat');
    expect(found?.text).toMatch(/inside bracket K\d at bolt/);
    expect(found?.remedy).toMatch(/^Put no spacers at/);
    const args = found?.mend?.args as Parameters<typeof growSpacers.run>[1];
    const mended = done(growSpacers, long.value, args);
    if (!mended.ok) throw new Error(mended.fault);
    expect(seats(gatherFacts(mended.value))).toEqual([]);
  });

  it('is lowered with its bracket and the bolt between them, and every stack still closes', () => {
    const panels = tiedTo(legged, 'plate-1');
    expect(panels).toEqual(expect.arrayContaining(['plate-1', ...LEGS]));
    const down = done(lowerPlates, legged, { panels, by: 32 });
    if (!down.ok) throw new Error(down.fault);
    const z = (d: PlanDocument): number => d.plan.joints.find(j => j.id === own)?.at?.[2] ?? Number.NaN;
    expect(z(down.value)).toBeCloseTo(z(legged) - 32, 9);
    // the leg's own bolt gets the spacer that plates get at theirs
    const held = (d: PlanDocument) => d.plan.joints.find(j => j.mount === 'motor-left')?.spacer;
    expect([held(legged), held(down.value)]).toEqual([0, 32]);
    expect(seats(gatherFacts(down.value))).toEqual([]);
  });
});
