import { type Command, command, fitted, LIMITS, type PlanDocument } from '../plan';
import type { Rig, RigList } from '../rig';
import { err, ok, type Result, type UnitSystem } from '../units';
import {
  componentsTable,
  factoryPartsTable,
  holesTable,
  laidIn,
  membersTable,
  servicePointsTable,
} from './rig-tables';
import { cellText, readCell, readTable, type Table, type TableRead } from './table';

type Row = { readonly id: string };

/** The table of each list of a rig. */
export function rigTable(list: RigList, rig: Rig, units: UnitSystem): Table<Row> {
  const tables: Readonly<Record<RigList, () => unknown>> = {
    components: () => componentsTable(rig, units),
    members: () => membersTable(units),
    mounts: () => holesTable(rig),
    servicePoints: () => servicePointsTable(rig),
    factoryParts: () => factoryPartsTable(rig),
  };
  return tables[list]() as Table<Row>;
}

export type LaidIn =
  | { readonly document: PlanDocument; readonly rows: number }
  | Extract<TableRead<Row>, { ok: false }>;

/** A table's text laid into the rig: all rows, or none and what is wrong by row and column. */
export function tableLaidIn(doc: PlanDocument, list: RigList, text: string, units: UnitSystem): LaidIn {
  const read = readTable(rigTable(list, doc.rig, units), text, units);
  if (!read.ok) return read;
  const seen = new Set<string>();
  for (const [i, r] of read.rows.entries()) {
    if (seen.has(r.id))
      return {
        ok: false,
        faults: [{ row: i + 2, column: 'id', fault: `"${r.id}" is in an earlier row too` }],
      };
    seen.add(r.id);
  }
  const next = laidIn(doc.rig[list] as readonly Row[], read.rows);
  if (next.length > LIMITS.entries)
    return {
      ok: false,
      faults: [
        { row: 1, column: '', fault: `with these there are ${next.length}; ${LIMITS.entries} is the most` },
      ],
    };
  return { document: fitted({ ...doc, rig: { ...doc.rig, [list]: next } as Rig }), rows: read.rows.length };
}

/**
 * One cell of a rig's list typed anew: everything else of its row stays exactly as it was, whatever a table shows of it. Refused with what
 * is wrong with the cell.
 */
export function cellEntered(
  doc: PlanDocument,
  list: RigList,
  id: string,
  column: string,
  typed: string,
  units: UnitSystem,
): Result<PlanDocument> {
  const table = rigTable(list, doc.rig, units);
  const rows = doc.rig[list] as readonly Row[];
  const old = rows.find(r => r.id === id);
  const of = table.columns.find(c => c.name === column);
  if (!old || !of) return err('there is no such cell');
  // what is shown is rounded: typed as it stands there, nothing is meant
  if (typed.trim() === cellText(of, old, units)) return ok(doc);
  const read = readCell(of, typed, units);
  if ('fault' in read) return err(read.fault);
  const cells = Object.fromEntries(table.columns.map(c => [c.name, c === of ? read.value : c.get(old)]));
  const made = table.make(cells, 2);
  if ('fault' in made) return err(made.fault);
  if (made.id !== id && rows.some(r => r.id === made.id)) return err(`"${made.id}" is another row's id`);
  // an outline is shown rounded: one that was not typed is not read back
  const outline = 'footprint' in old && column !== 'footprint' ? { footprint: old.footprint } : {};
  const next = rows.map(r => (r === old ? { ...made, ...outline } : r));
  return ok(fitted({ ...doc, rig: { ...doc.rig, [list]: next } as Rig }));
}

export const enterCell = command<{
  readonly list: RigList;
  readonly id: string;
  readonly column: string;
  readonly typed: string;
  readonly units: UnitSystem;
}>({
  id: 'table.cell',
  label: (_, { id, column }) => `enter the ${column} of ${id}`,
  run: (doc, { list, id, column, typed, units }) => cellEntered(doc, list, id, column, typed, units),
});

/** A whole table, as it was laid into this very plan. */
export const layTable = command<{ readonly document: PlanDocument; readonly rows: number }>({
  id: 'table.lay',
  label: (_, { rows }) => `import ${rows} row${rows === 1 ? '' : 's'}`,
  run: (_, { document }) => document,
});

export const TABLE_COMMANDS: readonly Command[] = [enterCell, layTable];
