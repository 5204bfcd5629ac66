import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holeKindWords } from '../bolt';
import { check } from '../checks';
import { plateUnder } from '../cover';
import { gatherFacts } from '../derive';
import { dot3, scale3 } from '../geometry';
import { checkDocument, done, type Panel, type PlanDocument, panelsRemoved } from '../plan';
import type { Mount } from '../rig';
import { installationOf } from '../sequence';
import { platesOnly } from '../testing';
import { addBracket, addTwin, BRACKET_SHEET, bracketAdded, remakeBracket } from './index';

const side = (id: string, x: number, left: boolean, z = 480): Mount => ({
  id,
  member: left ? 'rail-left' : 'rail-right',
  at: [x, left ? -400 : 400, z],
  normal: [0, left ? 1 : -1, 0],
  hole: { kind: 'through', diameter: 11 },
  condition: 'good',
  nutReach: 'open',
});
/** Bramble with holes in the inner sides of its rails, and one plate that reaches them both. */
const vehicle = (): PlanDocument => {
  const doc = platesOnly(demo('bramble'));
  return {
    ...doc,
    rig: {
      ...doc.rig,
      mounts: [
        ...doc.rig.mounts,
        side('side-l', -100, true, 440),
        side('side-r', -100, false, 440),
        side('side-c', 1400, true),
      ],
    },
  };
};
const valid = (doc: PlanDocument): void => {
  const r = checkDocument(structuredClone(doc));
  expect(r.ok ? [] : r.faults).toEqual([]);
};
const must = (r: ReturnType<typeof done>): PlanDocument => {
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};
const bracketOf = (doc: PlanDocument): Panel => {
  const p = doc.plan.panels.find(x => x.role === 'bracket');
  if (!p) throw new Error('no bracket');
  return p;
};

