import type { Facts } from '@plate-fold/core/derive';
import type { Panel } from '@plate-fold/core/plan';
import type { UnitSystem } from '@plate-fold/core/units';

/** The look of a small square button beside a field. */
export const SMALL =
  'grid size-11 shrink-0 place-items-center self-end rounded-edge border border-scribe bg-paper hover:border-ink2';

/** What the fields of a plate's shape look at. */
export interface Of {
  readonly facts: Facts;
  readonly panel: Panel;
  readonly units: UnitSystem;
}
