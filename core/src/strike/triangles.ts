import type { Bent } from './bent';
import type { Layers } from './plastic';
import type { Rest } from './rest';
import type { Factor, FreeMotion, Plan, StiffnessOf } from './sparse';

/** The triangles of a structure on its way, and its stiffness taken apart: plain, or in the kernels. */
export interface Triangles {
  readonly layers: Layers | undefined;
  /** what the structure pushes back with, node · 6 + freedom */
  readonly inner: Float64Array;
  /** sets `inner` to the triangles' forces */
  readonly gather: (bent: Bent) => void;
  /** the stiffness where it stands (or is foretold to), taken apart; spends the one before. `outside` gives that of what is no triangle */
  readonly tangent: (bent: Bent, outside: StiffnessOf) => Factor | FreeMotion;
  /** predicts what a move makes of the tangent */
  readonly predict: (du: Float64Array) => void;
  /** nothing is known of the last move */
  readonly forget: () => void;
  readonly done: () => void;
}

export interface SheetOnItsWay {
  readonly plan: Plan;
  readonly rest: readonly Rest[];
  readonly plastic: boolean;
  /** isotropic hardening, MPa; none unless told */
  readonly hardening?: number;
}
