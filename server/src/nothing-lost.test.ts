import { spawn } from 'node:child_process';
import { mkdtemp, open } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createClient } from '@libsql/client';
import { anyMutation } from '@plate-fold/core/testing';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import jsonPatch from 'fast-json-patch';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from './index';
import { asking } from './testing/asking';

const DEMO = demo('bramble');
const MAIN = fileURLToPath(new URL('../bin/server.js', import.meta.url));
const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const ID = DEMO.plan.id as string;
const PLANS = 4;

let dir: string;
let server: RunningServer;
const call = asking(() => server);
const sql = async (...statements: string[]) => {
  const client = createClient({ url: `file:${join(dir, 'plate-fold.db')}` });
  const rows = [];
  for (const s of statements) rows.push(...(await client.execute(s)).rows);
  client.close();
  return rows;
};
const restart = async (between: () => Promise<unknown>) => {
  await server.close();
  await between();
  server = await startServer({ dataDir: dir, port: 0, quiet: true });
};

beforeEach(async () => {
  dir = await mkdtemp(join(tmpdir(), 'platefold-kept-'));
  server = await startServer({ dataDir: dir, port: 0, quiet: true });
});
afterEach(() => server.close());

describe('the first start', () => {
  it('killed at any moment is followed by one that finishes it', async () => {
    const rounds = Number(process.env.SOAK_KILLS ?? 3);
    for (let round = 0; round < rounds; round++) {
      const data = await mkdtemp(join(tmpdir(), 'platefold-first-'));
      const child = spawn(process.execPath, [MAIN], {
        env: { ...process.env, DATA_DIR: data, PORT: '0' },
        cwd: ROOT,
        stdio: 'ignore',
      });
      // somewhere between the first line and the last of the start, which takes about a second
      const gone = new Promise(done => child.on('exit', done));
      setTimeout(() => child.kill(round % 3 === 2 ? 'SIGTERM' : 'SIGKILL'), 500 + ((round * 389) % 1100));
      await gone;
      const next = await startServer({ dataDir: data, port: 0, quiet: true });
      const plans = (await (await fetch(`${next.address}/api/documents`)).json()) as unknown[];
      const run = await fetch(`${next.address}/api/runs/demo-install`);
      await next.close();
      expect([plans.length, run.status]).toEqual([PLANS, 200]);
    }
  });

  it('left half loaded by an earlier version is recognized and filled up, and what is there is left alone', async () => {
    await call(`/api/documents/${ID}`, 'PUT', {
      baseRevision: 1,
      document: { ...DEMO, plan: { ...DEMO.plan, name: 'mine' } },
    });
    await restart(() =>
      sql(
        `delete from documents where id <> '${ID}'`,
        "delete from meta where key = 'demo'",
        'delete from runs',
        'delete from log_entries',
      ),
    );
    expect((await call('/api/documents')).body).toHaveLength(PLANS);
    expect((await call(`/api/documents/${ID}`)).body).toMatchObject({
      revision: 2,
      document: { plan: { name: 'mine' } },
    });
    expect((await call(`/api/documents/${ID}/revisions`)).body).toHaveLength(2);
    expect((await call('/api/runs/demo-install')).body.ticks.length).toBeGreaterThan(50);
  });
});

