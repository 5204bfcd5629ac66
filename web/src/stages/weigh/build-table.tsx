import {
  buildName,
  copyBuild,
  MOST_BUILDS,
  noteBuild,
  orderBuilds,
  removeBuild,
  renameBuild,
} from '@plate-fold/core/plan';
import { MATERIALS } from '@plate-fold/core/sheet';
import { Copy, Trash2 } from 'lucide-react';
import { Fragment } from 'react';
import { Swatch } from '../../picture/hatch';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { comparedAgainst } from '../../state/view-slice';
import { Button } from '../../ui/button';
import { Fig } from '../../ui/figure';
import { How } from '../../ui/how';
import { Sortable, SortableHead } from '../../ui/sortable';
import { useDraftField } from '../../ui/use-draft-field';
import { type CompareRow, compareRows } from './rows';
import { type Column, useColumns } from './use-columns';

function BuildHead({ column, base }: { column: Column; base: boolean }) {
  const dispatch = useAppDispatch();
  const { build, document } = column.facts;
  const active = document.plan.activeBuild === build.id;
  const run = useRun();
  const name = useDraftField({
    value: build.name,
    onEnter: text => void (text.trim() && run(renameBuild, { build: build.id, name: text.trim() })),
  });
  const note = useDraftField({
    value: build.note ?? '',
    onEnter: text => void run(noteBuild, { build: build.id, note: text.trim() }),
    lines: true,
  });
  return (
    <SortableHead
      id={build.id}
      name={`Move ${buildName(build)}`}
      className={`sticky top-0 z-10 w-[26rem] min-w-52 border-b-2 bg-paper p-2 text-left align-top font-normal ${active ? 'border-fluid' : 'border-ink2'}`}
    >
      {handle => (
        <>
          <div className="flex items-center gap-2">
            <span className="-ml-2">{handle}</span>
            <Swatch families={Object.values(build.sheets).map(s => MATERIALS[s.material].family)} size={28} />
            <input
              aria-label={`Name of ${buildName(build)}`}
              {...name.field}
              maxLength={40}
              className="min-h-9 w-full min-w-0 rounded-tight border border-transparent bg-transparent px-1 text-lead font-bold hover:border-scribe focus:border-fluid"
            />
          </div>
          <textarea
            aria-label={`Note on ${buildName(build)}`}
            placeholder="why this build"
            {...note.field}
            rows={2}
            maxLength={400}
            className="mt-1 w-full min-w-0 resize-y rounded-tight border border-scribe/60 bg-transparent px-1.5 py-1 text-small leading-tight placeholder:text-ink2"
          />
          <div className="mt-1 flex flex-wrap gap-1">
            <Button
              className="min-h-10 flex-1 px-2 text-small"
              look={base ? 'strong' : 'plain'}
              aria-pressed={base}
              onClick={() => dispatch(comparedAgainst(build.id))}
            >
              {base ? 'Baseline' : 'Make baseline'}
            </Button>
            <Button
              className="min-h-10 min-w-10 px-2"
              aria-label={`Duplicate ${buildName(build)}`}
              disabled={document.plan.builds.length >= MOST_BUILDS}
              onClick={() => run(copyBuild, { build: build.id })}
            >
              <Copy size={16} aria-hidden="true" />
            </Button>
            <Button
              className="min-h-10 min-w-10 px-2"
              aria-label={`Delete ${buildName(build)}`}
              disabled={document.plan.builds.length < 2}
              onClick={() => run(removeBuild, { build: build.id })}
            >
              <Trash2 size={16} aria-hidden="true" />
            </Button>
          </div>
        </>
      )}
    </SortableHead>
  );
}

const NOT_KNOWN = { value: '\u2013', unit: '' };

