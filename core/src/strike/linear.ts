import { factorize } from './factor';
import type { ShellModel } from './model';
import { DOF_PER_NODE, type Factor, type Plan, planElimination } from './sparse';
import { uncoupled } from './uncoupled';

/** A structure that can move without being stiff against it: where, and which of u v w θx θy θz. */
export interface Mechanism {
  readonly mechanism: true;
  readonly node: number;
  readonly freedom: number;
}

/** The mechanism of a freedom without stiffness. */
export const mechanismOf = (free: number): Mechanism => ({
  mechanism: true,
  node: Math.floor(free / DOF_PER_NODE),
  freedom: free % DOF_PER_NODE,
});

/** A linear solver of one structure: made once, asked for any number of loads. */
export interface LinearSolver {
  /** displacements for a load, both node · 6 + freedom */
  readonly solve: (load: Float64Array) => Float64Array;
  /** work of a load on its own displacements, N·mm, for less than half of what a solution costs */
  readonly work: (load: Float64Array) => number;
}

/** Factors the stiffness of a structure at rest. */
export function linearSolver(model: ShellModel): LinearSolver | Mechanism {
  const { vertices, incidence, element, turn } = uncoupled(model);
  const plan = planElimination(vertices, incidence, model.held);
  const factor = factorize(plan, element);
  if ('free' in factor) return mechanismOf(factor.free);
  const turned = (load: Float64Array): Float64Array => {
    const f = load.slice();
    turn(f, false);
    return f;
  };
  return {
    solve: load => {
      const u = solved(plan, factor, turned(load));
      turn(u, true);
      return u;
    },
    work: load => factor.work(byUnknown(plan, turned(load))),
  };
}

/** A load by unknown; held degrees of freedom are left out. */
function byUnknown({ unknownOf, unknowns }: Plan, load: Float64Array): Float64Array {
  const x = new Float64Array(unknowns);
  for (let i = 0; i < unknownOf.length; i++)
    if ((unknownOf[i] as number) >= 0) x[unknownOf[i] as number] = load[i] as number;
  return x;
}

/** Solves for a load given by node and freedom; held degrees of freedom stay where they are. */
export function solved(plan: Plan, factor: Factor, load: Float64Array): Float64Array {
  const x = byUnknown(plan, load);
  factor.solve(x);
  const u = new Float64Array(load.length);
  for (let i = 0; i < u.length; i++)
    if ((plan.unknownOf[i] as number) >= 0) u[i] = x[plan.unknownOf[i] as number] as number;
  return u;
}
