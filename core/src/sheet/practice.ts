import { MM_PER_INCH } from '../units';
import { gaugeThickness } from './gauge';
import type { MaterialFamily } from './material';

/** What a plate is there for, as far as its thickness goes: under a fuel tank, where it takes hits, where it only keeps hands and stones away. */
export const EXPOSURES = ['tank', 'hits', 'deters'] as const;
export type Exposure = (typeof EXPOSURES)[number];

const steel = (gauge: number): number => gaugeThickness('steel', gauge) ?? 0;
/** Steel thinner than this is not taken for a exposure, mm: 10 gauge, 12 gauge, 16 gauge; common practice, no source. */
export const LEAST_STEEL: Readonly<Record<Exposure, number>> = {
  tank: steel(10),
  hits: steel(12),
  deters: steel(16),
};
/** Aluminum is taken so much thicker than steel: 3/16 in where steel is 10 gauge, common practice, no source (as stiff would be 1.41 times). */
const ALUMINUM = ((3 / 16) * MM_PER_INCH) / LEAST_STEEL.tank;

/** The least thickness of a sheet for a exposure, mm, from the least of steel; undefined for plastic, which practice has no word on, and where there is no limit. */
export function leastThickness(leastSteel: number, family: MaterialFamily): number | undefined {
  if (family === 'plastic' || !(leastSteel > 0)) return undefined;
  return family === 'aluminum' ? leastSteel * ALUMINUM : leastSteel;
}
