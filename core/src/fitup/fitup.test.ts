import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble } from '../derive';
import type { Vec2 } from '../geometry';
import {
  type Call,
  changeJoints,
  checkDocument,
  commandOf,
  done,
  type PlanDocument,
  panelsRemoved,
} from '../plan';
import { normalFrom, numbersFrom } from '../units';
import { fitOf, type HoleIn, type Model, modelOf, remediesOf, trialOf } from './index';

/** Plates in the ground plane with holes at places, against holes of the vehicle; all rooms round but where a slot is told. */
function flatModel(
  plates: readonly (readonly {
    readonly at: Vec2;
    readonly radius: number;
    readonly slot?: readonly [number, number];
  }[])[],
): Model {
  const bolts: Record<string, HoleIn[]> = {};
  plates.forEach((holes, body) => {
    for (const { at, radius, slot } of holes) {
      const key = at.join();
      bolts[key] ??= [{ room: { radius: 0.2, half: 0, along: [1, 0] }, sigma: 0, bends: [] }];
      bolts[key].push({
        body,
        room: {
          radius,
          half: (slot?.[0] ?? 0) / 2,
          along: [Math.cos(slot?.[1] ?? 0), Math.sin(slot?.[1] ?? 0)],
        },
        by: [
          [1, 0, -at[1]],
          [0, 1, at[0]],
        ],
        sigma: 0,
        bends: [],
      });
    }
  });
  return {
    bodies: plates.map((_, i) => ({ id: `${i}`, kind: 'panel' as const })),
    bolts: Object.entries(bolts).map(([id, holes]) => ({
      joint: { id } as never,
      e1: [1, 0, 0],
      e2: [0, 1, 0],
      holes,
    })),
    bends: 0,
  };
}
const mended = (doc: PlanDocument, call: Call): PlanDocument => {
  const r = done(commandOf([changeJoints as never], call), doc, call.args);
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};
const every = (m: Model): readonly number[] => m.bolts.map((_, i) => i);

/** How far the worst bolt of one plate is out of its room at the best place that a dense search finds: finer and finer about the best. */
function searched(m: Model, off: Float64Array): number {
  const at = (x: number, y: number, turn: number): number => {
    let k = 0;
    let worst = Number.NEGATIVE_INFINITY;
    for (const b of m.bolts) {
      const [v, p] = b.holes as readonly [HoleIn, HoleIn];
      const [r1, r2] = p.by!;
      const dx = off[k + 2]! + r1[0] * x + r1[1] * y + r1[2] * turn - off[k]!;
      const dy = off[k + 3]! + r2[0] * x + r2[1] * y + r2[2] * turn - off[k + 1]!;
      const { along, half, radius } = p.room;
      const s = Math.max(-half, Math.min(half, dx * along[0] + dy * along[1]));
      worst = Math.max(worst, Math.hypot(dx - s * along[0], dy - s * along[1]) - radius - v.room.radius);
      k += 4;
    }
    return worst;
  };
  let best: [number, number, number] = [0, 0, 0];
  let [far, turn] = [6, 0.03];
  for (let level = 0; level < 12; level++) {
    const from = best;
    let worst = at(...best);
    for (let i = -3; i <= 3; i++)
      for (let j = -3; j <= 3; j++)
        for (let k = -3; k <= 3; k++) {
          const p: [number, number, number] = [
            from[0] + (far * i) / 3,
            from[1] + (far * j) / 3,
            from[2] + (turn * k) / 3,
          ];
          const w = at(...p);
          if (w < worst) [worst, best] = [w, p];
        }
    // it closes in slowly, so that a valley aslant is followed
    far *= 0.6;
    turn *= 0.6;
  }
  return at(...best);
}

