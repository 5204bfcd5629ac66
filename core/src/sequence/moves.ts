import type { Sequence, Step } from './step';

/** The least thing that is ticked: a step, or one bolt of a step that is torqued bolt by bolt. */
export interface Move {
  /** `step` or `step/joint` */
  readonly id: string;
  readonly step: Step;
  readonly joint?: string;
  /** place of the bolt in its step, from 0 */
  readonly index: number;
}

/** What a device has recorded of a move. Records are only ever added. */
export interface Tick {
  readonly id: string;
  readonly stepId: string;
  readonly jointId: string | null;
  readonly kind: 'done' | 'undone' | 'deviation';
  readonly torqueNm?: number | null;
  readonly note?: string | null;
  /** whose hands, as entered on the device */
  readonly who?: string | null;
  /** the wrench that read it: `typed in`, or the device's own name */
  readonly wrench?: string | null;
  /** id of a photo kept with it */
  readonly photo?: string | null;
  /** clock of the device, ms */
  readonly at: number;
  readonly device: string;
}

/** How a move stands: the newest of its ticks decides, its deviations are all kept. */
export interface MoveState {
  readonly done: boolean;
  readonly torqueNm?: number;
  /** the tick that did it */
  readonly by?: Tick;
  readonly deviations: readonly Tick[];
}

const moveId = (stepId: string, jointId?: string | null): string =>
  jointId ? `${stepId}/${jointId}` : stepId;

/** The moves of a sequence in the order of the hands: one a bolt where a torque is read, else one a step. */
export const movesOf = (sequence: Sequence): readonly Move[] =>
  sequence.steps.flatMap((step): readonly Move[] =>
    step.torqueNm === undefined || step.joints.length === 0
      ? [{ id: step.id, step, index: 0 }]
      : step.joints.map((joint, index) => ({ id: moveId(step.id, joint), step, joint, index })),
  );

/** Newer first; of two at the same moment the greater id, so that all devices agree. */
const newer = (a: Tick, b: Tick): number => b.at - a.at || (a.id < b.id ? 1 : -1);

/** How each move stands by its ticks, in whatever order they arrived; by move id. */
export function moveStates(ticks: readonly Tick[]): ReadonlyMap<string, MoveState> {
  const byMove = new Map<string, Tick[]>();
  for (const t of ticks) {
    const id = moveId(t.stepId, t.jointId);
    byMove.set(id, [...(byMove.get(id) ?? []), t]);
  }
  return new Map(
    [...byMove].map(([id, list]) => {
      const sorted = [...list].sort(newer);
      const last = sorted.find(t => t.kind !== 'deviation');
      const done = last?.kind === 'done';
      const torqueNm = done ? (last.torqueNm ?? undefined) : undefined;
      return [
        id,
        {
          done,
          torqueNm,
          ...(done && last ? { by: last } : {}),
          deviations: sorted.filter(t => t.kind === 'deviation').reverse(),
        },
      ];
    }),
  );
}

/** Index of the first move that is not done; the count of moves when all are. */
export function firstOpen(moves: readonly Move[], states: ReadonlyMap<string, MoveState>): number {
  const i = moves.findIndex(m => !states.get(m.id)?.done);
  return i < 0 ? moves.length : i;
}
