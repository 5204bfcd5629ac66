import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { request } from 'node:http';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createClient } from '@libsql/client';
import { demo } from '@plate-fold/demo';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from './index';
import { asking } from './testing/asking';

const DEMO = demo('bramble');
const MAIN = fileURLToPath(new URL('../bin/server.js', import.meta.url));
const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const ID = DEMO.plan.id as string;

let dir: string;
let server: RunningServer;
const call = asking(() => server);
const renamed = (name: string) => ({ ...DEMO, plan: { ...DEMO.plan, name } });

beforeEach(async () => {
  dir = await mkdtemp(join(tmpdir(), 'platefold-server-'));
  server = await startServer({ dataDir: dir, port: 0, quiet: true });
});
afterEach(() => server.close());

describe('documents', () => {
  it('the demo is there on first run, and not again after a restart', async () => {
    expect((await call('/api/documents')).body.map((d: { id: string }) => d.id)).toContain(ID);
    expect((await call(`/api/documents/${ID}`)).body.document).toEqual(DEMO);
    await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 1, document: renamed('autumn set') });
    await server.close();
    server = await startServer({ dataDir: dir, port: 0, quiet: true });
    const again = (await call(`/api/documents/${ID}`)).body;
    expect(again.revision).toBe(2);
    expect(again.document.plan.name).toBe('autumn set');
  });

  it('a save on a stale revision is refused and both versions are kept', async () => {
    expect(
      (await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 1, document: renamed('one') })).body
        .revision,
    ).toBe(2);
    const late = await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 1, document: renamed('two') });
    expect(late.status).toBe(409);
    expect(late.body.document.plan.name).toBe('one');
    const kept = await call(`/api/documents/${ID}/revisions/${late.body.refusedId}`);
    expect(kept.body).toMatchObject({ kind: 'refused', revision: 1 });
    expect(kept.body.document.plan.name).toBe('two');
    expect((await call(`/api/documents/${ID}`)).body.document.plan.name).toBe('one');
  });

  it('of many saves at once on one revision exactly one wins and none is lost', async () => {
    const all = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        call(`/api/documents/${ID}`, 'PUT', { baseRevision: 1, document: renamed(`n${i}`) }),
      ),
    );
    expect(all.filter(r => r.status === 200)).toHaveLength(1);
    expect(all.filter(r => r.status === 409)).toHaveLength(19);
    expect((await call(`/api/documents/${ID}/revisions`)).body).toHaveLength(21);
  });

  it('refuses what is not a plan, naming path and fault', async () => {
    const bad = { ...DEMO, rig: { ...DEMO.rig, tyreRadius: 'large' } };
    const r = await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 1, document: bad });
    expect(r.status).toBe(422);
    expect(r.body.fault).toContain('rig.tyreRadius is "large", which is not a number');
    expect((await call(`/api/documents/${ID}`, 'PUT', '{"baseRevision": 1, "docum')).body.fault).toContain(
      'not whole JSON',
    );
    expect((await call(`/api/documents/${ID}`, 'PUT', { document: DEMO })).body.fault).toContain(
      'baseRevision',
    );
    expect((await call('/api/documents/none')).body.fault).toContain('no plan "none"');
    const huge = await call(`/api/documents/${ID}`, 'PUT', JSON.stringify({ x: 'y'.repeat(5_000_000) }));
    expect(huge.status).toBe(413);
  });

  it('adds a plan once', async () => {
    const copy = { ...DEMO, plan: { ...DEMO.plan, id: 'copy' } };
    expect((await call('/api/documents', 'POST', { document: copy })).status).toBe(201);
    expect((await call('/api/documents', 'POST', { document: copy })).status).toBe(409);
  });
});

