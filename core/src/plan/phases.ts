import { crossbarRemoved } from './edit/crossbars';
import { panelsRemoved } from './edit/panels';
import type { Phase, Plan, PlanDocument } from './plan';
import { presentOf } from './present';
import { isBracket } from './select';
import { underBar } from './under-bar';

/**
 * What is fitted when, first to last: every plate in one phase, those that no phase names in the last; empty where all is fitted at once.
 * Brackets come with the first plate they hold.
 */
export function phasesOf(plan: Pick<Plan, 'phases' | 'panels' | 'joints'>): readonly Phase[] {
  const { phases = [] } = plan;
  if (phases.length === 0) return [];
  const at = new Map<string, number>();
  const last = phases.length - 1;
  for (const p of plan.panels) {
    if (isBracket(p)) continue;
    const named = phases.findIndex(f => f.panels.includes(p.id));
    at.set(p.id, named < 0 ? last : named);
  }
  const brackets = plan.panels.filter(isBracket).map(p => p.id);
  // a bracket that holds another comes with it
  for (let turn = 0; turn < brackets.length; turn++)
    for (const b of brackets) {
      const beside = plan.joints
        .filter(j => j.panels.includes(b))
        .flatMap(j => j.panels.flatMap(p => at.get(p) ?? []));
      if (beside.length > 0) at.set(b, Math.min(at.get(b) ?? last, ...beside));
    }
  return phases.map((f, i) => ({
    ...f,
    panels: plan.panels.filter(p => (at.get(p.id) ?? last) === i).map(p => p.id),
  }));
}

/** The phase by its number in which a crossbar goes in: that of the first plate bolted to it, the first where none is. */
function barsAt(doc: PlanDocument, phases: readonly Phase[]): ReadonlyMap<string, number> {
  const mounts = new Map(presentOf(doc).mounts.map(m => [m.id, m]));
  const phaseOf = (panel: string): number => phases.findIndex(f => f.panels.includes(panel));
  return new Map(
    doc.plan.crossbars.map(c => {
      const own = doc.plan.joints.filter(j => {
        const mount = j.mount === undefined ? undefined : mounts.get(j.mount);
        if (mount) return mount.member === c.id;
        return j.at !== undefined && underBar(c, j.at) !== undefined;
      });
      const first = Math.min(...own.flatMap(j => j.panels.map(phaseOf)).filter(i => i >= 0));
      return [c.id, Number.isFinite(first) ? first : 0];
    }),
  );
}

/** The plan as it stands once a phase is fitted, those before it with it: a plan of its own, without phases. */
export function upToPhase(doc: PlanDocument, id: string): PlanDocument {
  const phases = phasesOf(doc.plan);
  const at = phases.findIndex(f => f.id === id);
  if (at < 0) return doc;
  const bars = barsAt(doc, phases);
  const left = panelsRemoved(
    doc,
    phases.slice(at + 1).flatMap(f => f.panels),
  );
  const bare = left.plan.crossbars
    .filter(c => (bars.get(c.id) ?? 0) > at)
    .reduce((d, c) => crossbarRemoved(d, c.id), left);
  const { phases: _, ...plan } = bare.plan;
  // a factory part stays on until what takes its place comes
  const stays = new Set(doc.plan.crossbars.filter(c => (bars.get(c.id) ?? 0) > at).map(c => c.replaces));
  const factoryParts = bare.rig.factoryParts.filter(f => !stays.has(f.id));
  return { ...bare, rig: { ...bare.rig, factoryParts }, plan };
}
