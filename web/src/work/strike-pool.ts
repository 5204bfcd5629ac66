import type { Result, StrikeAnswer, StrikeWish } from '@plate-fold/core';
import { inWorker, type Job } from './job';

/** As many plates are struck at once as there are processors to spare, and no more than four. */
const WORKERS = Math.max(1, Math.min(4, (navigator.hardwareConcurrency || 2) - 1));

export interface PoolTask {
  readonly key: string;
  readonly wish: StrikeWish;
}

/**
 * Strikes plates in a pool of workers, one answer at a time as they are ready. The returned function calls off what has not
 * been answered.
 */
export function strikeInPool(
  tasks: readonly PoolTask[],
  onAnswer: (key: string, answer: Result<StrikeAnswer>) => void,
): () => void {
  const waiting = [...tasks];
  const running = new Set<Job<Result<StrikeAnswer>>>();
  let off = false;
  const next = (): void => {
    const task = waiting.shift();
    if (!task || off) return;
    const job = inWorker<Result<StrikeAnswer>>(
      new Worker(new URL('./strike.worker.ts', import.meta.url), { type: 'module' }),
      task.wish,
    );
    running.add(job);
    job.result
      .then(
        a => a,
        (e: Error): Result<StrikeAnswer> => ({ ok: false, fault: `it could not be computed: ${e.message}` }),
      )
      .then(answer => {
        running.delete(job);
        if (off) return;
        onAnswer(task.key, answer);
        next();
      });
  };
  for (let i = 0; i < WORKERS; i++) next();
  return () => {
    off = true;
    for (const j of running) j.cancel();
  };
}
