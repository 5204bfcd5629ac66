/** An elastic sheet: modulus in MPa. */
export interface Elastic {
  readonly E: number;
  readonly nu: number;
}
