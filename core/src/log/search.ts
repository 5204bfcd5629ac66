import type { LogEntry, LogKind } from './entry';

/** What somebody looks for in a log. */
export interface LogFilter {
  readonly words?: string;
  readonly kinds?: readonly LogKind[];
  readonly panel?: string;
}

/** All words of an entry in one line, small. `names` gives the names of plates, joints and points by id. */
export const wordsOfEntry = (e: LogEntry, names: ReadonlyMap<string, string> = new Map()): string =>
  [
    e.kind,
    e.note,
    e.panel && names.get(e.panel),
    e.point && names.get(e.point),
    ...(e.checks ?? []).flatMap(c => [c.item, c.note]),
    ...(e.readings ?? []).map(r => r.joint),
  ]
    .filter(x => x !== undefined && x !== '')
    .join(' ')
    .toLowerCase();

/** Entries that hold every word looked for, of the kinds and the plate asked for. */
export function searchLog(
  log: readonly LogEntry[],
  { words = '', kinds = [], panel }: LogFilter,
  names?: ReadonlyMap<string, string>,
): readonly LogEntry[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  return log.filter(e => {
    if (kinds.length > 0 && !kinds.includes(e.kind)) return false;
    if (panel !== undefined && e.panel !== panel) return false;
    const text = wordsOfEntry(e, names);
    return wanted.every(w => text.includes(w));
  });
}
