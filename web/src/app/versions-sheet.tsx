import { differences, type PlanDocument, restoreVersion, writeDocument } from '@plate-fold/core/plan';
import { useMemo, useState } from 'react';
import { useVersionQuery, useVersionsQuery, type VersionRow } from '../state/api';
import { useRun } from '../state/commands/run';
import { selectDocument } from '../state/select';
import { useAppSelector } from '../state/store';
import { Button } from '../ui/button';
import { when } from '../ui/dates';
import { Dialog } from '../ui/dialog';

import { saveFile } from '../ui/save-file';

/** Sentences shown before the rest is counted. */
const SHOWN = 12;

/** What one version has otherwise than another, in words. */
export function Differences({
  before,
  after,
  same,
}: {
  before: PlanDocument;
  after: PlanDocument;
  /** what is said where there is none */
  same: string;
}) {
  const units = useAppSelector(s => s.view.units);
  const list = useMemo(() => differences(before, after, units), [before, after, units]);
  if (list.length === 0) return <p className="text-ink2">{same}</p>;
  return (
    <ul className="list-disc pl-5 text-lead leading-snug">
      {list.slice(0, SHOWN).map(d => (
        <li key={d} className="first-letter:uppercase">
          {d}
        </li>
      ))}
      {list.length > SHOWN && <li>and {list.length - SHOWN} more.</li>}
    </ul>
  );
}

function Version({ plan, row, onDone }: { plan: PlanDocument; row: VersionRow; onDone: () => void }) {
  const run = useRun();
  const { data, isError } = useVersionQuery({ plan: plan.plan.id, id: row.id });
  if (isError)
    return (
      <p role="alert" className="text-oxide">
        The server does not answer, or no longer has this version.
      </p>
    );
  if (!data) return <p className="text-ink2">Loading …</p>;
  return (
    <div className="grid gap-2 pb-3">
      <p className="text-body text-ink2">Changed since then:</p>
      <Differences before={data.document} after={plan} same="The same as the plan is now." />
      <div className="flex flex-wrap gap-2">
        <Button
          look="strong"
          onClick={() => {
            run(restoreVersion, { document: data.document, revision: row.revision });
            onDone();
          }}
        >
          Restore this version
        </Button>
        <Button
          look="quiet"
          onClick={() =>
            saveFile(
              `${plan.plan.id}-${row.kind === 'saved' ? 'revision' : 'late'}-${row.revision}.platefold.json`,
              writeDocument(data.document),
              'application/json',
            )
          }
        >
          Save as a file
        </Button>
      </div>
    </div>
  );
}

/** Every version of the open plan that the server keeps, also those that came too late: seen, compared, restored. */
export function VersionsSheet({ onClose }: { onClose: () => void }) {
  const plan = useAppSelector(selectDocument);
  const [chosen, setChosen] = useState<number>();
  const { data, isError } = useVersionsQuery(plan?.plan.id ?? '', {
    skip: !plan,
    refetchOnMountOrArgChange: true,
  });
  if (!plan) return null;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Versions of this plan"
      about="The server keeps the last saves, and saves that lost to someone else's. Restoring one is an edit; Undo takes it back."
    >
      {isError && (
        <p role="alert" className="text-oxide">
          The server does not answer.
        </p>
      )}
      <ul aria-label="Versions">
        {data?.map(row => (
          <li key={row.id} className="border-t border-scribe">
            <button
              type="button"
              aria-expanded={chosen === row.id}
              className="flex min-h-12 w-full items-center justify-between gap-3 text-left"
              onClick={() => setChosen(chosen === row.id ? undefined : row.id)}
            >
              <span>
                {row.kind === 'saved' ? (
                  <>
                    Revision <span className="fig">{row.revision}</span>
                  </>
                ) : (
                  <b>
                    Not saved in time, made from revision <span className="fig">{row.revision}</span>
                  </b>
                )}
              </span>
              <span className="text-small text-ink2">{when(row.savedAt)}</span>
            </button>
            {chosen === row.id && <Version plan={plan} row={row} onDone={onClose} />}
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
