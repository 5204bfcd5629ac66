import {
  type AdjustedReading,
  type Adjustment,
  adjusted,
  agreementWords,
  looseWords,
  namesOf,
  netOf,
  nextReadings,
  nextWords,
  readSurvey,
  suspectWords,
} from '@plate-fold/core/survey';
import { fixed, formatLength, type UnitSystem } from '@plate-fold/core/units';

/** A reading with the keys of the command line alone. */
const plainReading = ({ value: _, sigma: __, ...r }: AdjustedReading) => r;

function told(a: Adjustment, units: UnitSystem): string {
  const names = namesOf(a.solution.net.points);
  const length = (mm: number): string => formatLength(mm, units, true);
  return [
    ...a.points.map(
      p =>
        `${names.get(p.id)}  x ${length(p.at[0])}  y ${length(p.at[1])}  z ${length(p.at[2])}  within ${p.sigma.map(length).join(', ')}`,
    ),
    ...a.photos.map(
      f => `photo ${f.id}: focal length ${fixed(f.focalPx, 0)} px, marks off by ${fixed(f.rmsPx, 1)} px`,
    ),
    agreementWords(a),
    ...a.suspects
      .slice(0, 1)
      .map(i => `suspect: ${suspectWords(a.readings[i] as AdjustedReading, names, units)}`),
    ...(a.suspects.length > 1 ? [`${a.suspects.length - 1} more look odd, likely because of it`] : []),
    ...looseWords(a.loose, names).map(words => `loose: ${words}`),
    ...nextReadings(a.solution).map(n => `next: ${nextWords(n, names, units)}`),
  ].join('\n');
}

/**
 * Adjusts the survey of a plan, or one that stands alone. The text to print and the exit code: 1 where something hangs loose; or the fault,
 * where nothing of it has a place.
 */
export function runSurvey(
  text: string,
  json: boolean,
  units: UnitSystem,
): { readonly out: string; readonly code?: number } | { readonly fault: string } {
  const read = readSurvey(text);
  if (!read.ok) return { fault: read.fault };
  const a = adjusted(netOf(read.value.survey, read.value.rig));
  if (a.points.length === 0) {
    const names = namesOf(a.solution.net.points);
    return { fault: looseWords(a.loose, names).join(' ') || 'the survey has no points' };
  }
  const out = json
    ? JSON.stringify(
        {
          points: a.points.map(({ id, at, sigma }) => ({ id, at, sigma })),
          photos: a.photos.map(({ turn: _, ...f }) => f),
          readings: a.readings.map(plainReading),
          suspects: a.suspects,
          varianceFactor: a.varianceFactor,
          freedom: a.freedom,
          next: nextReadings(a.solution),
          ...(a.loose.length > 0 ? { loose: a.loose } : {}),
        },
        null,
        1,
      )
    : told(a, units);
  return { out, code: a.loose.length > 0 ? 1 : 0 };
}
