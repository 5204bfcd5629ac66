import type { StrikeAnswer, StrikeWish } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';

/** As many plates are struck at once as there are processors, and no more than four. */
export const WORKERS = Math.max(1, Math.min(4, navigator.hardwareConcurrency || 2));

type Answer = Result<StrikeAnswer>;

export interface PoolTask {
  /** names what is asked; asked again while it waits or is worked on, it is not done twice */
  readonly key: string;
  readonly wish: StrikeWish;
  /** asked for before others that wait */
  readonly soon?: boolean;
}

interface Waiting extends PoolTask {
  readonly done: ((a: Answer) => void)[];
}

interface Hand {
  worker: Worker;
  task: Waiting | undefined;
}

/** Workers are kept: their code is compiled while they work, and a fresh one would begin slowly again. */
const hands: Hand[] = [];
const queue: Waiting[] = [];

const failed = (why: string): Answer => ({ ok: false, fault: `it could not be computed: ${why}` });

function hire(hand: Hand): void {
  hand.worker = new Worker(new URL('./strike.worker.ts', import.meta.url), { type: 'module' });
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
  for (const tell of task?.done ?? []) tell(answer);
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

/** Strikes a plate when a worker is free. */
export function strikeInPool(task: PoolTask, onAnswer: (answer: Answer) => void): void {
  const same = [...hands.flatMap(h => h.task ?? []), ...queue].find(t => t.key === task.key);
  if (same) {
    same.done.push(onAnswer);
    return;
  }
  const waiting: Waiting = { ...task, done: [onAnswer] };
  if (task.soon) queue.unshift(waiting);
  else queue.push(waiting);
  next();
}

/** Forgets what waits, without an answer; `all` also ends what is being worked on. */
export function callOff(all: boolean): void {
  queue.length = 0;
  if (!all) return;
  for (const hand of hands)
    if (hand.task) {
      hand.worker.terminate();
      hand.task = undefined;
      hire(hand);
    }
}
