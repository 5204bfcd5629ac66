import type { FoldedPanel } from '../fold';
import { panelsRemoved } from '../plan';
import type { UnitSystem } from '../units';
import { type Installed, installation, installationOf } from './sequence';
import type { Sequence } from './step';

const PHASE = 'phase:';
/** What a run of one phase is about, as it is kept. */
export const aboutPhase = (id: string): string => `${PHASE}${id}`;
/** The phase that a run is about; undefined where it is about a service point. */
export const phaseIn = (about: string): string | undefined =>
  about.startsWith(PHASE) ? about.slice(PHASE.length) : undefined;
/** Whether a run puts plates on for the first time: the whole of them, or a phase. */
export const installs = (about: string | null): boolean => about === null || phaseIn(about) !== undefined;

/**
 * The job of one phase: `before` is the vehicle as the phases before it left it, `now` as it stands after. Only what is new goes up; bolts
 * that an earlier plate hangs on already are changed one by one, in holes that are ready; factory parts and crossbars of before are not touched.
 */
export function phaseSequence(
  before: Installed | undefined,
  now: Installed,
  units: UnitSystem = 'metric',
): Sequence {
  if (!before) return installationOf(now, units);
  const old = new Set(before.panels.map(p => p.panel.id));
  const fresh = (p: FoldedPanel): boolean => !old.has(p.panel.id);
  const bars = new Set(before.document.plan.crossbars.map(c => c.id));
  const bare = panelsRemoved(now.document, [...old]);
  const document = {
    ...bare,
    plan: { ...bare.plan, crossbars: bare.plan.crossbars.filter(c => !bars.has(c.id)) },
  };
  const known = new Set(before.joints.map(j => j.id));
  const joints = now.joints.flatMap(j => {
    const panels = j.joint.panels.filter(p => !old.has(p));
    // a bolt without a plate is a crossbar's own
    const stays = panels.length > 0 || (j.joint.panels.length === 0 && !known.has(j.id));
    return stays ? [{ ...j, joint: { ...j.joint, panels } }] : [];
  });
  return installation(
    document,
    {
      ...now.rig,
      factoryParts: now.rig.factoryParts.filter(f => !before.rig.factoryParts.some(x => x.id === f.id)),
    },
    now.panels.filter(fresh),
    joints,
    units,
    new Set(joints.filter(j => known.has(j.id)).map(j => j.id)),
  );
}
