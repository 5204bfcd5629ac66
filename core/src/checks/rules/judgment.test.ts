import { demo } from '@plate-fold/demo';
// Rules an engineer would sign: heat beside a part, plastic that grows, slots and washers, what a plate may carry.
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../../derive';
import { inPlan, type PlanDocument, withJoint, withPanel, withSheet } from '../../plan';
import { refusedStrike } from '../../strike';
import { check, vettedRemedy } from '../index';
import { mended } from '../mended';

const found = (doc: PlanDocument, rule: string, build?: string) =>
  check(gatherFacts(doc, build)).filter(f => f.rule === rule);

describe('heat', () => {
  /** Bramble with the converter's surface at so many °C. */
  const hot = (surfaceC: number): PlanDocument => {
    const doc = demo('bramble');
    const components = doc.rig.components.map(c => (c.id === 'converter-1' ? { ...c, surfaceC } : c));
    return { ...doc, rig: { ...doc.rig, components } };
  };
  const plastic = (doc: PlanDocument, panel: string): PlanDocument =>
    withSheet(doc, 'A', panel, { material: 'uhmw-pe', thickness: 9.525 });
  it('stops plastic by distance, beside a part as well as under it, and not where the part is cool', () => {
    const beside = found(plastic(hot(420), 'plate-b'), 'hot-part', 'A').filter(f => f.about[0] === 'plate-b');
    expect(beside.length).toBeGreaterThan(0);
    expect(beside[0]!.severity).toBe('stop');
    expect(beside[0]!.text).toContain('estimate');
    expect(beside[0]!.remedy).toMatch(/shield.*gap/);
    expect(
      found(plastic(hot(90), 'plate-a'), 'hot-part', 'A').filter(f => f.about.includes('converter-1')),
    ).toEqual([]);
  });
  it('asks for a gap that is enough', () => {
    const doc = demo('wren');
    const [f] = found(doc, 'hot-part', 'A');
    const gap = Number(/a gap of ([\d.]+)/.exec(f!.remedy!)?.[1]);
    const down = withPanel(doc, f!.about[0]!, p => ({
      ...p,
      base: { ...p.base, origin: [p.base.origin[0], p.base.origin[1], p.base.origin[2] - gap] },
    }));
    expect(found(down, 'hot-part', 'A').some(x => x.severity === 'stop')).toBe(false);
  });
  it('takes the strength of aluminum near what is hot enough', () => {
    const doc = withSheet(hot(900), 'B', 'plate-e', { material: 'al-6061-t6', thickness: 3 });
    const [f] = found(doc, 'hot-part', 'B').filter(x => x.about[0] === 'plate-e');
    expect(f!.text).toMatch(/6061 keeps \d+ % of its yield/);
  });
});

describe('plastic', () => {
  const fixed = (): PlanDocument => {
    const doc = demo('wren');
    // held at its crossmembers alone
    const joints = doc.plan.joints.filter(j => j.nut !== 'tube-clamp');
    return inPlan(doc, { joints: joints.map(({ slots: _, ...j }) => j) });
  };
  it('grows 3 mm over 40 K on 475 mm: told, and slotted away from the bolt it grows from', () => {
    const doc = fixed();
    const all = found(doc, 'grows', 'A');
    expect(all).toHaveLength(5);
    expect(all[1]!.text).toMatch(/expands 2\.9\smm/);
    const facts = gatherFacts(doc, 'A');
    const remedy = vettedRemedy(facts, check(facts).find(f => f.rule === 'grows')!);
    expect(remedy?.brings).toEqual([]);
    const after = mended(doc, remedy!.mend);
    expect(found(after, 'grows', 'A')).toHaveLength(4);
    expect(found(after, 'slot-washer', 'A')).toEqual([]);
    // every slot points at the anchor, and is long enough for what it grows
    const before = facts.panels.find(p => p.panel.id === 'plate-1')!;
    const anchor = facts.joints.find(j => j.id === 'j-1')!;
    for (const j of after.plan.joints) {
      const slot = j.slots?.['plate-1'];
      if (!slot) continue;
      const r = facts.joints.find(x => x.id === j.id)!;
      const [dx, dy] = [r.at[0] - anchor.at[0], r.at[1] - anchor.at[1]];
      expect(slot.length).toBeGreaterThanOrEqual(
        r.thread.d + 2 * Math.hypot(dx, dy) * (before.material.expansion - 12e-6) * 40,
      );
    }
  });
  it('is not a matter of metal, and the demo has its slots', () => {
    expect(found(demo('bramble'), 'grows', 'B')).toEqual([]);
    expect(found(demo('wren'), 'grows', 'A')).toEqual([]);
  });
});

describe('a slot', () => {
  it('wants a washer under its head, and gets one', () => {
    const bare = withJoint(demo('bramble'), 'j01', j => ({
      ...j,
      washers: [],
      slots: { [j.panels[0]!]: { length: 18, along: 0 } },
    }));
    const [f] = found(bare, 'slot-washer');
    expect(f?.about).toEqual(['j01']);
    expect(found(mended(bare, f!.mend!), 'slot-washer')).toEqual([]);
    const washed = withJoint(bare, 'j01', j => ({ ...j, washers: ['flat'] }));
    expect(found(washed, 'slot-washer')).toEqual([]);
  });
});

describe('a jack', () => {
  it('is refused on a plate that is not made for it', () => {
    const panel = demo('bramble').plan.panels[0]!;
    expect(refusedStrike(panel, 'jack')).toContain('not a jacking point');
    expect(refusedStrike({ ...panel, meantFor: ['recovery'] }, 'jack')).toBeDefined();
    expect(refusedStrike({ ...panel, meantFor: ['jack'] }, 'jack')).toBeUndefined();
    expect(refusedStrike(panel, 'set-down')).toBeUndefined();
  });
});
