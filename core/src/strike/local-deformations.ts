import type { Bent } from './bent';
import { inPlane, triangleAxes } from './element';
import type { ShellModel } from './model';
import type { Rest } from './rest';

const corner = new Float64Array(9);
const spun = new Float64Array(9);

/** Rotation from a triangle's axes at rest to a corner as it has turned, seen from the triangle's axes now, row by row. */
function turnOf(rest: Rest, turned: Float64Array, r: number, axes: Float64Array): void {
  for (let a = 0; a < 3; a++) {
    const x = axes[3 * a] as number;
    const y = axes[3 * a + 1] as number;
    const z = axes[3 * a + 2] as number;
    const p = x * (turned[r] as number) + y * (turned[r + 3] as number) + z * (turned[r + 6] as number);
    const q = x * (turned[r + 1] as number) + y * (turned[r + 4] as number) + z * (turned[r + 7] as number);
    const t = x * (turned[r + 2] as number) + y * (turned[r + 5] as number) + z * (turned[r + 8] as number);
    for (let b = 0; b < 3; b++)
      spun[3 * a + b] =
        p * (rest.axes[3 * b] as number) +
        q * (rest.axes[3 * b + 1] as number) +
        t * (rest.axes[3 * b + 2] as number);
  }
}

/**
 * The moves of a triangle seen from its own axes, eighteen; `axes` and `flat` receive those axes and its corners in them as they
 * stand now.
 */
export function localDeformations(
  model: ShellModel,
  rest: Rest,
  e: number,
  bent: Bent,
  axes: Float64Array,
  flat: Float64Array,
  out: Float64Array,
): void {
  const { triangles } = model.mesh;
  for (let i = 0; i < 3; i++) {
    const n = 3 * (triangles[3 * e + i] as number);
    corner[3 * i] = bent.at[n] as number;
    corner[3 * i + 1] = bent.at[n + 1] as number;
    corner[3 * i + 2] = bent.at[n + 2] as number;
  }
  triangleAxes(corner, axes);
  inPlane(corner, axes, flat);
  for (let i = 0; i < 3; i++) {
    out[6 * i] = (flat[2 * i] as number) - (rest.flat[2 * i] as number);
    out[6 * i + 1] = (flat[2 * i + 1] as number) - (rest.flat[2 * i + 1] as number);
    out[6 * i + 2] = 0;
    turnOf(rest, bent.turned, 9 * (triangles[3 * e + i] as number), axes);
    // rotation vector of a small turn
    const x = ((spun[7] as number) - (spun[5] as number)) / 2;
    const y = ((spun[2] as number) - (spun[6] as number)) / 2;
    const z = ((spun[3] as number) - (spun[1] as number)) / 2;
    const sin = Math.sqrt(x * x + y * y + z * z);
    const f = sin < 1e-9 ? 1 : Math.asin(Math.min(1, sin)) / sin;
    out[6 * i + 3] = f * x;
    out[6 * i + 4] = f * y;
    out[6 * i + 5] = f * z;
  }
}
