// How the program speaks: everything the core can say of the demo plans and of random ones, in both units, read as a reader would.
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HEADS, NUTS, type PlanDocument, WASHERS } from '../plan';
import { COMPONENT_KINDS, MEMBER_KINDS, SERVICE_KINDS } from '../rig';
import { MATERIAL_IDS } from '../sheet';
import type { UnitSystem } from '../units';
import { anyPlan } from './random';
import { type Said, saidOf } from './said';

const BRITISH =
  /\b(\w*(?:colour|centre|metre|litre|neighbour|aluminium|catalogue|mould|behaviour|labour)\w*|tyres?|grey|levelled|labelled|mitred?|licence|kerb)\b/i;
/** Words of the list that no reader would say, as they would stand in a sentence. */
const NOT_SAID =
  /\b(keel|tally|wish(?:es)?|bag list|tool roll|factory off|on the shelf|gives? way|rings at|a guess|guesses|put right|strike (?:it )?out|lay in|laid in|foretell\w*|misfits?|the rig\b|take(?:s|n)? out of the rig|keep out|lays? outside|stands? out\b|whose hands|something.s off)/i;
/** Words with a hyphen that are codes in the file, and are no words of the trade. */
const WORDS_TOO = new Set(['t-bolt', 'self-drilling', 'thread-cutting', 'cross-threaded', 'nut-plate']);
const CODES = [
  ...HEADS,
  ...NUTS,
  ...WASHERS,
  ...COMPONENT_KINDS,
  ...MEMBER_KINDS,
  ...SERVICE_KINDS,
  ...MATERIAL_IDS,
].filter(w => w.includes('-') && !WORDS_TOO.has(w));
const CODE = new RegExp(`(?<![\\w-])(${CODES.join('|')})(?![\\w-])`);
/** More figures than a tape shows: five and more of them around a point. */
const RAW = /(?<![\d.])(?=(?:\.?\d){5})\d+\.\d+/;

/** What is called as it was bought is no measure: threads with their bolts, sheets, spacers and tools of metric hardware. */
const bought = (text: string): string =>
  text
    .replace(/M\d+(?:\.\d+)?(?:x[\d.]+)?(?: \u00d7 [\d.]+ mm)?/g, 'M')
    .replace(/\b(?:socket|wrench|hex key) [\d.]+ mm/g, 'tool')
    .replace(/\b\d+\/\d+-\d+ \u00d7 [\d /]+ in/g, 'bolt')
    .replace(/\b(?:socket|wrench|hex key) [\d /]+ in/g, 'tool')
    .replace(/spacers? [\d. ]+ mm for/g, 'spacer')
    .replace(/spacers? [\d /]+ in for/g, 'spacer')
    .replace(/[\d.]+ mm (?=(?:\d{4}|steel|AR|UHMW|304|of the same))/g, '')
    .replace(/[\d /]+ in (?=(?:\d{4}|steel|AR|UHMW|304|of the same))/g, '');
const UNIT_OF: Readonly<Record<UnitSystem, RegExp>> = {
  inch: /(?<![\w/])\d[\d.,]*\s?(?:mm|cm|m|m\u00b2|kg|g|km|N|kN|MPa|l|N\u00b7m|N\/mm|\u00b0C)(?![\w\u00b7/\u00b2])|\b(?:mm|kg|km|kN|MPa|N\u00b7m|liters?|meters?)\b/,
  metric:
    /(?<![\w/])\d[\d./ ]*\s?(?:in|ft|lb|lbf|mi|psi|ksi|ft\u00b7lb|lb\/in|\u00b0F|gal|qt|oz)(?![\w\u00b7/])(?! (?:one|a|the|place|line|turn))|\b(?:inch(?:es)?|gallons?|miles)\b/,
};

const faultsOf = (said: readonly Said[], units: UnitSystem): readonly string[] =>
  said.flatMap(({ from, text }) => {
    const measured = bought(text);
    const found = [
      BRITISH.exec(text)?.[0],
      NOT_SAID.exec(text)?.[0],
      CODE.exec(text)?.[0],
      from.endsWith('file') ? undefined : RAW.exec(measured)?.[0],
      UNIT_OF[units].exec(measured)?.[0],
    ].filter(f => f !== undefined);
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
      { numRuns: Number(process.env.SOAK_WORDS ?? 12) },
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
