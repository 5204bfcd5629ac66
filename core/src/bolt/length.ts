import { MM_PER_INCH, tradeFraction } from '../units';
import type { Thread } from './thread';

/** ISO 888 nominal lengths, preferred ones, mm. */
const METRIC = [
  6, 8, 10, 12, 16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80, 90, 100, 110, 120, 130, 140, 150, 160,
  180, 200,
];
/** Inch bolts: 1/8 steps to 1 in, 1/4 to 4 in, 1/2 beyond (catalog practice). */
const INCH = [
  0.5, 0.625, 0.75, 0.875, 1, 1.25, 1.5, 1.75, 2, 2.25, 2.5, 2.75, 3, 3.25, 3.5, 3.75, 4, 4.5, 5, 5.5, 6,
].map(x => x * MM_PER_INCH);

/** The next stock length at or above a needed one, mm; the longest stocked where none is long enough. */
export function stockLength(needed: number, t: Thread): number {
  const series = t.system === 'inch' ? INCH : METRIC;
  // no bolt is stocked shorter than about two diameters: ISO 4017 ranges start there
  const least = t.system === 'inch' ? 1.3 * t.d : 2 * t.d;
  return series.find(l => l >= needed - 1e-6 && l >= least - 0.5) ?? (series.at(-1) as number);
}

/** A length as bolts of its kind are sold: `35 mm` with a metric thread, `1 1/4 in` with an inch one. */
export const lengthName = (mm: number, t: Thread): string =>
  t.system === 'inch'
    ? `${tradeFraction(mm, 0.4) ?? (mm / MM_PER_INCH).toFixed(2)} in`
    : `${Number(mm.toFixed(1))} mm`;
