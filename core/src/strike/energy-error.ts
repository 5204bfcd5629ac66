import { inPlane, POINTS, triangleAxes } from './element';
import { cornersOf, type ShellModel } from './model';

/**
 * Error of a solution of small deflections by its mesh, as a share of the work of the load: how far the stresses of neighbours
 * differ in the middle of the side they share, taken as energy (after Zienkiewicz and Zhu 1987, whose smoothed stress is here the
 * mean of the two). Under a single load that is the share by which the deflection of its place is off. `stress` as
 * `elasticStress` gives it, `work` of the load on its displacement, N·mm.
 */
export function energyError(model: ShellModel, stress: Float64Array, work: number): number {
  const { mesh, elastic, thickness } = model;
  const corners = new Float64Array(9);
  const axes = new Float64Array(9);
  const flat = new Float64Array(6);
  const m = mesh.flatOf.length;
  const nodes = mesh.coordinates.length / 3;
  /** first triangle's stresses and area at every side, by its ends, in the flat's axes */
  const open = new Map<number, { readonly flat: number; readonly s: Float64Array; readonly area: number }>();
  const along: Float64Array[] = [];
  let energy = 0;
  for (let e = 0; e < m; e++) {
    cornersOf(mesh, e, corners);
    triangleAxes(corners, axes);
    inPlane(corners, axes, flat);
    const area =
      (((flat[2] as number) - (flat[0] as number)) * ((flat[5] as number) - (flat[1] as number)) -
        ((flat[4] as number) - (flat[0] as number)) * ((flat[3] as number) - (flat[1] as number))) /
      2;
    const f = mesh.flatOf[e] as number;
    along[f] ??= axes.slice(0, 3);
    const x = along[f] as Float64Array;
    // the flat's first axis seen from the triangle's
    const c =
      (axes[0] as number) * (x[0] as number) +
      (axes[1] as number) * (x[1] as number) +
      (axes[2] as number) * (x[2] as number);
    const s =
      (axes[3] as number) * (x[0] as number) +
      (axes[4] as number) * (x[1] as number) +
      (axes[5] as number) * (x[2] as number);
    for (let p = 0; p < POINTS; p++) {
      const a = mesh.triangles[3 * e + p] as number;
      const b = mesh.triangles[3 * e + ((p + 1) % 3)] as number;
      const own = new Float64Array(6);
      for (let half = 0; half < 6; half += 3) {
        const at = 18 * e + 6 * p + half;
        const [sx, sy, t] = [stress[at] as number, stress[at + 1] as number, stress[at + 2] as number];
        own[half] = c * c * sx + s * s * sy + 2 * c * s * t;
        own[half + 1] = s * s * sx + c * c * sy - 2 * c * s * t;
        own[half + 2] = c * s * (sy - sx) + (c * c - s * s) * t;
      }
      const key = Math.min(a, b) * nodes + Math.max(a, b);
      const other = open.get(key);
      if (!other || other.flat !== f) {
        open.set(key, { flat: f, s: own, area });
        continue;
      }
      for (let half = 0; half < 6; half += 3) {
        const [dx, dy, dt] = [0, 1, 2].map(
          k => ((own[half + k] as number) - (other.s[half + k] as number)) / 2,
        ) as [number, number, number];
        const density =
          (dx * dx + dy * dy - 2 * elastic.nu * dx * dy + 2 * (1 + elastic.nu) * dt * dt) / elastic.E;
        // stresses of bending stand for their faces: a third of that energy
        energy += (((area + other.area) / POINTS) * thickness * density) / (half ? 3 : 1);
      }
    }
  }
  return energy / work;
}
