import type { BoltClass, FastenerFinish, Lube } from '../plan';
import { MPA_PER_KSI } from '../units';

export interface StrengthClass {
  /** proof strength, MPa */
  readonly proof: number;
  /** minimum tensile strength, MPa */
  readonly tensile: number;
  readonly source: string;
}

export const STRENGTH: Readonly<Record<BoltClass, StrengthClass>> = {
  '8.8': { proof: 580, tensile: 800, source: 'ISO 898-1 Table 3, d up to 16 mm' },
  '10.9': { proof: 830, tensile: 1040, source: 'ISO 898-1 Table 3' },
  'grade-5': { proof: 85 * MPA_PER_KSI, tensile: 120 * MPA_PER_KSI, source: 'SAE J429, 1/4 to 1 in' },
  'grade-8': { proof: 120 * MPA_PER_KSI, tensile: 150 * MPA_PER_KSI, source: 'SAE J429' },
  'A2-70': { proof: 0.85 * 450, tensile: 700, source: 'ISO 3506-1; proof taken as 0.85 Rp0.2 (Shigley)' },
};

/**
 * Nut factor K for T = K·d·F (Shigley Table 8-15): plain and dry 0.30, zinc 0.20, lubricated 0.18, anti-seize 0.12. Dry stainless is taken
 * as plain, threadlocker as lubricated: common practice, no source. A plain (black) bolt as it comes from its box is oiled, not dry.
 */
export function nutFactor(finish: FastenerFinish, lube: Lube): number {
  if (lube === 'anti-seize') return 0.12;
  if (lube === 'threadlocker' || lube === 'oil') return 0.18;
  return finish === 'zinc' ? 0.2 : 0.3;
}

/** Torque in N·m for a clamp force: T = K·d·F (Shigley Eq. 8-27); d in mm, F in N. */
export const torqueFor = (k: number, d: number, force: number): number => (k * d * force) / 1000;

/** Share of proof load for a joint that will be opened again (Shigley Eq. 8-31). */
export const REUSED_PRELOAD = 0.75;

/**
 * How far the clamp may be off at one torque, as a share, since K is never known: 35 % unlubricated, 25 % lubricated
 * (NASA RP-1228).
 */
export const clampScatter = (lube: Lube): number => (lube === 'dry' ? 0.35 : 0.25);

/**
 * Proof stress of a class 8 nut, MPa, by thread diameter in mm (ISO 898-2 Table 4, style 1, coarse; from memory). A captive nut of which
 * nothing is known is no better than that, and carries a bolt no stronger than 8.8 (ISO 898-2: a nut goes with bolts up to its own class).
 */
export const class8Proof = (d: number): number => (d <= 7 ? 855 : d <= 10 ? 870 : 880);
