import { useEffect, useState } from 'react';
import { encode } from 'uqr';
import { useEndShareMutation, useOpenShareMutation, useShareQuery } from '../../state/api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';

/** A QR code as one path of dark squares. */
function Qr({ text, size }: { text: string; size: number }) {
  const { data, size: n } = encode(text, { border: 2 });
  const d = data.flatMap((row, y) => row.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : []))).join('');
  return (
    <svg
      width={size}
      height={size}
      viewBox={`0 0 ${n} ${n}`}
      role="img"
      aria-label="QR code that opens the run on a phone"
    >
      <rect width={n} height={n} fill="#fff" />
      <path d={d} fill="#000" shapeRendering="crispEdges" />
    </svg>
  );
}

/** Lets a phone on the same network take part in a run: a one-time code to scan or to type. */
export function ShareDialog({ run, open, onClose }: { run: string; open: boolean; onClose: () => void }) {
  const { data: share } = useShareQuery(undefined, { skip: !open, pollingInterval: 3000 });
  const [begin, beginning] = useOpenShareMutation();
  const [end] = useEndShareMutation();
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    if (!open) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [open]);
  const mine = share?.run === run ? share : undefined;
  const address = mine?.addresses?.[0];
  const left = mine?.code ? Math.max(0, Math.round((mine.code.expiresAt - now) / 1000)) : 0;
  const fault = (beginning.error as { data?: { fault?: string } } | undefined)?.data?.fault;
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Run on a phone"
      about="The phone must be on the same network. What goes over it is not encrypted."
    >
      {!mine ? (
        <>
          {share?.run && <p className="mb-2">Another run is shared now. This one replaces it.</p>}
          <Button
            look="strong"
            className="min-h-14 w-full"
            disabled={beginning.isLoading}
            onClick={() => void begin(run)}
          >
            Share this run
          </Button>
          {fault && (
            <p role="alert" className="mt-2 text-oxide">
              {fault}
            </p>
          )}
        </>
      ) : (
        <>
          {mine.code && left > 0 && address ? (
            <div className="grid justify-items-center gap-2">
              <Qr text={`${address}/#${mine.code.text}`} size={240} />
              <p className="text-center">
                or open <span className="fig font-semibold break-all">{address}</span> and type
              </p>
              <p className="fig text-figure leading-none font-semibold tracking-[0.12em]" data-code>
                {mine.code.text}
              </p>
              <p className="text-small text-ink2">
                Works for one device, for {Math.floor(left / 60)}:{String(left % 60).padStart(2, '0')}{' '}
                minutes.
              </p>
            </div>
          ) : (
            <Button className="min-h-14 w-full" onClick={() => void begin(run)}>
              Show a new code
            </Button>
          )}
          <p className="mt-3 text-center" role="status">
            {mine.devices === 0
              ? 'No device has joined yet.'
              : `${mine.devices} ${mine.devices === 1 ? 'device has' : 'devices have'} joined.`}
          </p>
          {mine.wrong && (
            <div
              role="alert"
              className="mt-2 border border-l-[6px] border-oxide/60 border-l-oxide bg-oxidesoft p-3"
            >
              <p>
                {mine.wrong.tries === 1 ? 'One wrong code was' : `${mine.wrong.tries} wrong codes were`}{' '}
                tried, from <span className="fig">{mine.wrong.from.join(', ')}</span>. If that was not you,
                stop sharing. The code itself still works.
              </p>
              <Button className="mt-2 w-full" onClick={() => void begin(run)}>
                Show a fresh code
              </Button>
            </div>
          )}
          <p className="mt-1 text-small leading-snug text-ink2">
            Keep the page open on the phone: on a local network the browser cannot reopen it offline or keep
            the screen on. Ticks stay on the phone and are sent when it is back in range.
          </p>
          <Button className="mt-3 w-full" onClick={() => void end()}>
            Stop sharing
          </Button>
        </>
      )}
    </Dialog>
  );
}
