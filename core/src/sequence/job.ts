import { type ResolvedJoint, type ToolUse, toolsFor } from '../bolt';
import type { FoldedPanel } from '../fold';
import { isBracket, type PlanDocument, tiesWing, wingsOf } from '../plan';
import type { PresentRig } from '../rig';
import type { UnitSystem } from '../units';
import { CAUTIONS } from './cautions';
import { liftLimitKg, overheadLimitKg } from './lifting';
import { guessMinutes } from './minutes';
import type { Spot } from './order';
import type { Step } from './step';

/** What a list of steps is made for, and the list itself. */
export interface Job {
  readonly doc: PlanDocument;
  readonly rig: PresentRig;
  readonly panels: readonly FoldedPanel[];
  readonly joints: readonly ResolvedJoint[];
  /** joints that an earlier phase fitted: their holes are ready, and their bolts are taken out one by one */
  readonly fitted: ReadonlySet<string>;
  /** units of the figures in its sentences */
  readonly units: UnitSystem;
  readonly steps: Step[];
  /** adds a step with what is usual, its minutes guessed unless entered; gives its id back */
  readonly add: (s: Partial<Step> & Pick<Step, 'id' | 'stage' | 'title' | 'why'>, amount?: number) => string;
}

/**
 * Whether a bolt is made fast before its plate goes up at all: one that is told to be, and those of a wing to the plate that carries it. One that
 * holds a bracket to the vehicle cannot be: it is made fast when the bracket is up, before the plate that hangs on it.
 */
export const isFastFirst = ({ plan }: PlanDocument, { joint }: Pick<ResolvedJoint, 'joint'>): boolean =>
  tiesWing(plan, joint) ||
  (joint.tightenBefore === 'hang' &&
    !(
      joint.panels.length > 0 && joint.panels.every(id => plan.panels.some(p => p.id === id && isBracket(p)))
    ));

/** Wings that are bolted to a plate, and to these in turn. */
export function wingsOn({ doc, panels }: Pick<Job, 'doc' | 'panels'>, plate: string): readonly FoldedPanel[] {
  const wings = wingsOf(doc.plan);
  return panels
    .filter(p => wings.get(p.panel.id) === plate)
    .flatMap(p => [p, ...wingsOn({ doc, panels }, p.panel.id)]);
}

/** A plate as it is lifted: with the wings that are bolted to it, their mass and the balance of both. */
export function lifted(job: Pick<Job, 'doc' | 'panels'>, p: FoldedPanel): FoldedPanel {
  const all = [p, ...wingsOn(job, p.panel.id)];
  const massKg = all.reduce((s, x) => s + x.massKg, 0);
  const middle = (k: 0 | 1 | 2): number => all.reduce((s, x) => s + x.massKg * x.centroid[k], 0) / massKg;
  return all.length === 1 ? p : { ...p, massKg, centroid: [middle(0), middle(1), middle(2)] };
}

export function jobOf(
  doc: PlanDocument,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
  units: UnitSystem,
  fitted: ReadonlySet<string> = new Set(),
): Job {
  const steps: Step[] = [];
  return {
    doc,
    rig,
    panels,
    joints,
    fitted,
    units,
    steps,
    add: (s, amount = 1) => {
      const people = s.people ?? 1;
      steps.push({
        panels: [],
        joints: [],
        needs: [],
        tools: [],
        cautions: [],
        ...s,
        people,
        minutes:
          doc.plan.minutes?.[s.id] ?? guessMinutes(s.stage, amount, { ...doc.plan.method, needs: people }),
      });
      return s.id;
    },
  };
}

export const spotOf = (j: ResolvedJoint): Spot => ({ id: j.id, x: j.at[0], y: j.at[1] });
/** The tools of some joints for some uses, each once. */
export const toolsOf = (joints: readonly ResolvedJoint[], uses: readonly ToolUse[]): string[] => [
  ...new Set(joints.flatMap(j => toolsFor(j, uses))),
];
/** Lists of tools as one, each once. */
export const addTools = (...lists: readonly (readonly string[])[]): string[] => [...new Set(lists.flat())];
export const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;
export const marksOf = (panels: readonly FoldedPanel[]): string => panels.map(p => p.panel.mark).join(', ');
export const guardsKind = (job: Pick<Job, 'rig'>, p: FoldedPanel, kind: string): boolean =>
  p.panel.guards.some(g => job.rig.components.some(c => c.id === g && c.kind === kind));
/** A plate heavier than one person should lift. */
export const isHeavy = ({ doc }: Pick<Job, 'doc'>, p: FoldedPanel): boolean => p.massKg > liftLimitKg(doc);
/** A plate that one person should not hold over them until its first bolts are in, light enough to carry as it may be. */
export const isHeavyOverhead = (job: Pick<Job, 'doc'>, p: FoldedPanel): boolean =>
  isHeavy(job, p) || p.massKg > overheadLimitKg(job.doc.plan.method.lift);
/** The caution for a plate's weight, where there is one. */
export const weightCaution = (job: Pick<Job, 'doc'>, p: FoldedPanel): readonly string[] =>
  isHeavy(job, p) ? [CAUTIONS.heavy] : isHeavyOverhead(job, p) ? [CAUTIONS.overhead] : [];
