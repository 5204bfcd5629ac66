import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from '../server';

let server: RunningServer;
let folder: string;
const ID = 'wren-sliders';
const call = async (path: string, method = 'GET', body?: unknown) => {
  const r = await fetch(`${server.address}/api${path}`, {
    method,
    headers: body === undefined ? {} : { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  // biome-ignore lint/suspicious/noExplicitAny: answers of many shapes
  return { status: r.status, body: (await r.json().catch(() => undefined)) as any };
};
const open = () => startServer({ dataDir: folder, port: 0, quiet: true });
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'plate-fold-log-'));
  server = await open();
});
afterEach(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});
const hit = { id: 'e1', kind: 'hit', at: 1000, place: [100, -50], dentMm: 4 };

describe('the log on the server', () => {
  it('keeps what it is sent once, over a restart, oldest first', async () => {
    await call(`/documents/${ID}/log`, 'POST', { entries: [hit, { id: 'e0', kind: 'install', at: 500 }] });
    await call(`/documents/${ID}/log`, 'POST', { entries: [hit] });
    await server.close();
    server = await open();
    expect((await call(`/documents/${ID}/log`)).body.map((e: { id: string }) => e.id)).toEqual(['e0', 'e1']);
    expect((await call(`/documents/${ID}/log`)).body[1]).toEqual(hit);
  });
  it('puts an entry right and strikes one out', async () => {
    await call(`/documents/${ID}/log`, 'POST', { entries: [hit] });
    const right = { ...hit, dentMm: 6, note: 'measured again' };
    expect((await call(`/documents/${ID}/log/e1`, 'PUT', right)).body).toEqual([right]);
    expect((await call(`/documents/${ID}/log/e1`, 'DELETE')).body).toEqual([]);
    expect((await call(`/documents/${ID}/log`)).body).toEqual([]);
  });
  it('refuses what is no entry, a whole batch at a time, naming what is wrong', async () => {
    const bad = await call(`/documents/${ID}/log`, 'POST', {
      entries: [hit, { ...hit, id: 'e2', place: undefined }],
    });
    expect(bad.status).toBe(422);
    expect(bad.body.fault).toContain('tap the map');
    expect((await call(`/documents/${ID}/log`)).body).toEqual([]);
    expect((await call(`/documents/${ID}/log`, 'POST', { entries: 'all' })).status).toBe(422);
    expect((await call('/documents/nowhere/log')).status).toBe(404);
    expect((await call(`/documents/${ID}/log/e9`, 'DELETE')).status).toBe(404);
    expect((await call(`/documents/${ID}/log/e9`, 'PUT', hit)).status).toBe(422);
  });
});

