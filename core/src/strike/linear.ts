import { incidenceOf, type ShellModel, stiffnessOf } from './model';
import { type Factor, factorise, type Plan, planElimination } from './sparse';

/** A structure that can move without being stiff against it: where, and which of u v w θx θy θz. */
export interface Mechanism {
  readonly mechanism: true;
  readonly node: number;
  readonly freedom: number;
}

/** A linear solver of one structure: made once, asked for any number of loads. */
export interface LinearSolver {
  readonly plan: Plan;
  /** displacements for a load, both node · 6 + freedom */
  readonly solve: (load: Float64Array) => Float64Array;
}

/** Factors the stiffness of a structure at rest. */
export function linearSolver(model: ShellModel): LinearSolver | Mechanism {
  const plan = planElimination(model.mesh.coordinates, incidenceOf(model), model.held);
  const factor = factorise(plan, stiffnessOf(model));
  if ('node' in factor) return { mechanism: true, ...factor };
  return { plan, solve: load => solved(plan, factor, load) };
}

/** Solves for a load given by node and freedom; held freedoms stay where they are. */
export function solved({ unknownOf, unknowns }: Plan, factor: Factor, load: Float64Array): Float64Array {
  const x = new Float64Array(unknowns);
  for (let i = 0; i < unknownOf.length; i++)
    if ((unknownOf[i] as number) >= 0) x[unknownOf[i] as number] = load[i] as number;
  factor.solve(x);
  const u = new Float64Array(load.length);
  for (let i = 0; i < unknownOf.length; i++)
    if ((unknownOf[i] as number) >= 0) u[i] = x[unknownOf[i] as number] as number;
  return u;
}
