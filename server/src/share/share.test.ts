import { mkdtemp, rm } from 'node:fs/promises';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from '../server';
import { CODE_MS, freshCode, MOST_TRIES, tryCode } from './code';
import type { ShareState } from './sharing';

describe('a one-time code', () => {
  const code = freshCode(1000);
  it('is of letters and figures that are not mixed up, another every time', () => {
    expect(code.text).toMatch(/^[A-HJ-NP-Z2-9]{8}$/);
    expect(new Set(Array.from({ length: 200 }, () => freshCode(0).text)).size).toBe(200);
  });
  it('is right in small letters and with blanks too, wrong by one letter, and expires', () => {
    expect(tryCode(code, ` ${code.text.toLowerCase().replace(/(....)/, '$1 ')}`, 2000)).toBe('right');
    expect(tryCode(code, `${code.text.slice(0, 7)}0`, 2000)).toBe('wrong');
    expect(tryCode(code, '', 2000)).toBe('wrong');
    expect(tryCode(code, code.text, 1001 + CODE_MS)).toBe('expired');
    expect(tryCode({ ...code, tries: MOST_TRIES }, code.text, 2000)).toBe('spent');
    expect(tryCode(undefined, code.text, 2000)).toBe('spent');
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
  const phone = (at: string) => {
    let cookie = '';
    return async (path: string, init: RequestInit = {}) => {
      const r = await fetch(`${at}${path}`, {
        redirect: 'manual',
        ...init,
        headers: { ...(init.headers as Record<string, string>), ...(cookie ? { cookie } : {}) },
      });
      const set = r.headers.get('set-cookie');
      if (set) cookie = set.split(';')[0] as string;
      return r;
    };
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

  it('counts wrong codes and gives the code up after five', async () => {
    const { addresses, code } = await share();
    const ask = phone(addresses[0] as string);
    for (let i = 0; i < MOST_TRIES; i++) {
      const r = await join_(ask, 'WRONGONE');
      expect(r.status).toBe(401);
      expect(await r.text()).toContain('not the code');
    }
    expect(await (await join_(ask, code?.text ?? '')).text()).toContain('spent');
    // a new one from the desk works again
    const again = (await share()).code?.text ?? '';
    expect((await join_(ask, again)).status).toBe(303);
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
