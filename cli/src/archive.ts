import { existsSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readOptions } from './options';
import type { Streams } from './streams';

export const ARCHIVE_USAGE =
  'platefold backup --data DIR --out FILE [--plan ID] [--versions]; platefold restore FILE --data DIR [--existing replace|both]';

interface Call {
  readonly verb: 'backup' | 'restore';
  readonly file?: string;
  readonly data: string;
  readonly out?: string;
  readonly plan?: string;
  readonly existing?: 'replace' | 'both';
  readonly versions: boolean;
}

function parse([verb, ...args]: readonly string[]): Call | string {
  const call = readOptions(args, { words: ['data', 'out', 'plan', 'existing'], flags: ['versions'] });
  if (typeof call === 'string') return `${call}. ${ARCHIVE_USAGE}`;
  const { words: files, given } = call;
  const { data, out, plan, existing } = given;
  const versions = call.flags.has('versions');
  if (data === undefined) return `${verb} needs --data DIR, the folder of the database. ${ARCHIVE_USAGE}`;
  if (existing !== undefined && existing !== 'replace' && existing !== 'both')
    return `--existing is "${existing}", but must be replace or both`;
  if (verb === 'backup' && (out === undefined || files.length > 0))
    return `backup needs --out FILE. ${ARCHIVE_USAGE}`;
  if (verb === 'restore' && files.length !== 1) return `restore needs one file. ${ARCHIVE_USAGE}`;
  return { verb: verb as Call['verb'], data, out, plan, existing, versions, file: files[0] };
}

const some = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;

/** Takes plans with runs, logs and photos out of a data folder into one file, or puts such a file in. The exit code: 0, or 2 with one line. */
export async function runArchive(args: readonly string[], { out, err }: Streams): Promise<number> {
  const fail = (why: string): number => {
    err(`platefold: ${why}\n`);
    return 2;
  };
  const call = parse(args);
  if (typeof call === 'string') return fail(call);
  // only here is a database needed: the other verbs work from files alone
  const { collect, DatabaseFault, openStore, packed, Refusal, restore, unpacked, wordsOf } = await import(
    '@plate-fold/server'
  );
  if (call.verb === 'backup' && !existsSync(join(call.data, 'plate-fold.db')))
    return fail(`there is no database in ${call.data}`);
  let bytes: Uint8Array | undefined;
  if (call.file !== undefined)
    try {
      bytes = await readFile(call.file);
    } catch (e) {
      const { code } = e as NodeJS.ErrnoException;
      return fail(
        code === 'ENOENT' ? `there is no file ${call.file}` : `${call.file} cannot be read (${code})`,
      );
    }
  try {
    const archive = bytes && (await unpacked(bytes));
    const store = await openStore(call.data);
    try {
      if (archive) {
        const done = await restore(store, archive, call.existing);
        out(
          `${done.plans.join('\n')}\n${some(done.plans.length, 'plan')}, ${some(done.runs, 'run')}, ${some(done.photos, 'photo')} restored\n`,
        );
        return 0;
      }
      const made = await collect(store, { plan: call.plan, versions: call.versions });
      await writeFile(call.out as string, await packed(made));
      const runs = made.plans.reduce((n, p) => n + p.runs.length, 0);
      out(`${call.out}\n${some(made.plans.length, 'plan')}, ${some(runs, 'run')}\n`);
      return 0;
    } finally {
      await store.close();
    }
  } catch (e) {
    if (e instanceof Refusal && e.status === 409) return fail(`${e.message} Say --existing replace|both.`);
    if (e instanceof Refusal || e instanceof DatabaseFault) return fail(e.message);
    return fail(wordsOf(e).split('\n')[0] ?? 'it could not be done');
  }
}
