import type { FoldedPanel, Nest, NestWish } from '@plate-fold/core/fold';
import { inWorker, type Job } from './job';
import type { NestWorker } from './nest.worker';

/** Lays the blanks of a build on stock sheets in a worker of its own. */
export const nestInWorker = (panels: readonly FoldedPanel[], wish: NestWish): Job<Nest> =>
  inWorker<NestWorker, Nest>(
    new Worker(new URL('./nest.worker.ts', import.meta.url), { type: 'module' }),
    w => w.nest(panels, wish),
  );
