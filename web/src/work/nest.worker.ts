import { type FoldedPanel, type Nest, type NestWish, nest } from '@plate-fold/core/fold';
import { expose } from 'comlink';

const worker = {
  nest: (panels: readonly FoldedPanel[], wish: NestWish): Nest => nest(panels, wish),
};
export type NestWorker = typeof worker;
expose(worker);
