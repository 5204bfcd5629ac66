import type { StrikeAnswer } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';
import { createStore, delMany, get, keys, set, type UseStore } from 'idb-keyval';
import { type PoolTask, strikeInPool, WORKER_URL } from './strike-pool';

/*
 * Answers are kept on this device by the hash of all they depend on, so that a plan opens struck. The name of the worker's file is part
 * of it: it changes with the computation, and what another version found is dropped. Where nothing can be kept all is computed.
 */

/** Answers kept at most, some tens of kilobytes each; once there are more a quarter of them goes, whichever. */
const MOST = 400;

let opened: Promise<UseStore | undefined> | undefined;

/** The store, once what another version left in it is gone. */
const store = (): Promise<UseStore | undefined> => {
  opened ??= tidied().catch(() => undefined);
  return opened;
};

async function tidied(): Promise<UseStore | undefined> {
  // while the program is being worked on its files keep their names
  if (!import.meta.env.PROD || typeof indexedDB === 'undefined') return undefined;
  const own = createStore('plate-fold-strikes', 'answers');
  const all = await keys<string>(own);
  const foreign = all.filter(k => !k.startsWith(`${WORKER_URL} `));
  const kept = all.length - foreign.length;
  const spare = all
    .filter(k => k.startsWith(`${WORKER_URL} `))
    .slice(0, kept > MOST ? kept - (MOST * 3) / 4 : 0);
  if (foreign.length + spare.length > 0) await delMany([...foreign, ...spare], own);
  return own;
}

async function recalled(key: string): Promise<StrikeAnswer | undefined> {
  const own = await store();
  return own && get<StrikeAnswer>(`${WORKER_URL} ${key}`, own).catch(() => undefined);
}

async function keep(key: string, answer: StrikeAnswer): Promise<void> {
  const own = await store();
  // a full disk keeps nothing, and nothing is lost by it
  await (own && set(`${WORKER_URL} ${key}`, answer, own).catch(() => undefined));
}

/** Strikes a plate, or recalls what was found before: as `strikeInPool`. */
export function strikeOrRecall(
  task: PoolTask,
  onAnswer: (answer: Result<StrikeAnswer>) => void,
  signal?: AbortSignal,
): void {
  void recalled(task.key).then(known => {
    if (signal?.aborted) return;
    if (known) {
      onAnswer({ ok: true, value: known });
      return;
    }
    strikeInPool(
      task,
      answer => {
        onAnswer(answer);
        if (answer.ok) void keep(task.key, answer.value);
      },
      signal,
    );
  });
}
