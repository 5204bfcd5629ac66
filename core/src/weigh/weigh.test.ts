import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fold } from '../fold';
import { rectangle } from '../geometry';
import type { Panel } from '../plan';
import type { PresentRig, Rig } from '../rig';
import {
  againstRepair,
  axleChange,
  buildCost,
  crossbarMass,
  cutLength,
  leftForPlates,
  panelCost,
  RATES,
  rateLines,
  ratesOf,
  rideChange,
  sideChange,
  weighBuild,
  wheelRates,
} from './index';

const rates = (front: number, rear: number): Rig['axles'] => ({
  front: { massKg: 1000, wheelRate: front },
  rear: { massKg: 800, wheelRate: rear },
});

describe('axles', () => {
  // moments about the axles, worked values (x from the front axle)
  it.each([
    [60, 2800, 600, 47.1429, 12.8571],
    [45, 2700, 1350, 22.5, 22.5],
    [80, 3000, -500, 93.3333, -13.3333],
    [120, 2750, 1000, 76.3636, 43.6364],
  ])('%d kg on %d mm at %d', (massKg, l, x, front, rear) => {
    const c = axleChange([{ massKg, at: [x, 0, 0] }], l);
    expect(c.frontKg).toBeCloseTo(front, 4);
    expect(c.rearKg).toBeCloseTo(rear, 4);
  });
  it('of several loads', () => {
    const loads = [
      [15, -700],
      [32, 400],
      [28, 1400],
      [20, 2300],
    ].map(([massKg, x]) => ({ massKg: massKg!, at: [x!, 0, 0] as const }));
    expect(axleChange(loads, 2700).frontKg).toBeCloseTo(62.5926, 4);
    expect(axleChange(loads, 2700).rearKg).toBeCloseTo(32.4074, 4);
  });
  // dz = dF / (2·wheel rate), worked values
  it.each([
    [40, 30, 6.538],
    [60, 25, 11.768],
    [120, 40, 14.71],
  ])('%d kg on %d N/mm lowers by %d mm', (kg, rate, drop) => {
    expect(rideChange({ frontKg: kg, rearKg: 0 }, rates(rate, 30)).frontMm).toBeCloseTo(-drop, 3);
  });
  it('moments then springs, worked', () => {
    const c = axleChange([{ massKg: 100, at: [800, 0, 0] }], 2700);
    const r = rideChange(c, rates(28, 33));
    expect(r.frontMm).toBeCloseTo(-12.323, 2);
    expect(r.rearMm).toBeCloseTo(-4.403, 2);
  });
  it('always share out the whole mass', () => {
    const load = fc.record({
      massKg: fc.double({ min: -50, max: 50, noNaN: true }),
      at: fc.tuple(
        fc.integer({ min: -900, max: 4000 }),
        fc.integer({ min: -700, max: 700 }),
        fc.constant(300),
      ),
    });
    fc.assert(
      fc.property(fc.array(load, { maxLength: 8 }), loads => {
        const c = axleChange(loads, 3220);
        expect(c.frontKg + c.rearKg).toBeCloseTo(
          loads.reduce((s, l) => s + l.massKg, 0),
          9,
        );
      }),
    );
  });
  it('side is right minus left', () => {
    expect(sideChange([{ massKg: 10, at: [0, 400, 0] }], 1600)).toBeCloseTo(5, 12);
  });
});

const panel: Panel = {
  id: 'p',
  mark: 'A',
  name: 'p',
  base: { origin: [400, 0, 300], pitch: 0, roll: 0, outline: rectangle(0, -300, 700, 300) },
  flanges: [],
  openings: [],
  guards: [],
};

describe('wheel rates from measured heights', () => {
  it('are the springs that the rig sank on, front and rear, whatever they were', () => {
    const spring = fc.double({ min: 15, max: 90, noNaN: true });
    const load = fc.double({ min: 20, max: 200, noNaN: true });
    fc.assert(
      fc.property(spring, spring, load, load, (front, rear, a, b) => {
        const change = { frontKg: a, rearKg: b };
        const ride = rideChange(change, rates(front, rear));
        // too little to be told with a tape says nothing
        fc.pre(-ride.frontMm > 1.6 && -ride.rearMm > 1.6);
        const got = wheelRates(change, {
          front: { before: 850, after: 850 + ride.frontMm },
          rear: { before: 900, after: 900 + ride.rearMm },
        });
        expect(got.front! / front).toBeCloseTo(1, 9);
        expect(got.rear! / rear).toBeCloseTo(1, 9);
      }),
    );
  });
  it('are not told from what is not measured, hardly changes, or moves the wrong way', () => {
    const change = { frontKg: 40, rearKg: 3 };
    expect(wheelRates(change, {})).toEqual({});
    expect(wheelRates(change, { front: { before: 800, after: 799 } })).toEqual({});
    expect(wheelRates(change, { front: { before: 800, after: 806 } })).toEqual({});
    expect(wheelRates(change, { rear: { before: 800, after: 790 } })).toEqual({});
    // a rear that is relieved rises
    expect(wheelRates({ frontKg: 0, rearKg: -30 }, { rear: { before: 800, after: 805 } }).rear).toBeCloseTo(
      (30 * 9.80665) / 10,
      9,
    );
  });
});

