import type { Facts } from '@plate-fold/core/derive';
import { logCsv, remindersIcs } from '@plate-fold/core/formats';
import { type Due, dueList, type LogEntry } from '@plate-fold/core/log';
import { formatDistance, type UnitSystem } from '@plate-fold/core/units';
import { CalendarDays, Download, Plus } from 'lucide-react';
import { Button } from '../../ui/button';
import { dayName } from '../../ui/dates';
import { saveFile } from '../../ui/save-file';
import { BookButton } from './book-button';

/** What is due, the way into a new entry, and everything that goes out of the log. */
export function DueCard(props: {
  readonly facts: Facts;
  readonly log: readonly LogEntry[];
  readonly units: UnitSystem;
  readonly onAdd: (of?: Due) => void;
}) {
  const { facts, log, units, onAdd } = props;
  const now = Date.now();
  const { document } = facts;
  const due = dueList(document, facts.rig, log, now);
  const name = document.plan.id;
  const ics = (): string =>
    remindersIcs(
      `${document.rig.name}, ${document.plan.name}`,
      due.map(d => ({
        uid: `${name}-${d.id}@plate-fold`,
        at: d.at,
        what: `${d.what}: ${document.rig.name}`,
        why: `${d.why}${d.atKm === undefined ? '' : ` At ${formatDistance(d.atKm, units)}.`}`,
      })),
      now,
    );
  return (
    <div className="p-4">
      <Button look="strong" className="min-h-14 w-full text-title max-desk:hidden" onClick={() => onAdd()}>
        <Plus size={20} aria-hidden="true" /> Add an entry
      </Button>
      <section aria-label="Due" className="mt-4">
        <h2 className="text-head font-bold">Due</h2>
        {due.length === 0 && (
          <p className="text-ink2">Nothing is due until the plates are on: finish a run first.</p>
        )}
        <ul className="mt-1 grid gap-2">
          {due.map(d => {
            const late = d.at < now;
            return (
              <li
                key={d.id}
                className={`border-l-[6px] px-3 py-2 ${late ? 'border-marker bg-markersoft' : 'border-scribe bg-paper'}`}
              >
                <p className="leading-snug font-semibold">
                  <span className="inline-block first-letter:uppercase">{d.what}</span>
                </p>
                <p className="text-small leading-snug text-ink2">{d.why}</p>
                <div className="flex items-center justify-between gap-2">
                  <p className="text-body">
                    <span className="fig">{dayName(d.at)}</span>
                    {late && <b> due</b>}
                    {d.atKm !== undefined && (
                      <span className="fig text-ink2">, {formatDistance(d.atKm, units)}</span>
                    )}
                    {d.foretold && <span className="text-note text-ink2">, date estimated</span>}
                  </p>
                  <button
                    type="button"
                    className="min-h-11 px-2 text-body underline"
                    onClick={() => onAdd(d)}
                  >
                    done
                  </button>
                </div>
              </li>
            );
          })}
        </ul>
      </section>
      <section aria-label="Export" className="mt-5 grid grid-cols-2 gap-2">
        <h2 className="col-span-2 font-bold">Export</h2>
        <Button disabled={due.length === 0} onClick={() => saveFile(`${name}.ics`, ics(), 'text/calendar')}>
          <CalendarDays size={17} aria-hidden="true" /> Reminders
        </Button>
        <BookButton facts={facts} />
        <Button onClick={() => saveFile(`${name}-log.csv`, logCsv(log), 'text/csv')}>
          <Download size={17} aria-hidden="true" /> CSV
        </Button>
        <Button
          onClick={() =>
            saveFile(
              `${name}-log.json`,
              JSON.stringify({ format: 'plate-fold-log/1', plan: name, entries: log }, null, 2),
              'application/json',
            )
          }
        >
          <Download size={17} aria-hidden="true" /> JSON
        </Button>
      </section>
    </div>
  );
}
