import { type BoltFault, boltFaults } from './faults';
import type { Sequence, Step } from './step';
import type { Tick } from './tick';

/** The least thing that is ticked: a step, or one bolt of a step that is gone over bolt by bolt. */
export interface Move {
  /** `step` or `step/joint` */
  readonly id: string;
  readonly step: Step;
  readonly joint?: string;
  /** place of the bolt in its step, from 0 */
  readonly index: number;
  /** its bolt is not sound: `open` waits for its repair, `mended` was made good by it, `overridden` is left with a reason */
  readonly fault?: BoltFault['state'];
}

/** How a move stands: the newest of its ticks decides, its deviations are all kept. */
export interface MoveState {
  readonly done: boolean;
  readonly torqueNm?: number;
  /** the tick that did it; of several the one that has the reading */
  readonly by?: Tick;
  readonly deviations: readonly Tick[];
}

const moveId = (stepId: string, jointId?: string | null): string =>
  jointId ? `${stepId}/${jointId}` : stepId;

/** What the wrench is set to for a move, N\u00b7m; undefined where it is snugged by hand or nothing is turned. */
export const targetOf = ({ step, joint }: Move): number | undefined =>
  joint === undefined
    ? undefined
    : (step.torques?.[joint] ?? (step.byHand?.includes(joint) ? undefined : step.torqueNm));

/** True for a step that is gone over bolt by bolt. */
export const boltByBolt = (step: Step): boolean =>
  (step.torqueNm !== undefined || (step.byHand?.length ?? 0) > 0) && step.joints.length > 0;

/**
 * The moves of a sequence in the order of the hands: one a bolt where bolts are tightened, else one a step. A bolt that is not sound, by
 * `faults`, is marked from the step on in which it was reported.
 */
export function movesOf(
  sequence: Pick<Sequence, 'steps'>,
  faults: ReadonlyMap<string, BoltFault> = new Map(),
): readonly Move[] {
  const reported = new Map(
    [...faults.values()].map(f => [f.joint, sequence.steps.findIndex(s => s.id === f.tick.stepId)] as const),
  );
  return sequence.steps.flatMap((step, at): readonly Move[] => {
    if (!boltByBolt(step)) return [{ id: step.id, step, index: 0 }];
    return step.joints.map((joint, index) => {
      const fault = faults.get(joint);
      const from = reported.get(joint) ?? -1;
      // its own repair is never waived; what comes after it is asked for again once it is mended
      const touched = fault && step.mends !== joint && (fault.state === 'mended' ? at === from : at >= from);
      return { id: moveId(step.id, joint), step, joint, index, ...(touched ? { fault: fault.state } : {}) };
    });
  });
}

/**
 * A sequence with the repairs of what was reported in a run put in after the step in which it was. `mend` makes the steps of a repair;
 * a report from a step that is not in the list is mended before the last check.
 */
export function withRepairs(
  sequence: Sequence,
  ticks: readonly Tick[],
  mend: (fault: BoltFault, where: Step) => readonly Step[],
): Sequence {
  const faults = [...boltFaults(ticks).values()].filter(f => f.state !== 'overridden');
  if (faults.length === 0) return sequence;
  const steps = [...sequence.steps];
  // a repair that failed was reported from one of its own steps: it goes where the first one went
  const reports = ticks.filter(t => t.kind === 'deviation').sort((a, b) => a.at - b.at);
  for (const f of faults) {
    const mine = reports.filter(t => t.jointId === f.joint && t.fault);
    const origin = [...mine].reverse().find(t => sequence.steps.some(s => s.id === t.stepId));
    const at = origin ? steps.findIndex(s => s.id === origin.stepId) : -1;
    const where = origin ? steps[at] : undefined;
    const check = steps.findIndex(s => s.stage === 'check' || s.stage === 'finish');
    const place = where ? at + 1 : check < 0 ? steps.length : check;
    const home = where ?? steps[Math.max(0, place - 1)];
    if (home) steps.splice(place, 0, ...mend(f, home));
  }
  return { ...sequence, steps };
}

