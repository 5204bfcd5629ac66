import type { FitReport } from '@plate-fold/core/fitup';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { FitWorker } from './fit.worker';
import { inWorker, type Job } from './job';

/** Tries in a worker of its own whether a build bolts up. */
export const fitInWorker = (doc: PlanDocument, build: string): Job<FitReport> =>
  inWorker<FitWorker, FitReport>(
    new Worker(new URL('./fit.worker.ts', import.meta.url), { type: 'module' }),
    w => w.fit(doc, build),
  );