describe('runs', () => {
  it('keep the plan as it stood, and every tick once', async () => {
    const { id } = (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body;
    await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 1, document: renamed('changed later') });
    const tick = { id: 't1', stepId: 'kit', jointId: null, kind: 'done', at: 1000, device: 'phone' };
    const more = { ...tick, id: 't2', stepId: 'tighten-plate-a-1', jointId: 'j01', torqueNm: 50.2, at: 2000 };
    await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [tick] });
    const twice = await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [tick, more] });
    expect(twice.body.received).toEqual(['t1', 't2']);
    await server.close();
    server = await startServer({ dataDir: dir, port: 0, quiet: true });
    const run = (await call(`/api/runs/${id}`)).body;
    expect(run.document.plan.name).toBe(DEMO.plan.name);
    expect(run.ticks.map((t: { id: string; torqueNm: number | null }) => [t.id, t.torqueNm])).toEqual([
      ['t1', null],
      ['t2', 50.2],
    ]);
    // beside it stands the demo's own finished run
    expect((await call(`/api/documents/${ID}/runs`)).body.map((r: { id: string }) => r.id)).toEqual([
      id,
      'demo-install',
    ]);
    expect((await call(`/api/runs/${id}/end`, 'POST', { km: 91_960 })).body.ended).toBe(true);
    expect((await call(`/api/runs/${id}/end`, 'POST', {})).body.ended).toBe(true);
    const log = (await call(`/api/documents/${ID}/log`)).body as { run?: string }[];
    expect(log.filter(e => e.run === id)).toEqual([
      expect.objectContaining({ kind: 'install', km: 91_960, opened: true }),
    ]);
    expect((await call(`/api/runs/${id}/end`, 'POST', { km: 'far' })).status).toBe(422);
  });
  it('with a bolt that is not sound are not ended before it is mended or left with a reason, which stands in the log and the next run', async () => {
    const { id } = (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body;
    const of = { device: 'phone', stepId: 'tighten-plate-e-1', jointId: 'j28' };
    const fault = { ...of, id: 'f', kind: 'deviation', fault: 'stripped', note: 'it spins', at: 1000 };
    expect((await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [fault] })).status).toBe(200);
    const refused = await call(`/api/runs/${id}/end`, 'POST', {});
    expect([refused.status, refused.body.fault]).toEqual([409, expect.stringContaining('j28 is not sound')]);
    const left = { ...of, id: 'o', kind: 'override', note: 'shop on Monday', at: 2000 };
    const before = {
      ...of,
      id: 'h',
      stepId: 'fenders',
      jointId: null,
      kind: 'done',
      at: 500,
      values: { frontLeft: 901, frontRight: 902, rearLeft: 940, rearRight: 941, fuel: 0.5, km: 91_000 },
    };
    const heights = {
      ...before,
      id: 'i',
      stepId: 'ride-height',
      at: 2500,
      values: { frontLeft: 893, frontRight: 894, rearLeft: 936, rearRight: 936 },
    };
    await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [left, before, heights] });
    expect((await call(`/api/runs/${id}/end`, 'POST', {})).body.ended).toBe(true);
    const log = ((await call(`/api/documents/${ID}/log`)).body as { run?: string; kind: string }[]).filter(
      e => e.run === id,
    );
    expect(log.find(e => e.kind === 'install')).toMatchObject({
      km: 91_000,
      left: [{ joint: 'j28', fault: 'stripped', reason: 'shop on Monday' }],
    });
    expect(log.filter(e => e.kind === 'ride-height')).toEqual([
      expect.objectContaining({ corners: [901, 902, 940, 941], note: 'Before the plates, fuel 50 %.' }),
      expect.objectContaining({ corners: [893, 894, 936, 936] }),
    ]);
    const next = (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body.id;
    expect((await call(`/api/runs/${next}`)).body.ticks).toEqual([
      expect.objectContaining({
        jointId: 'j28',
        kind: 'deviation',
        fault: 'stripped',
        device: 'earlier run',
      }),
    ]);
  });
  it('begun by mistake are set aside, and taken up again', async () => {
    const { id } = (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body;
    const aside = async () =>
      ((await call(`/api/documents/${ID}/runs`)).body as { id: string; setAsideAt: number | null }[]).find(
        r => r.id === id,
      )?.setAsideAt;
    expect(await aside()).toBe(null);
    await call(`/api/runs/${id}/set-aside`, 'POST', { aside: true });
    expect(await aside()).toBeGreaterThan(0);
    await call(`/api/runs/${id}/set-aside`, 'POST', { aside: false });
    expect(await aside()).toBe(null);
    expect((await call('/api/runs/demo-install/set-aside', 'POST', { aside: true })).status).toBe(409);
  });
  it('tell whoever listens what was ticked, at once, and nobody else', async () => {
    const { id } = (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body;
    const stop = new AbortController();
    const response = await fetch(`${server.address}/api/runs/${id}/events`, { signal: stop.signal });
    expect(response.headers.get('content-type')).toContain('text/event-stream');
    const reader = response.body!.getReader();
    const heard = async (): Promise<string> => new TextDecoder().decode((await reader.read()).value);
    expect(await heard()).toContain('event: listening');
    const tick = {
      id: 't1',
      stepId: 'kit',
      jointId: null,
      kind: 'done',
      at: 1000,
      device: 'phone',
      who: 'Moss',
    };
    await call('/api/runs/demo-install/ticks', 'POST', { ticks: [{ ...tick, id: 'other' }] });
    await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [tick] });
    const said = await heard();
    expect(said).toContain('event: ticks');
    expect(said).toContain('"who":"Moss"');
    expect(said).not.toContain('other');
    stop.abort();
    expect((await call('/api/runs/none/events')).status).toBe(404);
  });
  it('refuse figures that no step asks for, a fault nobody knows, a clock beyond all clocks', async () => {
    const { id } = (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body;
    const tick = { id: 't', stepId: 'kit', jointId: null, kind: 'done', at: 1000, device: 'phone' };
    for (const bad of [
      { values: { a: 'x' } },
      { values: { a: 1e99 } },
      { fault: 'tired' },
      { at: 1e17 },
      { kind: 'shrug' },
    ])
      expect((await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [{ ...tick, ...bad }] })).status).toBe(
        422,
      );
    expect((await call(`/api/runs/${id}`)).body.ticks).toEqual([]);
  });
  it('refuse a wrong tick, build or run', async () => {
    const { id } = (await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body;
    expect((await call(`/api/runs/${id}/ticks`, 'POST', { ticks: [{ id: 'x' }] })).status).toBe(422);
    expect((await call(`/api/documents/${ID}/runs`, 'POST', { buildId: 'Q' })).body.fault).toContain('"Q"');
    expect((await call('/api/runs/none')).status).toBe(404);
  });
});

