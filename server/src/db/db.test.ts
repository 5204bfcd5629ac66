import { cp, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type Client, createClient } from '@libsql/client';
import { demo } from '@plate-fold/demo';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import fc from 'fast-check';
import { describe, expect, it, onTestFinished } from 'vitest';
import { startServer } from '../server';
import { asking } from '../testing/asking';
import { openStore } from './open';
import { writeQueue } from './queue';

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));
const JOURNAL = JSON.parse(await readFile(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
  entries: readonly { readonly tag: string; readonly when: number }[];
};

async function folder(): Promise<string> {
  const dir = await mkdtemp(join(tmpdir(), 'plate-fold-db-'));
  onTestFinished(() => rm(dir, { recursive: true, force: true }));
  return dir;
}

/** Migrates a database as the version did that knew only the first so many migrations. */
async function migrated(client: Client, count: number): Promise<void> {
  const known = await folder();
  await cp(MIGRATIONS, known, { recursive: true });
  await writeFile(
    join(known, 'meta/_journal.json'),
    JSON.stringify({ ...JOURNAL, entries: JOURNAL.entries.slice(0, count) }),
  );
  await migrate(drizzle(client), { migrationsFolder: known });
}

const DEMO = demo('wren');
const ID = DEMO.plan.id;
/** What each version could keep, from the migration on that brought its table or column: [table, row]. */
const ROWS: readonly (readonly (readonly [string, Readonly<Record<string, string | number | null>>])[])[] = [
  [
    ['meta', { key: 'demo', value: 'loaded' }],
    [
      'documents',
      {
        id: ID,
        name: 'mine',
        rig_name: 'Wren',
        body_kind: 'side-by-side',
        revision: 3,
        body: JSON.stringify(DEMO),
        updated_at: 1000,
      },
    ],
    [
      'revisions',
      {
        id: 1,
        document_id: ID,
        revision: 3,
        kind: 'saved',
        body: JSON.stringify(DEMO),
        saved_at: 1000,
      },
    ],
    [
      'runs',
      {
        id: 'run-1',
        document_id: ID,
        revision: 3,
        build_id: DEMO.plan.activeBuild,
        body: JSON.stringify(DEMO),
        started_at: 2000,
        ended_at: null,
      },
    ],
    [
      'ticks',
      {
        id: 'tick-1',
        run_id: 'run-1',
        step_id: 'park',
        joint_id: null,
        kind: 'done',
        torque_nm: 40.5,
        note: 'level',
        at: 2100,
        received_at: 2101,
        device: 'phone',
      },
    ],
  ],
  [
    ['shelf', { kind: 'part', name: 'washer M8', count: 12, low: null, high: null, updated_at: 1 }],
    ['kits', { document_id: ID, build_id: DEMO.plan.activeBuild, body: '{}', updated_at: 1 }],
  ],
  [
    [
      'log_entries',
      {
        id: 'log-1',
        document_id: ID,
        kind: 'hit',
        at: 5000,
        body: JSON.stringify({ id: 'log-1', kind: 'hit', at: 5000, km: 120, note: 'a rock' }),
        struck_at: null,
        received_at: 5001,
      },
    ],
  ],
  [],
  [],
  [],
  [['survey_files', { id: 'under', document_id: ID, type: 'image/png', received_at: 6000, bytes: '' }]],
];

/** The shape of a database, whatever the order its columns came in. */
async function shape(client: Client): Promise<unknown> {
  const { rows } = await client.execute(
    "select m.name as tab, c.name as col, c.type, c.\"notnull\" as nn, c.pk from sqlite_master m, pragma_table_info(m.name) c where m.type = 'table' and m.name not like '\\_\\_%' escape '\\' and m.name not like 'sqlite%' order by 1, 2",
  );
  const { rows: indexes } = await client.execute(
    "select name, tbl_name from sqlite_master where type = 'index' and name not like 'sqlite%' order by 1",
  );
  return { columns: rows.map(r => ({ ...r })), indexes: indexes.map(r => ({ ...r })) };
}

describe('a database of an earlier version', () => {
  it('is tried for every migration there is', () => {
    expect(ROWS).toHaveLength(JOURNAL.entries.length);
  });

  it.each(JOURNAL.entries.map((e, i) => [e.tag, i + 1] as const))(
    'as %s left it is brought up to this one, and every row with it',
    async (_, count) => {
      const dataDir = await folder();
      const url = `file:${join(dataDir, 'plate-fold.db')}`;
      const old = createClient({ url });
      await migrated(old, count);
      const rows = ROWS.slice(0, count).flat();
      for (const [table, row] of rows)
        await old.execute({
          sql: `insert into ${table} (${Object.keys(row)
            .map(k => `"${k}"`)
            .join()}) values (${Object.keys(row)
            .map(() => '?')
            .join()})`,
          args: Object.values(row),
        });
      old.close();

      const store = await openStore(dataDir);
      await store.close();
      const client = createClient({ url });
      for (const [table, row] of rows) {
        const found = await client.execute(`select * from ${table}`);
        expect(found.rows, table).toHaveLength(1);
        expect({ ...found.rows[0] }, table).toMatchObject(row);
      }
      // what it has become is what a new one is
      const fresh = await folder();
      await (await openStore(fresh)).close();
      const other = createClient({ url: `file:${join(fresh, 'plate-fold.db')}` });
      expect(await shape(client)).toEqual(await shape(other));
      client.close();
      other.close();

      // and it serves: the plan, its run with the tick, its log
      const server = await startServer({ dataDir, port: 0, quiet: true });
      onTestFinished(() => server.close());
      const call = asking(() => server);
      const get = async (path: string) => (await call(path)).body;
      expect(await get(`/api/documents/${ID}`)).toMatchObject({ revision: 3, document: DEMO });
      expect(await get('/api/runs/run-1')).toMatchObject({
        ticks: [{ id: 'tick-1', torqueNm: 40.5, note: 'level', device: 'phone' }],
      });
      if (count >= 3) expect(await get(`/api/documents/${ID}/log`)).toMatchObject([{ id: 'log-1', km: 120 }]);
    },
  );
});

describe('writes', () => {
  it('go one after another in the order they were asked for, whatever each takes and whichever fails', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.record({ takes: fc.integer({ min: 0, max: 3 }), fails: fc.boolean() }), {
          maxLength: 12,
        }),
        async jobs => {
          const write = writeQueue();
          let inside = 0;
          const done: number[] = [];
          const all = await Promise.allSettled(
            jobs.map(({ takes, fails }, i) =>
              write(async () => {
                expect(++inside).toBe(1);
                for (let k = 0; k < takes; k++) await new Promise(setImmediate);
                inside--;
                done.push(i);
                if (fails) throw new Error(`write ${i}`);
                return i;
              }),
            ),
          );
          expect(done).toEqual(jobs.map((_, i) => i));
          expect(all.map(a => (a.status === 'fulfilled' ? a.value : (a.reason as Error).message))).toEqual(
            jobs.map(({ fails }, i) => (fails ? `write ${i}` : i)),
          );
        },
      ),
      { numRuns: 50 },
    );
  });

  it('let whoever else asked be heard between two of them', async () => {
    const write = writeQueue();
    const heard: string[] = [];
    const both = [write(async () => heard.push('one')), write(async () => heard.push('two'))];
    setImmediate(() => heard.push('a reader'));
    await Promise.all(both);
    expect(heard.indexOf('a reader')).toBeLessThan(heard.indexOf('two'));
  });
});
