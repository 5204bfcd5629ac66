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

/** Range of a torque wrench, N\u00b7m. */
export type WrenchRange = readonly [low: number, high: number];

/** The smallest of some wrenches that reads a torque; undefined where none of them does. */
export const wrenchAmong = (wrenches: readonly WrenchRange[], nm: number): WrenchRange | undefined =>
  wrenches.find(([low, high]) => nm >= low && nm <= high * TRUSTED);

/**
 * The range of the torque wrench for a torque, N\u00b7m: the smallest as sold that reaches it without its top twentieth. Undefined where none
 * does: under the smallest it is snug by hand, over the largest no wrench as sold reads it.
 */
export const wrenchRange = (nm: number): WrenchRange | undefined => wrenchAmong(WRENCH_RANGES, nm);

/** The wrenches that tighten to all of these torques, each once, the smallest first. */
export const wrenchesFor = (torques: readonly number[]): readonly WrenchRange[] =>
  WRENCH_RANGES.filter(r => torques.some(nm => wrenchRange(nm) === r));

/** A torque wrench as a tool's code. */
export const wrenchCode = (range: WrenchRange): string => toolCode('torque-wrench', ...range);

/** The torque wrench for a torque, as a tool's code; undefined where none as sold reads it. */
export function torqueWrench(nm: number): string | undefined {
  const fits = wrenchRange(nm);
  return fits && wrenchCode(fits);
}
