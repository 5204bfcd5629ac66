import { assemble } from '@plate-fold/core/derive';
import { type FitReport, fitReport } from '@plate-fold/core/fitup';
import type { PlanDocument } from '@plate-fold/core/plan';
import { expose } from 'comlink';

const worker = {
  fit: (doc: PlanDocument, build: string): FitReport => fitReport(assemble(doc, build)),
};
export type FitWorker = typeof worker;
expose(worker);
