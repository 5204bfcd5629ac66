import { MM_PER_INCH, roundTo, tradeFraction } from '../units';
import type { Thread } from './thread';

/** A spacer's outer diameter, in bolt diameters, and what it is of: common practice, no source. */
export const SPACER = {
  outer: 2,
  of: { steel: 'steel-hr36', aluminium: 'al-6061-t6', plastic: 'uhmw-pe' },
} as const;

/** What a threaded post, or the foot of a tube clamp, keeps solid behind its thread, mm: common practice, no source. */
export const POST_WEB = 2;
/** How deep a threaded post or foot of that height is tapped, mm. */
export const postDepth = (heightMm: number): number => Math.max(0, heightMm - POST_WEB);

/** Spacers and shims as sold, mm: common practice, no source. */
const METRIC = [1, 1.5, 2, 3, 5, 6, 8, 10, 12, 15, 20, 25, 30, 35, 40, 45, 50, 60];
const INCH = [1 / 32, 1 / 16, 1 / 8, 3 / 16, 1 / 4, 5 / 16, 3 / 8, 1 / 2, 5 / 8, 3 / 4, 1, 1.25, 1.5, 2].map(
  x => x * MM_PER_INCH,
);
/** The longest spacer under a bolt, mm: common practice, no source. */
export const LONGEST_SPACER = 60;
/** A pile of spacers may miss the height by this much, mm: half of what a seat is let off. */
const MISS = 0.25;

/**
 * Spacers as sold that make up a height, longest first: the fewest of one, two or three, of a kind with the thread; of equally few the
 * nearest. Where none do, the height itself: a tube cut to length.
 */
export function spacerPile(mm: number, { system }: Pick<Thread, 'system'>): readonly number[] {
  if (mm <= 0) return [];
  const sold = [...(system === 'inch' ? INCH : METRIC)].sort((a, b) => b - a);
  const misses = (sum: number): number => Math.abs(sum - mm);
  let best: readonly number[] | undefined;
  const take = (pile: readonly number[]): void => {
    const sum = pile.reduce((a, b) => a + b, 0);
    if (misses(sum) > MISS + 1e-9) return;
    const bestSum = best?.reduce((a, b) => a + b, 0) ?? Number.POSITIVE_INFINITY;
    if (!best || pile.length < best.length || (pile.length === best.length && misses(sum) < misses(bestSum)))
      best = pile;
  };
  for (const a of sold) {
    take([a]);
    for (const b of sold) {
      if (b > a) continue;
      take([a, b]);
    }
  }
  if (!best)
    for (const a of sold) for (const b of sold) for (const c of sold) if (c <= b && b <= a) take([a, b, c]);
  return best ?? [mm];
}

/** A spacer as it is sold: `12 mm`, or `3/8 in` for an inch thread. */
export const spacerName = (mm: number, { system }: Pick<Thread, 'system'>): string =>
  system === 'inch'
    ? `${tradeFraction(mm, 0.2) ?? (mm / MM_PER_INCH).toFixed(3)} in`
    : `${roundTo(mm, 1)} mm`;
