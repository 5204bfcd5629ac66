import type { ResolvedJoint } from '../bolt';
import {
  boltFaults,
  faultName,
  type Move,
  type MoveState,
  moveStates,
  type Tick,
  targetOf,
} from '../sequence';
import { NM_PER_LBF_FT } from '../units';
import { csv } from './csv';

/** What was done to one bolt in one round of a run. */
export interface AsBuiltLine {
  readonly step: string;
  readonly pass?: number;
  readonly joint: string;
  /** the bolt as it was bought */
  readonly bolt: string;
  /** undefined where it was snugged by hand */
  readonly targetNm?: number;
  readonly readNm?: number;
  readonly at?: number;
  readonly who?: string;
  readonly wrench?: string;
  /** what was wrong with it in this run, and what became of that, in words */
  readonly fault?: string;
  readonly notes: readonly string[];
  /** ids of photos kept with it */
  readonly photos: readonly string[];
}

/** What a bolt's trouble came to, in words. */
function faultWords(joint: string, ticks: readonly Tick[]): string | undefined {
  const f = boltFaults(ticks).get(joint);
  if (!f) return undefined;
  const name = faultName(f.fault);
  if (f.state === 'mended') return `${name}: repaired`;
  return f.state === 'overridden'
    ? `${name}: left as it is, ${f.by?.note ?? 'no reason given'}`
    : `${name}: open`;
}

/** Every bolt of a run, round by round: asked for and read, when, by whom, with which wrench, what was wrong and how it was mended. */
export function asBuilt(
  moves: readonly Move[],
  ticks: readonly Tick[],
  joints: readonly ResolvedJoint[],
): readonly AsBuiltLine[] {
  const states = moveStates(ticks);
  const byId = new Map(joints.map(j => [j.id, j]));
  return moves.flatMap((m): readonly AsBuiltLine[] => {
    if (m.joint === undefined) return [];
    const state: MoveState | undefined = states.get(m.id);
    const off = state?.deviations ?? [];
    const targetNm = targetOf(m);
    const fault = faultWords(m.joint, ticks);
    return [
      {
        step: m.step.title,
        pass: m.step.pass,
        joint: m.joint,
        bolt: byId.get(m.joint)?.parts[0]?.name ?? '',
        ...(targetNm === undefined ? {} : { targetNm }),
        ...(state?.torqueNm === undefined ? {} : { readNm: state.torqueNm }),
        ...(state?.by
          ? { at: state.by.at, who: state.by.who ?? undefined, wrench: state.by.wrench ?? undefined }
          : {}),
        ...(fault === undefined ? {} : { fault }),
        notes: off.flatMap(d => d.note ?? []),
        photos: off.flatMap(d => d.photo ?? []),
      },
    ];
  });
}

/** What a record is of. */
export interface BuiltOf {
  readonly vehicle: string;
  readonly plan: string;
  readonly build: string;
  /** when it was begun, ms */
  readonly startedAt: number;
}

const date = (ms: number): string => new Date(ms).toISOString();
const figures = (nm: number | undefined): readonly (string | number)[] =>
  nm === undefined ? ['', ''] : [Math.round(nm * 10) / 10, Math.round((nm / NM_PER_LBF_FT) * 10) / 10];

/** The record of a run as CSV, one line a bolt and round; times in UTC, torque in both units. */
export const asBuiltCsv = (of: BuiltOf, lines: readonly AsBuiltLine[]): string =>
  csv(
    [
      'vehicle',
      'plan',
      'build',
      'begun',
      'step',
      'pass',
      'joint',
      'bolt',
      'asked N\u00b7m',
      'asked ft\u00b7lb',
      'read N\u00b7m',
      'read ft\u00b7lb',
      'when',
      'who',
      'wrench',
      'problem',
      'notes',
      'photos',
    ],
    lines.map(l => [
      of.vehicle,
      of.plan,
      of.build,
      date(of.startedAt),
      l.step,
      l.pass ?? '',
      l.joint,
      l.bolt,
      ...figures(l.targetNm),
      ...figures(l.readNm),
      l.at === undefined ? '' : date(l.at),
      l.who ?? '',
      l.wrench ?? '',
      l.fault ?? '',
      l.notes.join('; '),
      l.photos.join(' '),
    ]),
  );
