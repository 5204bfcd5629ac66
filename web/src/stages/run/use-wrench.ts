import { judgeTurn, type Turn, type TurnSample } from '@plate-fold/core/sequence';
import { useCallback, useEffect, useRef, useState } from 'react';

export type WrenchMood = 'good' | 'cross-threaded' | 'stripping' | 'yielded' | 'broken';

export interface WrenchState {
  readonly state: 'idle' | 'pulling' | 'read' | 'broken';
  readonly now?: TurnSample;
  readonly peakNm: number;
  readonly clicked: boolean;
  readonly turn?: Turn;
  readonly fault?: string;
}

const IDLE: WrenchState = { state: 'idle', peakNm: 0, clicked: false };
/** No word for so long: the wrench has gone. */
const SILENT_MS = 4000;
/** What the simulated wrench is on: kept while the run is open, as a bolt's is. */
let mood: WrenchMood = 'good';

/**
 * The digital wrench on one bolt: what it reads as it turns, and how the whole pull is judged once it is let go. While `listening` a pull
 * begins by itself as a bolt comes up.
 */
export function useWrench(
  targetNm: number,
  listening: boolean,
  { onTurn }: { readonly onTurn: (turn: Turn) => void },
) {
  const [wrench, setWrench] = useState<WrenchState>(IDLE);
  const stream = useRef<EventSource | undefined>(undefined);
  const told = useRef(onTurn);
  told.current = onTurn;
  const close = useCallback(() => {
    stream.current?.close();
    stream.current = undefined;
  }, []);
  useEffect(() => close, [close]);
  const pull = useCallback((): void => {
    close();
    const samples: TurnSample[] = [];
    setWrench({ ...IDLE, state: 'pulling' });
    const es = new EventSource(`/api/devices/wrench/readings?targetNm=${targetNm}&mood=${mood}`);
    stream.current = es;
    let timer: ReturnType<typeof setTimeout>;
    const broke = (fault: string): void => {
      clearTimeout(timer);
      close();
      setWrench(w => ({ ...w, state: 'broken', fault }));
    };
    const alive = (): void => {
      clearTimeout(timer);
      timer = setTimeout(() => broke('The wrench stopped answering.'), SILENT_MS);
    };
    alive();
    const read = (e: Event): { nm: number; deg: number; peakNm: number; fault?: string } =>
      JSON.parse((e as MessageEvent<string>).data);
    es.addEventListener('reading', e => {
      alive();
      const { nm, deg } = read(e);
      samples.push({ nm, deg });
      setWrench(w => ({ ...w, now: { nm, deg }, peakNm: Math.max(w.peakNm, nm) }));
    });
    es.addEventListener('click', () => setWrench(w => ({ ...w, clicked: true })));
    es.addEventListener('released', () => {
      clearTimeout(timer);
      close();
      const turn = judgeTurn(samples, targetNm);
      setWrench(w => ({ ...w, state: 'read', turn }));
      told.current(turn);
    });
    es.addEventListener('failed', e => broke(read(e).fault ?? 'The wrench has failed.'));
    es.onerror = () => broke('The wrench stopped answering.');
  }, [targetNm, close]);
  useEffect(() => {
    if (listening) pull();
  }, [listening, pull]);
  const forget = useCallback(() => {
    close();
    setWrench(IDLE);
  }, [close]);
  const [, shown] = useState(mood);
  const setMood = useCallback((m: WrenchMood) => {
    mood = m;
    shown(m);
  }, []);
  return { wrench, pull, forget, mood, setMood };
}
