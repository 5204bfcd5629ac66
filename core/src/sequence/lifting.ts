import { LIFT_LIMIT_KG, type Method, type PlanDocument } from '../plan';

/** How a load is lifted: cm, degrees, and the two multipliers that come from tables. */
export interface Lifted {
  /** hands before the ankles, hands above the floor where it is hardest, and how far they travel upward */
  readonly horizontal: number;
  readonly vertical: number;
  readonly distance: number;
  readonly twist: number;
  readonly frequency: number;
  readonly coupling: number;
}

/** Recommended weight limit, kg: the revised NIOSH lifting equation (Pub. 94-110), LC·HM·VM·DM·AM·FM·CM. Nought where hands cannot reach. */
export function liftingLimit(l: Lifted): number {
  if (l.horizontal > 63 || l.vertical > 175 || l.distance > 175 || l.twist > 135) return 0;
  const HM = 25 / Math.max(25, l.horizontal);
  const VM = 1 - 0.003 * Math.abs(l.vertical - 75);
  const DM = 0.82 + 4.5 / Math.max(25, l.distance);
  const AM = 1 - 0.0032 * l.twist;
  return LIFT_LIMIT_KG * HM * VM * DM * AM * l.frequency * l.coupling;
}

/** A plate lifted overhead from a bench while standing: 40 cm before one, up to 175 cm, now and then, held by its edges (fair). */
const OVERHEAD: Lifted = { horizontal: 40, vertical: 175, distance: 75, twist: 0, frequency: 1, coupling: 1 };

/**
 * What one person holds of a plate until its first bolts are in, kg. Standing under a lift by the equation; lying under the vehicle the
 * equation does not apply (it is for two hands, standing), and no more is taken than standing: a judgment, no source. On its side the
 * plate is carried before one, and the plan's own limit holds.
 */
export const overheadLimitKg = (lift: Method['lift']): number =>
  lift === 'side' ? LIFT_LIMIT_KG : liftingLimit(OVERHEAD);

/** What one person lifts at most, kg: as entered, or the load constant. */
export const liftLimitKg = (doc: PlanDocument): number => doc.plan.limits.maxLiftKg ?? LIFT_LIMIT_KG;
