import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { strikeForce, strikePlate, wishOf } from '../strike';
import { placeWish, rungWish } from './ladder-wish';

const facts = gatherFacts(demo('pebble'));
const force = strikeForce(facts.rig.rig, 'set-down');

describe('a ladder', () => {
  it('is struck where a whole strike finds the plate’s worst place, which takes a small part of it to find', () => {
    // the right skirt is the left one mirrored
    for (const plate of facts.plates.filter(p => p.panel.id !== 'skirt-right')) {
      const place = strikePlate(placeWish(facts, plate, force));
      const whole = strikePlate(wishOf(facts, plate, force));
      if (!place.ok || !whole.ok) throw new Error('no answer');
      expect(place.value.at).toEqual(whole.value.at);
      expect(place.value.theory).toBe('small deflections, elastic');
      expect(place.value.nodes).toBeLessThan(whole.value.nodes);
      const [x, y] = place.value.at;
      const rung = strikePlate(rungWish(facts, plate, force, [x, y]));
      if (!rung.ok) throw new Error(rung.fault);
      // what is left to the parts above is that of the whole strike within a millimeter
      if (whole.value.gapMm !== undefined)
        expect(Math.abs((rung.value.gapMm ?? Infinity) - whole.value.gapMm)).toBeLessThan(1);
    }
  });
});
