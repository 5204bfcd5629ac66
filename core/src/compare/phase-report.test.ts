import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { check } from '../checks';
import { gatherFacts } from '../derive';
import {
  addPhase,
  checkDocument,
  done,
  isBracket,
  moveToPhase,
  type PlanDocument,
  phasesOf,
  removePhase,
  renamePhase,
  upToPhase,
} from '../plan';
import { phaseSequence } from '../sequence';
import { anyPlan } from '../testing/random';
import { phaseReports, replacedBolts } from './phase-report';

const must = (r: ReturnType<typeof done>): PlanDocument => {
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};
/** The plan in two phases: those plates later; phases of its own are forgotten. */
function split(
  { plan: { phases: _, ...plan }, ...doc }: PlanDocument,
  later: readonly string[],
): PlanDocument {
  const two = must(done(addPhase, { ...doc, plan }, {}));
  const [, second] = phasesOf(two.plan);
  return later.reduce((d, panel) => must(done(moveToPhase, d, { panel, phase: second?.id ?? '' })), two);
}
const ids = (doc: PlanDocument): readonly string[] =>
  doc.plan.panels.filter(p => !isBracket(p)).map(p => p.id);

describe('phases of a plan', () => {
  it('have every plate in one of them, whatever is moved, renamed and removed, and the plan stays sound', () => {
    const act = fc.record({
      what: fc.constantFrom('add', 'move', 'rename', 'remove'),
      a: fc.nat({ max: 9 }),
      b: fc.nat({ max: 9 }),
    });
    fc.assert(
      fc.property(anyPlan(2), fc.array(act, { maxLength: 8 }), (start, acts) => {
        let doc = start;
        for (const { what, a, b } of acts) {
          const phases = phasesOf(doc.plan);
          const phase = phases[a % (phases.length || 1)]?.id ?? 'none';
          const panel = ids(doc)[b % (ids(doc).length || 1)];
          const r =
            what === 'add'
              ? done(addPhase, doc, {})
              : what === 'rename'
                ? done(renamePhase, doc, { phase, name: `name ${b}` })
                : what === 'remove'
                  ? done(removePhase, doc, { phase })
                  : panel === undefined
                    ? undefined
                    : done(moveToPhase, doc, { panel, phase });
          if (r?.ok) doc = r.value;
        }
        const sound = checkDocument(structuredClone(doc));
        expect(sound.ok ? [] : sound.faults).toEqual([]);
        const phases = phasesOf(doc.plan);
        if (phases.length === 0) return;
        expect(phases.flatMap(f => f.panels).sort()).toEqual(doc.plan.panels.map(p => p.id).sort());
        // the last is the whole plan; what was there stays there
        const whole = upToPhase(doc, phases.at(-1)?.id ?? '');
        expect(whole.plan.panels).toEqual(doc.plan.panels);
        expect(whole.plan.joints).toEqual(doc.plan.joints);
        let before: readonly string[] = [];
        for (const f of phases) {
          const state = upToPhase(doc, f.id);
          const alone = checkDocument(structuredClone(state));
          expect(alone.ok ? [] : alone.faults).toEqual([]);
          const now = state.plan.panels.map(p => p.id);
          expect(now).toEqual(expect.arrayContaining([...before]));
          expect(now.length).toBe(before.length + f.panels.length);
          before = now;
        }
      }),
      { numRuns: Number(process.env.SOAK_PLANS ?? 20) },
    );
  });

  it('add up to the whole: mass, bolts, and price but for the bolts that are bought twice', () => {
    for (const name of ['bramble', 'heron', 'pebble']) {
      const doc = demo(name);
      const all = ids(doc);
      const facts = gatherFacts(split(doc, all.slice(Math.ceil(all.length / 2))));
      const reports = phaseReports(facts);
      expect(reports).toHaveLength(2);
      const sum = (of: (r: (typeof reports)[number]) => number): number =>
        reports.reduce((s, r) => s + of(r), 0);
      expect(sum(r => r.addedKg)).toBeCloseTo(facts.weight.addedKg, 6);
      expect(sum(r => r.bolts)).toBe(facts.joints.length);
      const twice = reports.flatMap(r => r.replaced).length;
      const over = sum(r => r.dollars) - facts.weight.cost;
      if (twice === 0) expect(over).toBeCloseTo(0, 6);
      else expect(over).toBeGreaterThan(0);
    }
  });

  it('Bramble’s tank plates later: the shared bolts are bought again, longer, and changed one by one in holes that are ready', () => {
    const doc = demo('bramble');
    const shared = doc.plan.joints.find(j => j.panels.length > 1 && j.mount !== undefined);
    expect(shared).toBeDefined();
    const [outer] = shared?.panels ?? [];
    const facts = gatherFacts(split(doc, [outer as string]));
    const [first, second] = phaseReports(facts);
    const again = second?.replaced.find(r => r.joint === shared?.id);
    expect(again).toBeDefined();
    expect(second?.replaced).toEqual(replacedBolts(first?.facts.joints ?? [], facts.joints));
    const grip = (of: typeof facts): number => of.joints.find(j => j.id === shared?.id)?.gripMm ?? 0;
    expect(grip(facts) - grip(first!.facts)).toBeGreaterThan(1);
    const { steps, cycle } = phaseSequence(first?.facts, second!.facts);
    expect(cycle).toEqual([]);
    const at = steps.find(s => s.stage === 'start' && s.joints.includes(shared?.id ?? ''));
    expect(at?.hows?.join(' ')).toMatch(/One bolt out, the new one in/);
    // nothing of the first phase is raised, drilled or set again
    for (const s of steps.filter(x => ['hang', 'bench', 'support'].includes(x.stage)))
      for (const p of s.panels) expect(p).toBe(outer);
    for (const s of steps.filter(x => ['drill', 'repair'].includes(x.stage)))
      expect(s.joints).not.toContain(shared?.id);
  });

  it('a phase that leaves parts bare, their plate still to come, is told', () => {
    const doc = demo('bramble');
    const told = ids(doc).map(id => {
      const [first] = phaseReports(gatherFacts(split(doc, [id])));
      // none of it is wrong with the whole
      const whole = check(gatherFacts(doc)).map(f => f.text);
      for (const f of first?.findings ?? []) expect(whole).not.toContain(f.text);
      return first?.findings.map(f => f.rule) ?? [];
    });
    expect(told.some(rules => rules.includes('uncovered'))).toBe(true);
  });

  it('buy every bolt of the whole set, one that is replaced twice, and none besides', () => {
    fc.assert(
      fc.property(anyPlan(3), fc.nat({ max: 7 }), (start, pick) => {
        const doc = split(
          start,
          ids(start).filter((_, i) => (pick >> i) & 1),
        );
        const reports = phaseReports(gatherFacts(doc));
        const last = reports.at(-1);
        const times = new Map<string, number>();
        for (const r of reports) for (const j of r.bought) times.set(j.id, (times.get(j.id) ?? 0) + 1);
        for (const j of last?.facts.joints ?? [])
          expect(times.get(j.id)).toBe(
            1 + reports.filter(r => r.replaced.some(x => x.joint === j.id)).length,
          );
      }),
      { numRuns: 12 },
    );
  });
});
