import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { type Call, commandOf, done, PLAN_COMMANDS, type PlanDocument } from '../plan';
import { offersFrom, type Tick } from './index';

const off = (note: string, jointId: string | null = 'j-3'): Tick => ({
  id: note,
  stepId: 's',
  jointId,
  kind: 'deviation',
  note,
  at: 1,
  device: 'd',
});
const made = (doc: PlanDocument, change: Call): PlanDocument => {
  const r = done(commandOf(PLAN_COMMANDS, change), doc, change.args);
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};
const of = (doc: PlanDocument, ...ticks: Tick[]) => offersFrom(doc, ticks, '2026-11-26');

describe('what a run offers the plan', () => {
  it('sets the hole of a torn thread to stripped, whoever told of it: hands or the wrench', () => {
    const doc = demo('heron');
    const mount = doc.plan.joints.find(j => j.id === 'j-3')?.mount;
    for (const fault of ['cross-threaded', 'stripped', 'sheared'] as const) {
      const told = { ...off(fault), fault };
      const [offer] = of(doc, told);
      expect(offer?.said).toContain(mount);
      const next = made(doc, offer!.change);
      expect(next.rig.mounts.find(m => m.id === mount)?.condition).toBe('stripped');
      // and is not offered again
      expect(of(next, told)).toEqual([]);
      // one that was mended in the run is no longer bad: it goes into the notes
      const mended = of(doc, told, { ...off('m'), stepId: 'mended-j-3-1', kind: 'done', at: 2 });
      expect(mended[0]?.said).toContain('notes');
      expect(mended[0]?.off).toContain('repaired');
      // and a dismissed offer does not come back
      expect(of(doc, told, { ...off(told.id), id: 'd', kind: 'dismissed' })).toEqual([]);
    }
  });
  it('takes fenders that were measured before and after into Weigh, by axle', () => {
    const heights = (stepId: string, values: Record<string, number>): Tick => ({
      ...off(stepId, null),
      stepId,
      kind: 'done',
      values,
    });
    const [offer] = of(
      demo('heron'),
      heights('fenders', { frontLeft: 900, frontRight: 902, rearLeft: 940, rearRight: 941 }),
      heights('ride-height', { frontLeft: 892, frontRight: 893, rearLeft: 936, rearRight: 936 }),
    );
    const next = made(demo('heron'), offer!.change);
    expect(next.plan.fenders).toEqual({
      front: { before: 901, after: 892.5 },
      rear: { before: 940.5, after: 936 },
    });
    expect(of(next, heights('fenders', { frontLeft: 900 }))).toEqual([]);
  });
  it('finds the bolt by the step where a step is about one', () => {
    const [offer] = of(demo('heron'), {
      ...off('Other bolt used', null),
      stepId: 'repair-j-3',
      fault: 'other-bolt',
    });
    expect(offer?.off).toBe('j-3: Other bolt used');
  });
  it('locks a joint whose bolt was changed, and writes the rest into the notes once', () => {
    const doc = demo('heron');
    const [lock, note] = of(
      doc,
      { ...off('Other bolt used'), fault: 'other-bolt' },
      off('Touches something above', null),
    );
    expect(made(doc, lock!.change).plan.joints.find(j => j.id === 'j-3')?.lock).toBe(true);
    const noted = made(doc, note!.change);
    expect(noted.plan.notes).toContain('2026-11-26, Touches something above');
    expect(of(noted, off('Touches something above', null))).toEqual([]);
    expect(of(doc, { ...off('x'), kind: 'done' }, { ...off('y'), note: null })).toEqual([]);
  });
});
