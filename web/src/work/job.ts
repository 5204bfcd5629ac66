import { type Remote, releaseProxy, wrap } from 'comlink';

/** Work that goes on elsewhere and can be called off. */
export interface Job<T> {
  readonly result: Promise<T>;
  readonly cancel: () => void;
}

/**
 * Asks one question of a worker of its own, which ends when it has answered; canceling ends it at once, and nobody is told. What the worker
 * throws, or why it could not be started, comes back as the reason.
 */
export function inWorker<W, T>(worker: Worker, ask: (remote: Remote<W>) => Promise<T>): Job<T> {
  const remote = wrap<W>(worker);
  let ended = false;
  const end = (): void => {
    if (ended) return;
    ended = true;
    remote[releaseProxy]();
    worker.terminate();
  };
  const result = new Promise<T>((done, fail) => {
    worker.onerror = e => fail(new Error(e.message || 'the worker could not be started'));
    ask(remote).then(done, fail);
  });
  result.then(end, end);
  return { result, cancel: end };
}