describe('the door', () => {
  it('has security headers', async () => {
    const { headers } = await call('/api/health');
    expect(headers.get('content-security-policy')).toContain("default-src 'self'");
    // its own kernels may be compiled, and nothing else runs but its own files
    expect(headers.get('content-security-policy')).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(headers.get('content-security-policy')).not.toContain("'unsafe-eval'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-frame-options')).toBeTruthy();
  });
  it('refuses another origin and a foreign Host', async () => {
    expect((await call('/api/documents', 'GET', undefined, { origin: 'http://evil.example' })).status).toBe(
      403,
    );
    expect((await call('/api/documents', 'GET', undefined, { origin: server.address })).status).toBe(200);
    const status = await new Promise(done =>
      request({ port: server.port, path: '/api/health', headers: { host: 'evil.example' } }, r =>
        done(r.statusCode),
      ).end(),
    );
    expect(status).toBe(403);
  });
  it('listens on the loopback address', () => expect(server.address).toMatch(/^http:\/\/127\.0\.0\.1:/));
});

const launch = (
  env: Record<string, string>,
): Promise<{ child: ChildProcess; address: string; err: string; code: number | null }> =>
  new Promise(done => {
    const child = spawn(process.execPath, [MAIN], {
      env: { ...process.env, ...env },
      cwd: ROOT,
    });
    let [out, err] = ['', ''];
    child.stderr?.on('data', d => (err += d));
    child.stdout?.on('data', d => {
      out += d;
      const at = /http:\/\/\S+/.exec(out)?.[0];
      if (at) done({ child, address: at, err, code: null });
    });
    child.on('exit', code => done({ child, address: '', err, code }));
  });

describe('as a process', () => {
  it('kill -9 under mixed writes loses none that was acknowledged', async () => {
    const data = await mkdtemp(join(tmpdir(), 'platefold-kill-'));
    const rounds = Number(process.env.SOAK_KILLS ?? 3);
    const post = async (address: string, path: string, method: string, body: unknown) => {
      const r = await fetch(`${address}${path}`, {
        method,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
      if (!r.ok) throw new Error(`${r.status}`);
      return (await r.json()) as { revision: number; received: readonly string[]; id: string };
    };
    const at = `/api/documents/${ID}`;
    const acknowledged = { revision: 0, ticks: [] as string[], entries: [] as string[] };
    let run = '';
    for (let round = 0; round < rounds; round++) {
      const { child, address } = await launch({ DATA_DIR: data, PORT: '0' });
      const first = (await (await fetch(`${address}${at}`)).json()) as { revision: number };
      expect(first.revision).toBeGreaterThanOrEqual(acknowledged.revision);
      if (run === '') run = (await post(address, `${at}/runs`, 'POST', { buildId: 'A' })).id;
      // killed some time after a handful of writes, however slow the machine is
      let [written, timer]: [number, ReturnType<typeof setTimeout> | undefined] = [0, undefined];
      const counted = (): void => {
        written++;
        if (written === 8) timer = setTimeout(() => child.kill('SIGKILL'), (170 * round) % 900);
      };
      /** Writes until the server is gone. */
      const until = async (write: (n: number) => Promise<void>): Promise<void> => {
        try {
          for (let n = 0; ; n++) {
            await write(n);
            counted();
          }
        } catch {
          // it was killed
        }
      };
      let { revision } = first;
      await Promise.all([
        until(async n => {
          // whole plans and changes in turn
          const name = `save ${revision + 1}`;
          const r =
            n % 3 === 0
              ? await post(address, at, 'PUT', { baseRevision: revision, document: renamed(name) })
              : await post(address, at, 'PATCH', {
                  baseRevision: revision,
                  patch: [{ op: 'replace', path: '/plan/name', value: name }],
                });
          revision = r.revision;
          acknowledged.revision = revision;
        }),
        until(async n => {
          const tick = {
            id: `t-${round}-${n}`,
            stepId: 'kit',
            jointId: null,
            kind: 'done',
            at: n,
            device: 'x',
          };
          acknowledged.ticks.push(
            ...(await post(address, `/api/runs/${run}/ticks`, 'POST', { ticks: [tick] })).received,
          );
        }),
        until(async n => {
          const id = `e-${round}-${n}`;
          await post(address, `${at}/log`, 'POST', { entries: [{ id, kind: 'install', at: n }] });
          acknowledged.entries.push(id);
        }),
      ]);
      clearTimeout(timer);
    }
    const client = createClient({ url: `file:${join(data, 'plate-fold.db')}` });
    const column = async (sql: string) => new Set((await client.execute(sql)).rows.map(r => String(r.id)));
    const ticks = await column('select id from ticks');
    const entries = await column('select id from log_entries');
    expect(acknowledged.ticks.filter(id => !ticks.has(id))).toEqual([]);
    expect(acknowledged.entries.filter(id => !entries.has(id))).toEqual([]);
    const check = await client.execute('pragma integrity_check');
    expect(check.rows[0]?.integrity_check).toBe('ok');
    client.close();
    const again = await startServer({ dataDir: data, port: 0, quiet: true });
    const last = (await (await fetch(`${again.address}${at}`)).json()) as {
      revision: number;
      document: { plan: { name: string } };
    };
    await again.close();
    expect(last.revision).toBeGreaterThanOrEqual(acknowledged.revision);
    expect(last.document.plan.name).toBe(`save ${last.revision}`);
    const all = acknowledged.revision + acknowledged.ticks.length + acknowledged.entries.length;
    expect(all).toBeGreaterThan(20);
    if (process.env.SOAK_KILLS) console.log(`${rounds} kills, ${all} writes acknowledged, none lost`);
  });

  it('says in one line when the port is taken or the folder is not writable', async () => {
    const busy = createServer().listen(0, '127.0.0.1');
    await new Promise(r => busy.once('listening', r));
    const port = String((busy.address() as { port: number }).port);
    const taken = await launch({ DATA_DIR: dir, PORT: port });
    expect(taken.code).toBe(1);
    expect(taken.err.trim()).toBe(`Port ${port} is already in use. Choose another: PORT=4180 npm start`);
    busy.close();
    const file = join(dir, 'a-file');
    await writeFile(file, '');
    const blocked = await launch({ DATA_DIR: join(file, 'below'), PORT: '0' });
    expect(blocked.code).toBe(1);
    expect(blocked.err.trim().split('\n')).toHaveLength(1);
    expect(blocked.err).toContain('cannot be written to');
    const odd = await mkdtemp(join(tmpdir(), 'platefold-odd-'));
    await writeFile(join(odd, 'plate-fold.db'), 'this is not a database, whatever it is called'.repeat(50));
    const damaged = await launch({ DATA_DIR: odd, PORT: '0' });
    expect(damaged.err).toContain('is damaged or not a database');
  });
});

describe('the shelf and the kit', () => {
  it('keeps parts and wrenches, changes them in place, and drops what has run out', async () => {
    expect((await call('/api/shelf')).body).toEqual([]);
    const bolt = { kind: 'part', name: 'flange bolt M8x1.25 × 25, 8.8, zinc', count: 12 };
    expect((await call('/api/shelf', 'PUT', bolt)).status).toBe(200);
    await call('/api/shelf', 'PUT', { ...bolt, count: 9 });
    await call('/api/shelf', 'PUT', { kind: 'wrench', name: 'the long one', count: 1, low: 20, high: 100 });
    expect((await call('/api/shelf')).body).toMatchObject([
      { ...bolt, count: 9 },
      { kind: 'wrench', name: 'the long one', low: 20, high: 100 },
    ]);
    await call('/api/shelf', 'PUT', { ...bolt, count: 0 });
    expect((await call('/api/shelf')).body).toHaveLength(1);
  });
  it.each([
    ['count', { kind: 'part', name: 'x', count: -1 }],
    ['count', { kind: 'part', name: 'x', count: 1.5 }],
    ['kind', { kind: 'cow', name: 'x', count: 1 }],
    ['high', { kind: 'wrench', name: 'x', count: 1, low: 50, high: 20 }],
  ])('refuses a wrong %s and changes nothing', async (word, entry) => {
    const r = await call('/api/shelf', 'PUT', entry);
    expect(r.status).toBe(422);
    expect(r.body.fault).toContain(word);
    expect((await call('/api/shelf')).body).toEqual([]);
  });
  it('keeps how far a kit was gone through, by build, over a restart', async () => {
    const at = `/api/documents/${ID}/kits/A`;
    expect((await call(at)).body).toEqual({ counted: {}, tried: [] });
    const kit = { counted: { 'flat washer M8': 7 }, tried: ['socket 13 mm'] };
    const change = {
      set: { 'flat washer M8': 5 },
      add: { 'flat washer M8': 2 },
      tried: { 'socket 13 mm': true },
    };
    expect((await call(at, 'PATCH', change)).body).toMatchObject(kit);
    await server.close();
    server = await startServer({ dataDir: dir, port: 0, quiet: true });
    expect((await call(at)).body).toMatchObject(kit);
    expect((await call(`/api/documents/${ID}/kits/B`)).body).toEqual({ counted: {}, tried: [] });
    expect((await call('/api/documents/nowhere/kits/A', 'PATCH', change)).status).toBe(404);
    for (const wrong of [
      { set: { x: 'seven' } },
      { set: { x: -1 } },
      { add: { x: 1e9 } },
      { add: [1.5] },
      { tried: { x: 1 } },
    ])
      expect((await call(at, 'PATCH', wrong)).status).toBe(422);
    expect((await call(at)).body).toMatchObject(kit);
  });
  it('two who count at once both count', async () => {
    const at = `/api/documents/${ID}/kits/A`;
    const one = (part: string, tool: string) =>
      call(at, 'PATCH', { add: { [part]: 1 }, tried: { [tool]: true } });
    await Promise.all(Array.from({ length: 20 }, (_, i) => one(i % 2 ? 'bolt' : 'nut', `tool ${i}`)));
    await call(at, 'PATCH', { add: { nut: -30 } });
    const { counted, tried } = (await call(at)).body;
    expect(counted).toEqual({ bolt: 10, nut: 0 });
    expect(tried).toHaveLength(20);
  });
});
