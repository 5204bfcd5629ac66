import type { StrikeAnswer, StrikeWish } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { strikeOrRecall } from '../../work/kept-strikes';
import { STOP } from '../../work/strike-pool';

type Answer = Result<StrikeAnswer>;

/** As many answers are kept as an evening's planning asks for; the oldest go first. */
const MOST = 900;
const answers = new Map<string, Answer>();
const listeners = new Set<() => void>();
let version = 0;

/** What is known of a question. */
export const found = (key: string): Answer | undefined => answers.get(key);

function remember(key: string, answer: Answer): void {
  answers.set(key, answer);
  const [oldest] = answers.keys();
  if (answers.size > MOST && oldest !== undefined) answers.delete(oldest);
  version++;
  for (const tell of listeners) tell();
}

const subscribe = (tell: () => void): (() => void) => {
  listeners.add(tell);
  return () => void listeners.delete(tell);
};
const now = (): number => version;

/** Counts one up with every answer that comes in, whoever asked: what is read with `found` is read again. */
export const useAnswers = (): number => useSyncExternalStore(subscribe, now, now);

/** One who asks for strikes; what it has asked for and nobody else wants is withdrawn when it stops or goes. */
export interface Asker {
  /** asks once: nothing where it is known, or asked for already by this asker */
  readonly ask: (question: {
    readonly key: string;
    readonly wish: StrikeWish;
    readonly soon?: boolean;
  }) => void;
  /** questions that are asked and not answered */
  readonly open: ReadonlySet<string>;
  /** forgets what waits */
  readonly forget: () => void;
  /** ends what is being worked on as well */
  readonly stop: () => void;
}

/** An asker of its own; its answers are kept for everybody. */
export function makeAsker(strike: typeof strikeOrRecall = strikeOrRecall): Asker {
  const open = new Set<string>();
  let control = new AbortController();
  const withdraw = (reason: string): void => {
    control.abort(reason);
    control = new AbortController();
    open.clear();
  };
  return {
    open,
    ask: question => {
      if (answers.has(question.key) || open.has(question.key)) return;
      open.add(question.key);
      const { signal } = control;
      strike(
        question,
        answer => {
          if (!signal.aborted) open.delete(question.key);
          remember(question.key, answer);
        },
        signal,
      );
    },
    forget: () => withdraw('gone'),
    stop: () => withdraw(STOP),
  };
}

/** An asker that lives as long as its component. */
export function useAsker(): Asker {
  const asker = useMemo(() => makeAsker(), []);
  useEffect(() => asker.forget, [asker]);
  return asker;
}
