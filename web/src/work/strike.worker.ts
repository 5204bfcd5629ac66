import { type Result, type StrikeAnswer, type StrikeWish, strikePlate } from '@plate-fold/core';

self.onmessage = (e: MessageEvent<StrikeWish>) => {
  let answer: Result<StrikeAnswer>;
  try {
    answer = strikePlate(e.data, () => performance.now());
  } catch (fault) {
    answer = { ok: false, fault: `it could not be computed: ${(fault as Error).message}` };
  }
  self.postMessage(answer);
};
