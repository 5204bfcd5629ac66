import { factorizeOnce } from './factor-kernel';
import { factorizePlain } from './factor-plain';
import { giveBack, inKernel } from './kernels';
import type { Factor, FreeMotion, Plan, StiffnessOf } from './sparse';

/** Takes a stiffness apart along a plan (multifrontal L·D·Lᵀ; Duff and Reid 1983), in the kernels where there are any. */
export function factorize(plan: Plan, element: StiffnessOf): Factor | FreeMotion {
  return inKernel(k => factorizeOnce(k, plan, element), giveBack) ?? factorizePlain(plan, element);
}