function Cell({ row, column, base }: { row: CompareRow; column: Column; base: Column | undefined }) {
  const value = row.value?.(column);
  const against = base && base !== column ? row.value?.(base) : undefined;
  const change = value === undefined || against === undefined ? undefined : value - against;
  const note = row.note?.(column, base);
  const diff = change === undefined ? undefined : row.show?.(change, true);
  // what rounds to nothing is shown as no difference
  const same = diff !== undefined && Number(diff.value) === 0;
  const worse =
    change !== undefined && !same && row.worse !== 'neither' && (row.worse === 'more') === change > 0;
  return (
    <td className="border-b border-scribe/70 px-2 py-1.5 align-top">
      {row.value && (
        <div className="flex items-baseline justify-between gap-2">
          <Fig
            of={value === undefined ? NOT_KNOWN : (row.show?.(value, false) ?? NOT_KNOWN)}
            className={row.strong ? 'text-head font-semibold' : 'text-sub'}
          />
          {diff && (
            <span
              className={`fig text-small whitespace-nowrap ${worse ? 'text-oxide' : 'text-ink2'}`}
              title={worse ? 'worse than the baseline' : undefined}
            >
              {same ? '=' : diff.value}
              <span className="sr-only"> {worse ? 'worse' : 'not worse'}</span>
            </span>
          )}
        </div>
      )}
      {note && <div className="text-note leading-snug text-ink2">{note}</div>}
    </td>
  );
}

/** Builds side by side, figure by figure, with the difference against a chosen one. */
export function BuildTable() {
  const facts = useFacts();
  const run = useRun();
  const { columns, strikes } = useColumns();
  const { units, against } = useAppSelector(s => s.view);
  const base =
    columns.find(c => c.facts.build.id === against) ?? columns.find(c => c.facts.build.id === facts.build.id);
  const busy = strikes.waiting > 0 && !strikes.stopped;
  return (
    <Sortable
      across
      order={columns.map(c => c.facts.build.id)}
      onOrder={order => run(orderBuilds, { order })}
    >
      <table
        className="w-full border-separate border-spacing-0"
        // the columns stay together however wide the screen is
        style={{ maxWidth: `${14 + 26 * columns.length}rem` }}
      >
        <caption className="sr-only">
          Builds compared; differences from {base && buildName(base.facts.build)}
        </caption>
        <thead>
          <tr>
            <th
              scope="col"
              className="sticky top-0 left-0 z-20 w-40 min-w-40 border-b-2 border-ink2 bg-paper p-2 text-left align-bottom text-note font-normal text-ink2"
            >
              Small figures: difference from {base && buildName(base.facts.build)}
            </th>
            {columns.map(c => (
              <BuildHead key={`${c.facts.build.id} ${c.facts.build.name}`} column={c} base={c === base} />
            ))}
          </tr>
        </thead>
        <tbody>
          {compareRows(facts, units).map(group => (
            <Fragment key={group.name}>
              <tr>
                <th
                  scope="rowgroup"
                  colSpan={columns.length + 1}
                  className="border-b border-ink2 bg-sheet px-2 pt-3 pb-1 text-left"
                >
                  <div className="sticky left-2 flex flex-wrap items-center gap-3">
                    {group.name}
                    {group.name === 'Under a strike' && strikes.waiting > 0 && (
                      <>
                        <span role="status" className="text-small font-normal text-ink2">
                          {busy
                            ? `striking, ${strikes.waiting} plates to go \u2026`
                            : `${strikes.waiting} plates not struck`}
                        </span>
                        <Button
                          className="min-h-10 px-3 text-small"
                          onClick={busy ? strikes.stop : strikes.goOn}
                        >
                          {busy ? 'Stop' : 'Strike every build'}
                        </Button>
                      </>
                    )}
                  </div>
                </th>
              </tr>
              {group.rows.map(row => (
                <tr key={row.name} className={row.strong ? 'bg-sheet' : undefined}>
                  <th
                    scope="row"
                    className={`sticky left-0 border-b border-scribe/70 px-2 py-1.5 text-left align-top leading-tight font-semibold ${row.strong ? 'bg-sheet' : 'bg-paper'}`}
                  >
                    {row.how ? <How of={row.how}>{row.name}</How> : row.name}
                    {row.about && <span className="block text-note font-normal text-ink2">{row.about}</span>}
                  </th>
                  {columns.map(c => (
                    <Cell key={c.facts.build.id} row={row} column={c} base={base} />
                  ))}
                </tr>
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
    </Sortable>
  );
}
