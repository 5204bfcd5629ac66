import type { BookAsked, BookWorker, TemplateAsked } from './book.worker';
import { inWorker, type Job } from './job';

/** Makes the build book in a worker of its own. */
export const bookInWorker = (asked: BookAsked): Job<Uint8Array<ArrayBuffer>> =>
  inWorker<BookWorker, Uint8Array<ArrayBuffer>>(
    new Worker(new URL('./book.worker.ts', import.meta.url), { type: 'module' }),
    w => w.book(asked),
  );

/** Makes a paper template of plates in a worker of its own. */
export const templateInWorker = (asked: TemplateAsked): Job<Uint8Array<ArrayBuffer>> =>
  inWorker<BookWorker, Uint8Array<ArrayBuffer>>(
    new Worker(new URL('./book.worker.ts', import.meta.url), { type: 'module' }),
    w => w.template(asked),
  );
