import {
  type CellFault,
  cellEntered,
  cellText,
  describeCell,
  enterCell,
  heading,
  layTable,
  rigTable,
  tableCsv,
} from '@plate-fold/core/formats';
import { removeEntry, repeatEntry } from '@plate-fold/core/plan';
import { REPAIR } from '@plate-fold/core/rig';
import { spoken } from '@plate-fold/core/units';
import { ClipboardPaste, Download, FileUp, Plus, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { selectDocument } from '../../state/select';
import { type RootState, useAppDispatch, useAppSelector } from '../../state/store';
import { noticeGiven } from '../../state/view-slice';
import { Button } from '../../ui/button';
import { type Column, DataTable } from '../../ui/data-table';
import { Dialog } from '../../ui/dialog';
import { saveFile } from '../../ui/save-file';
import { useDraftField } from '../../ui/use-draft-field';
import { layInWorker } from '../../work/read-client';
import type { RigTable } from './rig-tables';

/** Faults told before the rest is counted. */
const SHOWN = 10;

type Row = { readonly id: string };

/** What is wrong with a table, by row and column. */
function Faults({ faults }: { faults: readonly CellFault[] }) {
  return (
    <div
      role="alert"
      className="mb-2 border border-l-[6px] border-oxide/60 border-l-oxide bg-oxidesoft p-2.5"
    >
      <p className="font-semibold">Nothing was imported.</p>
      <ul className="list-disc pl-5">
        {faults.slice(0, SHOWN).map(f => (
          <li key={describeCell(f)}>{describeCell(f)}</li>
        ))}
      </ul>
      {faults.length > SHOWN && <p>and {faults.length - SHOWN} more.</p>}
    </div>
  );
}

/** A cell that is typed into; what does not fit stays in it with the reason, and the rig stays as it was. */
function Cell(props: {
  label: string;
  value: string;
  choices?: readonly string[];
  onEnter: (text: string) => string | undefined;
}) {
  const { fault, field, take } = useDraftField(props);
  const look = `fig h-10 rounded-tight border bg-transparent px-1.5 text-small hover:border-scribe focus:bg-paper ${fault ? 'border-oxide' : 'border-transparent'}`;
  return (
    <>
      {props.choices ? (
        <select
          aria-label={props.label}
          className={look}
          value={field.value}
          onChange={e => take(e.target.value)}
        >
          {!props.choices.includes(props.value) && <option value={props.value}>{spoken(props.value)}</option>}
          {props.choices.map(c => (
            <option key={c} value={c}>
              {spoken(c)}
            </option>
          ))}
        </select>
      ) : (
        <input
          aria-label={props.label}
          className={look}
          style={{ width: `${Math.max(5, field.value.length + 2)}ch` }}
          {...field}
        />
      )}
      {fault && (
        <span role="alert" className="block max-w-48 px-1 text-note leading-tight text-oxide">
          {fault}
        </span>
      )}
    </>
  );
}

/** One of the rig's lists as a table: typed into, pasted into from a spreadsheet, opened and saved as CSV. */
export function TableView({ of, onAdd }: { of: RigTable; onAdd?: () => void }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const [pasting, setPasting] = useState(false);
  const [reading, setReading] = useState(false);
  const [text, setText] = useState('');
  const [faults, setFaults] = useState<readonly CellFault[]>([]);
  const [done, setDone] = useState<string>();
  const file = useRef<HTMLInputElement>(null);
  const { rig, plan } = facts.document;
  const table = rigTable(of.list, rig, units);
  const rows = rig[of.list] as readonly Row[];
  const scroll = useRef<HTMLDivElement>(null);
  const lay = async (csv: string): Promise<boolean> => {
    const document = facts.document;
    setReading(true);
    const laid = await layInWorker(document, of.list, csv, units);
    setReading(false);
    if ('faults' in laid) {
      setFaults(laid.faults);
      return false;
    }
    setFaults([]);
    // what was laid in is the plan as it was when the reading began
    if (selectDocument(store.getState()) !== document) {
      dispatch(noticeGiven('The plan changed while the table was read. Import it again.'));
      return false;
    }
    run(layTable, laid);
    setDone(`${laid.rows} ${laid.rows === 1 ? 'row' : 'rows'} imported.`);
    return true;
  };
  const enter = (id: string, column: string, typed: string): string | undefined => {
    const args = { list: of.list, id, column, typed, units };
    const r = cellEntered(facts.document, of.list, id, column, typed, units);
    if (!r.ok) return r.fault;
    run(enterCell, args);
    return undefined;
  };
  const HEAD =
    'sticky top-0 z-10 border-b border-ink2 bg-paper px-1.5 py-1.5 text-left text-note font-normal whitespace-nowrap text-ink2';
  const CELL = 'border-b border-scribe/60';
  const columns: readonly Column<Row>[] = [
    ...table.columns.map(
      (c): Column<Row> => ({
        id: c.name,
        head: heading(c, units),
        headClass: HEAD,
        cellClass: CELL,
        cell: row =>
          c.name === 'id' ? (
            <span className="fig block px-1.5 py-2.5 text-small font-semibold whitespace-nowrap">
              {row.id}
            </span>
          ) : (
            <Cell
              label={`${c.name} of ${row.id}`}
              value={cellText(c, row, units)}
              choices={c.kind === 'yes-no' ? ['yes', 'no'] : c.choices}
              onEnter={t => enter(row.id, c.name, t)}
            />
          ),
      }),
    ),
    ...(of.list === 'mounts'
      ? [
          {
            id: 'repair',
            head: 'repair',
            headClass: HEAD,
            cellClass: `${CELL} px-1.5 py-2.5 text-note whitespace-nowrap text-ink2`,
            cell: (row: Row) => REPAIR[(row as (typeof rig.mounts)[number]).condition],
          },
        ]
      : []),
    {
      id: 'delete',
      head: <span className="sr-only">Delete</span>,
      headClass: 'sticky top-0 z-10 border-b border-ink2 bg-paper',
      cellClass: CELL,
      cell: row => (
        <button
          type="button"
          className="grid size-10 place-items-center"
          aria-label={`Delete ${row.id}`}
          onClick={() => run(removeEntry, { list: of.list, id: row.id })}
        >
          <Trash2 size={16} aria-hidden="true" />
        </button>
      ),
    },
  ];
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col bg-paper">
      <div className="flex flex-wrap items-center gap-2 border-b border-scribe p-2">
        <Button
          onClick={() => {
            setFaults([]);
            setText('');
            setPasting(true);
          }}
        >
          <ClipboardPaste size={17} aria-hidden="true" /> Paste rows
        </Button>
        <Button
          disabled={rows.length === 0 && !onAdd}
          onClick={() => {
            if (onAdd) {
              onAdd();
              return;
            }
            run(repeatEntry, { list: of.list });
          }}
        >
          <Plus size={17} aria-hidden="true" /> Add a {of.one}
        </Button>
        <Button onClick={() => file.current?.click()}>
          <FileUp size={17} aria-hidden="true" /> Open CSV
        </Button>
        <Button
          onClick={() =>
            saveFile(
              `${plan.id}-${of.tab.toLowerCase().replace(' ', '-')}.csv`,
              tableCsv(table, rows, units),
              'text/csv',
            )
          }
        >
          <Download size={17} aria-hidden="true" /> Save CSV
        </Button>
        <input
          ref={file}
          type="file"
          accept=".csv,.txt,.tsv"
          aria-label={`${of.tab} as CSV`}
          className="sr-only"
          tabIndex={-1}
          onChange={e => {
            const f = e.target.files?.[0];
            e.target.value = '';
            if (f) void f.text().then(lay);
          }}
        />
        {done && (
          <p role="status" className="text-small text-ink2">
            {done}
          </p>
        )}
      </div>
      <div ref={scroll} className="min-h-0 flex-1 overflow-auto p-2 max-desk:max-h-[70dvh]">
        {!pasting && faults.length > 0 && <Faults faults={faults} />}
        <DataTable
          className="border-separate border-spacing-0"
          columns={columns}
          rows={rows}
          rowKey={r => r.id}
          rowClass={() => 'align-top hover:bg-sheet'}
          scroll={scroll}
        />
      </div>
      <Dialog
        open={pasting}
        onClose={() => setPasting(false)}
        title={`Paste ${of.tab.toLowerCase()}`}
        about={`Rows from a spreadsheet with a header: ${table.columns.map(c => c.name).join(', ')}. A header may carry its unit (x mm, x in); else the figures are ${units === 'inch' ? 'inches' : 'millimeters'}. Rows with a known id replace it, others are added.`}
      >
        {faults.length > 0 && <Faults faults={faults} />}
        <textarea
          aria-label="Rows"
          value={text}
          onChange={e => setText(e.target.value)}
          rows={8}
          className="fig w-full rounded-edge border border-scribe bg-paper p-2 text-small"
        />
        <Button
          look="strong"
          className="mt-2 w-full"
          disabled={text.trim() === '' || reading}
          onClick={() => {
            void lay(text).then(done => done && setPasting(false));
          }}
        >
          {reading ? 'Reading …' : 'Import'}
        </Button>
      </Dialog>
    </div>
  );
}
