import type { Tick } from '@plate-fold/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { api, type Run } from '../../app/api';
import { useDo } from '../../app/store';
import {
  deviceName,
  dropTick,
  freshTickId,
  keepRun,
  keepTick,
  keptRun,
  mergeTicks,
  waitingTicks,
} from './tick-store';

const RETRY_MS = 2500;
const LISTEN_MS = 8000;

export interface RunState {
  readonly run?: Run;
  readonly ticks: readonly Tick[];
  /** ticks the server has not acknowledged yet */
  readonly waiting: number;
  readonly fault?: string;
  readonly record: (tick: Pick<Tick, 'stepId' | 'jointId' | 'kind'> & Partial<Tick>) => void;
}

type Answer = { data?: { fault?: string }; status: number | string };

/**
 * A run with its ticks. A tick is written to this device before anything else, then sent until the server
 * acknowledges it; ticks of other devices come in with every answer.
 */
export function useRun(id: string): RunState {
  const dispatch = useDo();
  const [run, setRun] = useState<Run>();
  const [ticks, setTicks] = useState<readonly Tick[]>([]);
  const [waiting, setWaiting] = useState(0);
  const [fault, setFault] = useState<string>();
  const busy = useRef(false);

  const send = useCallback(async (): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    const open = waitingTicks(id);
    const { data, error } = await dispatch(
      api.endpoints.sendTicks.initiate({ run: id, ticks: open.slice(0, 500) }),
    );
    busy.current = false;
    if (data) {
      for (const t of data.received) dropTick(id, t);
      setTicks(known => mergeTicks(known, data.ticks));
      setFault(undefined);
    } else {
      const { status, data: said } = error as Answer;
      if (typeof status === 'number' && status < 500) setFault(said?.fault);
    }
    const left = waitingTicks(id).length;
    setWaiting(left);
    if (data && left > 0) void send();
  }, [id, dispatch]);

  useEffect(() => {
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const show = (r: Run): void => {
      setRun(r);
      setTicks(known => mergeTicks(mergeTicks(known, r.ticks), waitingTicks(id)));
      setWaiting(waitingTicks(id).length);
    };
    const load = async (): Promise<void> => {
      const call = dispatch(api.endpoints.run.initiate(id, { forceRefetch: true }));
      const { data, error } = await call;
      call.unsubscribe();
      if (gone) return;
      if (data) {
        keepRun(data);
        show(data);
        setFault(undefined);
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

  useEffect(() => {
    const timer = setInterval(() => void send(), waiting > 0 ? RETRY_MS : LISTEN_MS);
    const now = (): void => void send();
    window.addEventListener('online', now);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', now);
    };
  }, [send, waiting]);

  const record: RunState['record'] = useCallback(
    part => {
      const tick: Tick = {
        id: freshTickId(),
        at: Date.now(),
        device: deviceName(),
        torqueNm: null,
        note: null,
        ...part,
      };
      if (!keepTick(id, tick))
        setFault(
          'This device cannot keep the tick: its store is full. Leave the page open until it is sent.',
        );
      setTicks(known => mergeTicks(known, [tick]));
      setWaiting(n => n + 1);
      void send();
    },
    [id, send],
  );
  return { run, ticks, waiting, fault, record };
}
