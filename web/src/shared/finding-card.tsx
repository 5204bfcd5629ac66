import type { Finding } from '@plate-fold/core/checks';
import { runCall } from '../state/commands/run';
import { useAppDispatch } from '../state/store';
import { useVetted } from '../state/use-vetted';
import { Button } from '../ui/button';
import { useGoTo } from './go-to';

const LOOK = {
  stop: 'border-l-oxide bg-oxidesoft border-oxide/60',
  fix: 'border-l-marker bg-markersoft border-marker/70',
  note: 'border-l-ink2 bg-paper border-scribe',
} as const;

const WORD = { stop: 'Stop', fix: 'Fix', note: 'Note' } as const;
/** Findings that come with a remedy and are told before it is taken; the rest are counted. */
const TOLD = 2;

/** A finding: what, where, why, and the remedy; a button where the remedy was tried out and mends it. */
export function FindingCard({ finding, why }: { finding: Finding; why?: string }) {
  const dispatch = useAppDispatch();
  const goTo = useGoTo();
  const { remedy } = finding;
  const vetted = useVetted(finding);
  return (
    <li className={`list-none rounded-tight border border-l-[6px] p-2.5 ${LOOK[finding.severity]}`}>
      <button
        type="button"
        title="Show it"
        className="block w-full text-left font-semibold leading-snug hover:underline"
        onClick={() => goTo(finding.where, finding.about)}
      >
        <span className="mr-1.5 text-fine font-bold tracking-wide uppercase">{WORD[finding.severity]}</span>
        {finding.text}
      </button>
      {why && <p className="mt-0.5 text-note leading-snug text-ink2">{why}</p>}
      {vetted ? (
        <>
          {vetted.brings.length > 0 && (
            <p className="mt-1.5 text-small leading-snug">
              <span className="font-bold">It causes: </span>
              {vetted.brings
                .slice(0, TOLD)
                .map(b => b.text)
                .join(' ')}
              {vetted.brings.length > TOLD && ` And ${vetted.brings.length - TOLD} more.`}
            </p>
          )}
          <Button
            look={vetted.brings.length > 0 ? undefined : 'strong'}
            className="mt-2 w-full"
            onClick={() => dispatch(runCall(vetted.mend))}
          >
            {vetted.remedy}
          </Button>
        </>
      ) : vetted === undefined ? (
        <Button className="mt-2 w-full" disabled>
          {remedy}
        </Button>
      ) : (
        remedy && <p className="mt-0.5 text-small leading-snug">{remedy}</p>
      )}
    </li>
  );
}
