import {
  doneWith,
  type Facts,
  installationOf,
  type Sequence,
  serviceAccess,
  serviceSteps,
  type UnitSystem,
} from '@plate-fold/core';

/** The steps of a run, said in the reader's units: of the whole installation, or of the service it is about. */
export function sequenceOf(facts: Facts, service: string | null, units: UnitSystem): Sequence {
  const { document, rig, panels, joints } = facts;
  const point = rig.servicePoints.find(p => p.id === service);
  if (!point) return installationOf(facts, units);
  const hung = { doc: document, panels, joints };
  return serviceSteps(serviceAccess(point, hung, doneWith(point, rig)), hung, rig, units);
}
