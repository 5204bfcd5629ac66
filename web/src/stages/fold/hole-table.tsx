import { HOLE_CORNER, holeKindWords, holeRows, holeSizeWords } from '@plate-fold/core/bolt';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { formatLength } from '@plate-fold/core/units';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { jointSelected } from '../../state/view-slice';
import { type Column, DataTable } from '../../ui/data-table';

/** The bolt holes of a plate as the shop measures them. */
export function HoleTable({ folded }: { folded: FoldedPanel }) {
  const facts = useFacts();
  const { units, joint } = useAppSelector(s => s.view);
  const dispatch = useAppDispatch();
  const rows = holeRows(folded, facts.joints);
  const columns: readonly Column<(typeof rows)[number]>[] = [
    {
      id: 'bolt',
      head: 'bolt',
      names: true,
      headClass: 'py-1 font-normal',
      cellClass: 'fig py-1 text-left font-normal whitespace-nowrap',
      cell: r => (
        <button type="button" className="min-h-8" onClick={() => dispatch(jointSelected(r.joint))}>
          {r.joint}
        </button>
      ),
    },
    ...(['x', 'y'] as const).map(
      (k): Column<(typeof rows)[number]> => ({
        id: k,
        head: k,
        headClass: 'py-1 text-right font-normal',
        cellClass: 'fig py-2 pl-2 text-right whitespace-nowrap',
        cell: r => formatLength(r[k], units, true),
      }),
    ),
    {
      id: 'cut',
      head: 'cut',
      headClass: 'py-1 pl-3 font-normal',
      cellClass: 'py-2 pl-3 leading-tight',
      cell: r => (
        <>
          {r.hole.cut ? holeSizeWords(r.hole.cut, units) : 'not cut'}
          {(r.hole.kind !== 'clearance' || r.hole.sink) && (
            <span className="block text-note text-ink2">{holeKindWords(r, units)}</span>
          )}
        </>
      ),
    },
  ];
  return (
    <details className="mt-4" open={rows.length > 0 && rows.length <= 8}>
      <summary className="min-h-11 py-2.5 font-bold">Bolt holes ({rows.length})</summary>
      {rows.length === 0 ? (
        <p className="text-small text-ink2">No bolt goes through this plate yet. Add bolts on Cover.</p>
      ) : (
        <>
          <DataTable
            className="w-full text-small"
            headClass="text-left text-ink2"
            columns={columns}
            rows={rows}
            rowKey={r => `${r.joint} ${r.x} ${r.y}`}
            rowClass={r =>
              `border-t border-scribe/60 align-top ${r.joint === joint ? 'bg-paper font-semibold' : ''}`
            }
          />
          <p className="mt-1 text-note text-ink2">Measured {HOLE_CORNER}: x to the rear, y to the right.</p>
        </>
      )}
    </details>
  );
}
