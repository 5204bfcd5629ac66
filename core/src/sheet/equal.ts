import type { Material } from './material';

/** Bending stiffness of a plate per width, D = E t³ / 12(1 − ν²), N·mm (Timoshenko & Woinowsky-Krieger). */
export const plateStiffness = (m: Material, t: number): number => (m.E * t ** 3) / (12 * (1 - m.nu ** 2));

/** Thickness of `to` as stiff in bending as `t` mm of `from`: t2/t1 = ∛(E1(1−ν2²) / E2(1−ν1²)). */
export const equalStiffness = (from: Material, t: number, to: Material): number =>
  t * Math.cbrt((from.E * (1 - to.nu ** 2)) / (to.E * (1 - from.nu ** 2)));

/** Thickness of `to` with the same yield-line dent force as `t` mm of `from`: t2/t1 = √(Sy1/Sy2). */
export const equalDent = (from: Material, t: number, to: Material): number =>
  t * Math.sqrt(from.yield / to.yield);

/** A rock that is sharp: a round nose of this across, mm. The load that is simulated is blunt, a square of 80 mm. */
export const SHARP_NOSE = 25;

/**
 * Force, N, with which a round nose `across` mm shears a disc out of a sheet: π · across · t · shear strength, all of its rim at once, as a blank is punched
 * (Oberg and others, Machinery's Handbook, punching pressure, from memory). A nose that is not flat tears sooner than that: an upper bound, not a certificate.
 */
export const punchForce = (m: Material, t: number, across: number = SHARP_NOSE): number =>
  Math.PI * across * t * m.shear;

/**
 * Quick dent force, N: the collapse load of a plate under a concentrated load by yield lines (Johansen),
 * P = 2π(m + m′) with m = m′ = Sy t²/4. An estimate, not a certificate.
 */
export const dentForce = (m: Material, t: number): number => 2 * Math.PI * 2 * ((m.yield * t * t) / 4);
