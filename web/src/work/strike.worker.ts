import { type StrikeAnswer, type StrikeWish, strikePlate } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';

self.onmessage = (e: MessageEvent<StrikeWish>) => {
  let answer: Result<StrikeAnswer>;
  try {
    answer = strikePlate(e.data, () => performance.now());
  } catch (fault) {
    answer = { ok: false, fault: `it could not be computed: ${(fault as Error).message}` };
  }
  self.postMessage(answer);
};
