import { Search, X } from 'lucide-react';
import { useId, useState } from 'react';
import { type DocumentRow, useDeletedQuery } from '../state/api';
import { useAppDispatch, useAppSelector } from '../state/store';
import { examplesShown, PLAN_SORTS, type PlanSort, plansSorted } from '../state/view-slice';
import { Button } from '../ui/button';
import { when } from '../ui/dates';
import { Dialog } from '../ui/dialog';
import { BODY_NAMES } from '../ui/names';
import { Select } from '../ui/select';
import { PlanTile } from './plan-tile';
import { usePlanList } from './use-plan-list';

const SORT_NAMES: Readonly<Record<PlanSort, string>> = {
  saved: 'last saved first',
  name: 'by name',
  run: 'last run first',
};
/** So many plans are found at a glance, without a search. */
const FEW = 4;

const wholeName = (r: DocumentRow): string => `${r.rigName} ${r.name}`;
const sorted = (rows: readonly DocumentRow[], by: PlanSort): readonly DocumentRow[] =>
  [...rows].sort((a, b) =>
    by === 'name'
      ? wholeName(a).localeCompare(wholeName(b), 'en', { numeric: true })
      : by === 'run'
        ? (b.lastRunAt ?? 0) - (a.lastRunAt ?? 0) || b.updatedAt - a.updatedAt
        : b.updatedAt - a.updatedAt,
  );
const matches = (row: DocumentRow, text: string): boolean => {
  const said = `${wholeName(row)} ${BODY_NAMES[row.bodyKind as keyof typeof BODY_NAMES]}`.toLowerCase();
  return text
    .toLowerCase()
    .split(/\s+/)
    .every(w => said.includes(w));
};

function RenameDialog({
  row,
  onRename,
  onClose,
}: {
  row: DocumentRow;
  onRename: (row: DocumentRow, name: string, vehicle: string) => void;
  onClose: () => void;
}) {
  const [vehicle, setVehicle] = useState(row.rigName);
  const [name, setName] = useState(row.name);
  const ids = [useId(), useId()];
  const fields = [
    ['Vehicle', vehicle, setVehicle],
    ['Plan', name, setName],
  ] as const;
  const ready = vehicle.trim() !== '' && name.trim() !== '';
  return (
    <Dialog open onClose={onClose} title="Rename">
      <form
        className="grid gap-3"
        onSubmit={e => {
          e.preventDefault();
          if (ready) onRename(row, name.trim(), vehicle.trim());
        }}
      >
        {fields.map(([label, value, set], i) => (
          <label key={label} htmlFor={ids[i]} className="block">
            {label}
            <input
              id={ids[i]}
              value={value}
              maxLength={80}
              onChange={e => set(e.target.value)}
              className="mt-1 block min-h-11 w-full rounded-edge border border-ink2 bg-paper px-3"
            />
          </label>
        ))}
        <Button type="submit" look="strong" disabled={!ready}>
          Save
        </Button>
        <Button type="button" onClick={onClose}>
          Cancel
        </Button>
      </form>
    </Dialog>
  );
}

function Tiles({ rows, list }: { rows: readonly DocumentRow[]; list: ReturnType<typeof usePlanList> }) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(15.5rem,1fr))] gap-3">
      {rows.map(r => (
        <PlanTile key={r.id} row={r} actions={list.actions} />
      ))}
    </ul>
  );
}