describe('whether bolts start', () => {
  it('is found as by a dense search over shifts and turns, for any holes, rooms and slots', () => {
    let [yes, no] = [0, 0];
    fc.assert(
      fc.property(
        fc.uniqueArray(
          fc.record({
            at: fc
              .tuple(fc.integer({ min: -4, max: 4 }), fc.integer({ min: -2, max: 2 }))
              .map(([x, y]): Vec2 => [100 * x, 100 * y]),
            radius: fc.double({ min: 0.3, max: 1.5, noNaN: true }),
            slot: fc.option(
              fc.tuple(
                fc.double({ min: 1, max: 6, noNaN: true }),
                fc.double({ min: 0, max: 3, noNaN: true }),
              ),
              {
                nil: undefined,
              },
            ),
          }),
          { minLength: 2, maxLength: 5, selector: h => h.at.join() },
        ),
        fc.integer({ min: 1, max: 1e6 }),
        (holes, seed) => {
          const m = flatModel([
            holes.map(h => ({ at: h.at, radius: h.radius, ...(h.slot ? { slot: h.slot } : {}) })),
          ]);
          const next = numbersFrom(seed);
          const off = Float64Array.from({ length: 4 * holes.length }, () => 0.9 * normalFrom(next));
          const best = searched(m, off);
          const { starts } = trialOf(m, [0], every(m))(off);
          // the search is as fine as its grid: what lies at the edge is left out
          if (best < -0.03) {
            yes++;
            expect(starts).toBe(true);
          }
          if (best > 0.05) {
            no++;
            expect(starts).toBe(false);
          }
        },
      ),
      { numRuns: Number(process.env.SOAK_FITS ?? 120), seed: 4 },
    );
    expect(yes).toBeGreaterThan(15);
    expect(no).toBeGreaterThan(15);
  });
  it('one bolt always does; two do where their distance is within their rooms', () => {
    const one = flatModel([[{ at: [100, 50], radius: 0.5 }]]);
    expect(trialOf(one, [0], every(one))(Float64Array.from([9, -7, 3, 3])).starts).toBe(true);
    const m = flatModel([
      [
        { at: [0, 0], radius: 0.5 },
        { at: [500, 0], radius: 0.5 },
      ],
    ]);
    const trial = trialOf(m, [0], every(m));
    // rooms of 0.7 at each end
    for (const [d, starts] of [
      [1.35, true],
      [1.45, false],
      [-1.35, true],
      [-1.45, false],
    ] as const)
      expect(trial(Float64Array.from([0, 0, 0, 0, d, 0.4, 0, 0])).starts, `${d}`).toBe(starts);
  });
  it('of two bolts is the share of a normal distribution within their rooms', () => {
    const m = flatModel([
      [
        { at: [0, 0], radius: 0.5 },
        { at: [600, 0], radius: 0.5 },
      ],
    ]);
    const trial = trialOf(m, [0], every(m));
    const next = numbersFrom(8);
    const trials = 6000;
    let count = 0;
    for (let t = 0; t < trials; t++)
      if (
        trial(
          Float64Array.from([
            normalFrom(next),
            normalFrom(next),
            0,
            0,
            normalFrom(next),
            normalFrom(next),
            0,
            0,
          ]),
        ).starts
      )
        count++;
    // P(|N(0, sqrt 2)| < 1.4) = 0.6778, from tables of the normal distribution
    expect(Math.abs(count / trials - 0.6778)).toBeLessThan(0.02);
  });
  it('two plates on one bolt meet in the vehicle’s hole, or do not', () => {
    const m = flatModel([
      [
        { at: [0, 0], radius: 0.3 },
        { at: [300, 0], radius: 0.3 },
      ],
      [
        { at: [300, 0], radius: 0.3 },
        { at: [600, 0], radius: 0.3 },
      ],
    ]);
    const both = trialOf(m, [0, 1], every(m));
    // bolts at 0, 300, 600: vehicle, then plates
    const off = (shared: number): Float64Array =>
      Float64Array.from([0, 0, 0, 0, shared, 0, 0, 0, 0, 0, 0, 0, 0, 0]);
    expect(both(off(0.4)).starts).toBe(true);
    expect(both(off(0.9)).starts).toBe(true);
    expect(both(off(1.1)).starts).toBe(false);
    // alone neither asks for the other
    expect(trialOf(m, [0], every(m))(off(0.9)).starts).toBe(true);
  });
});

