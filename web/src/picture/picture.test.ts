import { type Facts, gatherFacts } from '@plate-fold/core/derive';
import { toSpace } from '@plate-fold/core/geometry';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeCards } from './plate-strip';
import { moved, sheetScale, wholeVehicle, zoomed } from './sheet-scale';
import { layOutStack, spreadLabels } from './stack-layout';

const facts = (name: string): Facts => {
  return gatherFacts(demo(name));
};
const bramble = facts('bramble');
const SIDES = ['above', 'head-front', 'head-rear'] as const;

describe('the scale that side view, map and strip share', () => {
  const whole = wholeVehicle(bramble);
  it('puts a place on the screen and takes it off again, from every side', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SIDES),
        fc.integer({ min: 320, max: 2560 }),
        fc.integer({ min: -900, max: 4000 }),
        fc.integer({ min: -900, max: 900 }),
        (side, width, x, y) => {
          const s = sheetScale(whole, width, side);
          expect(s.xAt(s.X(x))).toBeCloseTo(x, 6);
          expect(s.yAt(s.Y(y, 400), 400)).toBeCloseTo(y, 6);
        },
      ),
    );
  });
  it('reaches out to plates that lie beside the frame, in a map a third as high as it is long', () => {
    for (const name of ['wren', 'heron', 'bramble', 'pebble']) {
      const f = facts(name);
      const s = sheetScale(wholeVehicle(f), 960, 'head-front');
      for (const p of f.plates)
        for (const q of p.facets.flatMap(x => x.outline.map(o => toSpace(x.frame, o)))) {
          expect(s.Y(q[1], 300), name).toBeGreaterThanOrEqual(0);
          expect(s.Y(q[1], 300), name).toBeLessThanOrEqual(300);
        }
    }
  });
  it('turns left and right as a head under the vehicle does', () => {
    const at = (side: (typeof SIDES)[number]) => {
      const s = sheetScale(whole, 1000, side);
      return { frontAtLeft: s.X(0) < s.X(1000), rightAtTop: s.Y(100, 400) < s.Y(-100, 400) };
    };
    expect(at('above')).toEqual({ frontAtLeft: true, rightAtTop: true });
    expect(at('head-front')).toEqual({ frontAtLeft: true, rightAtTop: false });
    expect(at('head-rear')).toEqual({ frontAtLeft: false, rightAtTop: true });
  });
  it('zooms about a place and never leaves the vehicle', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.integer({ min: -500, max: 3500 }),
        fc.integer({ min: -2000, max: 2000 }),
        (f, about, dx) => {
          const z = moved(zoomed(whole, whole, f, about), whole, dx, 0);
          expect(z.from).toBeGreaterThanOrEqual(whole.from - 1e-6);
          expect(z.to).toBeLessThanOrEqual(whole.to + 1e-6);
          expect(z.to - z.from).toBeGreaterThanOrEqual(299);
        },
      ),
    );
  });
});

describe('the cards of the plates', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])(
    'never overlap nor leave the strip, for %s at any width',
    name => {
      const f = facts(name);
      const whole = wholeVehicle(f);
      fc.assert(
        fc.property(fc.integer({ min: 360, max: 2200 }), fc.constantFrom(...SIDES), (width, side) => {
          const cards = placeCards(f, sheetScale(whole, width, side));
          expect(cards).toHaveLength(f.plates.length);
          for (const a of cards) {
            expect(a.left).toBeGreaterThanOrEqual(0);
            expect(a.left + a.width).toBeLessThanOrEqual(width + 1);
            for (const b of cards)
              if (a !== b && a.row === b.row)
                expect(a.left + a.width <= b.left + 0.01 || b.left + b.width <= a.left + 0.01).toBe(true);
          }
        }),
        { numRuns: 60 },
      );
    },
  );
});

describe('a stack in section', () => {
  it.each(bramble.joints.map(j => [j.id, j] as const))(
    '%s: layers lie on one another, the bolt reaches through',
    (_, j) => {
      const tight = layOutStack(j);
      const middle = tight.parts.slice(1).filter(p => p.layer.kind !== 'nut');
      middle.slice(1).forEach((p, i) => expect(p.from).toBeCloseTo(middle[i]?.to ?? 0, 9));
      expect(tight.bolt.to - tight.bolt.from).toBeCloseTo(j.lengthMm, 9);
      expect(tight.bolt.to).toBeGreaterThanOrEqual(j.gripMm);
      const apart = layOutStack(j, 8);
      expect(apart.end - apart.start).toBeGreaterThan(tight.end - tight.start);
      expect(apart.bolt.to).toBeLessThanOrEqual(0);
    },
  );
  it('labels keep their order, their distance and their bounds', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 400 }), { minLength: 1, maxLength: 8 }), wanted => {
        const out = spreadLabels(wanted, 38, 20, 420);
        const order = wanted
          .map((y, i) => [y, out[i] as number] as const)
          .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
        order
          .slice(1)
          .forEach(([, y], i) => expect(y - (order[i]?.[1] ?? 0)).toBeGreaterThanOrEqual(38 - 1e-6));
        for (const y of out) {
          expect(y).toBeGreaterThanOrEqual(20 - 1e-6);
          expect(y).toBeLessThanOrEqual(420 + 1e-6);
        }
      }),
    );
  });
});
