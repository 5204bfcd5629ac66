import { type Facts, type Sequence, serviceAccess, serviceSteps } from '@plate-fold/core';

/** The steps of a run: of the whole installation, or of the service it is about. */
export function sequenceOf(facts: Facts, service: string | null): Sequence {
  const point = facts.rig.servicePoints.find(p => p.id === service);
  if (!point) return facts.sequence;
  const hung = { doc: facts.document, panels: facts.panels, joints: facts.joints };
  return serviceSteps(serviceAccess(point, hung), hung, facts.rig);
}
