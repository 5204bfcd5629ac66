import { toDegrees, toRadians } from '../geometry';
import type { Cutter, Plan, Shop } from '../plan';
import type { Material } from '../sheet';

/** Two invented shops: examples to be replaced by the owner's own. */
export const SHOPS: readonly Shop[] = [
  {
    id: 'garage',
    name: 'Hut road garage (invented)',
    brake: { length: 1270, force: 400 },
    dies: [16, 25, 32, 50],
    sheets: [[2438.4, 1219.2]],
  },
  {
    id: 'works',
    name: 'Valley sheet works (invented)',
    brake: { length: 3060, force: 1350 },
    dies: [12, 16, 25, 32, 50, 63, 80],
    sheets: [
      [3048, 1524],
      [2438.4, 1219.2],
    ],
  },
];

/** The shop of a plan: the first of the two examples until one is chosen. */
export const shopOf = (plan: Pick<Plan, 'shop'>): Shop => plan.shop ?? (SHOPS[0] as Shop);

/**
 * What a cutter makes: the narrowest hole in thicknesses of the sheet, and never narrower than, mm. Common practice, no source: job
 * shops' rules for holes that still come out round.
 */
export const CUTTERS: Readonly<
  Record<Cutter, { readonly name: string; readonly ofThickness: number; readonly least: number }>
> = {
  laser: { name: 'a laser', ofThickness: 0.5, least: 1 },
  plasma: { name: 'a plasma table', ofThickness: 1.5, least: 6 },
  waterjet: { name: 'a water jet', ofThickness: 0.25, least: 1.5 },
  hand: { name: 'a drill', ofThickness: 0, least: 1 },
};
export const cutterOf = (shop: Pick<Shop, 'cutter'>): Cutter => shop.cutter ?? 'laser';
/** The narrowest hole that a cutter makes in a sheet, mm. */
export const leastHole = (cutter: Cutter, thickness: number): number =>
  Math.max(CUTTERS[cutter].least, CUTTERS[cutter].ofThickness * thickness);

/** Die opening for air bending in thicknesses: 8 t (DIN 6935 practice; 6 to 12 t in the charts). */
export const V_OVER_T = 8;
/** The narrowest die of the charts, in thicknesses: below it the sheet is marked and may crack (air bending charts, 6 to 12 t). */
export const LEAST_V_OVER_T = 6;
/** Least flange as a share of the die opening: 1/√2, the sheet resting on both shoulders (air bending charts). */
const FLANGE_OVER_V = Math.SQRT1_2;

/** The die for a sheet: the narrowest at hand of at least 8 t, else the widest there is; undefined without dies. */
export const dieFor = (thickness: number, dies: readonly number[]): number | undefined =>
  [...dies].sort((a, b) => a - b).find(v => v >= V_OVER_T * thickness - 1e-9) ??
  (dies.length > 0 ? Math.max(...dies) : undefined);

/** Least flange that still rests on both shoulders of a die, mm. */
export const leastFlange = (dieOpening: number): number => FLANGE_OVER_V * dieOpening;

/** Air-bending force in kN: F = 1.42·Rm·t²·L/V (brake makers' charts); Rm in MPa, lengths in mm. */
export const bendingForce = (
  tensile: number,
  thickness: number,
  length: number,
  dieOpening: number,
): number => (1.42 * tensile * thickness ** 2 * length) / dieOpening / 1000;

/** Longest bend the brake can force in one stroke, mm. */
export const longestBend = (shop: Shop, tensile: number, thickness: number): number => {
  const v = dieFor(thickness, shop.dies);
  if (!v) return 0;
  return Math.min(shop.brake.length, (shop.brake.force * 1000 * v) / (1.42 * tensile * thickness ** 2));
};

/**
 * Ratio of the inside radius before to after springback, Ri/Rf = 4(Ri·Y/ET)³ − 3(Ri·Y/ET) + 1 (Kalpakjian & Schmid).
 * Y yield and E modulus in MPa, lengths in mm. Never below zero: beyond it the sheet springs flat.
 */
export function springbackRatio(
  insideRadius: number,
  thickness: number,
  yieldMpa: number,
  E: number,
): number {
  const p = (insideRadius * yieldMpa) / (E * thickness);
  return p >= 0.5 ? 0 : Math.max(0, 4 * p ** 3 - 3 * p + 1);
}

/**
 * Degrees by which both legs of an air bend spring back between punch and shoulders, whatever its angle: a strip over the die's opening V
 * that is bent by its full plastic moment Y·T²/4 at the punch and by none at the shoulders goes back by M·V/(2·E·I) = 1.5·Y·V/(E·T)
 * (Timoshenko, Strength of Materials, part II). Lengths in mm, Y and E in MPa. Of a bend of some degrees this is most of it.
 */
export const legsSpringBack = (
  dieOpening: number,
  thickness: number,
  { yield: y, E }: Pick<Material, 'yield' | 'E'>,
): number => toDegrees((1.5 * y * dieOpening) / (E * thickness));

/**
 * Angle to bend to, so that `angle` degrees are left: (Ri + T/2)·ai = (Rf + T/2)·af with Rf = Ri/ratio (Kalpakjian &
 * Schmid) for what lies round the punch, and what the legs go back over a die. Undefined where the sheet springs back wholly.
 */
export function angleToBendTo(
  angle: number,
  insideRadius: number,
  thickness: number,
  material: Material,
  dieOpening: number | undefined,
): number | undefined {
  const ratio = springbackRatio(insideRadius, thickness, material.yield, material.E);
  if (ratio <= 0) return undefined;
  const after = insideRadius / ratio;
  const legs = dieOpening === undefined ? 0 : legsSpringBack(dieOpening, thickness, material);
  return (angle * (after + thickness / 2)) / (insideRadius + thickness / 2) + legs;
}

/** Relief beside a bend that ends within an edge: one thickness wide, R + t deep (sheet-metal design guides). */
export const reliefOf = (insideRadius: number, thickness: number): { width: number; depth: number } => ({
  width: thickness,
  depth: insideRadius + thickness,
});

/** Least distance from a hole's edge to a bend's mold line, mm: 2t + R (sheet-metal design guides). */
export const holeToBend = (insideRadius: number, thickness: number): number => 2 * thickness + insideRadius;

/** K-factor from a test bend: the flat length and both legs measured outside, to their mold line. */
export interface TestBend {
  readonly flat: number;
  readonly legs: readonly [number, number];
  readonly angle: number;
  readonly insideRadius: number;
  readonly thickness: number;
}

/**
 * K from a test bend: flat = L1 + L2 − 2·(R + t)·tan(A/2) + A·π/180·(R + K·t), solved for K. A K outside 0 to 0.6 is no
 * neutral fiber: something was measured wrongly; then undefined.
 */
export function calibratedK({
  flat,
  legs,
  angle,
  insideRadius: r,
  thickness: t,
}: TestBend): number | undefined {
  const a = toRadians(Math.abs(angle));
  if (a === 0 || t <= 0) return undefined;
  const allowance = flat - legs[0] - legs[1] + 2 * (r + t) * Math.tan(a / 2);
  const k = (allowance / a - r) / t;
  return k > 0 && k <= 0.6 ? k : undefined;
}