describe('a change alone', () => {
  const change = (document: unknown, base = DEMO) => jsonPatch.compare(base, document as object);
  const named = (name: string) => ({ ...DEMO, plan: { ...DEMO.plan, name } });

  it('is saved over its revision, and kept whole beside it when it comes too late', async () => {
    const at = `/api/documents/${ID}`;
    const ok = await call(at, 'PATCH', { baseRevision: 1, patch: change(named('one')) });
    expect([ok.status, ok.body.revision]).toEqual([200, 2]);
    expect((await call(at)).body.document).toEqual(named('one'));
    const late = await call(at, 'PATCH', { baseRevision: 1, patch: change(named('two')) });
    expect([late.status, late.body.document.plan.name]).toEqual([409, 'one']);
    const kept = await call(`${at}/revisions/${late.body.refusedId}`);
    expect([kept.body.kind, kept.body.document.plan.name]).toEqual(['refused', 'two']);
    await restart(async () => undefined);
    // nothing is held in memory now
    expect(
      (await call(at, 'PATCH', { baseRevision: 2, patch: change(named('three'), named('one')) })).body
        .revision,
    ).toBe(3);
    expect((await call(at)).body.document).toEqual(named('three'));
  });

  it('that cannot be done, or makes no plan, says which and changes nothing', async () => {
    const at = `/api/documents/${ID}`;
    const bad = async (patch: unknown, base: unknown = 1) => {
      const r = await call(at, 'PATCH', { baseRevision: base, patch });
      return `${r.status} ${r.body.fault}`;
    };
    expect(await bad([{ op: 'replace', path: '/plan/nothing/here', value: 1 }])).toContain('422 Operation 0');
    expect(await bad([{ op: 'shrug', path: '/plan' }])).toContain('422 Operation 0');
    expect(await bad([{ op: 'add', path: '/__proto__/x', value: 1 }])).toMatch(/^422/);
    expect(await bad([{ op: 'replace', path: '/rig/wheelbase', value: 'long' }])).toContain(
      'rig.wheelbase is "long"',
    );
    expect(await bad([{ op: 'replace', path: '/plan/id', value: 'other' }])).toContain(
      '422 The plan inside is "other"',
    );
    expect(await bad('all')).toMatch(/^400/);
    expect(await bad([], 'x')).toMatch(/^400/);
    expect(await bad([], 77)).toMatch(/^410 Revision 77/);
    expect((await call('/api/documents/none', 'PATCH', { baseRevision: 1, patch: [] })).status).toBe(404);
    expect((await call(at)).body).toMatchObject({ revision: 1, document: DEMO });
  });

  it('saves what the whole would have saved, over mutated plans', async () => {
    let revision = 1;
    let now: unknown = DEMO;
    await fc.assert(
      fc.asyncProperty(anyMutation(DEMO), async value => {
        const next = JSON.parse(JSON.stringify(value));
        const r = await call(`/api/documents/${ID}`, 'PATCH', {
          baseRevision: revision,
          patch: jsonPatch.compare(now as object, next),
        });
        const whole = await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 0, document: next });
        // a base of nought is always too late: what is right is 409, what is wrong 422
        expect([200, 422]).toContain(r.status);
        expect(whole.status).toBe(r.status === 200 ? 409 : 422);
        if (r.status === 200) {
          revision = r.body.revision;
          now = next;
          expect((await call(`/api/documents/${ID}`)).body.document).toEqual(next);
        }
      }),
      { numRuns: Number(process.env.SOAK_PATCHES ?? 40) },
    );
  });

  it('that comes too late is kept with the newest sixty of its kind', async () => {
    for (let i = 0; i < 65; i++)
      await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 0, document: named(`late ${i}`) });
    const all = (await call(`/api/documents/${ID}/revisions`)).body as { kind: string; id: number }[];
    const refused = all.filter(r => r.kind === 'refused');
    expect(refused).toHaveLength(60);
    expect((await call(`/api/documents/${ID}/revisions/${refused[0]?.id}`)).body.document.plan.name).toBe(
      'late 64',
    );
  });
});

describe('ticks', () => {
  const tick = { stepId: 'kit', jointId: null, kind: 'done', at: 1000, device: 'phone' };
  const begin = async () =>
    (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body.id as string;

  it('that are none are refused alone; the others are kept', async () => {
    const id = await begin();
    const r = await call(`/api/runs/${id}/ticks`, 'POST', {
      ticks: [
        { ...tick, id: 'a' },
        { ...tick, id: 'b', torqueNm: 1200 },
        { ...tick, id: 'c', at: 1e17 },
        7,
        null,
        { ...tick, id: 'd/e' },
        { ...tick, id: 'f' },
      ],
    });
    expect([r.status, r.body.received]).toEqual([200, ['a', 'f']]);
    expect(r.body.refused.map((x: { id: unknown }) => x.id)).toEqual(['b', 'c', null, null, 'd/e']);
    expect(r.body.fault).toContain('the torque reading is not between 0 and 1000 N·m (738 lbf·ft)');
    expect((await call(`/api/runs/${id}`)).body.ticks.map((t: { id: string }) => t.id)).toEqual(['a', 'f']);
    expect((await call(`/api/runs/${id}/ticks`, 'POST', { ticks: 'all' })).status).toBe(422);
  });

  it('whose row cannot be read are named, and the run is read all the same', async () => {
    const id = await begin();
    await call(`/api/runs/${id}/ticks`, 'POST', {
      ticks: [
        { ...tick, id: 'a' },
        { ...tick, id: 'b', at: 2000 },
        { ...tick, id: 'c', at: 3000 },
      ],
    });
    await restart(() =>
      sql(
        "update ticks set at = 100000000000000000 where id = 'b'",
        "update ticks set \"values\" = '{torn' where id = 'c'",
      ),
    );
    const run = (await call(`/api/runs/${id}`)).body;
    expect([run.ticks.map((t: { id: string }) => t.id), run.unread]).toEqual([['a'], ['b', 'c']]);
    expect(
      (await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [{ ...tick, id: 'd' }] })).body.received,
    ).toEqual(['d']);
    expect((await call(`/api/runs/${id}/end`, 'POST', {})).body.ended).toBe(true);
  });

  it('a run ended by two at once, and once more later, ends once; a clock set back does not end it before it began', async () => {
    const id = await begin();
    await sql(`update runs set started_at = ${Date.now() + 7_200_000} where id = '${id}'`);
    const ends = await Promise.all([1, 2, 3].map(km => call(`/api/runs/${id}/end`, 'POST', { km })));
    expect(ends.map(e => e.status)).toEqual([200, 200, 200]);
    const [run] = (
      (await call(`/api/documents/${ID}/runs`)).body as { id: string; startedAt: number; endedAt: number }[]
    ).filter(r => r.id === id);
    expect(run?.endedAt).toBeGreaterThanOrEqual(run?.startedAt ?? Infinity);
    await call(`/api/runs/${id}/end`, 'POST', { km: 9 });
    const log = ((await call(`/api/documents/${ID}/log`)).body as { run?: string; km?: number }[]).filter(
      e => e.run === id,
    );
    expect(log).toHaveLength(1);
    const [again] = (
      (await call(`/api/documents/${ID}/runs`)).body as { id: string; endedAt: number }[]
    ).filter(r => r.id === id);
    expect(again?.endedAt).toBe(run?.endedAt);
  });
});

