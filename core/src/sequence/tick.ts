import type { FaultKind } from './fault-kinds';

/** The most that a wrench reads, N·m; no bolt under a vehicle is set so tight. */
export const MOST_TORQUE = 1000;

/** What a device has recorded of a move. Records are only ever added. */
export interface Tick {
  readonly id: string;
  readonly stepId: string;
  readonly jointId: string | null;
  /**
   * `override`: a bolt that is not sound is left so, with the reason in `note`. `claim`: whoever is named takes the plate whose id is in
   * `note`, nobody where `who` is null. `dismissed`: an offer made from the tick named in `note` is not shown again.
   */
  readonly kind: 'done' | 'undone' | 'deviation' | 'override' | 'claim' | 'dismissed';
  readonly torqueNm?: number | null;
  readonly note?: string | null;
  /** what went wrong, where it is one of the usual things */
  readonly fault?: FaultKind | null;
  /** what the step asked for: fenders frontLeft to rearRight in mm, odometer in km, fuel as a share of full */
  readonly values?: Readonly<Record<string, number>> | null;
  /** who is working, as entered on the device */
  readonly who?: string | null;
  /** the wrench that read it: `typed in`, or the device's own name */
  readonly wrench?: string | null;
  /** id of a photo kept with it */
  readonly photo?: string | null;
  /** clock of the device, ms */
  readonly at: number;
  readonly device: string;
}
