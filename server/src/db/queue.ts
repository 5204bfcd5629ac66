/**
 * Runs writes one after another. The database client waits for a lock synchronously, so two transactions at once
 * would freeze the server: all writes go through one queue. Between two of them whoever else has asked for something is heard.
 */
export function writeQueue(): <T>(write: () => Promise<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return write => {
    const turn = last.then(() => new Promise(setImmediate));
    const mine = turn.then(write);
    last = mine.catch(() => undefined);
    return mine;
  };
}
