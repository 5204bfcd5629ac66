/** A text on one line: control characters and line breaks of every kind, which would end a record of a file, as blanks. */
export const oneLine = (text: string): string =>
  text
    .replace(/[\p{Cc}\u2028\u2029]+/gu, ' ')
    .replace(/\p{Cs}/gu, '\ufffd')
    .trim();

/** Characters of a file's name, without its ending. */
const MOST = 80;

/** A name that every file system takes and no folder hides in: `A-engine`. */
export const fileName = (...parts: readonly string[]): string =>
  parts
    .join('-')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, MOST)
    .replace(/^./u, c => c.toUpperCase()) || 'File';

/** Names that are all different, on file systems that do not tell capitals apart too: the second `A-engine` is `A-engine-2`. */
export function allDifferent(names: readonly string[]): readonly string[] {
  const taken = new Set<string>();
  return names.map(name => {
    let free = name;
    for (let n = 2; taken.has(free.toLowerCase()); n++) free = `${name}-${n}`;
    taken.add(free.toLowerCase());
    return free;
  });
}

/** The file names of plates by their marks and names, each its own. */
export const plateFiles = (
  plates: readonly { readonly mark: string; readonly name: string }[],
): readonly string[] => allDifferent(plates.map(p => fileName(p.mark, p.name)));
