/** Work that goes on elsewhere and can be called off. */
export interface Job<T> {
  readonly result: Promise<T>;
  readonly cancel: () => void;
}

/** Hands one message to a worker of its own and waits for its answer; cancelling ends the worker. */
export function inWorker<T>(worker: Worker, message: unknown): Job<T> {
  const result = new Promise<T>((done, fail) => {
    worker.onmessage = (e: MessageEvent<T>) => {
      done(e.data);
      worker.terminate();
    };
    worker.onerror = e => {
      fail(new Error(e.message || 'the worker could not be started'));
      worker.terminate();
    };
  });
  worker.postMessage(message);
  return { result, cancel: () => worker.terminate() };
}
