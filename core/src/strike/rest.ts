import type { Elastic } from './elastic';
import { addStiffness, bendingB, doubleArea, inPlane, membraneB, POINTS, triangleAxes } from './element';
import { cornersOf, type ShellMesh } from './shell-mesh';

/** What does not change about a triangle while it moves. */
export interface Rest {
  /** strains at its points from moves in the plane and out of it, and shear */
  readonly B: Float64Array;
  readonly Bb: Float64Array;
  readonly Bs: Float64Array;
  readonly axes: Float64Array;
  readonly flat: Float64Array;
  readonly area: number;
  /** elastic stiffness in its own axes */
  readonly k: Float64Array;
}

/** A sheet of one thickness and metal, meshed. */
interface Sheet {
  readonly mesh: ShellMesh;
  readonly elastic: Elastic;
  readonly thickness: number;
}

const corner = new Float64Array(9);
const axes = new Float64Array(9);
const flat = new Float64Array(6);

const kept = new WeakMap<ShellMesh, { readonly of: Omit<Sheet, 'mesh'>; readonly rest: readonly Rest[] }>();

/** Every triangle of a sheet as it lies at rest; made once for a mesh: its stiffness, its stresses and its large moves all begin there. */
export function restOf({ mesh, elastic, thickness }: Sheet): readonly Rest[] {
  const known = kept.get(mesh);
  if (
    known &&
    known.of.thickness === thickness &&
    known.of.elastic.E === elastic.E &&
    known.of.elastic.nu === elastic.nu
  )
    return known.rest;
  const rest = Array.from({ length: mesh.flatOf.length }, (_, e): Rest => {
    cornersOf(mesh, e, corner);
    triangleAxes(corner, axes);
    inPlane(corner, axes, flat);
    const B = new Float64Array(27 * POINTS);
    const Bb = new Float64Array(27 * POINTS);
    const Bs = new Float64Array(18 * POINTS);
    membraneB(flat, elastic.nu, B);
    bendingB(flat, thickness, elastic.nu, Bb, Bs);
    const area = doubleArea(flat) / 2;
    const k = new Float64Array(324);
    addStiffness({ B, Bb, Bs }, area, thickness, elastic, k);
    return { B, Bb, Bs, axes: axes.slice(), flat: flat.slice(), area, k };
  });
  kept.set(mesh, { of: { elastic, thickness }, rest });
  return rest;
}
