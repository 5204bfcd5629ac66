import { type BoltUp, boltUp } from '@plate-fold/core/compare';
import { gatherFacts } from '@plate-fold/core/derive';
import type { PlanDocument } from '@plate-fold/core/plan';
import { expose } from 'comlink';

const worker = {
  boltUp: (doc: PlanDocument, build: string, measured: boolean): BoltUp =>
    boltUp(gatherFacts(doc, build), { measured }),
};
export type BoltUpWorker = typeof worker;
expose(worker);
