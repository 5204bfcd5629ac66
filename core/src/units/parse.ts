import { KG_PER_LB, MM_PER_FOOT, MM_PER_INCH, NM_PER_KGF_M, NM_PER_LBF_FT, NM_PER_LBF_IN } from './constants';
import { parseNumber } from './number';
import { err, ok, type Result } from './result';

export type UnitSystem = 'inch' | 'metric';

type Table = readonly (readonly [RegExp, number])[];

const LENGTHS: Table = [
  [/^(mm|millimet(?:re|er)s?)$/, 1],
  [/^(cm|centimet(?:re|er)s?)$/, 10],
  [/^(m|met(?:re|er)s?)$/, 1000],
  [/^(in|inch|inches|"|''|\u2033)$/, MM_PER_INCH],
  [/^(ft|foot|feet|'|\u2032)$/, MM_PER_FOOT],
];

const MASSES: Table = [
  [/^(kg|kgs|kilograms?|kilos?)$/, 1],
  [/^(g|grams?)$/, 0.001],
  [/^(lb|lbs|lbm|pounds?)$/, KG_PER_LB],
  [/^(oz|ounces?)$/, KG_PER_LB / 16],
];

const TORQUES: Table = [
  [/^(nm|newton-?met(?:re|er)s?)$/, 1],
  [/^(lbf?ft|ft-?lbs?f?|lbs?f?-?ft|foot-?pounds?|pound-?feet)$/, NM_PER_LBF_FT],
  [/^(lbf?in|in-?lbs?f?|lbs?f?-?in|inch-?pounds?)$/, NM_PER_LBF_IN],
  [/^(kgf?m|kgf?-m|mkg)$/, NM_PER_KGF_M],
];

/** Splits `4.8 mm`, `1 1/2 in`, `30 ft-lb` into its number and the rest. */
function split(text: string): { number: string; unit: string } {
  const m = /^([\s\d.,/+\u2212-]*?(?:e-?\d+)?)\s*([^\d\s.,/+\u2212-].*)?$/i.exec(text.trim());
  if (!m) return { number: text, unit: '' };
  return { number: (m[1] ?? '').trim(), unit: (m[2] ?? '').trim() };
}

function parseWith(
  text: string,
  table: Table,
  fallback: number,
  what: string,
  known: string,
): Result<number> {
  const { number, unit } = split(text);
  const value = parseNumber(number);
  if (!value.ok) return value;
  if (unit === '') return ok(value.value * fallback);
  const key = unit.toLowerCase().replace(/[\s\u00b7.*]/g, '');
  const row = table.find(([pattern]) => pattern.test(key));
  if (!row) return err(`"${unit}" is not a unit of ${what}: use ${known}`);
  return ok(value.value * row[1]);
}

/** Length in mm from what a person types. A bare number is inches or millimeters by `system`. */
export function parseLength(text: string, system: UnitSystem): Result<number> {
  const feet = /^(\d+)\s*(?:'|ft)\s*([\d\s./]+)\s*(?:"|in)?$/.exec(text.trim());
  if (feet?.[1] && feet[2]) {
    const inches = parseNumber(feet[2]);
    return inches.ok ? ok(Number(feet[1]) * MM_PER_FOOT + inches.value * MM_PER_INCH) : inches;
  }
  return parseWith(text, LENGTHS, system === 'inch' ? MM_PER_INCH : 1, 'length', 'mm, cm, m, in or ft');
}

/** Mass in kg. A bare number is pounds or kilograms by `system`. */
export function parseMass(text: string, system: UnitSystem): Result<number> {
  return parseWith(text, MASSES, system === 'inch' ? KG_PER_LB : 1, 'mass', 'kg, g, lb or oz');
}

/** Torque in N·m. A bare number is lbf·ft or N·m by `system`. */
export function parseTorque(text: string, system: UnitSystem): Result<number> {
  const fallback = system === 'inch' ? NM_PER_LBF_FT : 1;
  return parseWith(text, TORQUES, fallback, 'torque', 'N\u00b7m, lbf\u00b7ft or lbf\u00b7in');
}

/** The gauge number in `7 ga`, `7ga.`, `#7 gauge`; undefined when the text is no gauge. */
export function parseGaugeNumber(text: string): number | undefined {
  const m = /^#?\s*(\d{1,2})\s*(?:ga\.?|gauge)$/i.exec(text.trim());
  return m ? Number(m[1]) : undefined;
}
