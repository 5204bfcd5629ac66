import { Smartphone } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';

const ShareDialog = lazy(async () => ({ default: (await import('./share-dialog')).ShareDialog }));

/** Only the machine that holds the data can let others in. */
export const atTheDesk = (): boolean => ['127.0.0.1', 'localhost', '[::1]'].includes(location.hostname);

/** Whether this page was let in to one shared run and reaches nothing else. */
export const isSharedPage = (): boolean => document.cookie.includes('plate-fold-phone-page=1');

/** Opens the sheet that shares this run with a phone. */
export function ShareButton({
  run,
  worded = false,
  atOnce = false,
}: {
  run: string;
  worded?: boolean;
  /** the sheet is open from the start */
  atOnce?: boolean;
}) {
  const [open, setOpen] = useState(atOnce);
  // once fetched it stays, so that the focus goes back to the button when it closes
  const [used, setUsed] = useState(atOnce);
  if (!atTheDesk()) return null;
  return (
    <>
      <button
        type="button"
        aria-label="Run on a phone"
        className={
          worded
            ? 'inline-flex min-h-11 items-center gap-1.5 px-1 text-small underline'
            : '-my-2 grid size-11 place-items-center max-desk:hidden'
        }
        onClick={() => {
          setUsed(true);
          setOpen(true);
        }}
      >
        <Smartphone size={18} aria-hidden="true" /> {worded && 'on a phone'}
      </button>
      {used && (
        <Suspense fallback={null}>
          <ShareDialog run={run} open={open} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
