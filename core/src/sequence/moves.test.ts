import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { firstOpen, inOrder, moveStates, movesOf, type Step, type Tick } from './index';

const step = (s: Partial<Step> & { id: string }): Step => ({
  stage: 'check',
  title: s.id,
  why: '',
  panels: [],
  joints: [],
  needs: [],
  tools: [],
  cautions: [],
  people: 1,
  minutes: 1,
  ...s,
});
const steps = [
  step({ id: 'kit', stage: 'kit' }),
  step({ id: 'start', stage: 'start', joints: ['j1', 'j2'], needs: ['kit'] }),
  step({ id: 'tight', stage: 'tighten', joints: ['j2', 'j1'], torqueNm: 15, needs: ['start'] }),
];
const moves = movesOf(inOrder(steps));
const tick = (t: Partial<Tick> & { id: string; at: number }): Tick => ({
  stepId: 'kit',
  jointId: null,
  kind: 'done',
  device: 'phone',
  ...t,
});

describe('moves', () => {
  it('are one a bolt where a torque is read, else one a step', () => {
    expect(moves.map(m => m.id)).toEqual(['kit', 'start', 'tight/j2', 'tight/j1']);
  });

  it('stand as their newest tick says, deviations kept', () => {
    const states = moveStates([
      tick({ id: 'c', at: 30, stepId: 'tight', jointId: 'j2', torqueNm: 14.8 }),
      tick({ id: 'a', at: 10, stepId: 'tight', jointId: 'j2' }),
      tick({ id: 'b', at: 20, stepId: 'tight', jointId: 'j2', kind: 'undone' }),
      tick({ id: 'd', at: 40, stepId: 'tight', jointId: 'j2', kind: 'deviation', note: 'cross-threaded' }),
    ]);
    expect(states.get('tight/j2')).toMatchObject({ done: true, torqueNm: 14.8 });
    expect(states.get('tight/j2')?.deviations.map(d => d.note)).toEqual(['cross-threaded']);
    expect(firstOpen(moves, states)).toBe(0);
  });

  it('come out the same on every device, in whatever order the ticks arrive', () => {
    const some = fc.array(
      fc.record({
        at: fc.integer({ min: 0, max: 5 }),
        kind: fc.constantFrom('done' as const, 'undone' as const, 'deviation' as const),
        move: fc.constantFrom(...moves),
        order: fc.integer(),
      }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(some, list => {
        const ticks = list.map((x, i) =>
          tick({
            id: `t${i}`,
            at: x.at,
            kind: x.kind,
            stepId: x.move.step.id,
            jointId: x.move.joint ?? null,
          }),
        );
        const shuffled = ticks
          .map((t, i) => [t, list[i]?.order ?? 0] as const)
          .sort((a, b) => a[1] - b[1])
          .map(([t]) => t);
        const sorted = (m: ReturnType<typeof moveStates>) => [...m].sort(([a], [b]) => (a < b ? -1 : 1));
        expect(sorted(moveStates(shuffled))).toEqual(sorted(moveStates(ticks)));
      }),
    );
  });
});
