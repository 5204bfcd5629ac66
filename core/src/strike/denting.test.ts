import { demo } from '@plate-fold/demo';
// Dents: as deep as on a mesh three times as fine, and the force at which they begin to count.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble } from '../derive';
import { panelsRemoved } from '../plan';
import { DENT_LIMIT, type Place, shareThatDents } from './denting';
import { DENT_ERROR, dentingForce, type StrikeAnswer, strikeForce, strikePlate, wishOf } from './index';

function struckDemo(name: 'bramble' | 'heron' | 'pebble' | 'wren', build: string, mark: string) {
  const whole = demo(name);
  // a plate on brackets of its own keeps no dent to speak of
  const doc = panelsRemoved(
    whole,
    whole.plan.panels.filter(p => p.role === 'bracket').map(p => p.id),
  );
  const of = assemble(doc, build);
  const p = of.panels.find(x => x.panel.mark === mark)!;
  const wish = wishOf(of, p, strikeForce(doc.rig, 'set-down'));
  return (over: Partial<typeof wish>): StrikeAnswer => {
    const r = strikePlate({ ...wish, ...over });
    if (!r.ok) throw new Error(r.fault);
    return r.value;
  };
}

describe('the share of a load that dents', () => {
  it('is found between the balances of the way up from at most two of them', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.6, noNaN: true }),
        fc.double({ min: 1, max: 2, noNaN: true }),
        fc.double({ min: 2.1, max: 30, noNaN: true }),
        fc.integer({ min: 4, max: 16 }),
        (from, power, whole, steps) => {
          const dent = (share: number): number => whole * (Math.max(0, share - from) / (1 - from)) ** power;
          const places = Array.from({ length: steps }, (_, i) => ({ share: (i + 1) / steps }) as Place);
          let asked = 0;
          const found = shareThatDents(places, { share: 1, dent: whole }, DENT_LIMIT, p => {
            asked++;
            return dent(p.share);
          })!;
          expect(asked).toBeLessThanOrEqual(2);
          const true_ = from + (1 - from) * (DENT_LIMIT / whole) ** (1 / power);
          expect(Math.abs(found - true_)).toBeLessThan(0.25);
          expect(found).toBeGreaterThan(0);
          expect(found).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
  it('is not said where the whole leaves less, and is what is known where a load could not be taken off', () => {
    const places = [0.25, 0.5, 0.75, 1].map(share => ({ share }) as Place);
    expect(shareThatDents(places, { share: 1, dent: 1.9 }, DENT_LIMIT, () => 1)).toBeUndefined();
    const found = shareThatDents(places, { share: 1, dent: 4 }, DENT_LIMIT, () => undefined)!;
    expect(found).toBeGreaterThan(0.5);
    expect(found).toBeLessThan(1);
  });
  it('as a force: told, at least the whole, or not known', () => {
    expect(dentingForce({ forceN: 5000, dentMm: 3, dentingN: 4000 })).toEqual({
      force: 4000,
      atLeast: false,
    });
    expect(dentingForce({ forceN: 5000, dentMm: 0 })).toEqual({ force: 5000, atLeast: true });
    expect(dentingForce({ forceN: 5000 })).toBeUndefined();
  });
});

describe('a dented plate', () => {
  it('keeps 2 mm when it is struck with the force that is told for it, far below the yield-line load', () => {
    const strike = struckDemo('heron', 'C', 'B');
    const v = strike({});
    expect(v.dentMm).toBeGreaterThan(5);
    const again = strike({ at: [v.at[0], v.at[1]], force: v.dentingN! });
    expect(Math.abs(again.dentMm! - DENT_LIMIT)).toBeLessThan(0.3);
    // an unsupported sheet far from everything would ask for 20 kN
    expect(v.dentingN!).toBeLessThan(v.dentForceN / 4);
  }, 120_000);
  it('is dented as on a mesh three times as fine, within what is told', () => {
    const strike = struckDemo('wren', 'B', 'E');
    const v = strike({});
    const fine = strike({ at: [v.at[0], v.at[1]], size: 0.3 });
    expect(fine.nodes).toBeGreaterThan(1.5 * v.nodes);
    expect(Math.abs(v.dentMm! / fine.dentMm! - 1)).toBeLessThan(DENT_ERROR);
  }, 120_000);
});

// every metal plate of the demos, some minutes: npm run soak
describe.runIf(process.env.SOAK_STRIKES)('every demo plate', () => {
  it.each([
    ['pebble', 'A', 'A'],
    ['pebble', 'B', 'A'],
    ['wren', 'A', 'A'],
    ['wren', 'A', 'D'],
    ['heron', 'A', 'A'],
    ['heron', 'A', 'B'],
    ['heron', 'A', 'C'],
    ['heron', 'A', 'D'],
    ['bramble', 'A', 'A'],
    ['bramble', 'A', 'B'],
    ['bramble', 'A', 'C'],
    ['bramble', 'A', 'E'],
    ['bramble', 'B', 'E'],
  ] as const)('%s %s %s dents as on a finer mesh', (name, build, mark) => {
    const strike = struckDemo(name, build, mark);
    const v = strike({});
    const fine = strike({ at: [v.at[0], v.at[1]], size: 0.3 });
    expect(Math.abs(v.dentMm! / fine.dentMm! - 1)).toBeLessThan(DENT_ERROR);
  });
});
