import type { PlanDocument } from '@plate-fold/core/plan';
import { type Proposal, propose, type Wish } from '@plate-fold/core/propose';
import type { UnitSystem } from '@plate-fold/core/units';
import { expose } from 'comlink';

const worker = {
  propose: (doc: PlanDocument, wish: Wish, units: UnitSystem): Proposal => propose(doc, wish, units),
};
export type ProposeWorker = typeof worker;
expose(worker);
