import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble } from '../derive';
import { MATERIALS } from '../sheet';
import { clampedSquare } from '../testing';
import { strikePlate, wishOf } from './index';
import { linearSolver } from './linear';
import { ring } from './ring';
import { DAMPING, roadDensity, shaken, shakenShare } from './road';

/** ∫ of a function from a to b, in even steps. */
const sum = (f: (x: number) => number, a: number, b: number, steps: number): number => {
  const d = (b - a) / steps;
  let s = 0;
  for (let i = 0; i < steps; i++) s += f(a + (i + 0.5) * d) * d;
  return s;
};

describe('the road', () => {
  // ISO 16750-3 states 27.8 m/s² beside its points (from memory): the points are the standard's if they come to that
  it('shakes a body with 27.8 m/s² in all, as the standard says', () => {
    expect(Math.sqrt(sum(roadDensity, 10, 1000, 20_000))).toBeCloseTo(27.8, 0);
    expect(roadDensity(10)).toBe(20);
    expect(roadDensity(1000)).toBe(0.14);
    expect(roadDensity(5)).toBe(20);
  });
  // closed form (Miles 1954) against the transfer function of a mass on a damped spring, summed
  it('shakes what vibrates on it as the sum over all frequencies does', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 15, max: 400, noNaN: true }),
        fc.double({ min: 0.01, max: 0.04, noNaN: true }),
        (hz, damping) => {
          const gain2 = (f: number): number => {
            const r = f / hz;
            return 1 / ((1 - r * r) ** 2 + (2 * damping * r) ** 2);
          };
          const summed = Math.sqrt(sum(gain2, 0, 40 * hz, 400_000));
          expect(shaken(hz, 1, damping) / summed).toBeCloseTo(1, 2);
        },
      ),
      { numRuns: 10 },
    );
  });
});

describe('a plate that is shaken', () => {
  const side = 400;
  // closed form: a clamped square under its own weight times a, w = 0.00126·q·a⁴/D, at the edge 0.0513·q·a² of moment (Timoshenko and
  // Woinowsky-Krieger); its first shape alone is some per cent off
  it('is stressed at its edges as by its own mass so many times, and so by all that go into it', () => {
    const model = clampedSquare(side, 4, 25, []);
    const solver = linearSolver(model);
    if ('mechanism' in solver) throw new Error('loose');
    const steel = MATERIALS['steel-hr36'];
    const rings = ring(model, solver, steel.density);
    // 35.99/2π·√(D/ρt)/a²
    const D = (200_000 * 4 ** 3) / 12 / 0.91;
    const hz = (35.99 / (2 * Math.PI)) * (Math.sqrt(D / (steel.density * 1e-12 * 4)) / side ** 2);
    expect(rings.hz / hz).toBeCloseTo(1, 1);
    const q = steel.density * 1e-12 * 4 * 1000 * shaken(rings.hz);
    const edge = (6 * 0.0513 * q * side ** 2) / 4 ** 2;
    // the middle of a side, where it is greatest; von Mises of a moment with ν times itself across
    const mises = edge * Math.sqrt(1 - 0.3 + 0.09);
    const share = shakenShare(model, rings, steel, [{ at: [side / 2, 0, 0], radius: 12 }])!;
    const got = (share * 0.4 * steel.ultimate) / 3;
    // elements are 25 mm and are taken by their mean, a little off the edge
    expect(got / mises).toBeGreaterThan(0.75);
    expect(got / mises).toBeLessThan(1.15);
    expect(DAMPING).toBe(0.03);
  });
  it('of the demo is told for every sheet but plastic', () => {
    const doc = demo('wren');
    for (const build of doc.plan.builds) {
      const facts = assemble(doc, build.id);
      for (const folded of facts.panels.slice(0, 2)) {
        const r = strikePlate({ ...wishOf(facts, folded, 500), size: 1.6, noDent: true });
        if (!r.ok) throw new Error(r.fault);
        if (folded.material.family === 'plastic') expect(r.value.shakenShare).toBeUndefined();
        else expect(r.value.shakenShare).toBeGreaterThan(0);
      }
    }
  });
});