/** The owner's plans, then the examples, then what is archived and what was deleted; searched and sorted. */
export function PlanList({ rows }: { rows: readonly DocumentRow[] }) {
  const dispatch = useAppDispatch();
  const { sort, examples } = useAppSelector(s => s.view);
  const { data: bin = [] } = useDeletedQuery();
  const list = usePlanList();
  const [text, setText] = useState('');
  const found = sorted(
    rows.filter(r => matches(r, text.trim())),
    sort,
  );
  const own = found.filter(r => !r.example && r.archivedAt === null);
  const shown = found.filter(r => r.example && r.archivedAt === null);
  const archived = found.filter(r => r.archivedAt !== null);
  const anyExample = rows.some(r => r.example && r.archivedAt === null);
  const { deleted } = list;
  return (
    <>
      {rows.length > FEW && (
        <div className="mb-3 grid gap-2 desk:grid-cols-[1fr_16rem]">
          <label className="relative block">
            <span className="sr-only">Search plans</span>
            <Search
              size={18}
              aria-hidden="true"
              className="pointer-events-none absolute top-1/2 left-3 -translate-y-1/2 text-ink2"
            />
            <input
              type="search"
              value={text}
              onChange={e => setText(e.target.value)}
              placeholder="Search by vehicle, plan or body"
              className="min-h-11 w-full rounded-edge border border-scribe bg-paper pr-3 pl-10 placeholder:text-ink2"
            />
          </label>
          <Select
            label="Sort plans"
            value={sort}
            choices={PLAN_SORTS.map(s => ({ value: s, name: SORT_NAMES[s] }))}
            onChoose={s => dispatch(plansSorted(s))}
          />
        </div>
      )}
      {list.fault && (
        <p
          role="alert"
          className="mb-3 border border-l-[6px] border-oxide/60 border-l-oxide bg-oxidesoft p-3"
        >
          {list.fault}
        </p>
      )}
      {own.length > 0 && <Tiles rows={own} list={list} />}
      {own.length === 0 && text.trim() === '' && (
        <p className="border border-scribe bg-paper p-4">
          No plans of your own yet. Start with your own vehicle above, open a plan file, or look at an
          example.
        </p>
      )}
      {found.length === 0 && text.trim() !== '' && (
        <p role="status" className="border border-scribe bg-paper p-4">
          No plan matches {'\u201c'}
          {text.trim()}
          {'\u201d'}.
        </p>
      )}
      {anyExample && (
        <section aria-label="Examples" className="mt-6">
          <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
            <h3 className="text-title font-bold">Examples</h3>
            <Button className="min-h-10 px-3 text-small" onClick={() => dispatch(examplesShown(!examples))}>
              {examples ? 'Hide examples' : 'Show examples'}
            </Button>
          </div>
          {examples && <Tiles rows={shown} list={list} />}
        </section>
      )}
      {archived.length > 0 && (
        <details className="mt-6">
          <summary className="min-h-11 cursor-pointer py-2 font-bold">Archived ({archived.length})</summary>
          <Tiles rows={archived} list={list} />
        </details>
      )}
      {bin.length > 0 && (
        <details className="mt-3">
          <summary className="min-h-11 cursor-pointer py-2 font-bold">
            Recently deleted ({bin.length})
          </summary>
          <ul className="grid gap-1">
            {bin.map(d => (
              <li key={d.key} className="flex flex-wrap items-center justify-between gap-2">
                <span>
                  {d.name} <span className="text-small text-ink2">deleted {when(d.at)}</span>
                </span>
                <Button className="min-h-11 px-3" onClick={() => void list.bringBack(d.key)}>
                  Restore {d.name}
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
      {list.renaming && (
        <RenameDialog
          row={list.renaming}
          onRename={(row, name, vehicle) => void list.rename(row, name, vehicle)}
          onClose={list.stopRenaming}
        />
      )}
      {deleted && (
        <div
          role="status"
          className="fixed inset-x-3 bottom-3 z-40 mx-auto flex max-w-xl items-center gap-3 rounded-edge border border-ink bg-ink px-4 py-2 text-paper shadow-xl"
        >
          <span className="min-w-0 flex-1 truncate">Deleted: {deleted.name}. Kept for 30 days.</span>
          <button
            type="button"
            className="min-h-11 px-2 font-bold underline"
            onClick={() => void list.bringBack(deleted.key)}
          >
            Undo
          </button>
          <button
            type="button"
            aria-label="Dismiss"
            className="grid size-11 place-items-center"
            onClick={list.dismiss}
          >
            <X size={18} aria-hidden="true" />
          </button>
        </div>
      )}
    </>
  );
}
