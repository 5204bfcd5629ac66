import { fixed, type UnitSystem } from '@plate-fold/core';

/** A mile, km, exactly. */
export const KM_PER_MILE = 1.609344;

/** A distance driven, to the whole unit. */
export const formatDistance = (km: number, units: UnitSystem): string =>
  units === 'inch' ? `${fixed(km / KM_PER_MILE, 0)} mi` : `${fixed(km, 0)} km`;
