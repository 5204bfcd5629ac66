import { type Bent, turnOf } from './bent';
import { BENDING, MEMBRANE, POINTS, planeStress } from './element';
import { localDeformations } from './local-deformations';
import { type ShellModel, triangleCount } from './model';
import { faceStresses, type Layers } from './plastic';
import type { Rest } from './rest';
import { DOF_PER_NODE } from './sparse';
import { stressFrom } from './stress';

/** Moves of the nodes from where they stood at rest; turns as bars, springs and brackets see them, for small ones. */
export function movesOf({ mesh }: ShellModel, bent: Bent): Float64Array {
  const u = new Float64Array(2 * mesh.coordinates.length);
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    for (let k = 0; k < 3; k++)
      u[DOF_PER_NODE * n + k] = (bent.at[3 * n + k] as number) - (mesh.coordinates[3 * n + k] as number);
    turnOf(bent, n).forEach((v, k) => {
      u[DOF_PER_NODE * n + 3 + k] = v;
    });
  }
  return u;
}

/** Stresses of every triangle as it stands. */
export function stressOf(
  model: ShellModel,
  rest: readonly Rest[],
  bent: Bent,
  layers: Layers | undefined,
): Float64Array {
  const D = planeStress(model.elastic);
  const m = triangleCount(model.mesh);
  const out = new Float64Array(18 * m);
  const own = new Float64Array(18);
  const axes = new Float64Array(9);
  const flat = new Float64Array(6);
  const strains = new Float64Array(6 * POINTS);
  for (let e = 0; e < m; e++) {
    const r = rest[e] as Rest;
    localDeformations(model, r, e, bent, axes, flat, own);
    if (!layers) {
      stressFrom(r.B, r.Bb, own, D, model.thickness, out, 18 * e);
      continue;
    }
    for (let p = 0; p < POINTS; p++)
      for (let q = 0; q < 3; q++) {
        let [a, b] = [0, 0];
        for (let j = 0; j < 9; j++) {
          a += (r.B[27 * p + 9 * q + j] as number) * (own[MEMBRANE[j] as number] as number);
          b += (r.Bb[27 * p + 9 * q + j] as number) * (own[BENDING[j] as number] as number);
        }
        strains[6 * p + q] = a;
        strains[6 * p + 3 + q] = b;
      }
    faceStresses(layers, e, POINTS, strains, model.thickness, out);
  }
  return out;
}
