import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gatherFacts } from '@plate-fold/core/derive';
import { demo } from '@plate-fold/demo';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { binOf, KEPT_DAYS } from '../archive';
import { openStore } from '../db/open';
import { type RunningServer, startServer } from '../server';
import { asking } from '../testing/asking';

let server: RunningServer;
let dataDir: string;
const ID = 'wren-sliders';
const call = asking(() => server);
const open = () => startServer({ dataDir, port: 0, quiet: true });
beforeEach(async () => {
  dataDir = await mkdtemp(join(tmpdir(), 'plate-fold-door-'));
  server = await open();
});
afterEach(async () => {
  await server.close();
  await rm(dataDir, { recursive: true, force: true });
});
const list = async () =>
  (await call('/api/documents')).body as {
    id: string;
    example: boolean;
    archivedAt: number | null;
    lastRunAt: number | null;
  }[];

describe('the list of plans', () => {
  it('tells examples from what an owner made, and when a plan was last run', async () => {
    const own = demo('pebble');
    const plan = { ...own, plan: { ...own.plan, id: 'mine', name: 'mine' } };
    expect((await call('/api/documents', 'POST', { document: plan })).status).toBe(201);
    const before = await list();
    expect(before.filter(d => !d.example).map(d => d.id)).toEqual(['mine']);
    expect(before.filter(d => d.example)).toHaveLength(4);
    expect(before.find(d => d.id === 'mine')?.lastRunAt).toBeNull();
    const run = await call('/api/documents/mine/runs', 'POST', { buildId: own.plan.activeBuild });
    expect((await list()).find(d => d.id === 'mine')?.lastRunAt).toEqual(expect.any(Number));
    expect(run.status).toBeLessThan(300);
  });
  it('has a glance at each: its plates, what it weighs and what is found, as the core says, and another after an edit', async () => {
    const doc = demo('wren');
    const facts = gatherFacts(doc);
    const one = (await call(`/api/documents/${ID}/glance`)).body;
    expect(one.plates.map((p: { mark: string }) => p.mark)).toEqual(facts.plates.map(p => p.panel.mark));
    expect(one.netKg).toBeCloseTo(facts.weight.netKg, 9);
    expect(one.wheels.rear).toBe(doc.rig.wheelbase);
    const [first, ...rest] = doc.plan.panels;
    const marked = { ...doc, plan: { ...doc.plan, panels: [{ ...first!, mark: 'Z' }, ...rest] } };
    await call(`/api/documents/${ID}`, 'PUT', { baseRevision: 1, document: marked });
    const two = (await call(`/api/documents/${ID}/glance`)).body;
    expect(two.revision).toBe(2);
    expect(two.plates[0].mark).toBe('Z');
    expect((await call('/api/documents/nowhere/glance')).status).toBe(404);
  });
  it('keeps what is archived and gives it back, over a restart', async () => {
    await call(`/api/documents/${ID}/archived`, 'PUT', { archived: true });
    await server.close();
    server = await open();
    expect((await list()).find(d => d.id === ID)?.archivedAt).toEqual(expect.any(Number));
    await call(`/api/documents/${ID}/archived`, 'PUT', { archived: false });
    expect((await list()).find(d => d.id === ID)?.archivedAt).toBeNull();
    const wrong = await call(`/api/documents/${ID}/archived`, 'PUT', { archived: 'perhaps' });
    expect(wrong.status).toBe(422);
  });
});

describe('a deleted plan', () => {
  it('is gone with its runs and log, and comes back whole, over a restart too', async () => {
    const before = {
      document: (await call('/api/documents/bramble-winter')).body.document,
      log: (await call('/api/documents/bramble-winter/log')).body,
      runs: (await call('/api/documents/bramble-winter/runs')).body,
      versions: (await call('/api/documents/bramble-winter/revisions')).body.length,
    };
    expect(before.log.length).toBeGreaterThan(0);
    const gone = await call('/api/documents/bramble-winter', 'DELETE');
    expect(gone.status).toBe(200);
    expect((await list()).some(d => d.id === 'bramble-winter')).toBe(false);
    expect((await call('/api/documents/bramble-winter')).status).toBe(404);
    expect((await call(`/api/runs/${before.runs[0].id}`)).status).toBe(404);
    await server.close();
    server = await open();
    const [kept] = (await call('/api/deleted')).body;
    expect(kept).toMatchObject({ id: 'bramble-winter', key: gone.body.key });
    expect((await call(`/api/deleted/${kept.key}`, 'POST', {})).body).toEqual({ id: 'bramble-winter' });
    expect({
      document: (await call('/api/documents/bramble-winter')).body.document,
      log: (await call('/api/documents/bramble-winter/log')).body,
      runs: (await call('/api/documents/bramble-winter/runs')).body,
      versions: (await call('/api/documents/bramble-winter/revisions')).body.length,
    }).toEqual(before);
    expect((await list()).find(d => d.id === 'bramble-winter')?.example).toBe(true);
    expect((await call('/api/deleted')).body).toEqual([]);
  });
  it('is not brought back over another of its id, nor twice, nor from elsewhere', async () => {
    const doc = (await call(`/api/documents/${ID}`)).body.document;
    const { key } = (await call(`/api/documents/${ID}`, 'DELETE')).body;
    await call('/api/documents', 'POST', {
      document: { ...doc, plan: { ...doc.plan, name: 'the new one' } },
    });
    expect((await call(`/api/deleted/${key}`, 'POST', {})).status).toBe(409);
    expect((await call(`/api/documents/${ID}`)).body.document.plan.name).toBe('the new one');
    expect((await call('/api/deleted/..%2F..%2Fx', 'POST', {})).status).toBe(404);
    expect((await call('/api/deleted/never', 'POST', {})).status).toBe(404);
    expect((await call('/api/documents/nowhere', 'DELETE')).status).toBe(404);
  });
  it('stays where its archive cannot be written, and is deleted for good after its days', async () => {
    // a file stands where the folder would be
    await writeFile(join(dataDir, 'deleted'), 'in the way');
    expect((await call(`/api/documents/${ID}`, 'DELETE')).status).toBeGreaterThanOrEqual(400);
    expect((await call(`/api/documents/${ID}`)).status).toBe(200);
    await rm(join(dataDir, 'deleted'));
    await call(`/api/documents/${ID}`, 'DELETE');
    await server.close();
    const store = await openStore(dataDir);
    const later = binOf(store, () => Date.now() + (KEPT_DAYS + 1) * 24 * 3600_000);
    expect(await binOf(store).list()).toHaveLength(1);
    expect(await later.list()).toEqual([]);
    expect(await readdir(join(dataDir, 'deleted'))).toEqual([]);
    await store.close();
    server = await open();
  });
});
