import type { Fit } from '../plan';
import { err, MM_PER_INCH, ok, type Result } from '../units';

/** A screw thread. Lengths in mm, area in mm². */
export interface Thread {
  /** `M10x1.5` or `3/8-16` */
  readonly designation: string;
  readonly system: 'metric' | 'inch';
  /** nominal size as spoken: `M10`, `3/8` */
  readonly size: string;
  readonly d: number;
  readonly pitch: number;
  readonly stressArea: number;
  readonly tapDrill: number;
  /** clearance hole, ISO 273 medium or ASME B18.2.8 normal */
  readonly clearance: number;
  /** clearance holes by fit: ISO 273 fine, medium, coarse; ASME B18.2.8 close, normal, loose */
  readonly clearances: Readonly<Record<Fit, number>>;
}

type Row = readonly [size: string, d: number, pitch: number, area: number, tap: number, clearance: number];

/** ISO 261 / ISO 724; stress area ISO 898-1; tap drill ISO 2306; clearance ISO 273 medium. */
const METRIC: readonly Row[] = [
  ['M5', 5, 0.8, 14.2, 4.2, 5.5],
  ['M6', 6, 1, 20.1, 5, 6.6],
  ['M8', 8, 1.25, 36.6, 6.8, 9],
  ['M10', 10, 1.5, 58, 8.5, 11],
  ['M12', 12, 1.75, 84.3, 10.2, 13.5],
  ['M14', 14, 2, 115, 12, 15.5],
  ['M8', 8, 1, 39.2, 7, 9],
  ['M10', 10, 1.25, 61.2, 8.8, 11],
  ['M12', 12, 1.25, 92.1, 10.8, 13.5],
  ['M12', 12, 1.5, 88.1, 10.5, 13.5],
  ['M14', 14, 1.5, 125, 12.5, 15.5],
];

/** ASME B1.1 (size, threads per inch, stress area in²); tap drill Machinery's Handbook; clearance ASME B18.2.8 normal; inches. */
const INCH: readonly (readonly [size: string, tpi: number, area: number, tap: number, clearance: number])[] =
  [
    ['1/4', 20, 0.0318, 0.201, 0.2812],
    ['5/16', 18, 0.0524, 0.257, 0.3438],
    ['3/8', 16, 0.0775, 0.3125, 0.4062],
    ['7/16', 14, 0.1063, 0.368, 0.4688],
    ['1/2', 13, 0.1419, 0.4219, 0.5625],
    ['1/4', 28, 0.0364, 0.213, 0.2812],
    ['5/16', 24, 0.058, 0.272, 0.3438],
    ['3/8', 24, 0.0878, 0.332, 0.4062],
    ['7/16', 20, 0.1187, 0.3906, 0.4688],
    ['1/2', 20, 0.1599, 0.4531, 0.5625],
  ];

const fractionOf = (text: string): number => {
  const [a, b] = text.split('/').map(Number);
  return (a ?? 0) / (b ?? 1);
};

/** Fine and coarse of ISO 273 beside the medium of the table, and close and loose of ASME B18.2.8 beside its normal (inches). */
const CLOSE_LOOSE: Readonly<Record<string, readonly [close: number, loose: number]>> = {
  M5: [5.3, 5.8],
  M6: [6.4, 7],
  M8: [8.4, 10],
  M10: [10.5, 12],
  M12: [13, 14.5],
  M14: [15, 16.5],
  '1/4': [0.2656, 0.2969],
  '5/16': [0.3281, 0.3594],
  '3/8': [0.3906, 0.4219],
  '7/16': [0.4531, 0.4844],
  '1/2': [0.5312, 0.6094],
};

const clearancesOf = (size: string, normal: number, unit: number): Thread['clearances'] => {
  const [close, loose] = CLOSE_LOOSE[size] ?? [normal, normal];
  return { close: close * unit, normal: normal * unit, loose: loose * unit };
};

export const THREADS: readonly Thread[] = [
  ...METRIC.map(
    ([size, d, pitch, stressArea, tapDrill, clearance]): Thread => ({
      designation: `${size}x${pitch}`,
      system: 'metric',
      size,
      d,
      pitch,
      stressArea,
      tapDrill,
      clearance,
      clearances: clearancesOf(size, clearance, 1),
    }),
  ),
  ...INCH.map(
    ([size, tpi, area, tap, hole]): Thread => ({
      designation: `${size}-${tpi}`,
      system: 'inch',
      size,
      d: fractionOf(size) * MM_PER_INCH,
      pitch: MM_PER_INCH / tpi,
      stressArea: area * MM_PER_INCH ** 2,
      tapDrill: tap * MM_PER_INCH,
      clearance: hole * MM_PER_INCH,
      clearances: clearancesOf(size, hole, MM_PER_INCH),
    }),
  ),
];

const byName = new Map(THREADS.map(t => [t.designation, t]));

/** The thread of that name; `M10` alone means the coarse one. */
export function threadNamed(text: string): Result<Thread> {
  const key = text
    .trim()
    .replace(/\s*[x\u00d7]\s*/i, 'x')
    .replace(/^m/, 'M');
  const found = byName.get(key) ?? THREADS.find(t => t.size === key);
  return found ? ok(found) : err(`"${text}" is not a thread in the catalog (M5 to M14, 1/4 to 1/2 in)`);
}

/**
 * Shear area of an internal thread per mm of engagement, mm²/mm: π·ds/P·(P/2 + 0.57735(ds − D2)) with the least
 * external major diameter ds and the greatest internal pitch diameter D2 (ASME B1.1 App. B; ISO 965-1 6g/6H
 * tolerance formulas, used for inch threads too as an approximation).
 */
export function internalShearArea({ d, pitch: p }: Thread): number {
  const ds = d - (15 + 11 * p) / 1000 - (180 * Math.cbrt(p * p) - 3.15 / Math.sqrt(p)) / 1000;
  const d2 = d - 0.649519 * p + (1.32 * 90 * p ** 0.4 * d ** 0.1) / 1000;
  return ((Math.PI * ds) / p) * (p / 2 + 0.57735 * (ds - d2));
}
