import type { StrikeAnswer, StrikeWish } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';
import { describe, expect, it } from 'vitest';
import { STOP } from '../../work/strike-pool';
import { found, makeAsker } from './store';

type Answer = Result<StrikeAnswer>;
const answer: Answer = { ok: false, fault: 'x' };
const wish = {} as StrikeWish;
/** A pool that answers when it is told to. */
function pool() {
  const asked = new Map<string, { tell: (a: Answer) => void; signal: AbortSignal | undefined }>();
  return {
    asked,
    strike: (t: { key: string }, tell: (a: Answer) => void, signal?: AbortSignal) =>
      void asked.set(t.key, { tell, signal }),
    answers: (key: string) => asked.get(key)?.tell(answer),
  };
}

describe('one who asks for strikes', () => {
  it('asks once for what is neither known nor asked for, and knows what is open', () => {
    const p = pool();
    const asker = makeAsker(p.strike);
    asker.ask({ key: 'one', wish });
    asker.ask({ key: 'one', wish });
    asker.ask({ key: 'two', wish });
    expect([...asker.open]).toEqual(['one', 'two']);
    expect(p.asked.size).toBe(2);
    p.answers('one');
    expect([...asker.open]).toEqual(['two']);
    expect(found('one')).toBe(answer);
    p.asked.clear();
    asker.ask({ key: 'one', wish });
    expect(p.asked.size).toBe(0);
  });
  it('withdraws its own questions alone, and says whether what is worked on is to end', () => {
    const p = pool();
    const [mine, others] = [makeAsker(p.strike), makeAsker(p.strike)];
    mine.ask({ key: 'mine', wish });
    others.ask({ key: 'others', wish });
    mine.forget();
    expect(p.asked.get('mine')?.signal?.aborted).toBe(true);
    expect(p.asked.get('mine')?.signal?.reason).not.toBe(STOP);
    expect(p.asked.get('others')?.signal?.aborted).toBe(false);
    expect(mine.open.size).toBe(0);
    others.stop();
    expect(p.asked.get('others')?.signal?.reason).toBe(STOP);
    // what was being worked on and comes in all the same is kept, and opens nothing again
    p.answers('mine');
    expect(found('mine')).toBe(answer);
    mine.ask({ key: 'anew', wish });
    expect([...mine.open]).toEqual(['anew']);
  });
  it('keeps an answer until many others have come', () => {
    const p = pool();
    const asker = makeAsker(p.strike);
    const ask = (key: string): void => {
      asker.ask({ key, wish });
      p.answers(key);
    };
    ask('first of many');
    for (let i = 0; i < 899; i++) ask(`n${i}`);
    expect(found('first of many')).toBe(answer);
    ask('one too many');
    expect(found('first of many')).toBeUndefined();
  });
});