/** Heron without its legs, its holes no larger than usual, every one known well but one, of the tank's plate. */
function heron(bad: number): PlanDocument {
  const doc = panelsRemoved(demo('heron'), ['bracket-7', 'bracket-8']);
  const mounts = doc.rig.mounts.map(m => ({
    ...m,
    sigma: (m.id === 'h6ri' ? [bad, bad, 0.3] : [0.15, 0.15, 0.3]) as [number, number, number],
  }));
  const joints = doc.plan.joints.map(({ fit: _, ...j }) => j);
  return { ...doc, rig: { ...doc.rig, mounts }, plan: { ...doc.plan, joints } };
}

describe('the chance of a plan', () => {
  it('falls with what is not known, never with larger holes, and is the same at every look', () => {
    const well = fitOf(assemble(heron(0.15)), 400);
    const ill = fitOf(assemble(heron(3)), 400);
    expect(well.all.chance - ill.all.chance).toBeGreaterThan(0.3);
    expect(fitOf(assemble(heron(3)), 400).all).toEqual(ill.all);
    const worst = [...ill.joints].sort((a, b) => b.refuses - a.refuses)[0]!;
    expect(ill.model.bolts.find(b => b.joint.id === worst.id)?.mount?.id).toBe('h6ri');
    // every hole larger, never less likely
    const doc = heron(3);
    const wide = {
      ...doc,
      plan: { ...doc.plan, joints: doc.plan.joints.map(j => ({ ...j, fit: 'loose' as const })) },
    };
    expect(fitOf(assemble(wide), 400).all.chance).toBeGreaterThanOrEqual(ill.all.chance);
    // a plate is at least as likely as its group, a group as the whole
    for (const p of ill.panels) expect(p.chance).toBeGreaterThanOrEqual(ill.all.chance);
    for (const g of ill.groups)
      for (const id of g.panels)
        expect(ill.panels.find(p => p.id === id)!.chance).toBeGreaterThanOrEqual(g.chance);
  });
  it('is brought up by the remedy of the one bad hole: measured, drilled on fit or a slot', () => {
    const of = assemble(heron(3));
    const fit = fitOf(of, 500);
    const remedies = remediesOf(of, fit, 300);
    for (const r of remedies.filter(x => x.mend)) {
      const after = mended(of.document, r.mend!);
      expect(fitOf(assemble(after), 300).all.chance).toBeCloseTo(r.chance, 9);
      // what is changed about holes leaves no bolt without one
      expect(checkDocument(after).ok).toBe(true);
    }
    const [best] = remedies;
    expect((best?.chance ?? 0) - fit.all.chance).toBeGreaterThan(0.3);
    expect(fit.model.bolts.find(b => b.joint.id === best?.joint)?.mount?.id).toBe('h6ri');
    expect(new Set(remedies.map(r => r.what))).toEqual(
      new Set(['slot', 'larger', 'drill-on-fit', 'measure']),
    );
    expect(remedies.every((r, i) => i === 0 || r.chance <= remedies[i - 1]!.chance)).toBe(true);
  });
  it('asks nothing of holes that are drilled through the plate, and gives a bracket its own push', () => {
    const pebble = modelOf(assemble(demo('pebble')));
    for (const b of pebble.bolts)
      if (b.joint.mount?.hole.kind === 'drill') expect(b.holes.every(h => h.body !== undefined)).toBe(true);
    const wren = modelOf(assemble(demo('wren')));
    const bracket = wren.bodies.findIndex(b => b.id.startsWith('bracket'));
    const plate = wren.bolts.find(b => b.joint.mount === undefined && b.holes.some(h => h.body === bracket))!;
    const own = plate.holes.find(h => h.body === bracket)!;
    // in its thread there is no room; its bend comes before the hole
    expect(own.room.radius).toBe(0);
    expect(own.bends).toHaveLength(1);
  });
});
