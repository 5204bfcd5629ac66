import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { collect, openStore, startServer } from '@plate-fold/server';
import { describe, expect, it } from 'vitest';
import { main } from './main';

const folder = () => mkdtemp(join(tmpdir(), 'platefold-cli-'));
const platefold = async (...args: string[]) => {
  let [out, err] = ['', ''];
  const code = await main(args, { out: t => (out += t), err: t => (err += t) });
  return { code, out, err };
};
/** Everything in a data folder, but for the moment it was taken out. */
const kept = async (data: string) => {
  const store = await openStore(data);
  const { madeAt: _, ...all } = await collect(store);
  await store.close();
  return JSON.parse(JSON.stringify(all, (_, v) => (v instanceof Uint8Array ? [...v] : v)));
};

describe('backup and restore', () => {
  it('take everything out of a data folder, also while its server runs, and put it into another', async () => {
    const [from, to] = [await folder(), await folder()];
    const server = await startServer({ dataDir: from, port: 0, quiet: true });
    const file = join(await folder(), 'all.platefold.zip');
    const made = await platefold('backup', '--data', from, '--out', file, '--versions');
    await server.close();
    expect(made).toEqual({ code: 0, out: `${file}\n4 plans, 1 run\n`, err: '' });
    const back = await platefold('restore', file, '--data', to);
    expect([back.code, back.out]).toEqual([0, expect.stringContaining('4 plans, 1 run, 2 photos restored')]);
    expect(await kept(to)).toEqual(await kept(from));
    const again = await platefold('restore', file, '--data', to);
    expect([again.code, again.err]).toEqual([2, expect.stringContaining('--existing replace|both')]);
    expect((await platefold('restore', file, '--data', to, '--existing', 'replace')).code).toBe(0);
    expect(await kept(to)).toEqual(await kept(from));
    const one = join(from, 'one.zip');
    await platefold('backup', '--data', from, '--out', one, '--plan', 'pebble-tray');
    expect((await platefold('restore', one, '--data', to, '--existing', 'both')).out).toContain(
      'pebble-tray-2',
    );
  });

  it('say in one line what is wrong, and change nothing', async () => {
    const [data, other] = [await folder(), await folder()];
    const server = await startServer({ dataDir: data, port: 0, quiet: true });
    await server.close();
    const file = join(other, 'all.zip');
    await platefold('backup', '--data', data, '--out', file);
    const torn = join(other, 'torn.zip');
    await writeFile(torn, (await readFile(file)).subarray(0, 500));
    const before = await kept(data);
    const wrong: readonly [args: string[], says: string][] = [
      [['restore', torn, '--data', data], 'not a whole zip file'],
      [['restore', join(other, 'none.zip'), '--data', data], 'there is no file'],
      [['restore', file, '--data', data, '--existing', 'maybe'], 'must be replace or both'],
      [['restore', '--data', data], 'needs one file'],
      [['restore', file], 'needs --data DIR'],
      [['backup', '--data', other, '--out', file], 'there is no database in'],
      [['backup', '--data', data], 'needs --out FILE'],
      [['backup', '--data', data, '--out', join(other, 'no', 'where.zip')], 'ENOENT'],
      [['backup', '--data', data, '--out', file, '--plan', 'none'], 'There is no plan "none"'],
      [['backup', '--data', data, '--all'], 'unknown option --all'],
    ];
    for (const [args, says] of wrong) {
      const { code, err } = await platefold(...args);
      expect([code, err]).toEqual([2, expect.stringContaining(says)]);
      expect(err.trim().split('\n')).toHaveLength(1);
    }
    expect(await kept(data)).toEqual(before);
  });
});