/** Newer first; of two at the same moment the greater id, so that all devices agree. */
const newer = (a: Tick, b: Tick): number => b.at - a.at || (a.id < b.id ? 1 : -1);

/** How each move stands by its ticks, in whatever order they arrived; by move id. */
export function moveStates(ticks: readonly Tick[]): ReadonlyMap<string, MoveState> {
  const byMove = new Map<string, Tick[]>();
  for (const t of ticks) {
    if (t.kind === 'override' || t.kind === 'claim' || t.kind === 'dismissed') continue;
    const id = moveId(t.stepId, t.jointId);
    byMove.set(id, [...(byMove.get(id) ?? []), t]);
  }
  return new Map(
    [...byMove].map(([id, list]) => {
      const sorted = [...list].sort(newer);
      const last = sorted.find(t => t.kind !== 'deviation');
      const done = last?.kind === 'done';
      // a later tick without a reading does not wipe the reading that was taken; taking the bolt back does
      const back = sorted.findIndex(t => t.kind === 'undone');
      const read = (back < 0 ? sorted : sorted.slice(0, back)).find(
        t => t.kind === 'done' && typeof t.torqueNm === 'number',
      );
      const torqueNm = done ? (read?.torqueNm ?? undefined) : undefined;
      return [
        id,
        {
          done,
          torqueNm,
          ...(done && last ? { by: read ?? last } : {}),
          deviations: sorted.filter(t => t.kind === 'deviation').reverse(),
        },
      ];
    }),
  );
}

/** True for a move that is still asked for: not done, and its bolt neither waits for a repair nor was left. */
export const isOpen = (m: Move, states: ReadonlyMap<string, MoveState>): boolean =>
  m.fault === undefined && !states.get(m.id)?.done;

/** Index of the first move that is still asked for; the count of moves when none is. `from`: looked for from there on, then from the start. */
export function firstOpen(
  moves: readonly Move[],
  states: ReadonlyMap<string, MoveState>,
  mine: (m: Move) => boolean = () => true,
): number {
  const i = moves.findIndex(m => isOpen(m, states) && mine(m));
  return i < 0 ? moves.length : i;
}

/** What is shown at once: a step, or steps that the hands do as one. */
export interface Screen {
  readonly id: string;
  readonly steps: readonly Step[];
  readonly moves: readonly Move[];
}

/**
 * Steps that are one thing for the hands: the jack under a plate and the plate up, a bracket held up and its bolts started, hanging and
 * marking, jacks taken away one after another.
 */
function joined(a: Step, b: Step): boolean {
  const same = a.panels.length === 1 && a.panels[0] === b.panels[0];
  if (a.stage === 'support' && b.stage === 'hang') return same && a.puts !== undefined;
  if (a.inHand && b.stage === 'start') return same;
  if (a.stage === 'hang' && b.stage === 'drill') return same && b.makes?.[0] === 'marked';
  return a.stage === 'support' && b.stage === 'support' && !a.puts && !b.puts && !!a.takes && !!b.takes;
}

/** Moves as they are shown, one screen a plate and round, one a step elsewhere. */
export function screensOf(moves: readonly Move[]): readonly Screen[] {
  const out: { id: string; steps: Step[]; moves: Move[] }[] = [];
  for (const m of moves) {
    const last = out.at(-1);
    const before = last?.steps.at(-1);
    if (last && before?.id === m.step.id) last.moves.push(m);
    else if (last && before && joined(before, m.step)) {
      last.steps.push(m.step);
      last.moves.push(m);
    } else out.push({ id: m.step.id, steps: [m.step], moves: [m] });
  }
  return out;
}

/** Who has taken which plate, by its id: the newest claim counts. */
export function claims(ticks: readonly Tick[]): ReadonlyMap<string, string> {
  const out = new Map<string, string>();
  for (const t of [...ticks].sort((a, b) => -newer(a, b))) {
    if (t.kind !== 'claim' || !t.note) continue;
    if (t.who) out.set(t.note, t.who);
    else out.delete(t.note);
  }
  return out;
}
