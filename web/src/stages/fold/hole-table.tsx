import { HOLE_CORNER, holeKindWords, holeRows, holeSizeWords } from '@plate-fold/core/bolt';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { formatLength } from '@plate-fold/core/units';
import { useFacts } from '../../state/derived';
import { useApp, useDo } from '../../state/store';
import { jointSelected } from '../../state/view-slice';

/** The bolt holes of a plate as the shop measures them. */
export function HoleTable({ folded }: { folded: FoldedPanel }) {
  const facts = useFacts();
  const { units, joint } = useApp(s => s.view);
  const dispatch = useDo();
  const rows = holeRows(folded, facts.joints);
  return (
    <details className="mt-4" open={rows.length > 0 && rows.length <= 8}>
      <summary className="min-h-11 py-2.5 font-bold">Bolt holes ({rows.length})</summary>
      {rows.length === 0 ? (
        <p className="text-[13px] text-ink2">No bolt goes through this plate yet: bolt it on Cover.</p>
      ) : (
        <>
          <table className="w-full text-[13px]">
            <thead>
              <tr className="text-left text-ink2">
                <th className="py-1 font-normal">bolt</th>
                <th className="py-1 text-right font-normal">x</th>
                <th className="py-1 text-right font-normal">y</th>
                <th className="py-1 pl-3 font-normal">cut</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(r => (
                <tr
                  key={r.joint}
                  className={`border-t border-scribe/60 align-top ${r.joint === joint ? 'bg-paper font-semibold' : ''}`}
                >
                  <td className="fig py-1">
                    <button
                      type="button"
                      className="min-h-8"
                      onClick={() => dispatch(jointSelected(r.joint))}
                    >
                      {r.joint}
                    </button>
                  </td>
                  <td className="fig py-2 text-right whitespace-nowrap">{formatLength(r.x, units, true)}</td>
                  <td className="fig py-2 text-right whitespace-nowrap">{formatLength(r.y, units, true)}</td>
                  <td className="py-2 pl-3 leading-tight">
                    {r.hole.cut ? holeSizeWords(r.hole.cut, units) : 'not cut'}
                    {r.hole.kind !== 'clearance' || r.hole.sink ? (
                      <span className="block text-[12px] text-ink2">{holeKindWords(r.hole, units)}</span>
                    ) : null}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 text-[12px] text-ink2">Measured {HOLE_CORNER}: x to the rear, y to the right.</p>
        </>
      )}
    </details>
  );
}
