import type { Material } from './material';

/** Bending stiffness of a plate per width, D = E t³ / 12(1 − ν²), N·mm (Timoshenko & Woinowsky-Krieger). */
export const plateStiffness = (m: Material, t: number): number => (m.E * t ** 3) / (12 * (1 - m.nu ** 2));

/** Thickness of `to` as stiff in bending as `t` mm of `from`: t2/t1 = ∛(E1(1−ν2²) / E2(1−ν1²)). */
export const equalStiffness = (from: Material, t: number, to: Material): number =>
  t * Math.cbrt((from.E * (1 - to.nu ** 2)) / (to.E * (1 - from.nu ** 2)));

/** Thickness of `to` with the same yield-line dent force as `t` mm of `from`: t2/t1 = √(Sy1/Sy2). */
export const equalDent = (from: Material, t: number, to: Material): number =>
  t * Math.sqrt(from.yield / to.yield);

/**
 * Quick dent force, N: the collapse load of a plate under a concentrated load by yield lines (Johansen),
 * P = 2π(m + m′) with m = m′ = Sy t²/4. An estimate, not a certificate.
 */
export const dentForce = (m: Material, t: number): number => 2 * Math.PI * 2 * ((m.yield * t * t) / 4);
