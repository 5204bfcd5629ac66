import { readFileSync } from 'node:fs';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble } from '../derive';
import { clampedSquare } from '../testing';
import { SLIDES, type StrikeAnswer, type StrikeWish, strikeForce, strikePlate, wishOf } from './index';
import { linearSolver } from './linear';
import type { ShellModel } from './model';
import { type LargeAnswer, solveLarge } from './newton';
import { nearestNode } from './shell-mesh';

/** A square sheet clamped on its four edges, with a weight on a square in its middle. */
const clamped = (side: number, thickness: number, weight: number, patch: number, h: number): ShellModel =>
  clampedSquare(side, thickness, h, [
    { kind: 'patch', at: [side / 2, side / 2, 0], size: [patch, patch], force: [0, 0, weight] },
  ]);
const fallen = (model: ShellModel, heightMm: number): LargeAnswer => {
  const made = solveLarge(model, { plastic: true, tolerance: 1e-4, fall: { weight: 1, heightMm } });
  if ('mechanism' in made || !made.done) throw new Error('it was not stopped');
  return made;
};
const stops = (model: ShellModel, heightMm: number): number => fallen(model, heightMm).reached;

describe('a fall', () => {
  // closed form: δ = δst·(1 + √(1 + 2h/δst)), Timoshenko, Strength of Materials, part I; the same for the force where stiffness is one
  it('on what is stiff alike all the way is Timoshenko’s, from a load that is let go to a hundred times its own sag', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.integer({ min: 20, max: 400 }),
        (high, weight) => {
          const model = clamped(300, 12, weight, 60, 30);
          // its sag under the weight at rest, where the patch stands
          const solver = linearSolver(model);
          if ('mechanism' in solver) throw new Error('loose');
          const sag = solver.work(model.load) / weight;
          const h = high * 50 * sag;
          expect(stops(model, h) / (1 + Math.sqrt(1 + (2 * h) / sag))).toBeCloseTo(1, 2);
        },
      ),
      { numRuns: 8 },
    );
    expect(stops(clamped(300, 12, 100, 60, 30), 0)).toBeCloseTo(2, 2);
  }, 120_000);

  // solved by CalculiX, implicit dynamics of bricks of second order with the plate's own mass: solved-cases/fall.py
  const { side, thickness, patch, falls } = JSON.parse(
    readFileSync(new URL('./solved-cases/fall.json', import.meta.url), 'utf8'),
  ) as {
    side: number;
    thickness: number;
    patch: number;
    falls: readonly { massKg: number; heightMm: number; deepestMm: number }[];
  };
  it.each(falls.map(f => [`${f.massKg} kg from ${f.heightMm} mm`, f] as const))(
    'goes as deep as the dynamic solution: %s',
    (_, f) => {
      const weight = f.massKg * 9.80665;
      const model = clamped(side, thickness, weight, patch, 22);
      const { u } = fallen(model, f.heightMm);
      const deepest = u[6 * nearestNode(model.mesh, [side / 2, side / 2, 0]) + 2]!;
      expect(deepest / f.deepestMm).toBeGreaterThan(0.98);
      expect(deepest / f.deepestMm).toBeLessThan(1.03);
    },
    120_000,
  );
});

describe('a plate that is fallen on, or slid over', () => {
  const facts = assemble(demo('bramble'));
  const folded = facts.panels.find(p => p.panel.mark === 'D')!;
  const force = strikeForce(facts.rig.rig, 'drop');
  const struck = (how: Parameters<typeof wishOf>[3], over: Partial<StrikeWish> = {}): StrikeAnswer => {
    const r = strikePlate({ ...wishOf(facts, folded, force, how), size: 1.6, noDent: true, ...over });
    if (!r.ok) throw new Error(r.fault);
    return r.value;
  };
  it('is struck harder the higher it falls, and what stops it is what it answers for', () => {
    const [let0, low, high] = [0, 30, 120].map(fallMm => struck({ fallMm })) as [
      StrikeAnswer,
      StrikeAnswer,
      StrikeAnswer,
    ];
    const rest = struck({});
    expect(let0.fall).toEqual({ weightN: force, heightMm: 0, stops: true });
    expect(let0.forceN).toBeGreaterThan(force);
    expect(low.forceN).toBeGreaterThan(let0.forceN);
    expect(high.forceN).toBeGreaterThan(low.forceN);
    expect(rest.fall).toBeUndefined();
    expect(low.deflectionMm).toBeGreaterThan(rest.deflectionMm);
    // the same as setting that force down
    const again = struck({ at: [low.at[0], low.at[1]] }, { force: low.forceN });
    expect(again.deflectionMm / low.deflectionMm).toBeCloseTo(1, 2);
  }, 120_000);
  it('says where it does not stop the fall', () => {
    const a = struck({ fallMm: 1000 }, { force: 4 * force });
    expect(a.fall?.stops).toBe(false);
  }, 120_000);
  it('drags its bolts to the rear where it is slid over, and no more than the rock does', () => {
    const along = (a: StrikeAnswer): number => a.reactionsN.reduce((s, r) => s + r.shearN, 0);
    const [still, slid] = [struck({}), struck({ drag: SLIDES })];
    expect(along(slid)).toBeGreaterThan(along(still));
    expect(slid.forceN).toBe(force);
  }, 120_000);
});
