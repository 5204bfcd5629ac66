import type { Screen } from '@plate-fold/core/sequence';
import type { UnitSystem } from '@plate-fold/core/units';
import type { Side } from '../../picture/sheet-scale';
import type { Run } from '../../state/api';
import type { RunState } from './use-run';
import type { Walked } from './use-screens';

/** What every body of a run is given. */
export interface BodyProps {
  readonly walked: Walked;
  readonly units: UnitSystem;
  readonly side: Side;
  readonly run: Run;
  readonly record: RunState['record'];
  readonly screen: Screen;
  /** what helps with what was just reported */
  readonly help?: string;
}
