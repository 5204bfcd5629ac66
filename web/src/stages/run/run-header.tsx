import type { Screen, Tick } from '@plate-fold/core/sequence';
import { ListChecks } from 'lucide-react';
import type { Run } from '../../state/api';
import { STAGE_NAMES } from '../../ui/names';
import { HandsButton } from './hands-button';
import { ShareButton } from './share-button';
import type { Walked } from './use-screens';

/** What somebody on another device has just done, in words. */
function otherWords({ who, kind, stepId, jointId, note }: Tick, { moves }: Walked): string {
  const title = moves.find(m => m.step.id === stepId)?.step.title;
  const what = jointId ? `${jointId}, ${title ?? stepId}` : (title ?? note ?? '');
  const did = {
    done: 'done',
    undone: 'not done after all',
    deviation: 'problem',
    override: 'left as it is',
    claim: 'takes a plate',
    dismissed: '',
  }[kind];
  return did === '' ? '' : `${who ?? 'Another device'}: ${did}, ${what}`;
}

/** Where one is in a run, who is working, and the way to every step. */
export function RunHeader(props: {
  readonly run: Run;
  readonly walked: Walked;
  readonly screen?: Screen;
  readonly at: number;
  readonly waiting: number;
  /** of those, such as only the page has */
  readonly unkept: number;
  readonly fault?: string;
  /** what another device has just done */
  readonly other?: Tick;
  /** the sheet for a phone is open from the start */
  readonly phone: boolean;
  readonly onSteps: () => void;
}) {
  const { run, walked, screen, at, waiting, unkept, fault, other } = props;
  const { screens, moves, done, facts } = walked;
  const step = screen?.steps[0];
  const plates = step?.panels.flatMap(id => facts.panels.find(p => p.panel.id === id)?.panel ?? []) ?? [];
  const said = [
    waiting > unkept ? `${waiting - unkept} kept on this device, sent when the server answers` : '',
    unkept > 0
      ? `${unkept} ${unkept === 1 ? 'tick is' : 'ticks are'} only on this page: this device’s storage is full. Keep the page open until ${unkept === 1 ? 'it is' : 'they are'} sent`
      : '',
    fault ?? '',
    other && !fault ? otherWords(other, walked) : '',
  ].filter(Boolean);
  return (
    <header className="shrink-0 px-3 pt-1 print:hidden desk:mx-auto desk:w-full desk:max-w-6xl desk:px-8">
      <div className="flex min-h-11 flex-wrap items-center gap-x-2 text-body text-ink2">
        <button
          type="button"
          className="inline-flex min-h-11 items-center gap-1.5 pr-2 font-semibold text-ink"
          onClick={props.onSteps}
        >
          <ListChecks size={19} aria-hidden="true" />
          <span>
            <span className="sr-only">All steps: </span>
            <span className="fig">{Math.min(at + 1, screens.length)}</span> of{' '}
            <span className="fig">{screens.length}</span>
          </span>
        </button>
        <span className="min-w-0 flex-1 truncate">
          {step ? STAGE_NAMES[step.stage] : 'Done'}
          {plates.length === 1 ? ` · ${plates[0]?.mark} ${plates[0]?.name}` : ''}
        </span>
        <HandsButton />
        <ShareButton run={run.id} atOnce={props.phone} />
      </div>
      <div
        role="progressbar"
        aria-label="Moves done"
        aria-valuemin={0}
        aria-valuemax={moves.length}
        aria-valuenow={done}
        className="h-1.5 bg-scribe"
      >
        <div className="h-full bg-fluid" style={{ width: `${(done / Math.max(1, moves.length)) * 100}%` }} />
      </div>
      <p
        role="status"
        className={`text-small ${fault || unkept > 0 ? 'font-semibold text-oxide' : 'text-ink2'}`}
      >
        {said.join('. ')}
      </p>
    </header>
  );
}
