import { HEADS, NUTS, WASHERS } from '../plan';
import { COMPONENT_KINDS, MEMBER_KINDS, SERVICE_KINDS } from '../rig';
import { MATERIAL_IDS } from '../sheet';
import type { UnitSystem } from '../units';

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
    .replace(/\b(?:socket|wrench|hex key) [\d.]+ mm/gi, 'tool')
    .replace(/\b\d+\/\d+-\d+ \u00d7 [\d /]+ in/g, 'bolt')
    .replace(/\b(?:socket|wrench|hex key) [\d /]+ in/gi, 'tool')
    .replace(/spacers? [\d. ]+ mm for/g, 'spacer')
    .replace(/spacers? [\d /]+ in for/g, 'spacer')
    .replace(/strap over a tube of [\d./ ]+ (?:mm|in)/g, 'strap')
    .replace(/tube clamp(?: for a tube of [\d./ ]+ (?:mm|in))?, foot [\d./ ]+ (?:mm|in) high/g, 'clamp')
    .replace(/threaded post \S+ [\d. /]+ (?:mm|in) high/g, 'post')
    .replace(/[\d.]+ mm (?=(?:\d{4}|steel|AR|UHMW|304|aluminum|stainless|of the same))/g, '')
    .replace(/[\d /]+ in (?=(?:\d{4}|steel|AR|UHMW|304|aluminum|stainless|of the same))/g, '');
const UNIT_OF: Readonly<Record<UnitSystem, RegExp>> = {
  inch: /(?<![\w/])\d[\d.,]*\s?(?:mm|cm|m|m\u00b2|kg|g|km|N|kN|MPa|l|N\u00b7m|N\/mm|\u00b0C)(?![\w\u00b7/\u00b2])|\b(?:mm|kg|km|kN|MPa|N\u00b7m|liters?|meters?)\b/,
  metric:
    /(?<![\w/])\d[\d./ ]*\s?(?:in|ft|lb|lbf|mi|psi|ksi|ft\u00b7lb|lb\/in|\u00b0F|gal|qt|oz)(?![\w\u00b7/])(?! (?:one|a|the|place|line|turn))|\b(?:inch(?:es)?|gallons?|miles)\b/,
};

/** The unit of the other system that a text has a figure in; undefined where it has none. */
export const foreignUnit = (text: string, units: UnitSystem): string | undefined =>
  UNIT_OF[units].exec(bought(text))?.[0];

/** What a text says that no reader of ours would: British spellings, words of the not-column, codes of the file, raw figures. */
export const oddWords = (text: string, { figures = true } = {}): readonly string[] =>
  [
    BRITISH.exec(text)?.[0],
    NOT_SAID.exec(text)?.[0],
    CODE.exec(text)?.[0],
    figures ? RAW.exec(bought(text))?.[0] : undefined,
  ].filter(f => f !== undefined);
