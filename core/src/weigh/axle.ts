import type { Vec3 } from '../geometry';
import type { Rig } from '../rig';
import { STANDARD_GRAVITY } from '../units';

export interface Load {
  readonly massKg: number;
  readonly at: Vec3;
}
export interface AxleChange {
  readonly frontKg: number;
  readonly rearKg: number;
}
export interface RideChange {
  readonly frontMm: number;
  readonly rearMm: number;
}

/** Axle load changes by moments about the axles: rear = Σ m·x/L, front = Σ m·(L − x)/L, x from the front axle. */
export function axleChange(loads: readonly Load[], wheelbase: number): AxleChange {
  let [total, moment] = [0, 0];
  for (const { massKg, at } of loads) {
    total += massKg;
    moment += massKg * at[0];
  }
  return { frontKg: total - moment / wheelbase, rearKg: moment / wheelbase };
}

/** Ride height change at each axle, mm, lower is negative: −ΔF / (2·wheel rate). */
export function rideChange(change: AxleChange, axles: Rig['axles']): RideChange {
  const drop = (kg: number, rate: number): number => (-kg * STANDARD_GRAVITY) / (2 * rate);
  return {
    frontMm: drop(change.frontKg, axles.front.wheelRate),
    rearMm: drop(change.rearKg, axles.rear.wheelRate),
  };
}

/** How much more of the added mass lies on the right than on the left, kg, by moments about the centre line. */
export function sideChange(loads: readonly Load[], trackWidth: number): number {
  return loads.reduce((sum, { massKg, at }) => sum + (2 * massKg * at[1]) / trackWidth, 0);
}
