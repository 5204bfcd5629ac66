import type { LogEntry } from '../log';
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
        (e.checks ?? []).map(c => `${c.item}: ${c.fine ? 'fine' : (c.note ?? 'not OK')}`).join('; '),
        e.note ?? '',
      ]),
  );
