import { inPlane, triangleAxes } from './element';
import type { ShellModel } from './model';
import { cornersOf } from './shell-mesh';

/**
 * Error of a solution of small deflections by its mesh, as a share of the work of the load: how far the stresses of the triangles
 * round a node differ there from their mean, taken as energy (Zienkiewicz and Zhu 1987, with means at the nodes, flat by flat).
 * Under a single load that is the share by which the deflection of its place is off. `stress` as `elasticStress` gives it, `work`
 * of the load on its displacement, N·mm.
 */
export function energyError(model: ShellModel, stress: Float64Array, work: number): number {
  const { mesh, elastic, thickness } = model;
  const m = mesh.flatOf.length;
  const at = new Float64Array(18 * m);
  const area = new Float64Array(m);
  cornerStress(model, stress, at, area);
  // means by node and flat: weighted by area, since large triangles say more
  const mean = new Map<number, { readonly s: Float64Array; area: number }>();
  const flats = 1 + mesh.flatOf.reduce((a, b) => Math.max(a, b), 0);
  const key = (e: number, i: number): number =>
    (mesh.triangles[3 * e + i] as number) * flats + (mesh.flatOf[e] as number);
  for (let e = 0; e < m; e++)
    for (let i = 0; i < 3; i++) {
      const k = key(e, i);
      const known = mean.get(k) ?? { s: new Float64Array(6), area: 0 };
      known.area += area[e] as number;
      for (let c = 0; c < 6; c++)
        known.s[c] = (known.s[c] as number) + (area[e] as number) * (at[18 * e + 6 * i + c] as number);
      mean.set(k, known);
    }
  let energy = 0;
  const off = new Float64Array(18);
  for (let e = 0; e < m; e++) {
    for (let i = 0; i < 3; i++) {
      const known = mean.get(key(e, i)) as { s: Float64Array; area: number };
      for (let c = 0; c < 6; c++)
        off[6 * i + c] = (at[18 * e + 6 * i + c] as number) - (known.s[c] as number) / known.area;
    }
    for (let half = 0; half < 6; half += 3) {
      // a linear field over a triangle: ∫ f² = A/12 (Σ f² + (Σ f)²)
      let density = density6(
        (off[half] as number) + (off[6 + half] as number) + (off[12 + half] as number),
        (off[half + 1] as number) + (off[7 + half] as number) + (off[13 + half] as number),
        (off[half + 2] as number) + (off[8 + half] as number) + (off[14 + half] as number),
        elastic.nu,
      );
      for (let i = 0; i < 18; i += 6)
        density += density6(
          off[i + half] as number,
          off[i + half + 1] as number,
          off[i + half + 2] as number,
          elastic.nu,
        );
      // stresses of bending stand for their faces: a third of that energy
      energy += (((area[e] as number) / 12) * thickness * density) / elastic.E / (half ? 3 : 1);
    }
  }
  return energy / work;
}

/** σᵀ C σ times E, plane stress. */
const density6 = (x: number, y: number, t: number, nu: number): number =>
  x * x + y * y - 2 * nu * x * y + 2 * (1 + nu) * t * t;

/** Stresses at the corners of every triangle in axes that all triangles of a flat share, and its area. */
function cornerStress(
  { mesh }: ShellModel,
  stress: Float64Array,
  out: Float64Array,
  area: Float64Array,
): void {
  const corners = new Float64Array(9);
  const axes = new Float64Array(9);
  const flat = new Float64Array(6);
  const along: Float64Array[] = [];
  for (let e = 0; e < mesh.flatOf.length; e++) {
    cornersOf(mesh, e, corners);
    triangleAxes(corners, axes);
    inPlane(corners, axes, flat);
    area[e] =
      (((flat[2] as number) - (flat[0] as number)) * ((flat[5] as number) - (flat[1] as number)) -
        ((flat[4] as number) - (flat[0] as number)) * ((flat[3] as number) - (flat[1] as number))) /
      2;
    const f = mesh.flatOf[e] as number;
    along[f] ??= axes.slice(0, 3);
    const x = along[f] as Float64Array;
    const dot = (r: number): number =>
      (axes[r] as number) * (x[0] as number) +
      (axes[r + 1] as number) * (x[1] as number) +
      (axes[r + 2] as number) * (x[2] as number);
    // the flat's first axis seen from the triangle's
    const [c, s] = [dot(0), dot(3)];
    for (let i = 0; i < 3; i++)
      for (let half = 0; half < 6; half += 3) {
        // the points lie in the middles of the sides: side i begins at corner i, the one before ends there
        const at = (k: number): number =>
          (stress[18 * e + 6 * i + half + k] as number) +
          (stress[18 * e + 6 * ((i + 2) % 3) + half + k] as number) -
          (stress[18 * e + 6 * ((i + 1) % 3) + half + k] as number);
        const [sx, sy, t] = [at(0), at(1), at(2)];
        const o = 18 * e + 6 * i + half;
        out[o] = c * c * sx + s * s * sy + 2 * c * s * t;
        out[o + 1] = s * s * sx + c * c * sy - 2 * c * s * t;
        out[o + 2] = c * s * (sy - sx) + (c * c - s * s) * t;
      }
  }
}
