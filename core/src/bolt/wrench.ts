import { toolCode } from './tool-name';

/** Torque wrenches as sold, N\u00b7m: common practice, no source. */
const WRENCH_RANGES = [
  [2, 10],
  [5, 25],
  [20, 100],
  [40, 200],
  [70, 340],
] as const;
/** A wrench is not trusted in the top twentieth of its range. */
const TRUSTED = 0.95;

/**
 * The range of the torque wrench for a torque, N\u00b7m: the smallest as sold that reaches it without its top twentieth. Undefined where none
 * does: under the smallest it is snug by hand, over the largest no wrench as sold reads it.
 */
export const wrenchRange = (nm: number): readonly [low: number, high: number] | undefined =>
  WRENCH_RANGES.find(([low, high]) => nm >= low && nm <= high * TRUSTED);

/** The torque wrench for a torque, as a tool's code; undefined where none as sold reads it. */
export function torqueWrench(nm: number): string | undefined {
  const fits = wrenchRange(nm);
  return fits && toolCode('torque-wrench', ...fits);
}
