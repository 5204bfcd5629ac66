import { demo as demoPlan } from '@plate-fold/demo';
import { beforeAll, describe, expect, it } from 'vitest';
import { jointCapacity } from '../bolt';
import { assemble, type Facts, gatherFacts } from '../derive';
import { checkDocument } from '../plan';
import { type StrikeAnswer, strikePlate, wishOf } from '../strike';
import { fourZ, wing } from '../testing/hung-plates';
import { checkStruck, helps, jointShare, STRUCK_RULES, struckRemedies, wordsIn } from './index';
import { mended } from './mended';

const demo = (name: string): Facts => {
  return gatherFacts(demoPlan(name));
};
const heron = demo('heron');
const strike = (facts: Facts, mark: string, force: number): StrikeAnswer => {
  const folded = facts.panels.find(p => p.panel.mark === mark)!;
  const r = strikePlate({ ...wishOf(facts, folded, force), size: 1.3 });
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};
const words = wordsIn('metric');
const answer = (over: Partial<StrikeAnswer>): StrikeAnswer => over as StrikeAnswer;

describe('a plate that was struck', () => {
  let bare: StrikeAnswer;
  beforeAll(() => {
    bare = strike(heron, 'C', 5786);
  }, 60_000);
  const of = (change: Partial<StrikeAnswer>): readonly string[] =>
    checkStruck(heron, [{ ...bare, ...change }]).map(f => `${f.rule} ${f.severity}`);
  const calm: Partial<StrikeAnswer> = {
    gaps: [],
    dentMm: 0,
    ringHz: 90,
    reached: 1,
    gaveWayAt: undefined,
    reactionsN: [],
  };

  it('that leaves room, does not yield, does not drum and overloads nothing is not complained of', () => {
    expect(of(calm)).toEqual([]);
  });
  it('that touches must stop the plan, that crowds asks for a fix, with figures in the reader’s units', () => {
    const part = heron.rig.components.find(c => c.id === bare.gaps[0]!.component)!;
    const gap = (gapMm: number) => ({ ...calm, gaps: [{ component: part.id, gapMm }] });
    expect(of(gap(-3))).toEqual(['touches stop']);
    expect(of(gap(part.keepOut / 2))).toEqual(['touches fix']);
    expect(of(gap(part.keepOut + 1))).toEqual([]);
    const [text] = checkStruck(heron, [{ ...bare, ...gap(-3) }], 'inch').map(f => f.text);
    expect(text).toContain(part.name);
    expect(text).toMatch(/by 0\.12\sin/);
  });
  it('that leaves what was left at rest is not blamed for it', () => {
    const rest = heron.gaps.find(g => g.panel === bare.panel)!;
    const part = heron.rig.components.find(c => c.id === rest.component)!;
    // the same crowding, once found by the strike and once there before
    const crowded = { ...calm, gaps: [{ component: part.id, gapMm: -2 }] };
    const asFound = (gapMm: number): readonly string[] => {
      const gaps = heron.gaps.map(g => (g === rest ? { ...g, gapMm } : g));
      return checkStruck({ ...heron, gaps } as Facts, [{ ...bare, ...crowded }]).map(f => f.rule);
    };
    expect(asFound(20)).toEqual(['touches']);
    expect(asFound(-2)).toEqual([]);
    // Heron's plate A reaches its bumper plate at rest: that is Cover's finding, not the rock's
    const a = strike(heron, 'A', 5786);
    expect(a.gapMm).toBeLessThan(0);
    expect(a.gapTo).toBe('bumper-plate');
    for (const f of checkStruck(heron, [a])) expect(f.about).not.toContain('bumper-plate');
  }, 60_000);
  it('is helped by more gap, more force borne or a higher note, not by one bought with the other', () => {
    const before = answer({ gapMm: 5, reached: 1, ringHz: 30, gaps: [{ component: 'pan', gapMm: 5 }] });
    const to = (change: Partial<StrikeAnswer>): boolean => helps(before, { ...before, ...change });
    expect(to({})).toBe(false);
    expect(to({ gapMm: 9 })).toBe(true);
    expect(to({ gapMm: 3, ringHz: 60 })).toBe(false);
    expect(to({ ringHz: 60 })).toBe(true);
    expect(helps({ ...before, ringHz: 60 }, { ...before, ringHz: 90 })).toBe(false);
    expect(helps({ ...before, reached: 0.6 }, { ...before, gapMm: 1 })).toBe(true);
    expect(to({ reached: 0.8, gapMm: 20 })).toBe(false);
    // the part that is crowded counts, not the nearest
    expect(helps(before, { ...before, gapMm: 1, gaps: [{ component: 'pan', gapMm: 12 }] }, 'pan')).toBe(true);
  });
  it('that gives way, dents, drums or shears a bolt is told of', () => {
    expect(of({ ...calm, reached: 0.6 })).toEqual(['gives-way stop']);
    expect(of({ ...calm, gaveWayAt: 0.7 })).toEqual(['gives-way fix']);
    expect(of({ ...calm, dentMm: 0.4 })).toEqual([]);
    expect(of({ ...calm, dentMm: 4 })).toEqual(['yields note']);
    expect(of({ ...calm, ringHz: 39 })).toEqual(['ring note']);
    const joint = heron.joints.find(j => j.joint.panels.includes(bare.panel))!;
    const bears = jointCapacity(joint, heron.panels);
    const load = (share: number) => ({
      ...calm,
      reactionsN: [
        {
          joint: joint.id,
          tensionN: 0,
          boltN: 0,
          momentNm: 0,
          shearN: share * bears.shear.force,
          state: 'bearing' as const,
        },
      ],
    });
    expect(of(load(0.95))).toEqual([]);
    expect(of(load(1.05))).toEqual(['joint-load stop']);
    // pull and shear each under their limit, together over it
    expect(jointShare({ boltN: 0.8 * bears.pull.force, shearN: 0.8 * bears.shear.force }, bears)).toBeCloseTo(
      0.8 * Math.SQRT2,
      9,
    );
  });
  it('that pries a bolt beyond what it bears is told so, and gets the class that holds where one does', () => {
    const joint = heron.joints.find(
      j =>
        j.joint.panels.includes(bare.panel) &&
        j.joint.fastener.class === '8.8' &&
        j.nut?.stripTorque === undefined,
    )!;
    const { pull } = jointCapacity(joint, heron.panels);
    const pried = (share: number) =>
      checkStruck(heron, [
        {
          ...bare,
          ...calm,
          reactionsN: [
            {
              joint: joint.id,
              tensionN: 0,
              boltN: share * pull.force,
              momentNm: 200,
              shearN: 0,
              state: 'held' as const,
            },
          ],
        },
      ]);
    expect(pried(0.9)).toEqual([]);
    const [over] = pried(1.1);
    expect(over?.text).toContain('prying');
    expect(over?.remedy).toContain('Class 10.9');
    const after = gatherFacts(mended(heron.document, over!.mend!), heron.build.id);
    const held = after.joints.find(j => j.id === joint.id)!;
    expect(held.joint.fastener.class).toBe('10.9');
    expect(jointCapacity(held, after.panels).pull.force).toBeGreaterThan(1.1 * pull.force);
    // beyond the stronger one there is nothing to press
    expect(pried(3)[0]?.mend).toBeUndefined();
  });
  it('every rule says why it matters', () => {
    for (const r of STRUCK_RULES) expect(r.why.length).toBeGreaterThan(20);
  });
  it('what a joint bears follows its bolt: proof along it, 0.577 of that across (Shigley Eq. 5-20)', () => {
    const bolts = heron.joints.filter(
      j =>
        j.limitedBy === 'bolt' &&
        j.joint.torque === 'auto' &&
        Math.min(...j.pulls.map(p => p.force)) === j.pulls[0]?.force,
    );
    expect(bolts.length).toBeGreaterThan(0);
    for (const j of bolts) {
      expect(j.bearsN.tension).toBeCloseTo(j.preloadN / 0.75, 6);
      expect(j.bearsN.shear / j.bearsN.tension).toBeCloseTo(0.577, 6);
    }
  });
  it('is helped by what is offered: thicker sheet and a turned-up edge give less, and every offer is a sound plan', () => {
    const own = heron.panels.find(p => p.panel.id === bare.panel)!;
    const offers = struckRemedies(heron, bare, words);
    expect(offers.map(o => o.id)).toEqual(expect.arrayContaining(['thicker', 'other-sheet', 'edge']));
    for (const o of offers) {
      const made = checkDocument(structuredClone(mended(heron.document, o.mend)));
      if (!made.ok) throw new Error(`${o.id}: ${made.faults[0]?.path} ${made.faults[0]?.fault}`);
      const { document } = made;
      const folded = assemble(document, heron.build.id).panels.find(p => p.panel.id === bare.panel)!;
      const r = strikePlate({
        ...wishOf({ ...heron, document }, folded, 5786, { at: [bare.at[0], bare.at[1]] }),
        size: 1.3,
      });
      if (!r.ok) throw new Error(r.fault);
      if (o.id === 'thicker' || o.id === 'crossbar')
        expect(r.value.deflectionMm).toBeLessThan(bare.deflectionMm * 0.97);
      if (o.id === 'thicker') expect(folded.sheet.thickness).toBeGreaterThan(own.sheet.thickness);
      if (o.id === 'edge') expect(folded.panel.flanges.length).toBeGreaterThan(own.panel.flanges.length);
    }
  }, 120_000);
  it('is offered a crossbar only where mounts on both sides reach over it and no part stands in its way', () => {
    for (const facts of [heron, demo('bramble')])
      for (const p of facts.panels) {
        const at = {
          ...bare,
          panel: p.panel.id,
          at: [p.panel.base.origin[0] + 200, 0, p.panel.base.origin[2]] as const,
        };
        const bar = struckRemedies(facts, at, words).find(o => o.id === 'crossbar');
        if (!bar) continue;
        const added = mended(facts.document, bar.mend).plan.crossbars.at(-1)!;
        expect(added.from[1]).toBeLessThan(0);
        expect(added.to[1]).toBeGreaterThan(0);
        expect(added.mounts).toHaveLength(2);
      }
  });
});

