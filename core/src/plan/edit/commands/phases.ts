import { err, ok } from '../../../units';
import { phasesOf } from '../../phases';
import type { Phase, PlanDocument } from '../../plan';
import { isBracket } from '../../select';
import { freshId, inPlan } from '../change';
import { command, plateNamed } from '../command';

/** A plan is fitted in so many phases at the most. */
export const MOST_PHASES = 8;

/** Phases as they are kept: plates alone, brackets follow them. */
function kept(doc: PlanDocument, phases: readonly Phase[]): PlanDocument {
  const plates = new Set(doc.plan.panels.filter(p => !isBracket(p)).map(p => p.id));
  return inPlan(doc, {
    phases: phases.map(f => ({ ...f, panels: f.panels.filter(p => plates.has(p)) })),
  });
}
const nameOf = ({ plan }: PlanDocument, id: string): string =>
  plan.phases?.find(f => f.id === id)?.name ?? id;

/** A name that no other phase has. */
function freeName(wanted: string, phases: readonly Phase[]): string {
  let name = wanted;
  for (let n = 2; phases.some(f => f.name === name); n++) name = `${wanted} ${n}`;
  return name;
}

/** One more phase at the end, empty; the first time all plates are in the one before it. */
export const addPhase = command<{ readonly name?: string }>({
  id: 'phase.add',
  label: () => 'add a phase',
  run: (doc, { name }) => {
    const before = phasesOf(doc.plan);
    if (before.length >= MOST_PHASES) return err(`A plan is fitted in ${MOST_PHASES} phases at the most.`);
    const now: readonly Phase[] =
      before.length > 0
        ? before
        : [{ id: freshId('phase', []), name: 'first', panels: doc.plan.panels.map(p => p.id) }];
    return ok(
      kept(doc, [
        ...now,
        {
          id: freshId('phase', now),
          name: freeName(name ?? (before.length > 0 ? 'next' : 'later'), now),
          panels: [],
        },
      ]),
    );
  },
});

/** A plate fitted in another phase. */
export const moveToPhase = command<{ readonly panel: string; readonly phase: string }>({
  id: 'phase.move',
  label: (doc, { panel, phase }) => `fit ${plateNamed(doc, panel)} in phase “${nameOf(doc, phase)}”`,
  run: (doc, { panel, phase }) => {
    const phases = phasesOf(doc.plan);
    const to = phases.find(f => f.id === phase);
    if (!to) return err('there is no such phase');
    if (to.panels.includes(panel)) return ok(doc);
    return ok(
      kept(
        doc,
        phases.map(f =>
          f.id === phase
            ? { ...f, panels: [...f.panels, panel] }
            : { ...f, panels: f.panels.filter(p => p !== panel) },
        ),
      ),
    );
  },
});

export const renamePhase = command<{ readonly phase: string; readonly name: string }>({
  id: 'phase.rename',
  label: (doc, { phase }) => `rename phase “${nameOf(doc, phase)}”`,
  run: (doc, { phase, name }) => {
    const { phases = [] } = doc.plan;
    if (phases.some(f => f.id !== phase && f.name === name))
      return err(`Another phase is called “${name}” already.`);
    return ok(inPlan(doc, { phases: phases.map(f => (f.id === phase ? { ...f, name } : f)) }));
  },
});

/** Takes a phase out: its plates come with the one before it, or after it where it is the first; with one left there are none. */
export const removePhase = command<{ readonly phase: string }>({
  id: 'phase.remove',
  label: (doc, { phase }) => `remove phase “${nameOf(doc, phase)}”`,
  run: (doc, { phase }) => {
    const phases = phasesOf(doc.plan);
    const at = phases.findIndex(f => f.id === phase);
    if (at < 0) return ok(doc);
    const heir = phases[at === 0 ? 1 : at - 1];
    const left = phases
      .filter((_, i) => i !== at)
      .map(f => (f === heir ? { ...f, panels: [...f.panels, ...(phases[at] as Phase).panels] } : f));
    if (left.length > 1) return ok(kept(doc, left));
    const { phases: _, ...plan } = doc.plan;
    return ok({ ...doc, plan });
  },
});