describe('photos of a run', () => {
  const JPEG = Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, ...Array.from({ length: 500 }, (_, i) => i % 256)]);
  const put = (run: string, id: string, bytes: Uint8Array<ArrayBuffer>, type = 'image/jpeg') =>
    fetch(`${server.address}/api/runs/${run}/photos/${id}`, {
      method: 'PUT',
      headers: { 'content-type': type },
      body: bytes,
    });
  it('are kept once and come back byte by byte', async () => {
    const run = (await call(`/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body.id as string;
    expect((await put(run, 'p1', JPEG)).status).toBe(201);
    expect((await put(run, 'p1', JPEG)).status).toBe(201);
    const back = await fetch(`${server.address}/api/runs/${run}/photos/p1`);
    expect(back.headers.get('content-type')).toBe('image/jpeg');
    expect(new Uint8Array(await back.arrayBuffer())).toEqual(JPEG);
  });
  it('are refused when too large, torn, or no picture, and say so', async () => {
    const run = (await call(`/documents/${ID}/runs`, 'POST', { buildId: 'A' })).body.id as string;
    const large = new Uint8Array(3_100_000);
    large.set(JPEG);
    const r = await put(run, 'p2', large);
    expect(r.status).toBe(413);
    expect(((await r.json()) as { fault: string }).fault).toContain('larger than 3 MB');
    expect((await put(run, 'p3', Uint8Array.from([1, 2, 3]))).status).toBe(422);
    expect((await put(run, 'p4', JPEG, 'text/html')).status).toBe(415);
    expect((await put('nowhere', 'p5', JPEG)).status).toBe(404);
    expect((await fetch(`${server.address}/api/runs/${run}/photos/p2`)).status).toBe(404);
  });
});

describe('a service as a run', () => {
  it('names a service of the vehicle, or is refused', async () => {
    const made = await call(`/documents/${ID}/runs`, 'POST', { buildId: 'A', service: 'oil-drain' });
    expect(made.status).toBe(201);
    expect((await call(`/runs/${made.body.id}`)).body.service).toBe('oil-drain');
    expect((await call(`/documents/${ID}/runs`)).body[0].service).toBe('oil-drain');
    expect((await call(`/documents/${ID}/runs`, 'POST', { buildId: 'A', service: 'wash' })).status).toBe(422);
  });
});

describe('pictures of a survey', () => {
  const PNG = Buffer.from('89504e470d0a1a0a0000', 'hex');
  const put = (plan: string, id: string, type: string, body: Buffer) =>
    fetch(`${server.address}/api/documents/${plan}/photos/${id}`, {
      method: 'PUT',
      headers: { 'content-type': type },
      body: new Uint8Array(body),
    });
  it('are kept once beside their plan, over a restart, and go along to a copy', async () => {
    expect((await put(ID, 'p1', 'image/png', PNG)).status).toBe(201);
    expect((await put(ID, 'p1', 'image/png', Buffer.concat([PNG, PNG]))).status).toBe(201);
    await server.close();
    server = await open();
    const back = await fetch(`${server.address}/api/documents/${ID}/photos/p1`);
    expect(back.headers.get('content-type')).toBe('image/png');
    expect(Buffer.from(await back.arrayBuffer())).toEqual(PNG);
    const along = await call('/documents/heron-autumn/photos', 'POST', { from: ID });
    expect(along).toMatchObject({ status: 201, body: { received: ['p1'] } });
    expect((await fetch(`${server.address}/api/documents/heron-autumn/photos/p1`)).status).toBe(200);
    // and from a deleted plan that is brought back
    const { key } = (await call('/documents/heron-autumn', 'DELETE')).body;
    expect((await fetch(`${server.address}/api/documents/heron-autumn/photos/p1`)).status).toBe(404);
    await call(`/deleted/${key}`, 'POST');
    expect((await fetch(`${server.address}/api/documents/heron-autumn/photos/p1`)).status).toBe(200);
  });
  it('are refused where they are none, too large, or of no plan, and nothing is kept', async () => {
    expect((await put(ID, 'p2', 'text/plain', PNG)).status).toBe(415);
    const torn = await put(ID, 'p2', 'image/jpeg', PNG);
    expect([torn.status, ((await torn.json()) as { fault: string }).fault]).toEqual([
      422,
      'The photo is torn: its bytes are not image/jpeg.',
    ]);
    const large = await put(ID, 'p2', 'image/png', Buffer.concat([PNG, Buffer.alloc(3_000_001)]));
    expect(large.status).toBe(413);
    expect((await put('nowhere', 'p2', 'image/png', PNG)).status).toBe(404);
    expect((await call(`/documents/${ID}/photos/p2`)).status).toBe(404);
    expect((await call(`/documents/${ID}/photos`, 'POST', { from: 'nowhere' })).status).toBe(404);
    expect((await call(`/documents/${ID}/photos`, 'POST', {})).status).toBe(422);
  });
  it('have the heights of a scan beside them, refused where they are torn or too large', async () => {
    const send = (body: Buffer) =>
      fetch(`${server.address}/api/documents/${ID}/scans/s1`, {
        method: 'PUT',
        headers: { 'content-type': 'application/octet-stream' },
        body: new Uint8Array(body),
      });
    expect((await send(Buffer.from('no heights'))).status).toBe(422);
    expect((await send(Buffer.concat([Buffer.from([0x78]), Buffer.alloc(12_000_000)]))).status).toBe(413);
    expect((await fetch(`${server.address}/api/documents/${ID}/scans/s1`)).status).toBe(404);
    expect((await send(Buffer.from([0x78, 0x9c, 1, 2]))).status).toBe(201);
    const back = await fetch(`${server.address}/api/documents/${ID}/scans/s1`);
    expect([...new Uint8Array(await back.arrayBuffer())]).toEqual([0x78, 0x9c, 1, 2]);
  });
  it('of the example come with it', async () => {
    for (const file of ['photos/survey-front', 'photos/survey-rear', 'scans/scan'])
      expect((await fetch(`${server.address}/api/documents/bramble-winter/${file}`)).status).toBe(200);
  });
});