describe('a build', () => {
  const rig = {
    rig: { wheelbase: 3000, trackWidth: 1600, axles: rates(32, 30) },
    factoryParts: [{ massKg: 4, at: [300, 0, 300] }],
  } as unknown as PresentRig;
  it('adds plates and bars and takes off factory parts', () => {
    const p = fold(panel, { material: 'steel-hr36', thickness: 4.7625, finish: 'powder' });
    const bar = {
      id: 'b',
      name: 'bar',
      from: [700, -400, 300],
      to: [700, 400, 300],
      section: { width: 50.8, height: 25.4, wall: 'solid' },
      material: 'steel-hr36',
      mounts: [],
    } as const;
    const w = weighBuild({ id: 'A' }, rig, [p], [], { crossbars: [bar] });
    const plate = 700 * 600 * 4.7625 * 7850e-9;
    expect(w.panels[0]?.massKg).toBeCloseTo(plate, 9);
    expect(crossbarMass(bar)).toBeCloseTo(50.8 * 25.4 * 800 * 7850e-9, 9);
    expect(w.netKg).toBeCloseTo(plate + crossbarMass(bar) - 4, 9);
    const hand = (plate * 750 + crossbarMass(bar) * 700 - 4 * 300) / 3000;
    expect(w.axles.rearKg).toBeCloseTo(hand, 9);
    expect(w.rideHeight.frontMm).toBeLessThan(0);
  });
  it('prices sheet, cut, bends and finish at the rates shown', () => {
    const p = fold(panel, { material: 'steel-hr36', thickness: 4, finish: 'powder' });
    const c = panelCost(p);
    expect(cutLength(p)).toBeCloseTo(2.6, 9);
    expect(c.sheet).toBeCloseTo(p.massKg * RATES.sheetPerKg['steel-hr36'], 9);
    expect(c.cutting).toBeCloseTo(2.6 * 4 * RATES.cutPerMeterMm, 9);
    expect(c.finish).toBeCloseTo(0.42 * RATES.finishPerM2.powder, 9);
    expect(c.total).toBeCloseTo(c.sheet + c.cutting + c.bending + c.finish, 9);
  });
});

describe('rates', () => {
  it('are the invented defaults and say so, line by line, until others are entered', () => {
    expect(ratesOf()).toBe(RATES);
    expect(rateLines().every(l => l.source === 'invented default' && !l.entered)).toBe(true);
  });
  it('that are entered stand in for their defaults alone, with their source', () => {
    const entered = { cut: { value: 0.5, source: 'a shop, by telephone' } };
    expect(ratesOf(entered)).toEqual({ ...RATES, cutPerMeterMm: 0.5, note: 'partly invented defaults' });
    expect(rateLines(entered).filter(l => l.entered)).toMatchObject([
      { id: 'cut', value: 0.5, source: 'a shop, by telephone' },
    ]);
  });
  it('each reach the price they are for', () => {
    for (const { id, value } of rateLines()) {
      const dearer = ratesOf({ [id]: { value: value + 1, source: '' } });
      expect(dearer, id).not.toEqual({ ...RATES, note: dearer.note });
    }
    const all = Object.fromEntries(rateLines().map(l => [l.id, { value: l.value, source: 'mine' }]));
    expect(ratesOf(all)).toEqual({ ...RATES, note: 'your rates' });
  });
});

describe('what a build costs', () => {
  const plates = [
    { sheet: 50, cutting: 10, bending: 12, finish: 8, total: 80 },
    { sheet: 30, cutting: 5, bending: 0, finish: 5, total: 40 },
  ];
  it('is its parts, with tax on the goods and shipping on top', () => {
    // (80 + 40 + 20 + 10) × 1.08 + 25
    const c = buildCost(plates, 20, 10, { taxPercent: 8, shipping: 25 });
    expect(c).toMatchObject({ sheet: 80, cutting: 15, bending: 12, finish: 13, plates: 120 });
    expect(c.total).toBeCloseTo(187, 9);
  });
  it('follows an offer for the plates, whatever they would cost to make', () => {
    expect(buildCost(plates, 20, 10, {}, 99).total).toBeCloseTo(129, 9);
  });
  it('leaves of a budget what makes the plates so that the whole is the budget', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 40, noNaN: true }),
        fc.double({ min: 0, max: 90, noNaN: true }),
        (taxPercent, shipping) => {
          const c = buildCost(plates, 20, 10, { taxPercent, shipping });
          expect(leftForPlates(c.total, c, { taxPercent })).toBeCloseTo(c.plates, 8);
        },
      ),
    );
  });
  it('is told in repairs and deductibles where the owner has entered them', () => {
    expect(againstRepair(600)).toEqual([]);
    expect(againstRepair(600, { repair: 1200, deductible: 500 })).toEqual([
      { what: 'the repair', cost: 1200, times: 0.5 },
      { what: 'the deductible', cost: 500, times: 1.2 },
    ]);
  });
});
