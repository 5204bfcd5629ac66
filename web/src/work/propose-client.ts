import type { PlanDocument } from '@plate-fold/core/plan';
import type { Proposal, Wish } from '@plate-fold/core/propose';
import type { UnitSystem } from '@plate-fold/core/units';
import { inWorker, type Job } from './job';
import type { ProposeWorker } from './propose.worker';

/** Lays out a set in a worker of its own, its reasons in the reader's units. */
export const proposeInWorker = (doc: PlanDocument, wish: Wish, units: UnitSystem): Job<Proposal> =>
  inWorker<ProposeWorker, Proposal>(
    new Worker(new URL('./propose.worker.ts', import.meta.url), { type: 'module' }),
    w => w.propose(doc, wish, units),
  );
