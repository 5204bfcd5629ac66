import type { LogEntry } from '../log';
import { type Move, type MoveState, moveStates, type Tick } from '../sequence';
import { csv } from './csv';

const date = (ms: number): string => new Date(ms).toISOString();

/** The log as CSV, one line an entry, oldest first; times in UTC, mm, kg, N·m. Lists within an entry are parted by semicolons. */
export const logCsv = (log: readonly LogEntry[]): string =>
  csv(
    [
      'when',
      'km',
      'kind',
      'plate',
      'x mm',
      'y mm',
      'dent mm',
      'foreseen mm',
      'service',
      'minutes',
      'corners',
      'torques',
      'checks',
      'note',
    ],
    [...log]
      .sort((a, b) => a.at - b.at)
      .map(e => [
        date(e.at),
        e.km ?? '',
        e.kind,
        e.panel ?? '',
        e.place?.[0] ?? '',
        e.place?.[1] ?? '',
        e.dentMm ?? '',
        e.foreseenMm ?? '',
        e.point ?? '',
        e.minutes ?? '',
        e.corners?.join('; ') ?? '',
        (e.readings ?? []).map(r => `${r.joint} set ${r.set} found ${r.found} after ${r.after}`).join('; '),
        (e.checks ?? []).map(c => `${c.item}: ${c.fine ? 'fine' : (c.note ?? 'not fine')}`).join('; '),
        e.note ?? '',
      ]),
  );

/** What was read on one bolt in one round of a run. */
export interface AsBuiltLine {
  readonly step: string;
  readonly pass?: number;
  readonly joint: string;
  readonly targetNm: number;
  readonly readNm?: number;
  readonly at?: number;
  readonly who?: string;
  readonly wrench?: string;
  readonly notes: readonly string[];
}

/** Every torque of a run as it was made: asked for and read, when, by whom, with which wrench, and what was off. */
export function asBuilt(moves: readonly Move[], ticks: readonly Tick[]): readonly AsBuiltLine[] {
  const states = moveStates(ticks);
  return moves.flatMap(m => {
    if (m.joint === undefined || m.step.torqueNm === undefined) return [];
    const state: MoveState | undefined = states.get(m.id);
    return [
      {
        step: m.step.title,
        pass: m.step.pass,
        joint: m.joint,
        targetNm: m.step.torqueNm,
        ...(state?.torqueNm === undefined ? {} : { readNm: state.torqueNm }),
        ...(state?.by
          ? { at: state.by.at, who: state.by.who ?? undefined, wrench: state.by.wrench ?? undefined }
          : {}),
        notes: (state?.deviations ?? []).flatMap(d => d.note ?? []),
      },
    ];
  });
}

/** The record of a run as CSV; times in UTC, torque in N·m. */
export const asBuiltCsv = (lines: readonly AsBuiltLine[]): string =>
  csv(
    ['step', 'pass', 'joint', 'asked N·m', 'read N·m', 'when', 'who', 'wrench', 'notes'],
    lines.map(l => [
      l.step,
      l.pass ?? '',
      l.joint,
      Math.round(l.targetNm * 10) / 10,
      l.readNm === undefined ? '' : Math.round(l.readNm * 10) / 10,
      l.at === undefined ? '' : date(l.at),
      l.who ?? '',
      l.wrench ?? '',
      l.notes.join('; '),
    ]),
  );
