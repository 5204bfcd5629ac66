import {
  type ColumnDef,
  createSortedRowModel,
  type RowData,
  rowSortingFeature,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, type RefObject, useMemo } from 'react';

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { basic: sortFn_basic },
});

/** One column of a table. */
export interface Column<T> {
  readonly id: string;
  readonly head: ReactNode;
  readonly cell: (row: T) => ReactNode;
  /** the row is called by it */
  readonly names?: true;
  /** what rows are sorted by; a column without it cannot be sorted. What is not known comes last */
  readonly sort?: (row: T) => number | string | undefined;
  /** of its heading and of its cells */
  readonly headClass?: string;
  readonly cellClass?: string;
}

/** So many rows are drawn whole; of more, those in sight and some around them. */
const WHOLE = 100;
const AROUND = 12;

/**
 * Rows of figures under headings. Headings of columns that can be sorted are buttons; the order that rows come in is the first one unless
 * `sorted` says otherwise. Long lists are drawn as far as they are in sight of `scroll`, the element that they scroll in.
 */
export function DataTable<T extends RowData>(props: {
  readonly columns: readonly Column<T>[];
  readonly rows: readonly T[];
  readonly rowKey: (row: T) => string;
  readonly rowClass?: (row: T) => string;
  readonly caption?: string;
  readonly className?: string;
  readonly headClass?: string;
  readonly sorted?: string;
  readonly scroll?: RefObject<HTMLElement | null>;
  /** of one row, px, before it is measured */
  readonly rowHeight?: number;
}) {
  const { columns, rows, rowKey, rowClass, scroll, rowHeight = 44 } = props;
  const defs = useMemo(
    () =>
      columns.map(
        (c): ColumnDef<typeof features, T, unknown> => ({
          id: c.id,
          accessorFn: row => c.sort?.(row),
          enableSorting: c.sort !== undefined,
          sortFn: 'basic',
          sortUndefined: 'last',
          sortDescFirst: false,
        }),
      ),
    [columns],
  );
  const table = useTable<typeof features, T>({
    features,
    columns: defs,
    data: rows as T[],
    getRowId: rowKey,
    enableSortingRemoval: false,
    initialState: { sorting: props.sorted === undefined ? [] : [{ id: props.sorted, desc: false }] },
  });
  const shown = table.getRowModel().rows.map(r => r.original);
  const long = scroll !== undefined && shown.length > WHOLE;
  const window = useVirtualizer({
    count: long ? shown.length : 0,
    getScrollElement: () => scroll?.current ?? null,
    estimateSize: () => rowHeight,
    overscan: AROUND,
  });
  const seen = window.getVirtualItems();
  const [first, last] = [seen[0], seen.at(-1)];
  const inSight = long ? seen.flatMap(v => shown[v.index] ?? []) : shown;
  const above = long ? (first?.start ?? 0) : 0;
  const below = long ? window.getTotalSize() - (last?.end ?? 0) : 0;
  const blank = (px: number) =>
    px > 0 && (
      <tr aria-hidden="true">
        <td colSpan={columns.length} style={{ height: px }} />
      </tr>
    );
  return (
    <table data-keeps className={props.className} aria-rowcount={long ? shown.length + 1 : undefined}>
      {props.caption && <caption className="sr-only">{props.caption}</caption>}
      <thead>
        <tr className={props.headClass}>
          {columns.map(c => {
            const by = table.getColumn(c.id);
            const now = by?.getIsSorted() ?? false;
            return (
              <th
                key={c.id}
                scope="col"
                className={c.headClass}
                aria-sort={
                  !c.sort ? undefined : now === 'asc' ? 'ascending' : now === 'desc' ? 'descending' : 'none'
                }
              >
                {c.sort ? (
                  <button
                    type="button"
                    className="min-h-11 px-1 font-bold hover:text-fluid"
                    onClick={() => by?.toggleSorting()}
                  >
                    {c.head}
                    {now && <span aria-hidden="true">{now === 'desc' ? ' ▼' : ' ▲'}</span>}
                  </button>
                ) : (
                  c.head
                )}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {blank(above)}
        {inSight.map((row, i) => (
          <tr
            key={rowKey(row)}
            className={rowClass?.(row)}
            aria-rowindex={long ? (first?.index ?? 0) + i + 2 : undefined}
            data-index={long ? (first?.index ?? 0) + i : undefined}
            ref={long ? window.measureElement : undefined}
          >
            {columns.map(c =>
              c.names ? (
                <th key={c.id} scope="row" className={c.cellClass}>
                  {c.cell(row)}
                </th>
              ) : (
                <td key={c.id} className={c.cellClass}>
                  {c.cell(row)}
                </td>
              ),
            )}
          </tr>
        ))}
        {blank(below)}
      </tbody>
    </table>
  );
}
