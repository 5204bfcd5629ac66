// The frame that a starting rig stands on, of every body over any plausible tape.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaOf, boxOf, intersection, regionOf } from '../../geometry';
import { anyMeasures } from '../../testing/random';
import { BODIES, type Body, type Rig } from '../rig';
import { type Measures, startingRig } from './index';

const anyVehicle: fc.Arbitrary<readonly [Body, Measures, Rig]> = fc
  .constantFrom(...BODIES)
  .chain(body => anyMeasures(body).map(m => [body, m, startingRig(body, m)] as const));
const RUNS = { numRuns: 60 };
const box = (e: { readonly footprint: Rig['members'][number]['footprint'] }) => boxOf(e.footprint);

describe('the frame of a starting rig', () => {
  it('is the same on either side: each hole has its partner across the middle, with the same thread', () => {
    fc.assert(
      fc.property(anyVehicle, ([, , rig]) => {
        for (const h of rig.mounts) {
          const across = rig.mounts.find(
            o => o.at[0] === h.at[0] && Math.abs(o.at[1] + h.at[1]) < 1.01 && o.at[2] === h.at[2],
          );
          expect(across, h.id).toBeDefined();
          expect(across!.hole, h.id).toEqual(h.hole);
        }
      }),
      RUNS,
    );
  });

  it('reaches no wider than its tires stand, its rails along it and its crossmembers across', () => {
    fc.assert(
      fc.property(anyVehicle, ([, m, rig]) => {
        for (const x of rig.members) {
          const { min, max } = box(x);
          expect(Math.max(-min[1], max[1]), x.id).toBeLessThanOrEqual(m.trackWidth / 2 + 1);
          const [long, wide] = [max[0] - min[0], max[1] - min[1]];
          if (x.kind === 'rail') expect(long, x.id).toBeGreaterThan(wide);
          if (x.kind === 'crossmember') expect(wide, x.id).toBeGreaterThan(long);
        }
      }),
      RUNS,
    );
  });

  it('has no two holes in one place, and none so near another that a washer covers it', () => {
    fc.assert(
      fc.property(anyVehicle, ([, , rig]) => {
        const near = rig.mounts.flatMap((a, i) =>
          rig.mounts
            .slice(i + 1)
            .filter(b => Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]) <= 20)
            .map(b => `${a.id} and ${b.id}`),
        );
        expect(near).toEqual([]);
      }),
      RUNS,
    );
  });

  it('gives every entry an id of its own, in every list', () => {
    fc.assert(
      fc.property(anyVehicle, ([, , rig]) => {
        for (const list of [
          'components',
          'members',
          'mounts',
          'servicePoints',
          'factoryParts',
          'options',
        ] as const) {
          const ids = rig[list].map(e => e.id);
          expect(new Set(ids).size, list).toBe(ids.length);
        }
      }),
      RUNS,
    );
  });

  it('carries no part inside another: boxes that share ground stand one above the other or belong to other options', () => {
    fc.assert(
      fc.property(anyVehicle, ([, , rig]) => {
        const tank = rig.components.find(c => c.kind === 'fuel-tank')!;
        const pan = rig.components.find(c => c.id === 'pan')!;
        const shared = areaOf(intersection(regionOf(tank.footprint), regionOf(pan.footprint)));
        expect(shared).toBe(0);
      }),
      RUNS,
    );
  });
});
