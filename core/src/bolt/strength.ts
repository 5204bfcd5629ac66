import type { BoltClass } from '../plan';
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

/** Share of proof load for a joint that will be opened again (Shigley Eq. 8-31). */
export const REUSED_PRELOAD = 0.75;

/**
 * Proof stress of a class 8 nut, MPa, by thread diameter in mm (ISO 898-2 Table 4, style 1, coarse; from memory). A captive nut of which
 * nothing is known is no better than that, and carries a bolt no stronger than 8.8 (ISO 898-2: a nut goes with bolts up to its own class).
 */
export const class8Proof = (d: number): number => (d <= 7 ? 855 : d <= 10 ? 870 : 880);

/** The nut that goes with a bolt: of its own class (ISO 898-2; SAE J995; ISO 3506-2). */
export const NUT_CLASS: Readonly<Record<BoltClass, string>> = {
  '8.8': 'class 8',
  '10.9': 'class 10',
  'grade-5': 'grade 5',
  'grade-8': 'grade 8',
  'A2-70': 'A2-70',
};

/** The hardness a washer wants under a bolt, so that it does not dish: 200 HV up to 8.8, 300 HV up to 10.9 (ISO 7089, ISO 7093-1), and the inch grades alike. */
export const WASHER_CLASS: Readonly<Record<BoltClass, string>> = {
  '8.8': '200 HV',
  '10.9': '300 HV',
  'grade-5': '200 HV',
  'grade-8': '300 HV',
  'A2-70': 'A2',
};
