/** A joint that may take any of several threads, the best first. */
export interface FreeThread {
  readonly id: string;
  readonly options: readonly string[];
}

/** All choices of `n` out of a list, in the list's order. */
function* picks<T>(list: readonly T[], n: number): Generator<readonly T[]> {
  if (n === 0) {
    yield [];
    return;
  }
  for (let i = 0; i + n <= list.length; i++)
    for (const rest of picks(list.slice(i + 1), n - 1)) yield [list[i] as T, ...rest];
}

/**
 * A thread for every free joint so that the job needs the fewest different threads, those that other holes dictate counted in;
 * of equally few the set whose threads stand foremost in the joints' lists. Searched through, not guessed: sets of growing size
 * until one serves every joint.
 */
export function fewestThreads(
  dictated: ReadonlySet<string>,
  free: readonly FreeThread[],
): ReadonlyMap<string, string> {
  const open = free.filter(f => f.options.length > 0);
  const rank = (f: FreeThread, allowed: (t: string) => boolean): number => f.options.findIndex(allowed);
  const unserved = open.filter(f => rank(f, t => dictated.has(t)) < 0);
  const candidates = [...new Set(unserved.flatMap(f => f.options))];
  let extra: readonly string[] = [];
  for (let n = 0; n <= candidates.length; n++) {
    let least = Number.POSITIVE_INFINITY;
    for (const set of picks(candidates, n)) {
      const ranks = unserved.map(f => rank(f, t => set.includes(t)));
      if (ranks.some(r => r < 0)) continue;
      const sum = ranks.reduce((a, b) => a + b, 0);
      if (sum < least) {
        least = sum;
        extra = set;
      }
    }
    if (least < Number.POSITIVE_INFINITY || unserved.length === 0) break;
  }
  const allowed = new Set([...dictated, ...extra]);
  return new Map(open.map(f => [f.id, f.options.find(t => allowed.has(t)) as string]));
}
