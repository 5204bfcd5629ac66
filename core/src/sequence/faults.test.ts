import { demo } from '@plate-fold/demo';
// Bolts that were not sound: what a run asks for then, whatever came in whatever order.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { withJoint } from '../plan';
import { platesOnly } from '../testing';
import {
  boltFaults,
  claims,
  FAULTS,
  firstOpen,
  holdsOpen,
  installationOf,
  isOpen,
  mendedId,
  mendSteps,
  moveStates,
  movesOf,
  openFaults,
  screensOf,
  type Tick,
  targetOf,
  withRepairs,
} from './index';

// with a torque that a small wrench reads in every round
const facts = gatherFacts(withJoint(demo('bramble'), 'j28', j => ({ ...j, torque: 8 })));
const sequence = installationOf(facts);
const HOLDING = FAULTS.filter(f => f.holds).map(f => f.id);
let made = 0;
const tick = (t: Partial<Tick>): Tick => ({
  id: `t${++made}`,
  stepId: 'kit',
  jointId: null,
  kind: 'done',
  at: made,
  device: 'd',
  ...t,
});
const report = (joint: string, stepId: string, fault: Tick['fault'], at: number): Tick =>
  tick({ stepId, jointId: joint, kind: 'deviation', fault, note: 'x', at });
const walk = (ticks: readonly Tick[]) => {
  const whole = withRepairs(sequence, ticks, (f, where) => mendSteps(f, where, facts));
  const moves = movesOf(whole, boltFaults(ticks));
  return { whole, moves, states: moveStates(ticks) };
};
const tightens = (joint: string) =>
  sequence.steps.filter(s => s.stage === 'tighten' && s.joints.includes(joint));

describe('a bolt that is not sound', () => {
  it('stays open, is not asked for, and has its repair right behind the step it was reported in', () => {
    const [first] = tightens('j28');
    const ticks = [report('j28', first!.id, 'stripped', 10)];
    const { whole, moves, states } = walk(ticks);
    expect(openFaults(ticks).map(f => f.joint)).toEqual(['j28']);
    const at = whole.steps.findIndex(s => s.id === first!.id);
    const repair = whole.steps.slice(at + 1, at + 5);
    expect(repair.every(s => s.mends === 'j28')).toBe(true);
    expect(repair.map(s => s.title).join('\n')).toMatch(/Drill the rivet nut out[\s\S]*Set a new rivet nut/);
    expect(repair.at(-1)?.id).toBe(mendedId('j28', 1));
    const asked = moves.filter(m => m.joint === 'j28' && isOpen(m, states));
    expect(asked.map(m => m.step.mends)).toEqual(['j28']);
  });

  it('is sound again after its repair, and the later rounds ask for it', () => {
    const [first, second, third] = tightens('j28');
    const ticks = [
      report('j28', first!.id, 'stripped', 10),
      tick({ stepId: mendedId('j28', 1), jointId: 'j28', at: 20, torqueNm: 2 }),
    ];
    const { moves, states } = walk(ticks);
    expect(openFaults(ticks)).toEqual([]);
    expect(boltFaults(ticks).get('j28')?.state).toBe('mended');
    const of = (id: string) => moves.find(m => m.id === `${id}/j28`)!;
    // the round it was reported in is made good by the repair
    expect(isOpen(of(first!.id), states)).toBe(false);
    expect(isOpen(of(second!.id), states)).toBe(true);
    expect(isOpen(of(third!.id), states)).toBe(true);
    // undone again, it is open again
    expect(
      openFaults([...ticks, tick({ stepId: mendedId('j28', 1), jointId: 'j28', kind: 'undone', at: 30 })])
        .length,
    ).toBe(1);
  });

  it('that was reported where it is snugged by hand is mended by a step that is ticked as a whole', () => {
    // no wrench on the roll of this plan reads a third of one of its torques
    const own = gatherFacts(demo('heron'));
    const whole = installationOf(own);
    const byHand = whole.steps.find(s => (s.byHand?.length ?? 0) > 0)!;
    const joint = byHand.byHand![0]!;
    const ticks = [report(joint, byHand.id, 'cross-threaded', 10)];
    const mended = withRepairs(whole, ticks, (f, where) => mendSteps(f, where, own));
    const last = movesOf(mended, boltFaults(ticks)).find(m => m.step.id === mendedId(joint, 1))!;
    expect(last.joint).toBeUndefined();
    expect(openFaults([...ticks, tick({ stepId: last.step.id, jointId: null, at: 20 })])).toEqual([]);
  });

  it('that is reported again is mended again, with steps of its own', () => {
    const [first] = tightens('j28');
    const ticks = [
      report('j28', first!.id, 'stripped', 10),
      tick({ stepId: mendedId('j28', 1), jointId: 'j28', at: 20 }),
      report('j28', mendedId('j28', 1), 'cross-threaded', 30),
    ];
    const { whole } = walk(ticks);
    expect(boltFaults(ticks).get('j28')).toMatchObject({ n: 2, state: 'open', fault: 'cross-threaded' });
    expect(whole.steps.some(s => s.id === mendedId('j28', 2))).toBe(true);
  });

  it('that is left so with a reason is no longer asked for, and no longer in the way', () => {
    const [first] = tightens('j28');
    const ticks = [
      report('j28', first!.id, 'sheared', 10),
      tick({ stepId: first!.id, jointId: 'j28', kind: 'override', note: 'shop on Monday', at: 20 }),
    ];
    const { moves, states, whole } = walk(ticks);
    expect(openFaults(ticks)).toEqual([]);
    expect(boltFaults(ticks).get('j28')).toMatchObject({
      state: 'overridden',
      by: { note: 'shop on Monday' },
    });
    expect(moves.some(m => m.joint === 'j28' && m.step.stage === 'tighten' && isOpen(m, states))).toBe(false);
    expect(whole.steps.some(s => s.mends)).toBe(false);
  });

  it.each(HOLDING)('has a repair for every bolt of every demo: %s', fault => {
    for (const name of ['bramble', 'heron', 'pebble', 'wren']) {
      const f = gatherFacts(demo(name));
      for (const j of f.joints) {
        const where = installationOf(f).steps.find(s => s.stage === 'tighten' && s.joints.includes(j.id));
        if (!where) continue;
        const steps = mendSteps(
          { joint: j.id, fault, tick: report(j.id, where.id, fault, 1), n: 1, state: 'open' },
          where,
          f,
        );
        expect(steps.at(-1)?.id).toBe(mendedId(j.id, 1));
        expect(steps.length).toBeGreaterThan(fault === 'skipped' ? 0 : 1);
        for (const s of steps)
          expect(`${s.title} ${s.why} ${s.hows?.join(' ') ?? ''}`).not.toMatch(/undefined|NaN/);
      }
    }
  });

  it('never lets a run be done while one is open, in whatever order ticks arrive', () => {
    const joints = facts.joints.map(j => j.id).slice(0, 6);
    const event = fc.record({
      joint: fc.constantFrom(...joints),
      what: fc.constantFrom('report' as const, 'mend' as const, 'override' as const, 'undo' as const),
      fault: fc.constantFrom(...FAULTS.map(f => f.id)),
      at: fc.integer({ min: 1, max: 50 }),
    });
    fc.assert(
      fc.property(fc.array(event, { maxLength: 14 }), events => {
        const n = new Map<string, number>();
        const ticks = [...events]
          .sort((a, b) => a.at - b.at)
          .map(e => {
            const id = tightens(e.joint)[0]!.id;
            if (e.what === 'report') {
              if (holdsOpen(e.fault)) n.set(e.joint, (n.get(e.joint) ?? 0) + 1);
              return report(e.joint, id, e.fault, e.at);
            }
            const of = mendedId(e.joint, n.get(e.joint) ?? 1);
            if (e.what === 'override')
              return tick({ stepId: id, jointId: e.joint, kind: 'override', note: 'y', at: e.at });
            return tick({
              stepId: of,
              jointId: e.joint,
              kind: e.what === 'mend' ? 'done' : 'undone',
              at: e.at,
            });
          });
        const open = openFaults(ticks);
        // whatever order they come in
        expect(openFaults([...ticks].reverse())).toEqual(open);
        const { moves, states, whole } = walk(ticks);
        for (const f of open) {
          // its repair can be done, and nothing else asks for it
          expect(whole.steps.some(s => s.id === mendedId(f.joint, f.n))).toBe(true);
          const where = whole.steps.findIndex(s => s.id === f.tick.stepId);
          for (const m of moves)
            if (m.joint === f.joint && !m.step.mends && whole.steps.indexOf(m.step) >= where)
              expect(isOpen(m, states)).toBe(false);
        }
        expect(new Set(whole.steps.map(s => s.id)).size).toBe(whole.steps.length);
      }),
      { numRuns: 60 },
    );
  });
});

