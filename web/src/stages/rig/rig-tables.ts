import {
  componentsTable,
  factoryPartsTable,
  fitted,
  holesTable,
  laidIn,
  membersTable,
  type PlanDocument,
  type Rig,
  type RigList,
  readTable,
  servicePointsTable,
  type Table,
  type TableRead,
  type UnitSystem,
} from '@plate-fold/core';

type Row = { readonly id: string };

export interface RigTable {
  readonly list: RigList;
  readonly tab: string;
  readonly one: string;
  readonly table: (rig: Rig, units: UnitSystem) => Table<Row>;
}

/** The tables of a rig, as tabs. */
export const RIG_TABLES: readonly RigTable[] = [
  {
    list: 'components',
    tab: 'Parts',
    one: 'part',
    table: (r, u) => componentsTable(r, u) as unknown as Table<Row>,
  },
  {
    list: 'members',
    tab: 'Members',
    one: 'member',
    table: (_, u) => membersTable(u) as unknown as Table<Row>,
  },
  { list: 'mounts', tab: 'Holes', one: 'hole', table: r => holesTable(r) as unknown as Table<Row> },
  {
    list: 'servicePoints',
    tab: 'Service',
    one: 'service point',
    table: r => servicePointsTable(r) as unknown as Table<Row>,
  },
  {
    list: 'factoryParts',
    tab: 'Factory parts',
    one: 'factory part',
    table: r => factoryPartsTable(r) as unknown as Table<Row>,
  },
];

/** A table's text laid into the rig: all rows, or none and what is wrong by row and column. */
export function tableLaidIn(
  doc: PlanDocument,
  of: RigTable,
  text: string,
  units: UnitSystem,
): { readonly document: PlanDocument; readonly rows: number } | Extract<TableRead<Row>, { ok: false }> {
  const read = readTable(of.table(doc.rig, units), text, units);
  if (!read.ok) return read;
  const twice = read.rows.find((r, i) => read.rows.findIndex(x => x.id === r.id) !== i);
  if (twice) {
    const row = read.rows.lastIndexOf(twice) + 2;
    return {
      ok: false,
      faults: [{ row, column: 'id', fault: `"${twice.id}" stands in an earlier row too` }],
    };
  }
  const rig = { ...doc.rig, [of.list]: laidIn(doc.rig[of.list] as readonly Row[], read.rows) } as Rig;
  return { document: fitted({ ...doc, rig }), rows: read.rows.length };
}
