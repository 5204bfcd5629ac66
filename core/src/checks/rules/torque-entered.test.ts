import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { STRENGTH } from '../../bolt';
import { gatherFacts } from '../../derive';
import { type PlanDocument, withJoint } from '../../plan';
import { check } from '../check';
import { mended } from '../mended';
import { overdone, torqueEntered } from './torque-entered';

const found = (doc: PlanDocument) => check(gatherFacts(doc)).filter(f => f.rule === torqueEntered.id);
const entered = (doc: PlanDocument, id: string, torque: number): PlanDocument =>
  withJoint(doc, id, j => ({ ...j, torque }));

describe('an entered torque', () => {
  const doc = demo('bramble');
  it('of 500 N\u00b7m on an M10 8.8 is a stop, whose remedy is the computed one', () => {
    const [f] = found(entered(doc, 'j01', 500));
    expect(f).toMatchObject({ severity: 'stop', about: ['j01'] });
    const after = mended(entered(doc, 'j01', 500), f!.mend!);
    expect(after.plan.joints.find(j => j.id === 'j01')?.torque).toBe('auto');
    expect(found(after)).toEqual([]);
  });
  it('at 90 % of proof load is the most a bolt is given (Shigley Eq. 8-31)', () => {
    const j = gatherFacts(doc).joints.find(x => x.id === 'j10')!;
    const proof = STRENGTH[j.joint.fastener.class].proof * j.thread.stressArea;
    const at = (share: number) => (share * proof * j.kFactor * j.thread.d) / 1000;
    expect(found(entered(doc, 'j10', at(0.89)))).toEqual([]);
    expect(found(entered(doc, 'j10', at(0.91)))[0]?.severity).toBe('stop');
  });
  it('over what a rivet nut strips at is a stop, its maker\u2019s value below is taken', () => {
    // M8: 40.7 N\u00b7m at M10 scaled with d\u00b3 is 20.8
    const dry = withJoint(doc, 'j28', j => ({ ...j, lube: 'dry' }));
    expect(found(entered(dry, 'j28', 20))).toEqual([]);
    expect(found(entered(dry, 'j28', 21.5))[0]?.text).toContain('rivet nut');
    // with anti-seize the same torque clamps more than its pinned head bears
    expect(found(entered(doc, 'j28', 20))[0]).toMatchObject({
      severity: 'stop',
      text: expect.stringContaining('head'),
    });
  });
  it('that no wrench reads is told', () => {
    expect(found(entered(doc, 'j28', 0.5))[0]).toMatchObject({ severity: 'note' });
  });
  it('passes only where every part of the joint bears what it asks', () => {
    const ids = doc.plan.joints.map(j => j.id);
    fc.assert(
      fc.property(fc.constantFrom(...ids), fc.double({ min: 0.2, max: 600, noNaN: true }), (id, nm) => {
        const facts = gatherFacts(entered(doc, id, nm));
        const j = facts.joints.find(x => x.id === id)!;
        const over = overdone(j);
        const weakest = Math.min(...j.pulls.map(l => l.force));
        if (!over) expect(j.askedN).toBeLessThanOrEqual(weakest + 1e-6);
        // what Strike reckons with is never more than the joint holds
        expect(j.preloadN).toBeLessThanOrEqual(weakest + 1e-6);
      }),
      { numRuns: 60 },
    );
  });
});
