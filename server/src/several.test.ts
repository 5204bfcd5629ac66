import { spawn } from 'node:child_process';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createClient } from '@libsql/client';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from './index';
import { asking } from './testing/asking';
import { libsqlServer } from './testing/libsql-server';

const DEMO = demo('pebble');
const ID = DEMO.plan.id as string;
const folder = () => mkdtemp(join(tmpdir(), 'platefold-several-'));
const json = (server: RunningServer, path: string, method?: string, body?: unknown) =>
  asking(() => server)(path, method, body);

/** Edits from two servers at once, each again on what is newest until it is in; what is stored in the end. */
async function editedByBoth(servers: readonly RunningServer[], edits: number): Promise<readonly string[]> {
  const names: string[] = [];
  await Promise.all(
    servers.map(async (server, k) => {
      for (let i = 0; i < edits; i++) {
        const id = `hole-${k}-${i}`;
        for (let tries = 0; ; tries++) {
          if (tries > 200) throw new Error(`edit ${id} never got in`);
          const { body: now } = await json(server, `/api/documents/${ID}`);
          const patch = [
            { op: 'add', path: '/plan/panels/0/guards/-', value: now.document.rig.components[0].id },
            { op: 'add', path: '/plan/notes', value: `${now.document.plan.notes ?? ''} ${id}` },
          ];
          const r = await json(server, `/api/documents/${ID}`, 'PATCH', {
            baseRevision: now.revision,
            patch,
          });
          if (r.status === 200) break;
          expect(r.status).toBe(409);
        }
        names.push(id);
      }
      // kits of both devices add up
      await json(server, `/api/documents/${ID}/kits/A`, 'PATCH', { add: { bolt: 3 } });
    }),
  );
  const stored = (await json(servers[0] as RunningServer, `/api/documents/${ID}`)).body;
  const notes = stored.document.plan.notes as string;
  for (const n of names) expect(notes).toContain(n);
  expect(stored.revision).toBe(1 + names.length);
  expect((await json(servers[1] as RunningServer, `/api/documents/${ID}/kits/A`)).body.counted).toEqual({
    bolt: 3 * servers.length,
  });
  return names;
}

describe('two servers', () => {
  it('on one folder lose nothing that both save', async () => {
    const dataDir = await folder();
    const one = await startServer({ dataDir, port: 0, quiet: true });
    const two = await startServer({ dataDir, port: 0, quiet: true });
    try {
      expect(await editedByBoth([one, two], 20)).toHaveLength(40);
    } finally {
      await two.close();
      await one.close();
    }
  });

  it('on one libSQL address lose nothing that both save; runs, ticks and logs go there too', async () => {
    const sql = await libsqlServer(join(await folder(), 'far.db'));
    const options = { dataDir: await folder(), databaseUrl: sql.url, port: 0, quiet: true };
    const one = await startServer(options);
    const two = await startServer(options);
    try {
      expect((await json(two, '/api/documents')).body).toHaveLength(4);
      expect(await editedByBoth([one, two], 8)).toHaveLength(16);
      const run = (await json(one, `/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body.id as string;
      const tick = {
        id: 't',
        stepId: 'kit',
        jointId: null,
        kind: 'done',
        torqueNm: 50.5,
        at: 1000,
        device: 'phone',
        values: { km: 1 },
      };
      await json(two, `/api/runs/${run}/ticks`, 'POST', { ticks: [tick] });
      expect((await json(one, `/api/runs/${run}`)).body.ticks).toEqual([
        expect.objectContaining({ id: 't', torqueNm: 50.5, values: { km: 1 } }),
      ]);
      expect((await json(two, `/api/runs/${run}/end`, 'POST', {})).body).toEqual({ ended: true });
      expect((await json(one, `/api/documents/${ID}/log`)).body).toHaveLength(1);
      expect((await json(one, '/api/backups')).body).toEqual({ folder: null, kept: [] });
    } finally {
      await two.close();
      await one.close();
    }
    // the database goes away: said as what it is
    await sql.close();
    await expect(startServer(options)).rejects.toThrow();
  });
});

describe('the database of another version', () => {
  it('newer is refused and left alone; older is brought up', async () => {
    const dataDir = await folder();
    await (await startServer({ dataDir, port: 0, quiet: true })).close();
    const file = `file:${join(dataDir, 'plate-fold.db')}`;
    const sql = async (text: string) => {
      const client = createClient({ url: file });
      const { rows } = await client.execute(text);
      client.close();
      return rows;
    };
    await sql("insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)");
    await expect(startServer({ dataDir, port: 0, quiet: true })).rejects.toThrow('made by a newer version');
    await sql("delete from __drizzle_migrations where hash = 'later'");
    // as the version before this one left it
    await sql('drop table survey_files');
    await sql(
      'delete from __drizzle_migrations where created_at = (select max(created_at) from __drizzle_migrations)',
    );
    const server = await startServer({ dataDir, port: 0, quiet: true });
    expect((await json(server, `/api/documents/${ID}`)).body.document).toEqual(DEMO);
    await server.close();
  });
});

describe('a start that cannot be', () => {
  const MAIN = fileURLToPath(new URL('../bin/server.js', import.meta.url));
  const ROOT = fileURLToPath(new URL('../..', import.meta.url));
  /** Starts the server in a shell that lets no file grow beyond so many kB, as a disk that is full does; what it says and how it ends. */
  const start = (env: Record<string, string>, most?: number) =>
    new Promise<{ code: number | null; err: string; ready: boolean }>(done => {
      const node = `"${process.execPath}" "${MAIN}"`;
      const child = spawn(
        'bash',
        ['-c', most === undefined ? `exec ${node}` : `trap '' XFSZ; ulimit -f ${most}; exec ${node}`],
        {
          env: { ...process.env, PORT: '0', ...env },
          cwd: ROOT,
        },
      );
      let [err, ready] = ['', false];
      child.stderr.on('data', d => (err += d));
      child.stdout.on('data', d => {
        ready ||= String(d).includes('is ready');
        if (ready) child.kill('SIGTERM');
      });
      child.on('exit', code => done({ code, err: err.trim(), ready }));
    });

  it('says in one line what is wrong: a wrong address of a database, one that does not answer, a full disk; then starts when there is room', async () => {
    const data = await folder();
    const [wrong, away, full] = await Promise.all([
      start({ DATA_DIR: data, DATABASE_URL: 'ftp://somewhere/x' }),
      start({ DATA_DIR: data, DATABASE_URL: 'http://127.0.0.1:9' }),
      start({ DATA_DIR: data }, 16),
    ]);
    expect([wrong.code, wrong.err]).toEqual([
      1,
      expect.stringMatching(/^DATABASE_URL is "ftp:\/\/somewhere\/x", which is no address/),
    ]);
    expect([away.code, away.err]).toEqual([
      1,
      expect.stringMatching(/^The database at http:\/\/127\.0\.0\.1:9 does not answer/),
    ]);
    expect([full.code, full.err]).toEqual([1, expect.stringMatching(/^The disk that holds .* is full/)]);
    expect(full.err.split('\n')).toHaveLength(1);
    const roomy = await start({ DATA_DIR: data });
    expect([roomy.ready, roomy.code]).toEqual([true, 0]);
    const server = await startServer({ dataDir: data, port: 0, quiet: true });
    expect((await json(server, '/api/documents')).body).toHaveLength(4);
    await server.close();
  });
});
