import { factorizeOnce } from './factor-kernel';
import { factorizePlain } from './factor-plain';
import { giveBack, takeKernel } from './kernels';
import type { Factor, FreeMotion, Plan, StiffnessOf } from './sparse';

/** Takes a stiffness apart along a plan (multifrontal L·D·Lᵀ; Duff and Reid 1983), in the kernels where there are any. */
export function factorize(plan: Plan, element: StiffnessOf): Factor | FreeMotion {
  const kernel = takeKernel();
  if (!kernel) return factorizePlain(plan, element);
  try {
    return factorizeOnce(kernel, plan, element);
  } finally {
    giveBack(kernel);
  }
}
