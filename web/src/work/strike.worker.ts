import { type StrikeWish, strikePlate } from '@plate-fold/core';

self.onmessage = (e: MessageEvent<StrikeWish>) => {
  self.postMessage(strikePlate(e.data, () => performance.now()));
};
