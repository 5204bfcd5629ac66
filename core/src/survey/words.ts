import { fixed, formatLength, tapeLength, type UnitSystem } from '../units';
import { type AdjustedReading, type Adjustment, wanted } from './adjust';
import { type NetPoint, pointName } from './net';
import type { NextReading } from './next';
import type { Loose } from './untold';

type Names = ReadonlyMap<string, string>;
export const namesOf = (points: readonly Pick<NetPoint, 'id' | 'name'>[]): Names =>
  new Map(points.map(p => [p.id, pointName(p)]));
const named = (names: Names, id: string | undefined): string => names.get(id ?? '') ?? id ?? '';

/** A reading by what it is of: `h4 to h9`, `the height of h7`. */
export function readingName(r: AdjustedReading | NextReading, names: Names): string {
  const of = (id: string | undefined): string => named(names, id);
  switch (r.kind) {
    case 'distance':
      return `${of(r.from)} to ${of(r.to)}`;
    case 'height':
      return `the height of ${of(r.point)}`;
    case 'offset':
      return r.axis === 'x'
        ? `${of(r.point)} from the front axle’s line`
        : `${of(r.point)} from the center line`;
    default:
      return `${of(r.point)} on the photo ${r.photo}`;
  }
}

/** What is odd about a reading, and what all others say it should be. */
export function suspectWords(r: AdjustedReading, names: Names, units: UnitSystem): string {
  const name = readingName(r, names);
  if (r.kind === 'pixel') {
    const off = Math.abs(wanted(r) - r.value);
    const up = r.axis === 'u' ? ['left', 'right'] : ['higher', 'lower'];
    return `${name} is marked ${fixed(off, 0)} px too far ${wanted(r) > r.value ? `${up[0]}` : `${up[1]}`}, by all other readings`;
  }
  return `${name} reads ${tapeLength(r.value, units)}; all others say ${tapeLength(wanted(r), units)}`;
}

/** A gain under this is none to speak of, mm. */
const LITTLE = 0.15;
const gainWords = ({ gain }: NextReading, units: UnitSystem): string =>
  gain < LITTLE
    ? 'the worst doubt hardly falls'
    : `the worst doubt falls by ${formatLength(gain, units, true)}`;

/** What to measure next, as it is read under the vehicle. */
export const nextWords = (r: NextReading, names: Names, units: UnitSystem): string =>
  r.kind === 'distance'
    ? `Tape from ${named(names, r.from)} to ${named(names, r.to)}: ${gainWords(r, units)}`
    : `Measure the height of ${named(names, r.point)}: ${gainWords(r, units)}`;

/** What hangs loose, a sentence each, with the names before it of all that hang so. */
export function looseWords(all: readonly Loose[], names: Names): readonly string[] {
  const alike = new Map<string, string[]>();
  for (const l of all) {
    const of = alike.get(l.why) ?? [];
    alike.set(l.why, of);
    if (l.point !== undefined) of.push(named(names, l.point));
  }
  return [...alike].map(([why, of]) => {
    of.sort((p, q) => p.localeCompare(q, 'en', { numeric: true }));
    if (of.length === 0) return `${why.charAt(0).toUpperCase()}${why.slice(1)}.`;
    // what is said of several names them already, or is said of each
    const who = of.length > 1 ? `Each of ${of.slice(0, -1).join(', ')} and ${of.at(-1)}` : of[0];
    return /^nothing tells/.test(why) ? `${of.join(', ')}: ${why}.` : `${who} ${why}.`;
  });
}

/** How the readings agree as a whole, in words; empty where nothing is left over to tell. */
export function agreementWords({ freedom, varianceFactor, varianceBounds }: Adjustment): string {
  if (!varianceBounds)
    return 'No reading is checked by another yet: a wrong one would not show. Read a few more distances.';
  const [low, high] = varianceBounds;
  if (varianceFactor > high)
    return `The readings differ more than their doubts allow (${fixed(Math.sqrt(varianceFactor), 1)} times): one is wrong, or the tape was read less well than stated.`;
  if (varianceFactor < low)
    return `The readings agree better than their doubts ask for (${fixed(Math.sqrt(varianceFactor), 1)} times).`;
  return `The readings agree within their doubts; ${freedom} of them check the others.`;
}
