import type { ShellModel } from './model';
import { DOF_PER_NODE } from './sparse';

/** A structure on its way: where its nodes are, and how each has turned (matrices row by row). */
export interface Bent {
  readonly at: Float64Array;
  readonly turned: Float64Array;
}

export function unbent(model: ShellModel): Bent {
  const n = model.mesh.coordinates.length / 3;
  const turned = new Float64Array(9 * n);
  for (let i = 0; i < n; i++) turned[9 * i] = turned[9 * i + 4] = turned[9 * i + 8] = 1;
  return { at: model.mesh.coordinates.slice(), turned };
}

export const copied = (b: Bent): Bent => ({ at: b.at.slice(), turned: b.turned.slice() });

/** How a node has turned about x, y and z, for small turns. */
export function turnOf({ turned: r }: Bent, n: number): readonly [number, number, number] {
  const at = (i: number): number => r[9 * n + i] as number;
  return [(at(7) - at(5)) / 2, (at(2) - at(6)) / 2, (at(3) - at(1)) / 2];
}

/** Moves a structure by small increments, node · 6 + freedom: places are added, rotations laid over what was turned before. */
export function moved(bent: Bent, du: Float64Array, share: number): void {
  const { at, turned } = bent;
  const R = new Float64Array(9);
  for (let n = 0; n < at.length / 3; n++) {
    for (let k = 0; k < 3; k++)
      at[3 * n + k] = (at[3 * n + k] as number) + share * (du[DOF_PER_NODE * n + k] as number);
    const x = share * (du[DOF_PER_NODE * n + 3] as number);
    const y = share * (du[DOF_PER_NODE * n + 4] as number);
    const z = share * (du[DOF_PER_NODE * n + 5] as number);
    if (x === 0 && y === 0 && z === 0) continue;
    rotation(x, y, z, R);
    for (let c = 0; c < 3; c++) {
      const a = turned[9 * n + c] as number;
      const b = turned[9 * n + 3 + c] as number;
      const d = turned[9 * n + 6 + c] as number;
      for (let r = 0; r < 3; r++)
        turned[9 * n + 3 * r + c] =
          (R[3 * r] as number) * a + (R[3 * r + 1] as number) * b + (R[3 * r + 2] as number) * d;
    }
  }
}

/** Matrix of a rotation vector (Rodrigues). */
function rotation(x: number, y: number, z: number, R: Float64Array): void {
  const t2 = x * x + y * y + z * z;
  const t = Math.sqrt(t2);
  const s = t < 1e-8 ? 1 : Math.sin(t) / t;
  const c = t < 1e-8 ? 0.5 : (1 - Math.cos(t)) / t2;
  R[0] = 1 - c * (y * y + z * z);
  R[1] = c * x * y - s * z;
  R[2] = c * x * z + s * y;
  R[3] = c * x * y + s * z;
  R[4] = 1 - c * (x * x + z * z);
  R[5] = c * y * z - s * x;
  R[6] = c * x * z - s * y;
  R[7] = c * y * z + s * x;
  R[8] = 1 - c * (x * x + y * y);
}
