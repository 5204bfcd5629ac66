import type { PlanDocument } from '../plan';
import type { PresentRig } from '../rig';
import { UNDER } from '../sequence';
import { type Hung, MINUTES, type ServiceAccess, serviceAccess } from './access';

/** Distance driven in a year where the plan does not say: a guess. */
export const KM_PER_YEAR = 15_000;

/** A service point with what it costs in a year. */
export interface ServiceLine extends ServiceAccess {
  /** minutes in a year spent on getting at it, from its interval; undefined where it has none */
  readonly yearlyMinutes?: number;
  /** minutes in a year that a door below it would save; 0 where nothing comes down */
  readonly doorSaves: number;
}

/** Access to a point through a door right below it, minutes: as through any opening. */
const throughDoor = (doc: PlanDocument): number => MINUTES.opening * UNDER[doc.plan.method.lift];

/**
 * Every service point of a rig: the way to it, the minutes a year by its interval and the distance driven, and what a door below it
 * would save. Minutes and distance are guesses unless entered.
 */
export function serviceList(hung: Hung, rig: PresentRig): readonly ServiceLine[] {
  const kmPerYear = hung.doc.plan.upkeep?.kmPerYear ?? KM_PER_YEAR;
  return rig.servicePoints.map(point => {
    const access = serviceAccess(point, hung);
    const times = point.everyKm === undefined ? undefined : kmPerYear / point.everyKm;
    const saved = access.through === 'drop' ? access.minutes - throughDoor(hung.doc) : 0;
    return {
      ...access,
      ...(times === undefined ? {} : { yearlyMinutes: access.minutes * times }),
      doorSaves: saved * (times ?? 0),
    };
  });
}
