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

/** Ratios of radius to thickness that the K table names: those of the standard's own examples, and 1.5. */
export const K_RATIOS = [0.65, 1, 1.5, 2, 3, 4, 5] as const;

/** A figure of one's own takes the place of the table's rows within this share of its ratio: common practice, no source. */
const NEAR = 0.25;

/**
 * K from the shop's own table: where figures of that material were entered or tested, their difference from the standard
 * is laid over the ratios straight by log10(R/t), nought at the table's rows that have none and held beyond the last.
 */
export function kFactorBy(
  own: readonly TestedK[],
  material: MaterialId,
  insideRadius: number,
  thickness: number,
): number {
  const standard = kFactor(insideRadius, thickness);
  const mine = own.filter(t => t.material === material);
  if (mine.length === 0) return standard;
  const known = mine.map(t => ({ at: Math.log10(t.ratio), off: t.k - kFactor(t.ratio, 1) }));
  const rows = K_RATIOS.filter(r => mine.every(t => Math.abs(t.ratio / r - 1) > NEAR)).map(r => ({
    at: Math.log10(r),
    off: 0,
  }));
  const curve = [...known, ...rows].sort((a, b) => a.at - b.at);
  const x = Math.log10(Math.max(insideRadius, 1e-3) / thickness);
  const after = curve.findIndex(p => p.at >= x);
  const [p, q] = [curve[after - 1], curve[after]];
  const off =
    p && q ? p.off + ((q.off - p.off) * (x - p.at)) / (q.at - p.at) : (q ?? curve.at(-1) ?? { off: 0 }).off;
  return standard + off;
}

/** No air bend goes further, degrees: a punch of 30° is as sharp as they are commonly made (common practice). */
export const MOST_ANGLE = 150;
/** Inside radius a bend is drawn with where none that can be made was entered, mm. */
const LEAST_RADIUS = 0.1;

/** The angle a flange is drawn with: what lies beyond the most a brake bends is drawn at it, and reported. */
export const madeAngle = (angle: number): number => Math.max(-MOST_ANGLE, Math.min(MOST_ANGLE, angle));

/** Bend allowance, mm: length of the neutral fiber, A·π/180·(R + K·t) (Machinery's Handbook). Angle in degrees. */
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
  /** from the mold line on the underside to where the sheet begins to curve */
  readonly setbackMm: number;
  readonly minRadiusMm: number;
  readonly ok: boolean;
}

/**
 * The bend between two undersides. The mold line of an upward fold is its outer one, of a downward fold its
 * inner one, so the set-back is (R + t)·tan(A/2) up and R·tan(A/2) down.
 * Without a radius of its own a bend gets the sheet's minimum, and at least one thickness.
 */
export function makeBend(
  id: string,
  wanted: number,
  thickness: number,
  material: Material,
  radius?: number,
  tests: readonly TestedK[] = [],
): Bend {
  const least = minimumRadius(material, thickness);
  const angle = madeAngle(wanted);
  const insideRadius = Math.max(radius ?? Math.max(least ?? 2 * thickness, thickness), LEAST_RADIUS);
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
    ok: angle === 0 || (angle === wanted && least !== undefined && (radius ?? insideRadius) >= least - 1e-6),
  };
}
