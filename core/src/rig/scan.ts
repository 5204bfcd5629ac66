/** A point of a survey as it was found on a scan, in the scan's own axes and unit, and how far off it was once the scan lay on the vehicle. */
export interface ScanPair {
  readonly point: string;
  readonly at: readonly [number, number, number];
  /** mm */
  readonly off: number;
}

/**
 * A scan of the underside as it was laid on the vehicle: heights of what is seen from straight below, every `step` mm; `from` is the least x and y of its
 * first height's middle. The heights themselves are kept beside the plan under the scan's id.
 */
export interface RigScan {
  readonly id: string;
  readonly name: string;
  readonly from: readonly [number, number];
  /** mm */
  readonly step: number;
  /** heights along x, and rows of them along y */
  readonly width: number;
  readonly height: number;
  readonly pairs: readonly ScanPair[];
  /** so many mm was one unit of the scan */
  readonly mmPerUnit: number;
}
