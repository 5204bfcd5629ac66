import { createStore, delMany, get, keys, set, type UseStore } from 'idb-keyval';

/*
 * Answers are kept on this device by the hash of all they depend on, so that a plan opens with what is known of it. The name of the worker's
 * file is part of the key: it changes with the computation, and what another version found is dropped. Where nothing can be kept all is
 * computed.
 */
export interface KeptAnswers<T> {
  readonly recalled: (key: string) => Promise<T | undefined>;
  readonly keep: (key: string, answer: T) => Promise<void>;
}

/** Answers of one kind, found by the worker at `url`; once there are more than `most` a quarter of them goes, whichever. */
export function keptAnswers<T>(kind: 'strikes' | 'fits', url: string, most: number): KeptAnswers<T> {
  let opened: Promise<UseStore | undefined> | undefined;
  async function tidied(): Promise<UseStore | undefined> {
    // while the program is being worked on its files keep their names
    if (!import.meta.env.PROD || typeof indexedDB === 'undefined') return undefined;
    const own = createStore(`plate-fold-${kind}`, 'answers');
    const all = await keys<string>(own);
    const foreign = all.filter(k => !k.startsWith(`${url} `));
    const kept = all.length - foreign.length;
    const spare = all.filter(k => k.startsWith(`${url} `)).slice(0, kept > most ? kept - (most * 3) / 4 : 0);
    if (foreign.length + spare.length > 0) await delMany([...foreign, ...spare], own);
    return own;
  }
  /** the store, once what another version left in it is gone */
  const store = (): Promise<UseStore | undefined> => {
    opened ??= tidied().catch(() => undefined);
    return opened;
  };
  return {
    recalled: async key => {
      const own = await store();
      return own && get<T>(`${url} ${key}`, own).catch(() => undefined);
    },
    keep: async (key, answer) => {
      const own = await store();
      // a full disk keeps nothing, and nothing is lost by it
      await (own && set(`${url} ${key}`, answer, own).catch(() => undefined));
    },
  };
}
