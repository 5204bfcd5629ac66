import { fitted, LIMITS, type PlanDocument } from '../plan';
import type { Rig, RigList } from '../rig';
import type { UnitSystem } from '../units';
import {
  componentsTable,
  factoryPartsTable,
  holesTable,
  laidIn,
  membersTable,
  servicePointsTable,
} from './rig-tables';
import { readTable, type Table, type TableRead } from './table';

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
        faults: [{ row: i + 2, column: 'id', fault: `"${r.id}" stands in an earlier row too` }],
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
