import { type PlanDocument, propose, type UnitSystem, type Wish } from '@plate-fold/core';

self.onmessage = (e: MessageEvent<{ doc: PlanDocument; wish: Wish; units: UnitSystem }>) => {
  self.postMessage(propose(e.data.doc, e.data.wish, e.data.units));
};
