import { parseArgs } from 'node:util';

/** What was called: words that belong to no option, options with theirs, and flags that are set. */
export interface Options<K extends string, F extends string> {
  readonly words: readonly string[];
  readonly given: Readonly<Partial<Record<K, string>>>;
  readonly flags: ReadonlySet<F>;
}

/** Reads a call: options that take a word (`--out DIR`) and flags (`--json`), in any order; a sentence where it is none of this. */
export function readOptions<K extends string, F extends string>(
  args: readonly string[],
  { words, flags }: { readonly words: readonly K[]; readonly flags: readonly F[] },
): Options<K, F> | string {
  const { tokens } = parseArgs({
    args: [...args],
    options: {
      ...Object.fromEntries(words.map(w => [w, { type: 'string' as const }])),
      ...Object.fromEntries(flags.map(f => [f, { type: 'boolean' as const }])),
    },
    strict: false,
    allowPositionals: true,
    tokens: true,
  });
  const said: string[] = [];
  const given: Partial<Record<K, string>> = {};
  const set = new Set<F>();
  for (const t of tokens) {
    if (t.kind === 'positional') said.push(t.value);
    if (t.kind !== 'option') continue;
    if (words.some(w => w === t.name)) {
      if (t.value === undefined) return `${t.rawName} needs a word after it`;
      given[t.name as K] = t.value;
    } else if (flags.some(f => f === t.name) && t.value === undefined) set.add(t.name as F);
    else return `unknown option ${t.rawName}`;
  }
  return { words: said, given, flags: set };
}
