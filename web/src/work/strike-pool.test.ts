import type { StrikeAnswer, StrikeWish } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';
import { beforeEach, describe, expect, it, vi } from 'vitest';

type Answer = Result<StrikeAnswer>;
/** Workers that work until they are told to answer. */
class SlowWorker {
  static all: SlowWorker[] = [];
  onmessage?: (e: { data: Answer }) => void;
  onerror?: (e: { message: string }) => void;
  wish: unknown;
  ended = false;
  constructor() {
    SlowWorker.all.push(this);
  }
  postMessage(wish: unknown): void {
    this.wish = wish;
  }
  terminate(): void {
    this.ended = true;
  }
  answers(fault: string): void {
    const { wish } = this;
    this.wish = undefined;
    expect(wish).toBeDefined();
    this.onmessage?.({ data: { ok: false, fault } });
  }
}
const busy = (): SlowWorker[] => SlowWorker.all.filter(w => !w.ended && w.wish !== undefined);
const wish = (name: string): StrikeWish => ({ name }) as unknown as StrikeWish;
const names = (): unknown[] => busy().map(w => (w.wish as { name: string }).name);

/** A pool of its own, with its own workers. */
async function fresh() {
  vi.resetModules();
  SlowWorker.all = [];
  vi.stubGlobal('Worker', SlowWorker);
  vi.stubGlobal('navigator', { hardwareConcurrency: 2 });
  const { strikeInPool, STOP, WORKERS } = await import('./strike-pool');
  const told: string[] = [];
  const ask = (key: string, who: string, signal?: AbortSignal, soon?: boolean): void =>
    strikeInPool(
      { key, wish: wish(key), ...(soon ? { soon } : {}) },
      a => void told.push(`${who} ${a.ok ? '' : a.fault}`),
      signal,
    );
  return { ask, told, STOP, WORKERS };
}
let pool: Awaited<ReturnType<typeof fresh>>;
beforeEach(async () => {
  pool = await fresh();
});

describe('the pool that strikes', () => {
  it('works on as many as there are processors, in turn, those that are asked for soon first', () => {
    for (const k of ['a', 'b', 'c', 'd']) pool.ask(k, k);
    pool.ask('e', 'e', undefined, true);
    expect(names()).toEqual(['a', 'b']);
    busy()[0]?.answers('1');
    expect(names()).toEqual(['e', 'b']);
    expect(pool.told).toEqual(['a 1']);
  });
  it('does what two ask for once, and tells both; one that withdraws takes nothing from the other', () => {
    const one = new AbortController();
    for (const k of ['a', 'b', 'c']) pool.ask(k, 'one', one.signal);
    pool.ask('c', 'two');
    one.abort('gone');
    // what is being worked on goes on: its answer will be asked for again
    expect(names()).toEqual(['a', 'b']);
    busy()[0]?.answers('1');
    expect(names()).toEqual(['c', 'b']);
    busy()[0]?.answers('2');
    expect(pool.told).toEqual(['one 1', 'two 2']);
  });
  it('forgets what waits when its asker goes, and ends what is worked on when it is stopped', () => {
    const [mine, other] = [new AbortController(), new AbortController()];
    for (const k of ['a', 'c', 'd']) pool.ask(k, 'mine', mine.signal);
    pool.ask('b', 'other', other.signal);
    expect(names()).toEqual(['a', 'c']);
    mine.abort(pool.STOP);
    // both hands are free again: the other's question is worked on, by a fresh worker
    expect(names()).toEqual(['b']);
    busy()[0]?.answers('1');
    expect(pool.told).toEqual(['other 1']);
    // a question that was withdrawn before it was asked is none
    pool.ask('x', 'mine', mine.signal);
    expect(names()).toEqual([]);
  });
  it('tells who asked that a worker has broken, and goes on with another', () => {
    pool.ask('a', 'one');
    const [first] = busy();
    first?.onerror?.({ message: 'out of memory' });
    expect(pool.told).toEqual(['one it could not be computed: out of memory']);
    pool.ask('b', 'two');
    expect(names()).toEqual(['b']);
    expect(busy()[0]).not.toBe(first);
  });
});
