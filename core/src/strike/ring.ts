import { sub3, type Vec3 } from '../geometry';
import type { LinearSolver } from './linear';
import type { ShellModel } from './model';
import { nodeAt } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';

/** How a plate vibrates at its lowest: Hz, the moves of its nodes as they bear a unit of mass (a tonne), and the mass of every node. */
export interface Shape {
  readonly hz: number;
  readonly shape: Float64Array;
  readonly mass: Float64Array;
}

/** First natural frequency and its shape, by inverse iteration with the sheet's mass lumped to its nodes. */
export function ring(model: ShellModel, solver: LinearSolver, density: number): Shape {
  const { mesh } = model;
  const mass = new Float64Array(mesh.coordinates.length / 3);
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const ids = [0, 1, 2].map(i => mesh.triangles[3 * e + i] as number);
    const [a, b, c] = ids.map(n => nodeAt(mesh, n)) as [Vec3, Vec3, Vec3];
    const [u, v] = [sub3(b, a), sub3(c, a)];
    const area =
      Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
    // kg/mm³ · mm³, in tonnes so that N and mm fit
    for (const n of ids) mass[n] = (mass[n] as number) + (area * model.thickness * density * 1e-12) / 3;
  }
  let x = new Float64Array(model.load.length);
  for (let n = 0; n < mass.length; n++) x[DOF_PER_NODE * n + 2] = 1;
  let omega2 = 0;
  for (let i = 0; i < 12; i++) {
    const f = new Float64Array(x.length);
    for (let n = 0; n < mass.length; n++)
      for (let k = 0; k < 3; k++)
        f[DOF_PER_NODE * n + k] = (mass[n] as number) * (x[DOF_PER_NODE * n + k] as number);
    const y = solver.solve(f);
    // Rayleigh's quotient of the new shape
    let [top, bottom] = [0, 0];
    for (let n = 0; n < mass.length; n++)
      for (let k = 0; k < 3; k++) {
        const at = DOF_PER_NODE * n + k;
        top += (y[at] as number) * (f[at] as number);
        bottom += (mass[n] as number) * (y[at] as number) ** 2;
      }
    const next = bottom > 0 ? top / bottom : 0;
    const scale = 1 / Math.sqrt(bottom || 1);
    x = y.map(v => v * scale) as Float64Array<ArrayBuffer>;
    if (Math.abs(next / omega2 - 1) < 1e-5) {
      omega2 = next;
      break;
    }
    omega2 = next;
  }
  return { hz: Math.sqrt(omega2) / (2 * Math.PI), shape: x, mass };
}
