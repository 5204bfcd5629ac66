import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { check } from '../checks';
import { gatherFacts } from '../derive';
import { brakeOrder, foldPanel, SHOPS } from '../fold';
import { add3, scale3, unit3, type Vec3 } from '../geometry';
import { checkDocument, done, type PlanDocument, type SheetChoice, type Shop } from '../plan';
import { installationOf } from '../sequence';
import { MATERIALS, minimumRadius } from '../sheet';
import { strikePlate, wishOf } from '../strike';
import { bracketPanel, faceMet, platesOnly, stiffened } from '../testing';
import { addBracket, addTwin, BRACKET_SHEET, type Face, hatBetween, remakeBracket } from './index';

const STEEL: SheetChoice = { material: 'steel-hr36', thickness: 4.7625, finish: 'raw' };
const anySheet = fc.constantFrom<SheetChoice>(
  STEEL,
  { ...STEEL, thickness: 3.038 },
  { ...STEEL, thickness: 6.35 },
  { material: 'al-5052-h32', thickness: 4.8, finish: 'raw' },
);
/** Two holes in an underside that lies any way, and a plate below, its bolt somewhere near their middle. */
const anyHat = fc
  .record({
    apart: fc.integer({ min: 40, max: 320 }),
    low: fc.integer({ min: 2, max: 120 }),
    turn: fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
    tilt: fc.double({ min: -0.3, max: 0.3, noNaN: true }),
    off: fc.tuple(fc.integer({ min: -25, max: 25 }), fc.integer({ min: -15, max: 15 })),
    bolt: fc.constantFrom(8, 10, 12),
  })
  .map(({ apart, low, turn, tilt, off, bolt }): readonly [readonly [Face, Face], Face] => {
    const n = unit3([Math.sin(tilt), 0, Math.cos(tilt)]);
    const p = unit3([Math.cos(turn) * Math.cos(tilt), Math.sin(turn), -Math.cos(turn) * Math.sin(tilt)]);
    const v: Vec3 = [
      (n[1] as number) * p[2] - n[2] * p[1],
      n[2] * p[0] - n[0] * p[2],
      n[0] * p[1] - n[1] * p[0],
    ];
    const hole = (s: number): Face => ({ at: scale3(p, (s * apart) / 2), normal: scale3(n, -1), bolt });
    const at = add3(add3(scale3(n, -low), scale3(p, off[0])), scale3(v, off[1]));
    return [[hole(-1), hole(1)], { at, normal: n, bolt }];
  });
describe('a hat between two holes and a plate', () => {
  it('lies flat on all three within 0.01 mm, its holes clear of bends and edges, or says why it cannot be', () => {
    let made = 0;
    fc.assert(
      fc.property(anyHat, anySheet, ([feet, to], sheet) => {
        const r = hatBetween(feet, to, { sheet });
        if (!r.ok) {
          expect(r.fault).toMatch(/too near/);
          return;
        }
        made++;
        const panel = bracketPanel(r.value.shape);
        for (const face of [...feet, to]) {
          const m = faceMet(panel, sheet, face);
          expect(m?.off).toBeLessThan(0.01);
          // AISC 360-16 J3.4: no edge nearer than one and a half bolts; a mold line is an edge of the flat here
          expect(m?.inside).toBeGreaterThanOrEqual(1.5 * face.bolt - 1e-6);
        }
        const folded = foldPanel(panel, sheet);
        const least = minimumRadius(MATERIALS[sheet.material], sheet.thickness) ?? 0;
        expect(folded.bends).toHaveLength(4);
        for (const b of folded.bends) expect(b.ok && b.insideRadius >= least - 1e-9).toBe(true);
      }),
      { numRuns: 300 },
    );
    expect(made).toBeGreaterThan(40);
  });

  it.each([
    ['faces that are not in one plane', [0, 0, 4], [0, 0, -1], /not in one plane/],
    ['faces that look different ways', [0, 0, 0], [0, 0.1, -1], /not in one plane/],
  ] as const)('is refused for %s', (_, shift, normal, why) => {
    const face = (x: number): Face => ({ at: [x, 0, 0], normal: [0, 0, -1], bolt: 8 });
    const other: Face = { ...face(120), at: add3([120, 0, 0], shift), normal };
    const r = hatBetween(
      [face(-120), other],
      { at: [0, 0, -60], normal: [0, 0, 1], bolt: 8 },
      { sheet: STEEL },
    );
    expect(r.ok ? '' : r.fault).toMatch(why);
  });

  it('is refused over a tilted plate, and of what cannot be bent', () => {
    const face = (x: number): Face => ({ at: [x, 0, 0], normal: [0, 0, -1], bolt: 8 });
    const to: Face = { at: [0, 0, -60], normal: [0, 0.05, 1], bolt: 8 };
    const tilted = hatBetween([face(-120), face(120)], to, { sheet: STEEL });
    expect(tilted.ok ? '' : tilted.fault).toMatch(/tilted/);
    const hard = hatBetween(
      [face(-120), face(120)],
      { ...to, normal: [0, 0, 1] },
      {
        sheet: { ...STEEL, material: 'al-6061-t6' },
      },
    );
    expect(hard.ok).toBe(minimumRadius(MATERIALS['al-6061-t6'], STEEL.thickness) !== undefined);
  });

  it('goes through a common brake', () => {
    const face = (x: number): Face => ({ at: [x, 0, 0], normal: [0, 0, -1], bolt: 10 });
    const r = hatBetween(
      [face(-110), face(110)],
      { at: [0, 0, -55], normal: [0, 0, 1], bolt: 10 },
      {
        sheet: STEEL,
      },
    );
    if (!r.ok) throw new Error(r.fault);
    expect(brakeOrder(foldPanel(bracketPanel(r.value.shape), STEEL), SHOPS[0] as Shop).blocked).toEqual([]);
  });
});

