import { blankPlan } from '@plate-fold/core/plan';
import { BODIES, type Body, startingRig } from '@plate-fold/core/rig';
import { sentence } from '@plate-fold/core/units';
import { Archive, BookOpen, FileUp, Route } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { archiveAt, useAddDocumentMutation, useBackupsQuery, useDocumentsQuery } from '../state/api';
import { Button } from '../ui/button';
import { when } from '../ui/dates';
import { BODY_NAMES } from '../ui/names';
import { ClashSheet } from './clash-sheet';
import { PlanList } from './plan-list';
import { tourOf, wasToured } from './tour';
import { type NotTaken, useTakeIn } from './use-take-in';

const SHOWN_FAULTS = 8;
const LINK =
  'inline-flex min-h-11 items-center justify-center gap-2 rounded-edge border border-scribe bg-paper px-3 font-semibold hover:border-ink2';

/** All plans on this server, and the way in for a plan file. */
export function Plans() {
  const { data, isError, refetch } = useDocumentsQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: 15_000,
  });
  const [add, adding] = useAddDocumentMutation();
  const { data: backups } = useBackupsQuery();
  const taking = useTakeIn();
  const [begun, setBegun] = useState<NotTaken>();
  const faults = begun ?? taking.notTaken;
  const input = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();

  const example = data?.find(d => d.example && d.archivedAt === null) ?? data?.[0];
  const toured = wasToured();

  const begin = async (body: Body): Promise<void> => {
    setBegun(undefined);
    const id = `${body}-${Date.now().toString(36)}`;
    const rig = startingRig(body, undefined, id);
    const answer = await add(blankPlan(rig, id, 'new set'));
    if ('data' in answer && answer.data) navigate(`/plan/${encodeURIComponent(answer.data.id)}/rig`);
    else setBegun({ file: 'The new plan', list: [{ path: 'server', fault: 'did not answer: try again' }] });
  };

  return (
    <div className="mx-auto flex min-h-full max-w-6xl flex-col px-5 py-6 desk:px-10 desk:py-12">
      <header className="mb-6">
        <h1 className="text-figure leading-tight font-extrabold tracking-tight">Plate Fold</h1>
        <p className="max-w-2xl text-sub text-ink2">
          Plan underbody armor plate by plate: sheet, weight, coverage, bolts and the order of the work.
        </p>
        <nav aria-label="Getting started" className="mt-3 flex flex-wrap gap-2">
          {example && (
            <Link to={tourOf(example.id)} className={LINK}>
              <Route size={18} aria-hidden="true" />{' '}
              {toured ? 'Tour' : 'New here? Take the tour: eight stages, one minute'}
            </Link>
          )}
          <Link to="/help" className={LINK}>
            <BookOpen size={18} aria-hidden="true" /> Help and glossary
          </Link>
        </nav>
      </header>
      <main className="flex-1">
        <section className="mb-8" aria-label="Start a plan">
          <h2 className="text-head font-bold">Start with your own vehicle</h2>
          <p className="mb-2 text-ink2">
            Pick the closest body. About twenty tape measurements give it the shape of yours.
          </p>
          <div className="grid grid-cols-2 gap-2 desk:grid-cols-4">
            {BODIES.map(b => (
              <Button
                key={b}
                className="min-h-16 text-sub"
                disabled={adding.isLoading}
                onClick={() => void begin(b)}
              >
                {sentence(BODY_NAMES[b])}
              </Button>
            ))}
          </div>
        </section>
        <div className="mb-2 flex flex-wrap items-end justify-between gap-3">
          <h2 className="text-head font-bold">Plans</h2>
          <div className="flex flex-wrap gap-2 max-desk:w-full max-desk:*:w-full">
            <a href={archiveAt()} download className={LINK}>
              <Archive size={18} aria-hidden="true" /> Back up everything
            </a>
            <Button onClick={() => input.current?.click()} disabled={taking.busy}>
              <FileUp size={18} aria-hidden="true" /> Open a plan file or archive
            </Button>
          </div>
          <input
            ref={input}
            type="file"
            accept=".json,.zip,application/json,application/zip"
            aria-label="Plan file or archive"
            className="sr-only"
            tabIndex={-1}
            onChange={e => {
              const file = e.target.files?.[0];
              e.target.value = '';
              setBegun(undefined);
              if (file) void taking.take(file);
            }}
          />
        </div>
        {faults && (
          <div
            role="alert"
            className="mb-4 border border-l-[6px] border-oxide/60 border-l-oxide bg-oxidesoft p-3"
          >
            <p className="font-semibold">{faults.file} was not opened. Nothing was changed.</p>
            <ul className="mt-1 list-disc pl-5">
              {faults.list.slice(0, SHOWN_FAULTS).map(f => (
                <li key={`${f.path} ${f.fault}`}>
                  {f.path !== '' && <span className="fig text-small">{f.path} </span>}
                  {f.fault}
                </li>
              ))}
            </ul>
            {faults.list.length > SHOWN_FAULTS && (
              <p className="mt-1">and {faults.list.length - SHOWN_FAULTS} more like these.</p>
            )}
          </div>
        )}
        {taking.taken && (
          <p role="status" className="mb-4 border border-scribe bg-paper p-3">
            {taking.taken}
          </p>
        )}
        <ClashSheet
          clash={taking.clash}
          onTake={(clash, existing) => void taking.resolve(clash, existing)}
          onCancel={taking.cancel}
        />
        {isError && (
          <p role="alert" className="mb-4">
            The server does not answer.{' '}
            <button type="button" className="min-h-11 underline" onClick={() => void refetch()}>
              Try again
            </button>
          </p>
        )}
        {data && <PlanList rows={data} />}
      </main>
      <footer className="mt-8 border-t border-scribe pt-3 text-small text-ink2">
        {backups?.folder && (
          <p className={`mb-2 ${backups.fault ? 'font-semibold text-oxide' : ''}`}>
            {backups.fault ??
              (backups.kept[0]
                ? `Backed up ${when(backups.kept[0].at)}; a copy is made every day and seven are kept, in`
                : 'A copy of everything is made every day and seven are kept, in')}{' '}
            <span className="fig break-all">{backups.folder}</span>
          </p>
        )}
        Figures of strength and torque are estimates, not certificates. The vehicle maker’s values, local
        rules and licensed practice come first. Never work under a vehicle on a jack alone.
      </footer>
    </div>
  );
}
