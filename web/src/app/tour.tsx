import { X } from 'lucide-react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useLocation, useNavigate, useSearchParams } from 'react-router';
import { Button } from '../ui/button';
import { GUIDE } from './guide';
import { STAGES } from './stages';

const SEEN = 'plate-fold toured';
/** Whether the tour was taken or skipped on this device. */
export function wasToured(): boolean {
  try {
    return localStorage.getItem(SEEN) !== null;
  } catch {
    return true;
  }
}
export function markToured(): void {
  try {
    localStorage.setItem(SEEN, '1');
  } catch {
    // it is offered once more
  }
}
/** Where the tour of a plan begins. */
export const tourOf = (plan: string): string => `/plan/${encodeURIComponent(plan)}/${STAGES[0]?.id}?tour=1`;

/** A sentence on each stage, laid over the stage itself; by buttons, or arrow keys and Escape. */
export function Tour() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const [, , plan = '', stage] = pathname.split('/');
  const on = params.get('tour') === '1';
  const at = STAGES.findIndex(s => s.id === stage);
  const go = (i: number): void => {
    const next = STAGES[i];
    if (next) navigate(`/plan/${plan}/${next.id}?tour=1`);
    else end();
  };
  const end = (): void => {
    markToured();
    navigate(pathname);
  };
  useHotkeys('right', () => go(at + 1), { enabled: on });
  useHotkeys('left', () => at > 0 && go(at - 1), { enabled: on });
  useHotkeys('escape', end, { enabled: on });
  const here = STAGES[at];
  if (!on || !here) return null;
  return (
    <section
      aria-label="Tour"
      className="fixed inset-x-3 bottom-24 z-40 mx-auto max-w-xl rounded-edge border-2 border-fluid bg-paper p-4 text-ink shadow-xl"
    >
      <div className="flex items-start justify-between gap-3">
        <p aria-live="polite" className="text-sub leading-snug">
          <b className="fig text-ink2">
            {at + 1}/{STAGES.length}
          </b>{' '}
          {GUIDE[here.id].tour}
        </p>
        <button
          type="button"
          aria-label="Skip the tour"
          onClick={end}
          className="-mt-2 -mr-2 grid size-11 place-items-center"
        >
          <X size={20} aria-hidden="true" />
        </button>
      </div>
      <div className="mt-3 flex gap-2">
        <Button disabled={at === 0} onClick={() => go(at - 1)}>
          Back
        </Button>
        <Button look="strong" className="flex-1" onClick={() => go(at + 1)}>
          {at === STAGES.length - 1 ? 'Done' : `Next: ${STAGES[at + 1]?.name}`}
        </Button>
      </div>
    </section>
  );
}
