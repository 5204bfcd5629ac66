import type { PlanDocument, Proposal, Wish } from '@plate-fold/core';
import { inWorker, type Job } from './job';

/** Lays out a set in a worker of its own. */
export const proposeInWorker = (doc: PlanDocument, wish: Wish): Job<Proposal> =>
  inWorker(new Worker(new URL('./propose.worker.ts', import.meta.url), { type: 'module' }), { doc, wish });