describe('screens', () => {
  it('show every move once, in order, one a plate and round: Bramble in no more than 70, and eight for its hangers and wing', () => {
    const moves = movesOf(sequence);
    const screens = screensOf(moves);
    expect(screens.flatMap(s => s.moves.map(m => m.id))).toEqual(moves.map(m => m.id));
    const bare = gatherFacts(platesOnly(demo('bramble')));
    expect(screensOf(movesOf(installationOf(bare))).length).toBeLessThanOrEqual(70);
    // three hangers: made ready at once, their nuts set at once, each held and started, tight at once; a wing: made ready, bolted on
    expect(screens.length).toBeLessThanOrEqual(70 + 1 + 1 + 3 + 1 + 2);
    for (const s of screens.filter(x => x.steps.some(y => y.stage === 'tighten')))
      expect(s.steps.length).toBe(1);
  });
  it('ask each bolt for its own torque, and none for what is snugged by hand', () => {
    for (const m of movesOf(sequence).filter(x => x.joint)) {
      const byHand = m.step.byHand?.includes(m.joint as string) ?? false;
      expect(targetOf(m) === undefined).toBe(byHand);
    }
  });
});

describe('work divided by plate', () => {
  it('goes to who took it last, and back', () => {
    const claim = (who: string | null, at: number): Tick => tick({ kind: 'claim', note: 'plate-a', who, at });
    expect(claims([claim('Juniper', 1), claim('Moss', 2)]).get('plate-a')).toBe('Moss');
    expect(claims([claim('Moss', 2), claim('Juniper', 1)]).get('plate-a')).toBe('Moss');
    expect(claims([claim('Moss', 2), claim(null, 3)]).has('plate-a')).toBe(false);
  });
  it('leaves out of what is next what somebody else has taken', () => {
    const moves = movesOf(sequence);
    const none = moveStates([]);
    const i = firstOpen(moves, none, m => m.step.panels[0] !== 'plate-a');
    expect(moves[i]?.step.panels).not.toContain('plate-a');
  });
});
