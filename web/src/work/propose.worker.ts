import { type PlanDocument, propose, type Wish } from '@plate-fold/core';

self.onmessage = (e: MessageEvent<{ doc: PlanDocument; wish: Wish }>) => {
  self.postMessage(propose(e.data.doc, e.data.wish));
};
