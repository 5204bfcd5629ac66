// A blunt rock under two sheets that lap: what each of them feels.
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import type { Vec2 } from '../geometry';
import { withSheet } from '../plan';
import { strikeForce, strikePlate, wishOf } from './index';
import { onPlate } from './on-plate';
import { plateFlatsOf } from './plate-model';
import { reaching, screensOf } from './screens';

const facts = gatherFacts(demo('bramble'));
const plate = (id: string) => facts.panels.find(p => p.panel.id === id)!;
const force = strikeForce(facts.rig.rig, 'set-down');
const share = (id: string, at: Vec2): number | undefined => {
  const flats = plateFlatsOf(plate(id));
  const on = onPlate(flats, at);
  return on && reaching(screensOf(facts.panels, plate(id)), flats, on);
};

describe('a rock under two sheets', () => {
  it('reaches all of a sheet that lies lowest, and half of one whose lower neighbor ends in the middle of it', () => {
    expect(screensOf(facts.panels, plate('plate-a'))).toEqual([]);
    // plate A laps over plate B's front, 60 mm from x 300
    const end = Math.max(...plateFlatsOf(plate('plate-a')).flatMap(f => f.polygon.map(q => q[0])));
    expect(share('plate-b', [end, -300])).toBeCloseTo(0.5, 0);
    expect(share('plate-b', [end + 200, -300])).toBe(1);
    expect(share('plate-b', [end + 25, -300])).toBeGreaterThan(share('plate-b', [end - 10, -300]) as number);
  });

  it('is not kept off a plate by what the same plate is now, in another sheet', () => {
    const thin = withSheet(facts.document, 'A', 'plate-a', { material: 'al-5052-h32', thickness: 2 });
    const folded = gatherFacts(thin).panels.find(p => p.panel.id === 'plate-a')!;
    expect(wishOf(facts, folded, force).screens).toBeUndefined();
  });

  it('is told as a share, never more than all of it, wherever it stands', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...facts.plates.map(p => p.panel.id)),
        fc.double({ min: -500, max: 2800, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        (id, x, y) => {
          const s = share(id, [x, y]) ?? 1;
          expect(s).toBeGreaterThanOrEqual(0);
          expect(s).toBeLessThanOrEqual(1);
          // the lowest sheet of all there feels all of a rock that is under it alone
          const below = facts.plates.filter(p => onPlate(plateFlatsOf(p), [x, y]));
          if (below.length === 0) expect(share(id, [x, y])).toBeUndefined();
        },
      ),
      { numRuns: 200 },
    );
  });

  it('presses the upper one with that share alone, and its figures stay those of the whole rock', () => {
    const wing = plate('plate-f');
    const wish = wishOf(facts, wing, force);
    const r = strikePlate(wish);
    if (!r.ok) throw new Error(r.fault);
    const { reaches = 1 } = r.value;
    expect(reaches).toBeLessThan(0.5);
    expect(r.value.forceN).toBeCloseTo(force, 6);
    const { screens: _, ...bare } = wish;
    const less = strikePlate({ ...bare, at: [r.value.at[0], r.value.at[1]], force: force * reaches });
    if (!less.ok) throw new Error(less.fault);
    expect(r.value.deflectionMm).toBeCloseTo(less.value.deflectionMm, 6);
    expect(r.value.forceN).toBeCloseTo(less.value.forceN / reaches, 6);
  });

  it('that stands wholly under a lower sheet does not reach it', () => {
    const flats = plateFlatsOf(plate('plate-b'));
    const screens = plateFlatsOf(plate('plate-b')).map(f => ({
      ...f,
      polygon: f.polygon.map(q => [q[0], q[1], q[2] - 20] as const),
      holes: [],
    }));
    expect(reaching(screens, flats, onPlate(flats, [700, 0])!)).toBe(0);
    const hidden = strikePlate({ ...wishOf(facts, plate('plate-b'), force, { at: [700, 0] }), screens });
    expect(hidden.ok ? '' : hidden.fault).toMatch(/does not reach it/);
  });
});
