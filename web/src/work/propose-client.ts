import type { PlanDocument, Proposal, UnitSystem, Wish } from '@plate-fold/core';
import { inWorker, type Job } from './job';

/** Lays out a set in a worker of its own, its reasons in the reader's units. */
export const proposeInWorker = (doc: PlanDocument, wish: Wish, units: UnitSystem): Job<Proposal> =>
  inWorker(new Worker(new URL('./propose.worker.ts', import.meta.url), { type: 'module' }), {
    doc,
    wish,
    units,
  });
