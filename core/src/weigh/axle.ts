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

/** How much more of the added mass lies on the right than on the left, kg, by moments about the center line. */
export function sideChange(loads: readonly Load[], trackWidth: number): number {
  return loads.reduce((sum, { massKg, at }) => sum + (2 * massKg * at[1]) / trackWidth, 0);
}

/** Heights of a fender's edge over its wheel's middle, mm, on one axle. */
export interface Heights {
  readonly before: number;
  readonly after: number;
}

/** Axle loads that change by less than this, or heights by less than that, say nothing about a spring: kg, mm. */
const LEAST_KG = 5;
const LEAST_MM = 1.5;

/**
 * Wheel rates, N/mm per wheel, from how far each axle sank under a known change: ΔF / (2·Δh). Undefined where the change is too small
 * to be told with a tape, or the axle moved against it.
 */
export function wheelRates(
  change: AxleChange,
  measured: { readonly front?: Heights; readonly rear?: Heights },
): { readonly front?: number; readonly rear?: number } {
  const rate = (kg: number, h: Heights | undefined): number | undefined => {
    if (!h) return undefined;
    const sank = h.before - h.after;
    if (Math.abs(kg) < LEAST_KG || Math.abs(sank) < LEAST_MM || kg * sank < 0) return undefined;
    return (kg * STANDARD_GRAVITY) / (2 * sank);
  };
  const front = rate(change.frontKg, measured.front);
  const rear = rate(change.rearKg, measured.rear);
  return { ...(front === undefined ? {} : { front }), ...(rear === undefined ? {} : { rear }) };
}
