import { type Assembly, assemble, type Facts } from '@plate-fold/core/derive';
import { phasesOf, upToPhase } from '@plate-fold/core/plan';
import { installationOf, phaseIn, phaseSequence, type Sequence } from '@plate-fold/core/sequence';
import { doneWith, serviceAccess, serviceSteps } from '@plate-fold/core/service';
import type { UnitSystem } from '@plate-fold/core/units';

/** The steps of a run, said in the reader's units: of the whole installation, of the phase, or of the service it is about. */
export function sequenceOf(facts: Facts, service: string | null, units: UnitSystem): Sequence {
  const { document, rig, panels, joints } = facts;
  const phase = service === null ? undefined : phaseIn(service);
  if (phase !== undefined) {
    const phases = phasesOf(document.plan);
    const at = phases.findIndex(f => f.id === phase);
    const state = (i: number): Assembly | undefined => {
      const f = phases[i];
      return f && assemble(upToPhase(document, f.id), facts.build.id);
    };
    return phaseSequence(state(at - 1), state(at) ?? facts, units);
  }
  const point = rig.servicePoints.find(p => p.id === service);
  if (!point) return installationOf(facts, units);
  const hung = { doc: document, panels, joints };
  return serviceSteps(serviceAccess(point, hung, doneWith(point, rig)), hung, rig, units);
}

/** What is bolted up once a run is through: all of the plan, or what it has by the end of the phase. */
export function fittedAfter(facts: Facts, about: string | null): Assembly {
  const phase = about === null ? undefined : phaseIn(about);
  return phase === undefined ? facts : assemble(upToPhase(facts.document, phase), facts.build.id);
}

/** What a run is about, as people say it: a phase, or the service point. */
export function aboutName(facts: Facts, service: string): string {
  const phase = phaseIn(service);
  const named = phase === undefined ? undefined : facts.document.plan.phases?.find(f => f.id === phase);
  if (phase !== undefined) return named ? `Phase “${named.name}”` : 'A phase';
  return facts.rig.servicePoints.find(s => s.id === service)?.name ?? service;
}

/** What was chosen to be fitted, as long as the plan has it. */
export const aboutNow = ({ document }: Facts, chosen: string | null): string | null =>
  chosen !== null && document.plan.phases?.some(f => f.id === phaseIn(chosen)) ? chosen : null;