describe('a bracket in a plan', () => {
  const doc = vehicle();
  const hung = must(done(addBracket, doc, { mount: 'side-c', panel: 'plate-c', at: [1400, -330] }));

  it('is bolted to the rail’s side and to the plate, closes both stacks and brings no finding', () => {
    valid(hung);
    const facts = gatherFacts(hung);
    const bracket = bracketOf(hung);
    expect([bracket.mark, bracket.name]).toEqual(['K1', 'L bracket']);
    const mine = facts.joints.filter(j => j.joint.panels.includes(bracket.id));
    expect(mine).toHaveLength(2);
    for (const j of mine) {
      const seat = facts.seats.get(j.id);
      expect(seat?.loose).toBeUndefined();
      for (const g of seat?.gaps ?? []) expect(Math.abs(g.mm)).toBeLessThan(0.01);
      for (const p of seat?.plates ?? []) expect(p.where).toBe('flat');
    }
    // grip along the bolt: bracket, washer and the rail's wall, sideways; plate, washer and bracket, upright, the nut's own height beyond
    const rail = hung.rig.members.find(m => m.id === 'rail-left');
    const [sideways, upright] = [mine.find(j => j.mount), mine.find(j => !j.mount)];
    expect(sideways?.gripMm).toBeCloseTo(BRACKET_SHEET.thickness + 2 + (rail?.wall ?? 0), 6);
    expect(upright?.nut?.kind).toBe('clinch');
    const was = new Set(check(gatherFacts(doc)).map(f => f.text));
    expect(check(facts).filter(f => !was.has(f.text) && f.severity !== 'note')).toEqual([]);
  });

  it('is no cover, has its holes in its blank, and is weighed, priced and cut with the plates', () => {
    const facts = gatherFacts(hung);
    const before = gatherFacts(doc);
    const bracket = facts.panels.find(p => p.panel.role === 'bracket');
    expect(facts.coverage).toEqual(before.coverage);
    expect(facts.plates.map(p => p.panel.id)).toEqual(before.plates.map(p => p.panel.id));
    // 11 mm for M10 through the rail (ISO 273 medium), 14 mm for its clinch nut
    expect(bracket?.holes.map(h => h.cut)).toEqual(expect.arrayContaining([{ circle: 11 }, { circle: 14 }]));
    // its nut goes in from the face away from the bolt's head
    const nut = bracket?.holes.find(h => h.kind === 'clinch');
    const facet = bracket?.facets.find(f => f.id === nut?.facet);
    const seat = facts.seats.get(nut?.joint ?? '');
    if (!bracket || !nut || !facet || !seat) throw new Error('no clinch nut');
    const upper = scale3(facet.frame.n, bracket.sheet.thickness);
    expect(dot3(upper, seat.axis) > 0 ? 'underside' : 'upper face').toBe(nut.pressedFrom);
    expect(holeKindWords({ hole: nut, thread: 'M10x1.5' }, 'metric')).toBe(
      `for a clinch nut M10x1.5, pressed in from the ${nut.pressedFrom}`,
    );
    expect(facts.weight.addedKg - before.weight.addedKg).toBeGreaterThan(bracket?.massKg ?? 99);
    expect(facts.weight.costs.bending).toBeGreaterThan(before.weight.costs.bending);
  });

  it('is held at its hole before its plate goes up, by hand and without a jack', () => {
    const { steps } = installationOf(gatherFacts(hung), 'metric');
    const at = (title: RegExp): number => steps.findIndex(s => title.test(s.title));
    expect(at(/^Hold bracket K1/)).toBeGreaterThan(0);
    expect(at(/^Hold bracket K1/)).toBeLessThan(at(/Raise plate C/));
    expect(steps.some(s => /jack.*K1/i.test(s.title))).toBe(false);
    // its plate covers it: it is made fast before
    expect(at(/^Tighten the bolt of bracket K1/)).toBeGreaterThan(at(/^Hold bracket K1/));
    expect(at(/^Tighten the bolt of bracket K1/)).toBeLessThan(at(/Raise plate C/));
    expect(steps.filter(s => /clinch nut/i.test(s.title))).toHaveLength(1);
  });

  it('goes with its bolts, and its plate’s bolt with it', () => {
    const gone = panelsRemoved(hung, [bracketOf(hung).id]);
    valid(gone);
    expect(gone.plan.joints).toEqual(doc.plan.joints);
    const without = panelsRemoved(hung, ['plate-c']);
    valid(without);
    expect(
      without.plan.joints.some(j => j.mount === undefined && j.panels.includes(bracketOf(hung).id)),
    ).toBe(false);
  });

  it('is made anew of other sheet in its place, and its bolts close again', () => {
    const id = bracketOf(hung).id;
    const thick = must(
      done(remakeBracket, hung, {
        bracket: id,
        sheet: { ...BRACKET_SHEET, thickness: 6.35, gauge: '1/4 in' },
        play: 8,
      }),
    );
    valid(thick);
    const facts = gatherFacts(thick);
    const made = bracketOf(thick);
    expect([made.id, made.mark, made.sheet?.thickness]).toEqual([id, 'K1', 6.35]);
    for (const j of facts.joints.filter(x => x.joint.panels.includes(id)))
      for (const g of facts.seats.get(j.id)?.gaps ?? []) expect(Math.abs(g.mm)).toBeLessThan(0.01);
    expect(facts.panels.find(p => p.panel.id === id)?.holes.map(h => h.kind)).toContain('slot');
    expect(thick.plan.joints.map(j => j.id)).toEqual(hung.plan.joints.map(j => j.id));
  });

  it('has a twin on the other side, which is the same part', () => {
    const wide = doc;
    const one = bracketAdded(wide, { mount: 'side-l', panel: 'plate-a', at: [-100, -320] });
    if (!one.ok) throw new Error(one.fault);
    const two = must(done(addTwin, one.value.document, { bracket: one.value.id }));
    valid(two);
    const twin = two.plan.panels.at(-1);
    expect(twin?.pairOf).toBe(one.value.id);
    const [a, b] = gatherFacts(two).panels.filter(p => p.panel.role === 'bracket');
    expect(a?.massKg).toBeCloseTo(b?.massKg ?? 0, 6);
    // another sheet for one is another sheet for both
    const both = must(
      done(remakeBracket, two, { bracket: one.value.id, sheet: { ...BRACKET_SHEET, thickness: 6.35 } }),
    );
    valid(both);
    expect(
      both.plan.panels
        .filter(p => p.role === 'bracket')
        .map(p => [p.sheet?.thickness, p.pairOf !== undefined]),
    ).toEqual([
      [6.35, false],
      [6.35, true],
    ]);
  });

  it('says what is in its way, and what hole is taken', () => {
    const low = bracketAdded(doc, { mount: 'rail-l6', panel: 'plate-c', at: [1300, -300] });
    expect(low.ok ? '' : low.fault).toContain('transfer case is in the way');
    const taken = doc.plan.joints.find(j => j.mount !== undefined)?.mount ?? '';
    const twice = bracketAdded(doc, { mount: taken, panel: 'plate-c', at: [1400, -330] });
    expect(twice.ok ? '' : twice.fault).toContain('already');
    const off = bracketAdded(doc, { mount: 'side-c', panel: 'plate-c', at: [5000, 0] });
    expect(off.ok ? '' : off.fault).toContain('is not there');
  });

  it('wherever it can be made, leaves a sound plan whose bolts close and which has no new stop', () => {
    const runs = Number(process.env.SOAK_BRACKETS ?? 100);
    let made = 0;
    const taken = new Set(doc.plan.joints.map(j => j.mount));
    const free = doc.rig.mounts.filter(m => !taken.has(m.id));
    const { plates } = gatherFacts(doc);
    const stops = new Set(check(gatherFacts(doc)).map(f => f.rule));
    fc.assert(
      fc.property(
        fc.constantFrom(...free),
        fc.integer({ min: -170, max: 170 }),
        fc.integer({ min: -170, max: 170 }),
        (hole, dx, dy) => {
          const at = [hole.at[0] + dx, hole.at[1] + dy] as const;
          const panel = plateUnder(plates, at);
          if (panel === undefined) return;
          const r = bracketAdded(doc, { mount: hole.id, panel, at });
          if (!r.ok) return;
          made++;
          valid(r.value.document);
          const facts = gatherFacts(r.value.document);
          for (const j of facts.joints.filter(k => k.joint.panels.includes(r.value.id)))
            for (const g of facts.seats.get(j.id)?.gaps ?? []) expect(Math.abs(g.mm)).toBeLessThan(0.02);
          const solid = check(facts).filter(
            f => (f.rule === 'solid' || f.rule === 'seat') && !stops.has(f.rule),
          );
          expect(solid.map(f => f.text)).toEqual([]);
        },
      ),
      { numRuns: runs },
    );
    expect(made).toBeGreaterThan(runs / 30);
  });
});
