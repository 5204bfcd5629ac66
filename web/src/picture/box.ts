/** A rectangle as a path, whichever of its corners are given, px. */
export const box = (x0: number, x1: number, y0: number, y1: number): string =>
  `M${Math.min(x0, x1).toFixed(1)} ${Math.min(y0, y1).toFixed(1)}H${Math.max(x0, x1).toFixed(1)}V${Math.max(y0, y1).toFixed(1)}H${Math.min(x0, x1).toFixed(1)}Z`;
