import { type ResolvedJoint, type WrenchRange, wrenchAmong, wrenchRange } from '../bolt';
import { formatTorque, torqueFigure, type UnitSystem } from '../units';
import type { Step } from './step';
import { wrenchTolerance } from './turn';

/** Shares of the full torque in the rounds of tightening, the last one until nothing turns (ASME PCC-1). */
export const PASS_SHARES = [0.3, 0.6, 1, 1] as const;

/**
 * What the wrench is set to for each joint at full torque, N·m: torques that lie within a wrench's tolerance (ISO 6789) of one another
 * are one setting, the lowest of them, so that nothing is tightened past its own. A torque that was entered stays as it is; others join
 * it from above only. By joint id.
 */
export function settingsOf(joints: readonly ResolvedJoint[]): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  const entered = (j: ResolvedJoint): boolean => j.joint.torque !== 'auto';
  let at = 0;
  for (const j of [...joints].sort(
    (a, b) => a.torqueNm - b.torqueNm || Number(entered(b)) - Number(entered(a)),
  )) {
    const joins = at > 0 && j.torqueNm <= at * (1 + wrenchTolerance(at)) + 1e-9;
    if (!joins || (entered(j) && j.torqueNm > at + 1e-9)) at = j.torqueNm;
    out.set(j.id, at);
  }
  return out;
}

/** Torques below this no wrench as sold reads, N\u00b7m: common practice, no source. */
const SMALLEST = 2;

/** What is done to a bolt in one round: set to a torque, snugged by hand, or passed over on its way from snug to its next setting. */
export type RoundOf =
  | {
      readonly nm: number;
      /** with which wrench; undefined where none as sold reads it */
      readonly wrench?: WrenchRange;
    }
  | 'by hand'
  | 'passed over';

/**
 * A bolt in one round of tightening, with the wrenches that lie ready. A share that none of them reads is snug by hand in the first round
 * (RCSC: the full effort of one hand on an ordinary wrench, the parts in firm contact) and is passed over in the second.
 */
export function roundOf(settingNm: number, round: number, wrenches: readonly WrenchRange[]): RoundOf {
  const share = PASS_SHARES[round - 1] as number;
  const range = wrenchRange(settingNm);
  const nm = share * settingNm;
  // under the smallest wrench as sold it is snug and stays so; over the largest the figure stands, and a finding says so
  if (!range && settingNm < SMALLEST) return round === 2 ? 'passed over' : 'by hand';
  if (!range) return { nm };
  const wrench = share === 1 ? range : wrenchAmong(wrenches, nm);
  if (wrench) return { nm, wrench };
  return round === 1 ? 'by hand' : 'passed over';
}

/** What the wrench is set to in a step, in words: one torque, or from the lowest to the highest, and what is only snug; empty where none is read. */
export function stepTorque(
  { torques, byHand = [] }: Pick<Step, 'torques' | 'byHand'>,
  units: UnitSystem,
): string {
  const all = Object.values(torques ?? {});
  if (all.length === 0) return '';
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const most = formatTorque(high, units);
  const set = formatTorque(low, units) === most ? most : `${torqueFigure(low, units).value} to ${most}`;
  return byHand.length === 0 ? set : `${set}, by hand ${byHand.join(' ')}`;
}
