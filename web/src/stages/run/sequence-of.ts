import type { Facts } from '@plate-fold/core/derive';
import { installationOf, type Sequence } from '@plate-fold/core/sequence';
import { doneWith, serviceAccess, serviceSteps } from '@plate-fold/core/service';
import type { UnitSystem } from '@plate-fold/core/units';

/** The steps of a run, said in the reader's units: of the whole installation, or of the service it is about. */
export function sequenceOf(facts: Facts, service: string | null, units: UnitSystem): Sequence {
  const { document, rig, panels, joints } = facts;
  const point = rig.servicePoints.find(p => p.id === service);
  if (!point) return installationOf(facts, units);
  const hung = { doc: document, panels, joints };
  return serviceSteps(serviceAccess(point, hung, doneWith(point, rig)), hung, rig, units);
}
