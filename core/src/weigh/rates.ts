import type { RateId, RatesEntered, SheetFinish } from '../plan';
import { MATERIAL_IDS, MATERIALS, type MaterialId } from '../sheet';
import { KG_PER_LB, MM_PER_FOOT, MM_PER_INCH, MM2_PER_SQ_FT, type UnitSystem } from '../units';

/** What work and material are priced at, in dollars. */
export interface Rates {
  /** per kg of blank */
  readonly sheetPerKg: Readonly<Record<MaterialId, number>>;
  /** per meter of cut and mm of thickness */
  readonly cutPerMeterMm: number;
  readonly perBend: number;
  /** per m², both faces once */
  readonly finishPerM2: Readonly<Record<SheetFinish, number>>;
  readonly perFastenerKg: number;
  readonly perFastener: number;
  /** where they are from, in a word or two, as said beside every price */
  readonly note: string;
}

export const INVENTED = 'invented default';

/** Every price here is an invented default: shown as such, meant to be replaced by a shop's own. */
export const RATES: Rates = {
  note: `${INVENTED}s`,
  sheetPerKg: {
    'steel-hr36': 2.2,
    'steel-hsla50': 2.53,
    'steel-ar400': 4.4,
    'stainless-304': 6.6,
    'al-5052-h32': 5.7,
    'al-6061-t6': 6.4,
    'uhmw-pe': 4.8,
  },
  cutPerMeterMm: 0.35,
  perBend: 6,
  finishPerM2: { raw: 0, powder: 38, paint: 14, zinc: 30 },
  perFastenerKg: 9,
  perFastener: 0.35,
};

/** What a rate is for, said in either system, and what it is multiplied by for who reads inches and pounds. */
const EACH = {
  mass: { metric: 'a kg of blank', inch: 'a lb of blank', factor: KG_PER_LB },
  hardware: { metric: 'a kg', inch: 'a lb', factor: KG_PER_LB },
  cut: {
    metric: 'a meter of cut, for each mm of thickness',
    inch: 'a foot of cut, for each 1/8 in of thickness',
    factor: (MM_PER_FOOT / 1000) * (MM_PER_INCH / 8),
  },
  area: {
    metric: 'a m\u00b2 of blank, both faces',
    inch: 'a sq ft of blank, both faces',
    factor: MM2_PER_SQ_FT * 1e-6,
  },
  bend: { metric: 'a bend', inch: 'a bend', factor: 1 },
  part: { metric: 'a part', inch: 'a part', factor: 1 },
} as const;

/** What a line's price is for, in the reader's units. */
export const rateFor = ({ each }: Pick<RateLine, 'each'>, units: UnitSystem): string => EACH[each][units];
/** A rate as the reader has it, from the one that is kept (per kg, m, m\u00b2), and back. */
export const rateIn = ({ each }: Pick<RateLine, 'each'>, kept: number, units: UnitSystem): number =>
  units === 'inch' ? kept * EACH[each].factor : kept;
export const rateKept = ({ each }: Pick<RateLine, 'each'>, shown: number, units: UnitSystem): number =>
  units === 'inch' ? shown / EACH[each].factor : shown;

/** One rate as a table shows it. */
export interface RateLine {
  readonly id: RateId;
  readonly name: string;
  /** what the price is for */
  readonly each: keyof typeof EACH;
  readonly value: number;
  readonly source: string;
  readonly entered: boolean;
}

const FINISH_NAMES: Readonly<Record<Exclude<SheetFinish, 'raw'>, string>> = {
  powder: 'Powder coat',
  paint: 'Paint',
  zinc: 'Zinc plating',
};

/** All rates with their names and defaults; bare sheet costs nothing to finish. */
const LINES: readonly Pick<RateLine, 'id' | 'name' | 'each' | 'value'>[] = [
  ...MATERIAL_IDS.map(m => ({
    id: `sheet ${m}` as const,
    name: MATERIALS[m].name,
    each: 'mass' as const,
    value: RATES.sheetPerKg[m],
  })),
  { id: 'cut', name: 'Cutting', each: 'cut', value: RATES.cutPerMeterMm },
  { id: 'bend', name: 'Bending', each: 'bend', value: RATES.perBend },
  ...(['powder', 'paint', 'zinc'] as const).map(f => ({
    id: `finish ${f}` as const,
    name: FINISH_NAMES[f],
    each: 'area' as const,
    value: RATES.finishPerM2[f],
  })),
  { id: 'fastener kg', name: 'Hardware by mass', each: 'hardware', value: RATES.perFastenerKg },
  { id: 'fastener', name: 'Hardware by the piece', each: 'part', value: RATES.perFastener },
];

/** Every rate as it stands: the owner's with its source, or the default marked as invented. */
export const rateLines = (entered: RatesEntered = {}): readonly RateLine[] =>
  LINES.map(l => {
    const own = entered[l.id];
    return own
      ? { ...l, value: own.value, source: own.source.trim() || 'entered, no source', entered: true }
      : { ...l, source: INVENTED, entered: false };
  });

/** The rates that a plan's prices are worked out by. */
export function ratesOf(entered: RatesEntered = {}): Rates {
  const lines = rateLines(entered);
  const of = (id: RateId): number => lines.find(l => l.id === id)?.value ?? 0;
  const own = lines.filter(l => l.entered).length;
  if (own === 0) return RATES;
  return {
    note: own === lines.length ? 'your rates' : `partly ${INVENTED}s`,
    sheetPerKg: Object.fromEntries(MATERIAL_IDS.map(m => [m, of(`sheet ${m}`)])) as Record<
      MaterialId,
      number
    >,
    cutPerMeterMm: of('cut'),
    perBend: of('bend'),
    finishPerM2: {
      raw: 0,
      powder: of('finish powder'),
      paint: of('finish paint'),
      zinc: of('finish zinc'),
    },
    perFastenerKg: of('fastener kg'),
    perFastener: of('fastener'),
  };
}
