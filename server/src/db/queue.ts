/**
 * Runs writes one after another. The database client waits for a lock synchronously, so two transactions at once
 * would freeze the server: all writes go through one queue.
 */
export function writeQueue(): <T>(write: () => Promise<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return write => {
    const mine = last.then(write, write);
    last = mine.catch(() => undefined);
    return mine;
  };
}
