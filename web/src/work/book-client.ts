import type { BookAsked } from './book.worker';
import { inWorker, type Job } from './job';

/** Makes the build book in a worker of its own. */
export const bookInWorker = (
  asked: BookAsked,
): Job<{ readonly pdf: Uint8Array<ArrayBuffer> } | { readonly fault: string }> =>
  inWorker(new Worker(new URL('./book.worker.ts', import.meta.url), { type: 'module' }), asked);
