import type { FitReport } from '@plate-fold/core/fitup';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { FitWorker } from './fit.worker';
import workerUrl from './fit.worker.ts?worker&url';
import { inWorker, type Job } from './job';
import { keptAnswers } from './kept-answers';

/** So many answers, some tens of kilobytes each. */
const kept = keptAnswers<FitReport>('fits', workerUrl, 60);

/** Tries in a worker of its own whether a build bolts up, or recalls what was found before; `key` names all that the answer depends on. */
export function fitOrRecall(doc: PlanDocument, build: string, key: string): Job<FitReport> {
  let cancel: (() => void) | undefined;
  let canceled = false;
  const result = kept.recalled(key).then(known => {
    // nobody waits any more
    if (known || canceled) return known ?? new Promise<FitReport>(() => undefined);
    const job = inWorker<FitWorker, FitReport>(new Worker(workerUrl, { type: 'module' }), w =>
      w.fit(doc, build),
    );
    ({ cancel } = job);
    void job.result.then(
      report => kept.keep(key, report),
      () => undefined,
    );
    return job.result;
  });
  return {
    result,
    cancel: () => {
      canceled = true;
      cancel?.();
    },
  };
}
