import { type FoldedPanel, type NestWish, nest } from '@plate-fold/core/fold';

self.onmessage = (e: MessageEvent<{ panels: readonly FoldedPanel[]; wish: NestWish }>) => {
  self.postMessage(nest(e.data.panels, e.data.wish));
};