describe('a bracket that a strike bends for good', () => {
  it('is found, and thicker sheet, which can be bent and fits, bears it', () => {
    const doc = fourZ(demoPlan('bramble'));
    const struck = (of: Facts): StrikeAnswer => {
      const folded = of.plates[0]!;
      const r = strikePlate({ ...wishOf(of, folded, 2100, { at: [60, 20] }), size: 1.4, noDent: true });
      if (!r.ok) throw new Error(r.fault);
      return r.value;
    };
    const facts = gatherFacts(doc);
    const before = struck(facts);
    const found = checkStruck(facts, [before]).filter(f => f.rule === 'bracket-bends');
    expect(found.length).toBeGreaterThan(0);
    expect(found.length).toBe(before.brackets.filter(b => b.vonMisesMPa > 1.1 * b.yieldMPa).length);
    for (const f of found) {
      expect(f.text).toMatch(/lifts bracket K\d by .* % of its yield/);
      const after = f.mend && mended(doc, f.mend);
      if (!after) continue;
      const sound = checkDocument(structuredClone(after));
      expect(sound.ok ? [] : sound.faults).toEqual([]);
      const again = struck(gatherFacts(after)).brackets.find(b => f.about.includes(b.panel))!;
      expect(again.vonMisesMPa).toBeLessThan(1.1 * again.yieldMPa);
    }
    expect(found.some(f => f.mend)).toBe(true);
    const calm = before.brackets.map(b => ({ ...b, vonMisesMPa: b.yieldMPa }));
    expect(checkStruck(facts, [{ ...before, brackets: calm }]).some(f => f.rule === 'bracket-bends')).toBe(
      false,
    );
  });

  it('so is a plate that its wing bends, and thicker sheet for it bears the wing', () => {
    const doc = wing(demoPlan('bramble'));
    const struck = (of: Facts): StrikeAnswer => {
      const folded = of.plates.find(p => p.panel.id === 'plate-a')!;
      const r = strikePlate({ ...wishOf(of, folded, 600, { at: [170, 0] }), size: 1.4, noDent: true });
      if (!r.ok) throw new Error(r.fault);
      return r.value;
    };
    const facts = gatherFacts(doc);
    const found = checkStruck(facts, [struck(facts)]).find(f => f.rule === 'bracket-bends')!;
    expect(found.text).toMatch(/plate A lifts plate B by .* and bends it for good/);
    expect(found.remedy).toMatch(/^Make it of /);
    const again = struck(gatherFacts(mended(doc, found.mend!))).brackets[0]!;
    expect(again.panel).toBe('plate-b');
    expect(again.vonMisesMPa).toBeLessThan(1.1 * again.yieldMPa);
  });
});
