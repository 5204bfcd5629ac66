import { type DrawnPlates, type LaidIn, readDxf, tableLaidIn } from '@plate-fold/core/formats';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { RigList } from '@plate-fold/core/rig';
import type { Result, UnitSystem } from '@plate-fold/core/units';
import { expose } from 'comlink';

const worker = {
  dxf: (text: string, perUnit?: number): Result<DrawnPlates> => readDxf(text, perUnit),
  table: (doc: PlanDocument, list: RigList, text: string, units: UnitSystem): LaidIn =>
    tableLaidIn(doc, list, text, units),
};
export type ReadWorker = typeof worker;
expose(worker);
