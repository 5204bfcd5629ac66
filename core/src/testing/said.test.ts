// How the program speaks: everything the core can say of the demo plans and of random ones, in both units, read as a reader would.
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PlanDocument } from '../plan';
import type { UnitSystem } from '../units';
import { anyPlan } from './random';
import { foreignUnit, oddWords } from './reading';
import { type Said, saidOf } from './said';

const faultsOf = (said: readonly Said[], units: UnitSystem): readonly string[] =>
  said.flatMap(({ from, text }) => {
    const unit = foreignUnit(text, units);
    const found = [
      ...oddWords(text, { figures: !from.endsWith('file') }),
      ...(unit === undefined ? [] : [unit]),
    ];
    return found.map(f => `${from}: "${f}" in: ${text.slice(0, 200)}`);
  });

const DEMOS = ['bramble', 'heron', 'pebble', 'wren'] as const;
const once = (all: readonly string[]): readonly string[] => [...new Set(all)];

describe('what is said of a plan', () => {
  it.each(DEMOS.flatMap(name => (['inch', 'metric'] as const).map(u => [name, u] as const)))(
    'of %s in %s is in plain words and in those units',
    (name, units) => {
      expect(once(faultsOf(saidOf(demo(name), units), units))).toEqual([]);
    },
  );
  it('of random plans is too', () => {
    fc.assert(
      fc.property(
        anyPlan(),
        fc.constantFrom('inch' as const, 'metric' as const),
        (doc: PlanDocument, units) => {
          expect(once(faultsOf(saidOf(doc, units), units))).toEqual([]);
        },
      ),
      { numRuns: Number(process.env.SOAK_WORDS ?? 8) },
    );
  });
  it('would be found if it were not', () => {
    const wrong = (text: string, units: UnitSystem) => faultsOf([{ from: 'x', text }], units).length > 0;
    for (const text of [
      'the aluminium plate',
      'bag list',
      'a fuel-tank above it',
      'leaves 12 mm to the pan',
      'weighs 3 kg',
      'at 420 \u00b0C',
      'it is 12.3456 in long',
    ])
      expect(wrong(text, 'inch'), text).toBe(true);
    for (const text of ['leaves 1/2 in to the pan', '10 ft\u00b7lb', '12 lb of it'])
      expect(wrong(text, 'metric'), text).toBe(true);
    for (const text of ['flange bolt M10x1.5 \u00d7 30 mm, 8.8, zinc', 'socket 16 mm', '6 mm 5052'])
      expect(wrong(text, 'inch'), text).toBe(false);
  });
});