describe('answers', () => {
  it('to what a request brings on itself are no mistakes of the server', async () => {
    const tries: [string, string, unknown, Record<string, string>, number][] = [
      ['/assets/gone.js', 'GET', undefined, {}, 404],
      [`/api/documents/${ID}/revisions/abc`, 'GET', undefined, {}, 404],
      [`/api/documents/${ID}/revisions/1e400`, 'GET', undefined, {}, 404],
      ['/api/documents/%ff', 'GET', undefined, {}, 404],
      ['/%ff', 'GET', undefined, {}, 404],
      ['/api/documents', 'POST', '{"document": 1}', { 'content-encoding': 'br-or-so' }, 415],
      ['/api/documents', 'POST', 'plain', { 'content-type': 'text/plain' }, 415],
      ['/api/documents', 'POST', '[1]', {}, 400],
      ['/api/documents', 'POST', '', {}, 422],
      ['/api/documents', 'POST', 'null', {}, 400],
      ['/api/shelf', 'PUT', '7', {}, 400],
      [`/api/documents/${ID}/runs`, 'POST', undefined, {}, 422],
      [`/api/documents/${ID}/log`, 'POST', '[]', {}, 400],
      ['/api/services/quotes', 'POST', 'null', {}, 400],
      ['/api/nothing', 'GET', undefined, {}, 404],
      ['/API/documents', 'GET', undefined, {}, 200],
      ['/api/runs/..%2f..%2fshelf', 'GET', undefined, {}, 404],
    ];
    const got = [];
    for (const [path, method, body, headers] of tries) {
      const r = await call(path, method, body, headers);
      got.push([path, method, r.status]);
      if (r.status >= 400) expect(r.body?.fault, path).toMatch(/\w/);
      if (path.toLowerCase().startsWith('/api'))
        expect(r.headers.get('cache-control'), path).toBe('no-store');
    }
    expect(got).toEqual(tries.map(([path, method, , , status]) => [path, method, status]));
  });

  it('a page of another port of this machine is another site', async () => {
    expect((await call('/api/documents', 'GET', undefined, { 'sec-fetch-site': 'same-site' })).status).toBe(
      403,
    );
    expect((await call('/api/documents', 'GET', undefined, { 'sec-fetch-site': 'same-origin' })).status).toBe(
      200,
    );
  });

  it('of a database that was damaged while it was open is one clear sentence', async () => {
    await restart(async () => {
      const [row] = await sql("select rootpage from sqlite_master where name = 'log_entries'");
      const [size] = await sql('pragma page_size');
      const file = await open(join(dir, 'plate-fold.db'), 'r+');
      const page = Number(size?.page_size);
      await file.write(Buffer.alloc(page, 0xa5), 0, page, (Number(row?.rootpage) - 1) * page);
      await file.close();
    });
    const r = await call(`/api/documents/${ID}/log`);
    expect([r.status, r.body?.fault]).toEqual([500, expect.stringContaining('database is damaged')]);
  });
});
