/**
 * What the triangles' own moves become by the last move if they were to grow in proportion to it. The tangent is made there and not
 * where the triangles really stand, since a move of some thicknesses first stretches and yields them far too much, before the next
 * ones bring that back: this lets long steps find their balance (Magisano, Leonetti and Garcea 2017: mixed integration points).
 */
export interface Predicted {
  /** own moves, axes and corners of every triangle where it was last asked for its force */
  readonly own: Float64Array;
  readonly axes: Float64Array;
  readonly flat: Float64Array;
  readonly next: Float64Array;
  /** true once `next` holds what the move that was made last predicts */
  valid: boolean;
}

export const nothingForetold = (triangles: number): Predicted => ({
  own: new Float64Array(18 * triangles),
  axes: new Float64Array(9 * triangles),
  flat: new Float64Array(6 * triangles),
  next: new Float64Array(18 * triangles),
  valid: false,
});