describe('a hat in a plan', () => {
  const must = (r: ReturnType<typeof done>): PlanDocument => {
    if (!r.ok) throw new Error(r.fault);
    return r.value;
  };
  const doc = stiffened(platesOnly(demo('bramble')));
  const hung = must(
    done(addBracket, doc, { mount: 'in-1', second: 'out-1', panel: 'plate-c', at: [1400, -120] }),
  );
  const hat = hung.plan.panels.find(p => p.role === 'bracket')!;

  it('has a bolt in each of its holes and one in the plate, closes all of them and brings no finding', () => {
    const read = checkDocument(structuredClone(hung));
    expect(read.ok ? [] : read.faults).toEqual([]);
    const facts = gatherFacts(hung);
    expect([hat.mark, hat.name]).toEqual(['K1', 'hat bracket']);
    const mine = facts.joints.filter(j => j.joint.panels.includes(hat.id));
    expect(mine.map(j => j.mount?.id)).toEqual(['in-1', 'out-1', undefined]);
    for (const j of mine)
      for (const g of facts.seats.get(j.id)?.gaps ?? []) expect(Math.abs(g.mm)).toBeLessThan(0.01);
    const was = new Set(check(gatherFacts(doc)).map(f => f.text));
    expect(check(facts).filter(f => !was.has(f.text) && f.severity !== 'note')).toEqual([]);
  });

  it('is held at its holes before its plate, and a strike is handed on through all three of its bolts', () => {
    const facts = gatherFacts(hung);
    const { steps } = installationOf(facts);
    const hold = steps.findIndex(s => s.title === 'Hold bracket K1, hat bracket, at its holes');
    expect(hold).toBeGreaterThan(0);
    expect(hold).toBeLessThan(steps.findIndex(s => /Raise plate C/.test(s.title)));
    const plate = facts.panels.find(p => p.panel.id === 'plate-c')!;
    const struck = strikePlate({ ...wishOf(facts, plate, 3000), size: 1.6, at: [1330, -120] });
    if (!struck.ok) throw new Error(struck.fault);
    expect(struck.value.brackets.map(b => b.panel)).toEqual([hat.id]);
    expect(struck.value.brackets[0]?.vonMisesMPa).toBeGreaterThan(1);
    // through its feet into the vehicle: what lifts the plate's bolt is small beside the dent of the plate
    expect(struck.value.brackets[0]?.riseMm).toBeLessThan(struck.value.deflectionMm);
  });

  it('has a twin that is the same part, and is made anew with its bolts', () => {
    const both = must(done(addTwin, hung, { bracket: hat.id }));
    const twin = both.plan.panels.filter(p => p.role === 'bracket').at(-1);
    expect(twin?.pairOf).toBe(hat.id);
    expect(both.plan.joints.filter(j => j.panels.includes(twin?.id ?? '')).map(j => j.mount)).toEqual([
      'in1',
      'out1',
      undefined,
    ]);
    const thick = must(
      done(remakeBracket, both, {
        bracket: hat.id,
        sheet: { ...BRACKET_SHEET, thickness: 6.35, gauge: '1/4 in' },
      }),
    );
    expect(thick.plan.joints.map(j => j.id)).toEqual(both.plan.joints.map(j => j.id));
    const facts = gatherFacts(thick);
    for (const p of facts.panels.filter(x => x.panel.role === 'bracket')) {
      expect(p.sheet.thickness).toBe(6.35);
      for (const j of facts.joints.filter(x => x.joint.panels.includes(p.panel.id)))
        for (const g of facts.seats.get(j.id)?.gaps ?? []) expect(Math.abs(g.mm)).toBeLessThan(0.01);
    }
  });
});
