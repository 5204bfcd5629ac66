import type { StrikeAnswer, StrikeWish } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';
import workerUrl from './strike.worker.ts?worker&url';

/** The file that strikes: built, its name changes with what it computes. */
export const WORKER_URL: string = workerUrl;

/** As many plates are struck at once as there are processors, and no more than four. */
export const WORKERS = Math.max(1, Math.min(4, globalThis.navigator?.hardwareConcurrency || 2));

type Answer = Result<StrikeAnswer>;

export interface PoolTask {
  /** names what is asked; asked again while it waits or is worked on, it is not done twice */
  readonly key: string;
  readonly wish: StrikeWish;
  /** asked for before others that wait */
  readonly soon?: boolean;
}

interface Waiting extends PoolTask {
  /** those who wait for it, each with what it does with the answer */
  readonly wanted: Map<symbol, (a: Answer) => void>;
}

interface Hand {
  worker: Worker;
  task: Waiting | undefined;
}

/** Why a request is withdrawn: `STOP` ends what is being worked on as well, else only what waits is forgotten. */
export const STOP = 'stop';

/** Workers are kept: their code is compiled while they work, and a fresh one would begin slowly again. */
const hands: Hand[] = [];
const queue: Waiting[] = [];

const failed = (why: string): Answer => ({ ok: false, fault: `it could not be computed: ${why}` });

function hire(hand: Hand): void {
  hand.worker = new Worker(WORKER_URL, { type: 'module' });
  hand.worker.onmessage = (e: MessageEvent<Answer>) => finish(hand, e.data);
  hand.worker.onerror = e => {
    const why = e.message || 'the worker could not be started';
    hand.worker.terminate();
    hire(hand);
    finish(hand, failed(why));
  };
}

function finish(hand: Hand, answer: Answer): void {
  const { task } = hand;
  hand.task = undefined;
  for (const tell of task?.wanted.values() ?? []) tell(answer);
  next();
}

function next(): void {
  while (queue.length > 0) {
    let hand = hands.find(h => !h.task);
    if (!hand && hands.length < WORKERS) {
      hand = { worker: undefined as unknown as Worker, task: undefined };
      hire(hand);
      hands.push(hand);
    }
    if (!hand) return;
    hand.task = queue.shift();
    hand.worker.postMessage(hand.task?.wish);
  }
}

/** One who asked no longer wants it: it is forgotten where nobody else does. */
function withdraw(task: Waiting, who: symbol, reason: unknown): void {
  const hand = hands.find(h => h.task === task);
  // what is worked on goes on and is told, unless it is stopped: its answer will be asked for again
  if (hand && reason !== STOP) return;
  task.wanted.delete(who);
  if (task.wanted.size > 0) return;
  const at = queue.indexOf(task);
  if (at >= 0) queue.splice(at, 1);
  if (!hand) return;
  hand.worker.terminate();
  hand.task = undefined;
  hire(hand);
  next();
}

/**
 * Strikes a plate when a worker is free. Who asks may withdraw by its signal, and withdraws nothing that others asked for; after that it is
 * told nothing, but for the answer to what was being worked on.
 */
export function strikeInPool(task: PoolTask, onAnswer: (answer: Answer) => void, signal?: AbortSignal): void {
  if (signal?.aborted) return;
  const who = Symbol(task.key);
  const same = [...hands.flatMap(h => h.task ?? []), ...queue].find(t => t.key === task.key);
  const mine: Waiting = same ?? { ...task, wanted: new Map() };
  mine.wanted.set(who, onAnswer);
  signal?.addEventListener('abort', () => withdraw(mine, who, signal.reason), { once: true });
  if (same) {
    // asked for at once by one who cannot wait, it goes before the others
    const at = task.soon ? queue.indexOf(same) : -1;
    if (at > 0) queue.unshift(...queue.splice(at, 1));
    return;
  }
  if (task.soon) queue.unshift(mine);
  else queue.push(mine);
  next();
}
