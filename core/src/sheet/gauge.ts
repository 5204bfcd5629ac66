import {
  err,
  MM_PER_INCH,
  ok,
  parseGaugeNumber,
  parseLength,
  type Result,
  tradeFraction,
  type UnitSystem,
} from '../units';
import { MATERIALS, type MaterialFamily, type MaterialId } from './material';

type GaugeTable = Readonly<Record<number, number>>;

/** Inches by gauge number. US Manufacturers' Standard Gauge for uncoated steel sheet (Machinery's Handbook). */
const STEEL: GaugeTable = {
  3: 0.2391,
  5: 0.2092,
  7: 0.1793,
  8: 0.1644,
  10: 0.1345,
  11: 0.1196,
  12: 0.1046,
  13: 0.0897,
  14: 0.0747,
  15: 0.0673,
  16: 0.0598,
  18: 0.0478,
  20: 0.0359,
  24: 0.0239,
};
/** US Standard Gauge as used for stainless sheet (Machinery's Handbook; ASTM A480 practice). */
const STAINLESS: GaugeTable = {
  3: 0.25,
  5: 0.2187,
  7: 0.1875,
  8: 0.1719,
  10: 0.1406,
  11: 0.125,
  12: 0.1094,
  13: 0.0938,
  14: 0.0781,
  15: 0.0703,
  16: 0.0625,
  18: 0.05,
  20: 0.0375,
  24: 0.025,
};
/** Brown & Sharpe (AWG) for aluminum sheet. */
const ALUMINUM: GaugeTable = {
  3: 0.2294,
  5: 0.1819,
  7: 0.1443,
  8: 0.1285,
  9: 0.1144,
  10: 0.1019,
  11: 0.0907,
  12: 0.0808,
  14: 0.0641,
  15: 0.0571,
  16: 0.0508,
  18: 0.0403,
  20: 0.032,
};

const TABLES: Readonly<Record<MaterialFamily, GaugeTable | undefined>> = {
  steel: STEEL,
  stainless: STAINLESS,
  aluminum: ALUMINUM,
  plastic: undefined,
};

/** Thickness in mm of a gauge number in the table of that family; undefined where the table has no such row. */
export function gaugeThickness(family: MaterialFamily, gauge: number): number | undefined {
  const inches = TABLES[family]?.[gauge];
  return inches === undefined ? undefined : inches * MM_PER_INCH;
}

/** Thicknesses of aluminum that are named by thousandths of an inch. */
const DECIMAL: ReadonlySet<number> = new Set([32, 40, 50, 63, 80, 90, 100, 160, 190]);

/** Thickness in mm from what a person types for this material: `3/16`, `7 ga`, `4.8 mm`. */
export function parseThickness(text: string, material: MaterialId, system: UnitSystem): Result<number> {
  const gauge = parseGaugeNumber(text);
  if (gauge === undefined) {
    const length = parseLength(text, system);
    if (!length.ok) return length;
    return length.value > 0 ? length : err('a thickness must be above zero');
  }
  const mm = gaugeThickness(MATERIALS[material].family, gauge);
  return mm === undefined
    ? err(`${MATERIALS[material].name} is not sold in ${gauge} gauge: give the thickness`)
    : ok(mm);
}

/**
 * The trade name of a thickness in a material: a gauge (`7 ga`) or a fraction (`3/16 in`), else mm.
 * A gauge of one metal is never named for another: 7 ga steel is 4.55 mm, 3/16 in is 4.76 mm.
 */
export function tradeName(family: MaterialFamily, thickness: number): string {
  const fraction = tradeFraction(thickness, 0.015);
  if (fraction && Number(fraction.split('/')[1] ?? 1) <= 16) return `${fraction} in`;
  // aluminum is also sold by the thousandth of an inch (ANSI H35.2 lists them)
  const mils = Math.round((thickness / MM_PER_INCH) * 1000);
  if (family === 'aluminum' && DECIMAL.has(mils) && Math.abs((mils / 1000) * MM_PER_INCH - thickness) < 0.002)
    return `${(mils / 1000).toFixed(3)} in`;
  const row = Object.entries(TABLES[family] ?? {}).find(
    ([, inches]) => Math.abs(inches * MM_PER_INCH - thickness) < 0.02,
  );
  if (row) return `${row[0]} ga`;
  return `${Number(thickness.toFixed(2))} mm`;
}
