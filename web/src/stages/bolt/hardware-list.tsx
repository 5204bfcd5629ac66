import { bagsByPlate, hardwareList, toBuy } from '@plate-fold/core/bolt';
import { buyListCsv, fileName } from '@plate-fold/core/formats';
import { buildName, panelWord } from '@plate-fold/core/plan';
import { sentence } from '@plate-fold/core/units';
import { usePutOnShelfMutation, useShelfQuery } from '../../state/api';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { type Column, DataTable } from '../../ui/data-table';
import { MeasureInput } from '../../ui/measure-input';
import { ListHead } from './list-head';

/** What the active build needs, what lies on the shelf, and what is to buy, in packs. */
export function HardwareList() {
  const { joints, panels, document, build } = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { data: shelf = [], isError } = useShelfQuery();
  const [put, putting] = usePutOnShelfMutation();
  const lines = hardwareList(joints);
  const counts = Object.fromEntries(shelf.filter(e => e.kind === 'part').map(e => [e.name, e.count]));
  const buy = toBuy(lines, counts);
  const packs = buy.reduce((s, l) => s + l.packs, 0);
  const columns: readonly Column<(typeof buy)[number]>[] = [
    {
      id: 'count',
      head: 'Count',
      headClass: 'w-16 py-1 pr-4 text-right font-normal',
      cellClass: 'fig py-1.5 pr-4 text-right text-title',
      cell: l => l.count,
    },
    {
      id: 'part',
      head: 'Part',
      names: true,
      headClass: 'py-1 font-normal',
      cellClass: 'py-1.5 pr-3 text-left leading-tight font-normal',
      cell: l => l.part,
    },
    {
      id: 'have',
      head: 'What I have',
      headClass: 'w-28 py-1 pr-3 font-normal',
      cellClass: 'py-1 pr-3',
      cell: l => (
        <MeasureInput
          label={`What I have: ${l.part}`}
          hideLabel
          plain=""
          bare
          value={l.have}
          units={units}
          least={0}
          most={10_000}
          onEnter={n => void put({ kind: 'part', name: l.part, count: Math.round(n) })}
        />
      ),
    },
    {
      id: 'buy',
      head: 'To buy',
      headClass: 'w-36 py-1 font-normal',
      cellClass: 'py-1.5 leading-tight',
      cell: l =>
        l.missing === 0 ? (
          <span className="text-ink2">none</span>
        ) : (
          <>
            <b className="fig">{l.missing}</b>: {l.packs} {l.packs === 1 ? 'pack' : 'packs'} of {l.pack}
          </>
        ),
    },
  ];
  return (
    <div className="max-w-4xl p-4">
      <ListHead
        title={`Hardware list for ${buildName(build)}`}
        file={`${fileName(document.plan.id, build.name, 'hardware list')}.csv`}
        text={() => buyListCsv(buy)}
      />
      <p role="status" className="mb-2 font-semibold">
        {packs === 0 ? 'You have everything.' : `${packs} packs to buy`}
      </p>
      {(isError || putting.isError) && (
        <p role="alert" className="mb-2 text-oxide">
          The server does not answer: what you have is not known, or was not saved.
        </p>
      )}
      <DataTable
        className="w-full"
        headClass="border-b border-ink2 text-left text-note text-ink2"
        columns={columns}
        rows={buy}
        rowKey={l => l.part}
        rowClass={() => 'border-b border-scribe/70'}
      />
      <p className="mt-3 text-small text-ink2">
        Lengths follow the sheet of {buildName(build)}: another build may need other bolts. Pack sizes are
        estimates. Buy a spare of each.
      </p>
      <section aria-label="Bags by plate" className="mt-5">
        <h3 className="text-title font-bold">A bag for each plate</h3>
        <p className="text-small text-ink2">
          Sort it on the bench, a label on every bag: what is started with that plate, and nothing else.
        </p>
        <ul className="mt-2 grid items-start gap-2 desk:grid-cols-2">
          {bagsByPlate(joints, panels).map(b => {
            const panel = panels.find(p => p.panel.id === b.panel)?.panel;
            return (
              <li
                key={b.panel ?? 'crossbars'}
                className="break-inside-avoid rounded-tight border border-scribe bg-paper p-3"
              >
                <h4 className="font-bold">
                  {panel ? `${sentence(panelWord(panel))}, ${panel.name}` : 'Crossbars'}
                </h4>
                <p className="text-note text-ink2">Bolts {b.joints.join(', ')}</p>
                <ul className="mt-1">
                  {b.lines.map(l => (
                    <li key={l.part} className="flex gap-3 border-t border-scribe/60 py-1">
                      <span className="fig w-8 text-right">{l.count}</span>
                      <span className="leading-tight">{l.part}</span>
                    </li>
                  ))}
                </ul>
              </li>
            );
          })}
        </ul>
      </section>
    </div>
  );
}
