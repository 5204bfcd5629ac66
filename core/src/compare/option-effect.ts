import { check } from '../checks';
import { gatherFacts } from '../derive';
import { type PlanDocument, presentOf } from '../plan';
import { withChoice } from '../rig';
import type { UnitSystem } from '../units';

/** What a choice changes on the vehicle, by name, and what in the plan no longer fits, as sentences. */
export interface OptionEffect {
  readonly added: readonly string[];
  readonly removed: readonly string[];
  readonly misfits: readonly string[];
}

const MISFIT = new Set(['option-misfit', 'option-refused', 'too-near', 'moving-part']);

/** Compares the vehicle with an option at another choice with what it is now. */
export function optionEffect(
  doc: PlanDocument,
  option: string,
  choice: string,
  units: UnitSystem = 'metric',
): OptionEffect {
  const after: PlanDocument = { ...doc, rig: withChoice(doc.rig, option, choice) };
  const names = (d: PlanDocument): Map<string, string> => {
    const r = presentOf(d);
    return new Map([
      ...r.components.map(c => [`part ${c.id}`, c.name] as const),
      ...r.mounts.map(m => [`hole ${m.id}`, `hole ${m.id}`] as const),
      ...r.servicePoints.map(s => [`point ${s.id}`, s.name] as const),
      ...r.factoryParts.map(f => [`factory part ${f.id}`, f.name] as const),
    ]);
  };
  const [was, will] = [names(doc), names(after)];
  const found = (d: PlanDocument): readonly string[] =>
    check(gatherFacts(d), units)
      .filter(f => MISFIT.has(f.rule))
      .map(f => f.text);
  const before = new Set(found(doc));
  return {
    added: [...will].filter(([k]) => !was.has(k)).map(([, n]) => n),
    removed: [...was].filter(([k]) => !will.has(k)).map(([, n]) => n),
    misfits: found(after).filter(t => !before.has(t)),
  };
}
