import type { Tick } from '@plate-fold/core/sequence';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { api, type Run } from '../../state/api';
import { useAppDispatch } from '../../state/store';
import { whoseHands } from './hands';
import { dropPhoto, keepPhoto, waitingPhotos } from './photos';
import { isSharedPage } from './share-button';
import { SHARE_ENDED, tickSender, unreadWords } from './tick-sender';
import {
  deviceName,
  freshTickId,
  keepRun,
  keepTick,
  keptRun,
  mergeTicks,
  unkeptTicks,
  waitingTicks,
} from './tick-store';

const RETRY_MS = 2500;
/** How long what another device did stands at the top, ms. */
const OTHER_MS = 12_000;

export interface RunState {
  readonly run?: Run;
  readonly ticks: readonly Tick[];
  /** ticks the server has not acknowledged yet */
  readonly waiting: number;
  /** of those, such as only this page has, because the device's store is full */
  readonly unkept: number;
  readonly fault?: string;
  /** what another device has just ticked or reported */
  readonly other?: Tick;
  readonly record: (tick: Pick<Tick, 'stepId' | 'jointId' | 'kind'> & Partial<Tick>, photo?: Blob) => void;
}

/** A clock that is behind what this device has ticked already by more than this was set back. */
const SET_BACK_MS = 60_000;

const SHARE_AWAY =
  'The desk stopped sharing or is out of range. Your ticks are kept on this device and sent when it is back; reload for a new code.';

type Answer = { readonly data?: { readonly fault?: string }; readonly status: number | string };

/**
 * A run with its ticks. A tick is written to this device before anything else, then sent until the server
 * acknowledges it; ticks of other devices come in with every answer.
 */
export function useRun(id: string): RunState {
  const dispatch = useAppDispatch();
  const [run, setRun] = useState<Run>();
  const [ticks, setTicks] = useState<readonly Tick[]>([]);
  const [waiting, setWaiting] = useState(0);
  const [unkept, setUnkept] = useState(0);
  const [fault, setFault] = useState<string>();
  const [other, setOther] = useState<Tick>();
  const known = useRef(ticks);
  known.current = ticks;

  const letter = useMemo(
    () => tickSender(id, ticks => dispatch(api.endpoints.sendTicks.initiate({ run: id, ticks }))),
    [id, dispatch],
  );
  const send = useCallback(async (): Promise<void> => {
    const sent = await letter();
    if (!sent) return;
    const { theirs, gone, left, heard, tell } = sent;
    // what the server will never take is not shown as done
    if (theirs || gone.size > 0)
      setTicks(before =>
        mergeTicks(
          before.filter(t => !gone.has(t.id)),
          theirs ?? [],
        ),
      );
    if (tell) setFault(tell.fault);
    setWaiting(left);
    setUnkept(unkeptTicks(id));
    if (heard && left > 0) void send();
    // photos follow the ticks they belong to
    if (theirs && left === 0)
      for (const { id: photo, photo: bytes } of await waitingPhotos(id)) {
        const sent = await dispatch(api.endpoints.sendPhoto.initiate({ run: id, id: photo, photo: bytes }));
        const { status } = (sent.error as Answer | undefined) ?? { status: 0 };
        // one that the server will never take is not sent again; its note is kept
        if (sent.data || status === 413 || status === 422 || status === 415) await dropPhoto(id, photo);
        if (sent.error && typeof status === 'number') setFault((sent.error as Answer).data?.fault);
      }
  }, [id, dispatch, letter]);

  useEffect(() => {
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const show = (r: Run): void => {
      setRun(r);
      setTicks(before => mergeTicks(mergeTicks(before, r.ticks), waitingTicks(id)));
      setWaiting(waitingTicks(id).length);
    };
    const load = async (): Promise<void> => {
      const call = dispatch(api.endpoints.run.initiate(id, { forceRefetch: true }));
      const { data, error } = await call;
      call.unsubscribe();
      if (gone) return;
      if (data) {
        show(data);
        setFault(unreadWords(data.unread));
        return;
      }
      const { status, data: said } = error as Answer;
      const kept = keptRun(id);
      if (kept) show(kept);
      else setFault(said?.fault ?? 'The server does not answer. Trying again …');
      if (status !== 404) timer = setTimeout(() => void load(), RETRY_MS);
    };
    void load();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [id, dispatch]);

  // what is shown is what is kept: every tick, acknowledged or not
  useEffect(() => {
    if (run) keepRun({ ...run, ticks });
  }, [run, ticks]);

  useEffect(() => {
    if (unkept === 0) return;
    const ask = (e: BeforeUnloadEvent): void => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unkept]);

  useEffect(() => {
    const timer = waiting > 0 ? setInterval(() => void send(), RETRY_MS) : undefined;
    const now = (): void => void send();
    window.addEventListener('online', now);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', now);
    };
  }, [send, waiting]);

  // what others tick shows as it happens; after a break everything is fetched once more
  useEffect(() => {
    const es = new EventSource(`/api/runs/${id}/events`);
    es.addEventListener('listening', () => void send());
    es.addEventListener('ticks', e => {
      const { ticks: made } = JSON.parse((e as MessageEvent<string>).data) as { ticks: readonly Tick[] };
      setTicks(before => mergeTicks(before, made));
      const last = made.at(-1);
      if (last && last.device !== deviceName()) setOther(last);
    });
    es.addEventListener('share-ended', () => {
      if (isSharedPage()) setFault(SHARE_ENDED);
    });
    // a phone that was not listening at that moment learns it from the line that is dead
    es.onerror = () => {
      if (isSharedPage()) setFault(SHARE_AWAY);
    };
    es.addEventListener('ended', () => setRun(r => r && { ...r, endedAt: r.endedAt ?? Date.now() }));
    return () => es.close();
  }, [id, send]);

  const record: RunState['record'] = useCallback(
    (part, photo) => {
      const device = deviceName();
      const mine = known.current.filter(t => t.device === device).map(t => t.at);
      const newest = Math.max(0, ...mine);
      const now = Date.now();
      if (newest - now > SET_BACK_MS)
        setFault(
          'This device\u2019s clock was set back. Ticks keep the order in which they were made; their times are off.',
        );
      const tick: Tick = {
        id: freshTickId(),
        at: Math.max(now, newest + 1),
        device,
        torqueNm: null,
        note: null,
        who: whoseHands() || null,
        ...part,
        ...(photo ? { photo: freshTickId() } : {}),
      };
      if (photo && tick.photo)
        void keepPhoto(id, tick.photo, photo).then(kept => {
          if (!kept) setFault('This device has no room for the photo: the note is kept without it.');
        });
      keepTick(id, tick);
      setUnkept(unkeptTicks(id));
      setTicks(before => mergeTicks(before, [tick]));
      setWaiting(n => n + 1);
      void send();
    },
    [id, send],
  );
  useEffect(() => {
    if (!other) return;
    const timer = setTimeout(() => setOther(undefined), OTHER_MS);
    return () => clearTimeout(timer);
  }, [other]);
  return { run, ticks, waiting, unkept, fault, ...(other ? { other } : {}), record };
}
