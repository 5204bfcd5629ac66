import type { BuildAsked, BuildExtra, BuildWorker } from './build.worker';
import { inWorker, type Job } from './job';

/** Finds out of a build what takes longer than a frame, in a worker of its own. */
export const buildInWorker = (asked: BuildAsked): Job<BuildExtra> =>
  inWorker<BuildWorker, BuildExtra>(
    new Worker(new URL('./build.worker.ts', import.meta.url), { type: 'module' }),
    w => w.build(asked),
  );
