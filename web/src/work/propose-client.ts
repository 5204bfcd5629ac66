import type { PlanDocument, Proposal, Wish } from '@plate-fold/core';

export interface Job<T> {
  readonly result: Promise<T>;
  readonly cancel: () => void;
}

/** Lays out a set in a worker of its own; cancelling ends the worker. */
export function proposeInWorker(doc: PlanDocument, wish: Wish): Job<Proposal> {
  const worker = new Worker(new URL('./propose.worker.ts', import.meta.url), { type: 'module' });
  const result = new Promise<Proposal>((done, fail) => {
    worker.onmessage = (e: MessageEvent<Proposal>) => {
      done(e.data);
      worker.terminate();
    };
    worker.onerror = e => {
      fail(new Error(e.message || 'the worker could not be started'));
      worker.terminate();
    };
  });
  worker.postMessage({ doc, wish });
  return { result, cancel: () => worker.terminate() };
}
