import type { Vec3 } from '../geometry';
import { err, ok, type Result } from '../units';
import { linearSolver } from './linear';
import { displacementAt, triangleAt } from './load';
import { forceOn, pushedBack } from './model';
import { solveLarge } from './newton';
import type { ShellAnswer, ShellCase } from './shell-format';
import type { ShellMesh } from './shell-mesh';
import { modelOf } from './shell-model';
import { DOF_PER_NODE } from './sparse';
import { elasticStress, faceStressAt } from './stress';

const NAMES = ['along x', 'along y', 'along z', 'about x', 'about y', 'about z'] as const;

/** Solves a case; answers at the points asked for, or those its file expects. */
export function solveShell(
  shell: ShellCase,
  points: readonly Vec3[],
  now: () => number = () => 0,
): Result<ShellAnswer> {
  const t0 = now();
  const made = modelOf(shell, points);
  if (!made.ok) return made;
  const { model, supportNodes } = made.value;
  const t1 = now();
  const { mesh } = model;
  const place = (n: number): Vec3 => [
    mesh.coordinates[3 * n] as number,
    mesh.coordinates[3 * n + 1] as number,
    mesh.coordinates[3 * n + 2] as number,
  ];
  let u: Float64Array;
  let stress: Float64Array;
  let inner: Float64Array;
  let steps = 1;
  let theory = 'small deflections, elastic';
  let rest: Float64Array | undefined;
  if (shell.analysis === 'linear') {
    const solver = linearSolver(model);
    if ('mechanism' in solver)
      return err(
        `the plate is not held: at ${place(solver.node)
          .map(v => Math.round(v))
          .join(', ')} it moves freely ${NAMES[solver.freedom]}`,
      );
    u = solver.solve(model.load);
    inner = pushedBack(model, u);
    stress = elasticStress(model, u);
  } else {
    const plastic = shell.analysis === 'plastic';
    const done = solveLarge(model, { plastic, unload: shell.unload });
    if ('mechanism' in done)
      return err(
        `the plate is not held: at ${place(done.node)
          .map(v => Math.round(v))
          .join(', ')} it moves freely ${NAMES[done.freedom]}`,
      );
    if (done.reached < 1)
      return err(`no balance found beyond ${Math.round(done.reached * 100)} % of the load`);
    ({ u, inner, stress, steps } = done);
    rest = done.rest;
    theory = plastic ? 'large deflections, elastic-plastic' : 'large deflections, elastic';
  }
  const solveMs = now() - t1;
  let best = { mm: 0, n: 0 };
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    const mm = Math.hypot(
      u[DOF_PER_NODE * n] as number,
      u[DOF_PER_NODE * n + 1] as number,
      u[DOF_PER_NODE * n + 2] as number,
    );
    if (mm > best.mm) best = { mm, n };
  }
  const reactions = [...supportNodes].map(([id, nodes]) => {
    const [a, b] = [forceOn(inner, nodes), forceOn(model.load, nodes)];
    return { id, force: [a[0] - b[0], a[1] - b[1], a[2] - b[2]] as Vec3 };
  });
  const patch = shell.loads.find(l => l.kind === 'patch');
  const where: Vec3 | undefined = patch?.kind === 'patch' ? patch.at : undefined;
  const center = where ?? middleOf(mesh);
  const { e } = triangleAt(mesh, center);
  const reach = patch?.kind === 'patch' ? Math.min(...patch.size) * 0.45 : (shell.elementSize ?? 20) * 2.2;
  const faces = faceStressAt({ mesh }, stress, center, reach, mesh.flatOf[e] as number);
  return ok({
    deflections: points.map(at => ({ at, mm: displacementAt(mesh, u, at) })),
    maxDeflection: { mm: best.mm, at: place(best.n) },
    reactions,
    vonMises: [
      { where: 'patch center', face: 'top', mpa: faces.top },
      { where: 'patch center', face: 'bottom', mpa: faces.bottom },
    ],
    ...(rest
      ? { permanent: points.map(at => ({ at, mm: displacementAt(mesh, rest as Float64Array, at) })) }
      : {}),
    nodes: mesh.coordinates.length / 3,
    elements: mesh.flatOf.length,
    steps,
    solveMs,
    totalMs: now() - t0,
    theory,
  });
}

/** The middle of the first flat's box: where a load without a patch is looked at. */
function middleOf(mesh: ShellMesh): Vec3 {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let e = 0; e < mesh.flatOf.length; e++) {
    if (mesh.flatOf[e] !== 0) continue;
    for (let i = 0; i < 3; i++)
      for (let k = 0; k < 3; k++) {
        const v = mesh.coordinates[3 * (mesh.triangles[3 * e + i] as number) + k] as number;
        low[k] = Math.min(low[k] as number, v);
        high[k] = Math.max(high[k] as number, v);
      }
  }
  return low.map((v, k) => (v + (high[k] as number)) / 2) as unknown as Vec3;
}
