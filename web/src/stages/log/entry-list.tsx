import type { Facts } from '@plate-fold/core/derive';
import { LOG_KINDS, type LogEntry, type LogKind, newestFirst, searchLog } from '@plate-fold/core/log';
import { formatDistance, type UnitSystem } from '@plate-fold/core/units';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayName } from '../../ui/dates';
import { Select } from '../../ui/select';
import { inWords } from './entry-words';
import { KIND_NAMES, namesOf } from './kinds';

/** All entries, newest first, searched and sifted. */
export function EntryList(props: {
  readonly facts: Facts;
  readonly log: readonly LogEntry[];
  readonly units: UnitSystem;
  readonly chosen?: string;
  readonly onChoose: (id: string) => void;
  readonly onStrike: (id: string) => void;
  readonly onRight: (entry: LogEntry) => void;
}) {
  const { facts, log, units, chosen, onChoose, onStrike, onRight } = props;
  const [words, setWords] = useState('');
  const [kind, setKind] = useState<LogKind | 'all'>('all');
  const [sure, setSure] = useState<string>();
  const found = newestFirst(searchLog(log, { words, kinds: kind === 'all' ? [] : [kind] }, namesOf(facts)));
  return (
    <section aria-label="Entries" className="p-3">
      <div className="mb-2 flex flex-wrap gap-2">
        <input
          type="search"
          aria-label="Search the log"
          placeholder="search"
          value={words}
          onChange={e => setWords(e.target.value)}
          className="min-h-11 min-w-40 flex-1 rounded-edge border border-scribe bg-paper px-3 placeholder:text-ink2"
        />
        <Select<LogKind | 'all'>
          label="Kind of entry"
          value={kind}
          choices={[
            { value: 'all', name: 'all kinds' },
            ...LOG_KINDS.map(k => ({ value: k, name: KIND_NAMES[k] })),
          ]}
          onChoose={setKind}
          className="min-w-40"
        />
      </div>
      <p role="status" className="mb-1 text-small text-ink2">
        {log.length === 0
          ? 'Nothing logged yet. A finished run is added automatically; add hits, checks and services at the right.'
          : `${found.length} of ${log.length}`}
      </p>
      <ul>
        {found.map(e => (
          <li
            key={e.id}
            className={`flex items-start border-b border-scribe/70 ${e.id === chosen ? 'bg-sheet' : ''}`}
          >
            <button
              type="button"
              aria-pressed={e.id === chosen}
              onClick={() => onChoose(e.id)}
              className="grid min-h-12 min-w-0 flex-1 grid-cols-[7.2rem_1fr] gap-x-3 px-1 py-1.5 text-left max-desk:grid-cols-1"
            >
              <span className="leading-tight">
                <span className="fig text-small">{dayName(e.at)}</span>
                {e.km !== undefined && (
                  <span className="fig block text-note text-ink2">{formatDistance(e.km, units)}</span>
                )}
              </span>
              <span className="leading-snug">
                <b>{KIND_NAMES[e.kind]}</b>
                {inWords(e, facts, units) && `: ${inWords(e, facts, units)}`}
                {e.note && <span className="block text-small text-ink2">{e.note}</span>}
                {e.photo && (
                  <img
                    src={`/api/documents/${facts.document.plan.id}/log/photos/${e.photo}`}
                    alt="Taken with this entry"
                    loading="lazy"
                    className="mt-1 max-h-48 max-w-full"
                  />
                )}
              </span>
            </button>
            {e.id === chosen && (
              <button
                type="button"
                className="inline-flex min-h-11 items-center px-2 text-small underline"
                onClick={() => onRight(e)}
              >
                edited
              </button>
            )}
            {e.run && (
              <Link
                to={`/run/${e.run}`}
                className="inline-flex min-h-11 items-center px-2 text-small underline"
              >
                record
              </Link>
            )}
            <button
              type="button"
              aria-label={
                sure === e.id ? 'Delete: press again' : `Delete: ${KIND_NAMES[e.kind]}, ${dayName(e.at)}`
              }
              className={`grid size-11 shrink-0 place-items-center ${sure === e.id ? 'bg-oxidesoft text-oxide' : 'text-ink2'}`}
              onClick={() => {
                if (sure === e.id) onStrike(e.id);
                setSure(sure === e.id ? undefined : e.id);
              }}
            >
              <Trash2 size={17} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
