import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { fitReport } from '../fitup';
import { carrierOf, type PlanDocument, tiesWing, wingsOf } from '../plan';
import { strikePlate, wishOf } from '../strike';
import { winged } from '../testing/winged';
import { check } from './index';

const doc = winged(demo('pebble'), 0);
const host = 'plate-1';
const bolts = (d: PlanDocument) => d.plan.joints.filter(j => j.id.startsWith('wing-'));
const withBolt = (d: PlanDocument, part: object): PlanDocument => ({
  ...d,
  plan: { ...d.plan, joints: d.plan.joints.map(j => (j.id === 'wing-1' ? { ...j, ...part } : j)) },
});

describe('a wing', () => {
  it('is what only bolts to one other plate hold: not one with a bolt to the vehicle or to a second plate', () => {
    expect([...wingsOf(doc.plan)]).toEqual([['wing', host]]);
    expect(bolts(doc).every(j => tiesWing(doc.plan, j))).toBe(true);
    expect(carrierOf(doc.plan, 'wing')).toBe(host);
    expect(carrierOf(doc.plan, host)).toBe(host);
    expect(wingsOf(withBolt(doc, { mount: doc.rig.mounts[0]?.id }).plan).size).toBe(0);
    expect(wingsOf(withBolt(doc, { panels: ['wing', 'plate-2'] }).plan).size).toBe(0);
    // two that hold nothing but one another carry nothing
    const alone = { ...doc.plan, joints: bolts(doc) };
    expect(wingsOf(alone).size).toBe(0);
    expect(wingsOf(demo('heron').plan)).toEqual(new Map([['plate-6', 'plate-2']]));
  });

  it('on one row of bolts is a stop where it reaches far off them, none where it lies along them', () => {
    const few = (d: PlanDocument) =>
      check(gatherFacts(d)).filter(f => f.rule === 'few-bolts' && f.about.includes('wing'));
    expect(few(doc)[0]?.severity).toBe('stop');
    const narrow: PlanDocument = {
      ...doc,
      plan: {
        ...doc.plan,
        panels: doc.plan.panels.map(p => {
          if (p.id !== 'wing') return p;
          const [a, b, c, d] = p.base.outline as [
            readonly [number, number],
            ...(readonly [number, number])[],
          ];
          const y = a[1] + 40;
          return { ...p, base: { ...p.base, outline: [a, b, [c?.[0] ?? 0, y], [d?.[0] ?? 0, y]] as never } };
        }),
      },
    };
    expect(few(narrow)).toEqual([]);
    // narrower than the rock, it is struck all the same
    const facts = gatherFacts(narrow);
    const strip = facts.plates.find(p => p.panel.id === 'wing')!;
    const a = strikePlate({ ...wishOf(facts, strip, 2000), noDent: true });
    expect(a.ok ? '' : a.fault).toBe('');
    expect(a.ok && a.value.deflectionMm).toBeGreaterThan(0);
  });
});

describe('Heron’s hole that is known badly', () => {
  it('is to be measured again: nothing helps as much', () => {
    const [first] = fitReport(gatherFacts(demo('heron')), 600).remedies;
    expect(first).toMatchObject({ what: 'measure', joint: 'j-7' });
    expect(first?.chance).toBeGreaterThan(0.6);
  });
});
