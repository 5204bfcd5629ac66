import { toRadians } from '../geometry';
import type { TestedK } from '../plan';
import { type Material, type MaterialId, minimumRadius } from '../sheet';

/**
 * K-factor by DIN 6935: k = 0.65 + 0.5 log10(R/t) up to R/t = 5, then 1; K = k/2.
 * Below R/t = 0.65, where the standard's formula ends (from memory), it is held at that value.
 */
export function kFactor(insideRadius: number, thickness: number): number {
  const ratio = Math.max(insideRadius / thickness, 0.65);
  return ratio > 5 ? 0.5 : Math.min(0.5, (0.65 + 0.5 * Math.log10(ratio)) / 2);
}

/** A test bend speaks for ratios of radius to thickness within this share of its own: common practice, no source. */
const NEAR_TEST = 0.25;

/** The K of the nearest test bend of that material whose R/t is near; the standard's where there is none. */
export function kFactorBy(
  tests: readonly TestedK[],
  material: MaterialId,
  insideRadius: number,
  thickness: number,
): number {
  const ratio = insideRadius / thickness;
  const off = (t: TestedK): number => Math.abs(t.ratio / ratio - 1);
  const near = tests
    .filter(t => t.material === material && off(t) <= NEAR_TEST)
    .sort((a, b) => off(a) - off(b))[0];
  return near?.k ?? kFactor(insideRadius, thickness);
}

/** Bend allowance, mm: length of the neutral fibre, A·π/180·(R + K·t) (Machinery's Handbook). Angle in degrees. */
export const bendAllowance = (angle: number, insideRadius: number, thickness: number, k: number): number =>
  toRadians(Math.abs(angle)) * (insideRadius + k * thickness);

/** Outside set-back, mm: (R + t)·tan(A/2). */
export const outsideSetback = (angle: number, insideRadius: number, thickness: number): number =>
  (insideRadius + thickness) * Math.tan(toRadians(Math.abs(angle)) / 2);

/** Bend deduction between outside dimensions, mm: 2·OSSB − BA. */
export const bendDeduction = (angle: number, insideRadius: number, thickness: number, k: number): number =>
  2 * outsideSetback(angle, insideRadius, thickness) - bendAllowance(angle, insideRadius, thickness, k);

/** One bend as it will be made. Lengths in mm, angle in degrees, positive up. */
export interface Bend {
  readonly id: string;
  readonly angle: number;
  readonly insideRadius: number;
  readonly kFactor: number;
  readonly allowanceMm: number;
  /** flat length is L1 + L2 − deduction, both legs measured on the underside */
  readonly deductionMm: number;
  /** from the mould line on the underside to where the sheet begins to curve */
  readonly setbackMm: number;
  readonly minRadiusMm: number;
  readonly ok: boolean;
}

/**
 * The bend between two undersides. The mould line of an upward fold is its outer one, of a downward fold its
 * inner one, so the set-back is (R + t)·tan(A/2) up and R·tan(A/2) down.
 * Without a radius of its own a bend gets the sheet's minimum, and at least one thickness.
 */
export function makeBend(
  id: string,
  angle: number,
  thickness: number,
  material: Material,
  radius?: number,
  tests: readonly TestedK[] = [],
): Bend {
  const least = minimumRadius(material, thickness);
  const insideRadius = radius ?? Math.max(least ?? 2 * thickness, thickness);
  const k = kFactorBy(tests, material.id, insideRadius, thickness);
  const allowance = bendAllowance(angle, insideRadius, thickness, k);
  const half = Math.tan(toRadians(Math.abs(angle)) / 2);
  const setback = (angle >= 0 ? insideRadius + thickness : insideRadius) * half;
  return {
    id,
    angle,
    insideRadius,
    kFactor: k,
    allowanceMm: allowance,
    deductionMm: 2 * setback - allowance,
    setbackMm: setback,
    minRadiusMm: least ?? Number.POSITIVE_INFINITY,
    ok: angle === 0 || (least !== undefined && insideRadius >= least - 1e-6),
  };
}
