import type { BoltUp } from '@plate-fold/core/compare';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { BoltUpWorker } from './bolt-up.worker';
import { inWorker, type Job } from './job';

/** Looks in a worker of its own for the few changes of holes that make a build bolt up. */
export const boltUpInWorker = (doc: PlanDocument, build: string, measured: boolean): Job<BoltUp> =>
  inWorker<BoltUpWorker, BoltUp>(
    new Worker(new URL('./bolt-up.worker.ts', import.meta.url), { type: 'module' }),
    w => w.boltUp(doc, build, measured),
  );
