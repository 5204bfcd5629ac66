// Any plausible vehicle, taken with a tape: what is measured is what stands in the rig.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxOf } from '../../geometry';
import { blankPlan, checkDocument } from '../../plan';
import { anyMeasures } from '../../testing/random';
import { formatMass, tapeLength } from '../../units';
import { BODIES, type Body, type Rig } from '../rig';
import {
  MEASURES,
  type Measures,
  measureFaults,
  measuresOf,
  remeasured,
  startingRig,
  typicalMeasures,
} from './index';

/** A body with plausible measures of it. */
const anyVehicle: fc.Arbitrary<readonly [Body, Measures]> = fc
  .constantFrom(...BODIES)
  .chain(body => anyMeasures(body).map(m => [body, m] as const))
  .filter(([body, m]) => measureFaults(body, m).length === 0);
const ends = (rig: Rig, id: string): readonly [number, number] | undefined => {
  const c = rig.components.find(x => x.id === id);
  if (!c) return undefined;
  const { min, max } = boxOf(c.footprint);
  return [min[0], max[0]];
};

describe('a vehicle taken with a tape', () => {
  it('is a sound document, whatever plausible it measures', () => {
    fc.assert(
      fc.property(anyVehicle, ([body, m]) => {
        const r = checkDocument(blankPlan(startingRig(body, m), 'x', 'x'));
        expect(r.ok ? [] : r.faults).toEqual([]);
      }),
    );
  });

  it('has its wheels, weights, pan and tank where the tape said', () => {
    fc.assert(
      fc.property(anyVehicle, ([body, m]) => {
        const rig = startingRig(body, m);
        expect(rig).toMatchObject({
          body,
          wheelbase: m.wheelbase,
          tyreRadius: m.tyreRadius,
          trackWidth: m.trackWidth,
        });
        expect(rig.axles.front.massKg).toBe(m.frontAxleKg);
        expect(rig.axles.rear.massKg).toBe(m.rearAxleKg);
        expect(rig.components.find(c => c.id === 'pan')?.zBottom).toBe(m.panHeight);
        expect(ends(rig, 'pan')).toEqual([m.panFront, m.panRear]);
        expect(ends(rig, 'tank')).toEqual([m.tankFront, m.tankRear]);
        expect(rig.components.find(c => c.id === 'tank')?.zBottom).toBe(m.tankHeight);
      }),
    );
  });

  it('keeps every part above the road, every box right side up, every hole on its member', () => {
    fc.assert(
      fc.property(anyVehicle, ([body, m]) => {
        const rig = startingRig(body, m);
        for (const c of rig.components) {
          expect(c.zBottom, c.id).toBeGreaterThan(0);
          expect(c.zTop, c.id).toBeGreaterThan(c.zBottom);
          const { min, max } = boxOf(c.footprint);
          expect(max[0] - min[0], c.id).toBeGreaterThan(0);
          expect(max[1] - min[1], c.id).toBeGreaterThan(0);
        }
        for (const hole of rig.mounts) {
          const member = rig.members.find(x => x.id === hole.member)!;
          const { min, max } = boxOf(member.footprint);
          expect(hole.at[0] >= min[0] && hole.at[0] <= max[0], hole.id).toBe(true);
          expect(hole.at[1] >= min[1] && hole.at[1] <= max[1], hole.id).toBe(true);
          expect(hole.at[2], hole.id).toBe(member.zBottom);
        }
      }),
    );
  });

  it('fills and drains what it has: every service point hangs on a part that is there', () => {
    fc.assert(
      fc.property(anyVehicle, ([body, m]) => {
        const rig = startingRig(body, m);
        for (const s of rig.servicePoints)
          expect(
            rig.components.some(c => c.id === s.component),
            s.id,
          ).toBe(true);
        expect(rig.components.filter(c => c.kind === 'fuel-tank')).toHaveLength(1);
        // a drain comes out of the lowest face of its part
        for (const s of rig.servicePoints.filter(x => x.kind.endsWith('-drain')))
          expect(s.at[2], s.id).toBe(rig.components.find(c => c.id === s.component)?.zBottom);
      }),
    );
  });
});

describe('every measure', () => {
  it.each(BODIES.flatMap(body => measuresOf(body).map(m => [m.name, body, m.id] as const)))(
    '%s of a %s changes something: no number is asked for nothing',
    (_, body, id) => {
      const typical = typicalMeasures(body);
      const [at, least, most] = MEASURES.find(m => m.id === id)!.of[body]!;
      const before = JSON.stringify({ ...startingRig(body), measures: undefined });
      const changed = [at + (most - at) / 4, at - (at - least) / 4].map(v =>
        JSON.stringify({ ...startingRig(body, { ...typical, [id]: Math.round(v) }), measures: undefined }),
      );
      expect(changed.some(c => c !== before)).toBe(true);
    },
  );

  it('taken again and again leaves the rig that the last ones give, where nothing was changed by hand', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...BODIES).chain(body =>
          fc.tuple(
            fc.constant(body),
            fc.array(
              anyMeasures(body).filter(m => measureFaults(body, m).length === 0),
              { minLength: 1, maxLength: 3 },
            ),
          ),
        ),
        ([body, all]) => {
          const end = all.reduce((rig, m) => remeasured(rig, m, 'follow'), startingRig(body));
          expect(end.measures).toEqual(all.at(-1));
          const last = startingRig(body, all.at(-1));
          expect(end.components.map(c => [c.id, c.zBottom, boxOf(c.footprint)])).toEqual(
            last.components.map(c => [c.id, c.zBottom, boxOf(c.footprint)]),
          );
          expect(end.members).toEqual(last.members);
        },
      ),
      { numRuns: 40 },
    );
  });

  it.each(BODIES)('of a %s is refused beyond its range, by name and with the range', body => {
    const typical = typicalMeasures(body);
    for (const { id, name, of, unit } of measuresOf(body)) {
      const [, least, most] = of[body]!;
      for (const [v, wrong] of [
        [most + 1, true],
        [least - 1, true],
        [most, false],
        [least, false],
      ] as const) {
        const own = measureFaults(body, { ...typical, [id]: v }).filter(
          f => f.id === id && f.fault.includes('plausible is'),
        );
        expect(own.length > 0, `${name} ${v}`).toBe(wrong);
        if (wrong)
          expect(own[0]!.fault).toContain(
            unit === 'kg'
              ? `${formatMass(least, 'metric')} to ${formatMass(most, 'metric')}`
              : `${tapeLength(least, 'metric')} to ${tapeLength(most, 'metric')}`,
          );
      }
    }
  });
});
