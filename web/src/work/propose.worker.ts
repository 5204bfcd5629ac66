import type { PlanDocument } from '@plate-fold/core/plan';
import { propose, type Wish } from '@plate-fold/core/propose';
import type { UnitSystem } from '@plate-fold/core/units';

self.onmessage = (e: MessageEvent<{ doc: PlanDocument; wish: Wish; units: UnitSystem }>) => {
  self.postMessage(propose(e.data.doc, e.data.wish, e.data.units));
};
