import { mkdtemp, rm } from 'node:fs/promises';
import { request } from 'node:http';
import { type AddressInfo, connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Koa from 'koa';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { apiRouters } from '../app';
import { openStore } from '../db/open';
import { answerFaults } from '../fault';
import { guard } from '../guard';
import { type RunningServer, startServer } from '../server';
import { CODE_MS, freshCode, MOST_IN_ALL, MOST_TRIES, tryCode, withWrongTry } from './code';
import { OPEN } from './door';
import { type ShareState, Sharing } from './sharing';

describe('a one-time code', () => {
  const code = freshCode(1000);
  it('is of letters and figures that are not mixed up, another every time', () => {
    expect(code.text).toMatch(/^[A-HJ-NP-Z2-9]{8}$/);
    expect(new Set(Array.from({ length: 200 }, () => freshCode(0).text)).size).toBe(200);
  });
  const A = '192.0.2.1';
  it('is right in small letters and with blanks too, wrong by one letter, and expires', () => {
    expect(tryCode(code, ` ${code.text.toLowerCase().replace(/(....)/, '$1 ')}`, 2000, A)).toBe('right');
    expect(tryCode(code, `${code.text.slice(0, 7)}0`, 2000, A)).toBe('wrong');
    expect(tryCode(code, '', 2000, A)).toBe('wrong');
    expect(tryCode(code, code.text, 1001 + CODE_MS, A)).toBe('expired');
    expect(tryCode(undefined, code.text, 2000, A)).toBe('spent');
  });
  it('is not spent by who guesses: that address waits, others come in; all together have an end too', () => {
    let tried = code;
    for (let i = 0; i < MOST_TRIES; i++) tried = withWrongTry(tried, A);
    expect(tryCode(tried, code.text, 2000, A)).toBe('often');
    expect(tryCode(tried, code.text, 2000, '192.0.2.2')).toBe('right');
    for (let i = 0; i < MOST_IN_ALL; i++) tried = withWrongTry(tried, `10.0.${i >> 8}.${i & 255}`);
    expect(tryCode(tried, code.text, 2000, '192.0.2.2')).toBe('stopped');
  });
});

describe('a run shared on the local network', () => {
  let server: RunningServer;
  let folder: string;
  let run: string;
  let other: string;
  const desk = async (path: string, method = 'GET', body?: unknown) => {
    const r = await fetch(`${server.address}${path}`, {
      method,
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
    // biome-ignore lint/suspicious/noExplicitAny: answers of many shapes
    return { status: r.status, body: (await r.json().catch(() => undefined)) as any };
  };
  const share = async (): Promise<ShareState> => (await desk('/api/share', 'POST', { run })).body;
  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'plate-fold-share-'));
    server = await startServer({ dataDir: folder, port: 0, quiet: true, shareHost: '127.0.0.1' });
    const start = () => desk('/api/documents/bramble-winter/runs', 'POST', { buildId: 'A' });
    run = (await start()).body.id;
    other = (await start()).body.id;
  });
  afterEach(async () => {
    await server.close();
    await rm(folder, { recursive: true, force: true });
  });
  /** A phone: what it asks, with the cookie it was given. */
  const cookies = new WeakMap<object, string>();
  const cookieOf = (ask: object): string => cookies.get(ask) ?? '';
  const phone = (at: string) => {
    let cookie = '';
    const ask = async (path: string, init: RequestInit = {}) => {
      const r = await fetch(`${at}${path}`, {
        redirect: 'manual',
        ...init,
        headers: { ...(init.headers as Record<string, string>), ...(cookie ? { cookie } : {}) },
      });
      const set = r.headers.get('set-cookie');
      if (set) cookie = set.split(';')[0] as string;
      cookies.set(ask, cookie);
      return r;
    };
    return ask;
  };
  const join_ = (ask: ReturnType<typeof phone>, code: string) =>
    ask('/join', {
      method: 'POST',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: `code=${code}`,
    });

  it('is closed until the desk opens it, and serves nothing but the page for the code without one', async () => {
    expect((await desk('/api/share')).body).toEqual({ run: null });
    const { addresses } = await share();
    const ask = phone(addresses[0] as string);
    for (const path of ['/', `/run/${run}`, '/index.html', '/assets/x.js', '/anything']) {
      const r = await ask(path);
      expect(r.status).toBe(401);
      const text = await r.text();
      expect(text).toContain('Code from the desk');
      expect(text).not.toContain(run);
    }
    for (const path of [
      `/api/runs/${run}`,
      '/api/documents',
      '/api/share',
      '/api/devices/wrench',
      '/api/health',
    ])
      expect((await ask(path)).status).toBe(401);
    expect((await ask('/join.js')).status).toBe(200);
  });

  it('lets one device in by the code, to that run and the wrench alone', async () => {
    const { addresses, code } = await share();
    const ask = phone(addresses[0] as string);
    const let_ = await join_(ask, (code?.text ?? '').toLowerCase());
    expect(let_.status).toBe(303);
    expect(let_.headers.get('location')).toBe(`/run/${run}`);
    expect(let_.headers.get('set-cookie')).toMatch(/httponly/i);
    expect(((await (await ask(`/api/runs/${run}`)).json()) as { id: string }).id).toBe(run);
    const tick = {
      id: 't1',
      stepId: 'kit',
      jointId: null,
      kind: 'done',
      torqueNm: null,
      note: null,
      at: 5,
      device: 'phone',
    };
    const sent = await ask(`/api/runs/${run}/ticks`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ticks: [tick] }),
    });
    expect(sent.status).toBe(200);
    expect((await ask('/api/devices/wrench')).status).toBe(200);
    for (const path of [
      `/api/runs/${other}`,
      '/api/documents',
      '/api/shelf',
      '/api/share',
      `/api/runs/${run}/../${other}`,
    ])
      expect((await ask(path)).status, path).toBe(403);
    // the desk sees the tick, the code is used up, and another device is not let in by it
    expect((await desk(`/api/runs/${run}`)).body.ticks.map((t: { id: string }) => t.id)).toEqual(['t1']);
    expect((await desk('/api/share')).body).toMatchObject({ devices: 1 });
    expect((await desk('/api/share')).body.code).toBeUndefined();
    const late = await join_(phone(addresses[0] as string), code?.text ?? '');
    expect(late.status).toBe(401);
    expect(await late.text()).toContain('spent');
  });

  it('makes who guesses wait, and tells the desk, which makes a fresh code by one press', async () => {
    const { addresses, code } = await share();
    const ask = phone(addresses[0] as string);
    for (let i = 0; i < MOST_TRIES; i++) {
      const r = await join_(ask, 'WRONGONE');
      expect(r.status).toBe(401);
      expect(await r.text()).toContain('not the code');
    }
    const late = await join_(ask, code?.text ?? '');
    expect([late.status, await late.text()]).toEqual([429, expect.stringContaining('Too many wrong codes')]);
    const seen = (await desk('/api/share')).body as ShareState;
    expect(seen.wrong).toEqual({ tries: MOST_TRIES, from: ['127.0.0.1'] });
    // the code itself is still good
    expect(seen.code?.text).toBe(code?.text);
    const again = await share();
    expect(again.wrong).toBeUndefined();
    expect((await join_(ask, again.code?.text ?? '')).status).toBe(303);
  });

  it('opens to a let-in phone what is listed for its run, and nothing else, over every route of the server however it is written', async () => {
    const { addresses, code } = await share();
    const at = addresses[0] as string;
    const ask = phone(at);
    await join_(ask, code?.text ?? '');
    const store = await openStore(folder);
    const routers = apiRouters({ store, sharing: undefined, backups: undefined });
    const routes = routers.flatMap(r =>
      r.stack.flatMap(l => l.methods.filter(m => m !== 'HEAD').map(m => [m, l.path as string] as const)),
    );
    await store.close();
    expect(routes.length).toBeGreaterThan(30);
    const open = new Set(OPEN.map(([m, p]) => `${m.toUpperCase()} ${p}`));
    // what is listed is there
    for (const o of open) expect(routes.map(([m, p]) => `${m} ${p}`)).toContain(o);
    const filled = (path: string, id: string) => path.replace(/:id\b/, id).replace(/:[a-z]+/gi, 'x');
    /** Ways to write one address that somebody hopes the door reads otherwise than the router. */
    const written = (p: string): string[] => [
      p,
      p.toUpperCase(),
      p.replace('/api', '/API'),
      p.replace('/api', '//api'),
      p.replace('/api/', '/api//'),
      p.replace('/api', '/%61pi'),
      p.replace('/api', '/x/../api'),
      p.replace('/api', `/api/runs/${run}/../..`),
      p.replace('/api', `/api/runs/${run}/..%2f..`),
      `${p}/`,
      `${p}?x=/api/runs/${run}`,
      p.replace('/api', '/./api'),
      p.replace('/api', '/api;/'),
    ];
    const raw = (method: string, path: string) =>
      new Promise<number>(done => {
        const { hostname, port } = new URL(at);
        const r = request(
          {
            hostname,
            port,
            method,
            path,
            headers: { cookie: cookieOf(ask), 'content-type': 'application/json' },
          },
          answer => {
            answer.destroy();
            done(answer.statusCode ?? 0);
          },
        );
        r.end(method === 'GET' ? undefined : '{}');
      });
    // ids as they are and as another run's; `end` is asked last, since it ends the run
    const last = routes.filter(([, p]) => p.endsWith('/end'));
    for (const [method, path] of [...routes.filter(r => !last.includes(r)), ...last])
      for (const id of [other, 'bramble-winter', run]) {
        for (const p of written(filled(path, id))) {
          const status = await raw(method, p);
          const mine = open.has(`${method} ${path}`) && (id === run || !path.includes(':id'));
          // pages are read under any address that is no file: 404 here, since none are built
          if (!mine) expect([401, 403, 404, 405, 400], `${method} ${p}`).toContain(status);
          else if (p === filled(path, id)) expect([403, 405], `${method} ${p}`).not.toContain(status);
        }
      }
    const left = (await desk(`/api/runs/${other}`)).body as { endedAt: number | null; ticks: unknown[] };
    expect([left.endedAt, left.ticks]).toEqual([null, []]);
    expect((await desk('/api/documents/bramble-winter/runs')).body).toHaveLength(3);
  });

  it('ends by itself: with nobody in, half a day on, or a while after the run', async () => {
    let now = 1_000_000;
    const ended: string[] = [];
    const made = () =>
      new Sharing({
        host: '127.0.0.1',
        port: 0,
        app: () => new Koa(),
        onEnd: r => ended.push(r),
        now: () => now,
      });
    const empty = made();
    await empty.open('r1');
    now += CODE_MS - 1;
    expect(await empty.look()).toBe(false);
    now += CODE_MS + 2;
    expect(await empty.look()).toBe(true);
    expect([empty.state(), ended]).toEqual([undefined, ['r1']]);
    const long = made();
    await long.open('r2');
    const code = long.state()?.code?.text ?? '';
    expect(long.enter(code, 'a')).toHaveProperty('token');
    now += 11 * 3600_000;
    expect(await long.look()).toBe(false);
    expect(long.state()?.devices).toBe(1);
    now += 1.1 * 3600_000;
    expect(await long.look()).toBe(true);
    const over = made();
    await over.open('r3');
    over.enter(over.state()?.code?.text ?? '', 'a');
    over.runEnded('other');
    now += 3600_000;
    expect(await over.look()).toBe(false);
    over.runEnded('r3');
    now += 11 * 60_000;
    expect(await over.look()).toBe(true);
  });

  it('holds no more connections of one address than a phone needs', async () => {
    const { addresses } = await share();
    const { hostname, port } = new URL(addresses[0] as string);
    const sockets = Array.from({ length: 60 }, () => connect(Number(port), hostname));
    for (const s of sockets) s.on('error', () => undefined);
    await new Promise(done => setTimeout(done, 400));
    const open = sockets.filter(s => !s.destroyed && s.readyState === 'open').length;
    expect(open).toBeGreaterThan(5);
    expect(open).toBeLessThanOrEqual(24);
    for (const s of sockets) s.destroy();
    await new Promise(done => setTimeout(done, 100));
    expect((await fetch(`${addresses[0]}/join.js`)).status).toBe(200);
  });

  it('answers under an address that this machine has only got since', async () => {
    let hosts = ['192.0.2.7'];
    const app = new Koa();
    app.use(answerFaults(() => undefined));
    app.use(guard(() => hosts));
    app.use(ctx => {
      ctx.body = 'in';
    });
    const listener = app.listen(0);
    const { port } = listener.address() as AddressInfo;
    const ask = () =>
      new Promise(done =>
        request({ port, headers: { host: `192.0.2.9:${port}` } }, r => done(r.statusCode)).end(),
      );
    expect(await ask()).toBe(403);
    hosts = ['192.0.2.9'];
    expect(await ask()).toBe(200);
    listener.closeAllConnections();
    listener.close();
  });

  it('is ended from the desk: who was let in is out and the port is closed', async () => {
    const { addresses, code } = await share();
    const ask = phone(addresses[0] as string);
    await join_(ask, code?.text ?? '');
    expect((await ask(`/api/runs/${run}`)).status).toBe(200);
    expect((await desk('/api/share', 'DELETE')).body).toEqual({ run: null });
    await expect(ask(`/api/runs/${run}`)).rejects.toThrow();
    // opened anew, the old session is worth nothing
    const next = await share();
    const r = await fetch(`${next.addresses[0]}/api/runs/${run}`);
    expect(r.status).toBe(401);
  });

  it('comes back under the address a phone still keeps its ticks for, unless another has it', async () => {
    const first = (await share()).addresses[0];
    const fixed = await startServer({
      dataDir: folder,
      port: 0,
      quiet: true,
      shareHost: '127.0.0.1',
      sharePort: Number(new URL(first as string).port),
    });
    const open = async (): Promise<string> => {
      const r = await fetch(`${fixed.address}/api/share`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ run }),
      });
      return ((await r.json()) as ShareState).addresses[0] as string;
    };
    try {
      // the port is taken by the other server: any free one will do
      expect(await open()).not.toBe(first);
      await fetch(`${fixed.address}/api/share`, { method: 'DELETE' });
      await desk('/api/share', 'DELETE');
      expect(await open()).toBe(first);
    } finally {
      await fixed.close();
    }
  });

  it('refuses another name for this machine, and a run that is not there', async () => {
    const { addresses } = await share();
    const { port } = new URL(addresses[0] as string);
    const status = await new Promise<number>(done =>
      request({ host: '127.0.0.1', port, path: '/', headers: { host: `evil.example:${port}` } }, r => {
        r.resume();
        done(r.statusCode ?? 0);
      }).end(),
    );
    expect(status).toBe(403);
    expect((await desk('/api/share', 'POST', { run: 'nowhere' })).status).toBe(404);
  });
});
