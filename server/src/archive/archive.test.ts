import { copyFile, mkdtemp, readdir, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createClient } from '@libsql/client';
import { type Archive, type ArchivedPhoto, archiveFiles, readArchive } from '@plate-fold/core/formats';
import type { LogEntry } from '@plate-fold/core/log';
import { ADDRESSABLE, type PlanDocument } from '@plate-fold/core/plan';
import type { Tick } from '@plate-fold/core/sequence';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { unzipSync, zipSync } from 'fflate';
import { afterEach, describe, expect, it } from 'vitest';
import { dailyBackups } from '../db/backups';
import { openStore, type Store } from '../db/open';
import { type RunningServer, startServer } from '../server';
import { collect, packed, restore, unpacked } from '.';

const DEMO = demo('pebble');
const PNG = new Uint8Array([137, 80, 78, 71, 13, 10, 26, 10, 1, 2, 3]);
const folder = () => mkdtemp(join(tmpdir(), 'platefold-archive-'));
const stores: Store[] = [];
const fresh = async (): Promise<Store> => {
  const store = await openStore(await folder());
  stores.push(store);
  return store;
};
afterEach(async () => {
  for (const s of stores.splice(0)) await s.close();
});

const id = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 12 }).filter(s => ADDRESSABLE.test(s));
const time = fc.integer({ min: 1, max: 4_000_000_000_000 });
const word = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }).filter(s => !/\p{Cs}/u.test(s));
const orNull = <T>(a: fc.Arbitrary<T>) => fc.option(a, { nil: null });
const uniqueBy = <T>(of: fc.Arbitrary<T>, key: (x: T) => unknown, maxLength = 3) =>
  fc.uniqueArray(of, { maxLength, selector: key });
const document = (plan: fc.Arbitrary<string>) =>
  fc
    .tuple(plan, word)
    .map(([planId, name]) => ({ ...DEMO, plan: { ...DEMO.plan, id: planId, name } }) as PlanDocument);
const photo: fc.Arbitrary<ArchivedPhoto> = fc.record({
  id,
  type: fc.constant('image/png'),
  bytes: fc.uint8Array({ maxLength: 50 }).map(b => new Uint8Array([...PNG, ...b])),
  receivedAt: time,
});
const tick = fc.record({
  id,
  stepId: word,
  jointId: orNull(word),
  kind: fc.constantFrom('done', 'undone', 'deviation', 'override'),
  torqueNm: orNull(fc.double({ min: 0, max: 1000, noNaN: true }).map(x => x + 0)),
  note: orNull(word),
  fault: fc.constant(null),
  values: orNull(
    fc.dictionary(
      fc.string({ minLength: 1, maxLength: 8 }).filter(k => k !== '__proto__'),
      fc.integer({ min: -1e7, max: 1e7 }),
      { maxKeys: 3, noNullPrototype: true },
    ),
  ),
  who: orNull(word),
  wrench: orNull(word),
  photo: orNull(id),
  at: time,
  device: word,
  receivedAt: time,
}) as fc.Arbitrary<Tick & { receivedAt: number }>;
const entry = fc.record({
  id,
  kind: fc.constant('install'),
  at: time,
  note: word,
}) as unknown as fc.Arbitrary<LogEntry>;
const planOf = (planId: string) =>
  fc.record({
    revision: fc.integer({ min: 1, max: 9999 }),
    updatedAt: time,
    document: document(fc.constant(planId)),
    versions: fc.constant([]),
    runs: uniqueBy(
      fc.record({
        id,
        revision: fc.integer({ min: 1, max: 99 }),
        buildId: word,
        service: orNull(word),
        startedAt: time,
        endedAt: orNull(time),
        setAsideAt: orNull(time),
        document: document(fc.constant(planId)),
        ticks: uniqueBy(tick, t => t.id, 4).map(all =>
          [...all].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1)),
        ),
        photos: uniqueBy(photo, p => p.id, 2),
      }),
      r => r.id,
    ),
    log: uniqueBy(fc.record({ entry, struckAt: orNull(time), receivedAt: time }), l => l.entry.id),
    logPhotos: uniqueBy(photo, p => p.id, 2),
    surveyFiles: uniqueBy(photo, p => p.id, 2),
    kits: uniqueBy(
      fc.record({
        buildId: word,
        kit: fc.record({
          counted: fc.dictionary(
            word.filter(k => k !== '__proto__'),
            fc.integer({ min: 0, max: 500 }),
            { maxKeys: 3, noNullPrototype: true },
          ),
          tried: fc.uniqueArray(word, { maxLength: 3 }),
        }),
        updatedAt: time,
      }),
      k => k.buildId,
    ),
  });
const archive: fc.Arbitrary<Archive> = fc
  .uniqueArray(id, { minLength: 1, maxLength: 3 })
  .chain(ids =>
    fc.record({
      madeAt: time,
      plans: fc.tuple(...ids.map(planOf)),
      shelf: uniqueBy(
        fc.record({
          kind: fc.constantFrom('part' as const, 'wrench' as const),
          name: word,
          count: fc.integer({ min: 1, max: 1000 }),
          low: orNull(fc.integer({ min: 0, max: 1000 })),
          high: orNull(fc.integer({ min: 0, max: 1000 })),
          updatedAt: time,
        }),
        s => `${s.kind} ${s.name}`,
      ),
    }),
  )
  // a run has one id in the whole database
  .filter(a => {
    const all = a.plans.flatMap(p => p.runs.map(r => r.id));
    return new Set(all).size === all.length;
  });

/** What an archive says, in an order that is its own. */
const said = (a: Archive): unknown =>
  JSON.parse(
    JSON.stringify(
      {
        shelf: [...(a.shelf ?? [])].sort((x, y) => (`${x.kind} ${x.name}` < `${y.kind} ${y.name}` ? -1 : 1)),
        plans: [...a.plans]
          .sort((x, y) => (x.document.plan.id < y.document.plan.id ? -1 : 1))
          .map(({ versions: _, ...p }) => ({
            ...p,
            runs: [...p.runs]
              .sort((x, y) => (x.id < y.id ? -1 : 1))
              .map(r => ({
                ...r,
                ticks: [...r.ticks]
                  .map(t => Object.fromEntries(Object.entries(t).sort()))
                  .sort((x, y) => (String(x.id) < String(y.id) ? -1 : 1)),
                photos: [...r.photos].sort((x, y) => (x.id < y.id ? -1 : 1)),
              })),
            log: [...p.log].sort((x, y) => (x.entry.id < y.entry.id ? -1 : 1)),
            logPhotos: [...p.logPhotos].sort((x, y) => (x.id < y.id ? -1 : 1)),
            surveyFiles: [...p.surveyFiles].sort((x, y) => (x.id < y.id ? -1 : 1)),
            kits: [...p.kits].sort((x, y) => (x.buildId < y.buildId ? -1 : 1)),
          })),
      },
      (_, v) => (v instanceof Uint8Array ? [...v] : v),
    ),
  );

describe('an archive', () => {
  it('taken out and put into an empty database says the same, whatever is in it', async () => {
    await fc.assert(
      fc.asyncProperty(archive, async made => {
        const store = await fresh();
        await restore(store, await unpacked(await packed(made)));
        const out = await unpacked(await packed(await collect(store, { versions: true })));
        expect(said(out)).toEqual(said(made));
        // each plan has its own newest version
        for (const p of out.plans) expect(p.versions.at(-1)?.document).toEqual(p.document);
        // once more over itself
        await restore(store, out, 'replace');
        expect(said(await collect(store))).toEqual(said(made));
        // and beside itself: all that was there is there still, and as much again
        const { plans } = await restore(store, out, 'both');
        const both = await collect(store);
        expect(both.plans).toHaveLength(2 * made.plans.length);
        expect(said({ ...both, plans: both.plans.filter(p => !plans.includes(p.document.plan.id)) })).toEqual(
          said(made),
        );
        await store.close();
        stores.pop();
      }),
      { numRuns: Number(process.env.SOAK_ARCHIVES ?? 12) },
    );
  });

  it('with a byte changed, cut off, or with one file put in another\u2019s place is refused whole, with the file named', async () => {
    const [made] = fc.sample(
      archive.filter(a => a.plans.some(p => p.runs.length > 0)),
      { numRuns: 1, seed: 7 },
    ) as [Archive];
    const store = await fresh();
    const bytes = await packed(made);
    await fc.assert(
      fc.asyncProperty(fc.nat(bytes.length - 1), fc.integer({ min: 1, max: 255 }), async (at, by) => {
        const torn = bytes.slice();
        torn[at] = (torn[at] as number) ^ by;
        const read = await unpacked(torn).then(
          a => ({ a }),
          (e: Error) => ({ e }),
        );
        // a bit of a date or a comment may be another; what is said may not
        if ('a' in read) expect(said(read.a)).toEqual(said(made));
        else expect(read.e.message).toMatch(/archive was not taken: \S|not a whole zip|unpacks to more/);
      }),
      { numRuns: 150 },
    );
    await expect(unpacked(bytes.slice(0, bytes.length - 30))).rejects.toThrow('not a whole zip file');
    await expect(unpacked(new Uint8Array([1, 2, 3]))).rejects.toThrow('not a whole zip file');
    const files = { ...archiveFiles(made) } as Record<string, Uint8Array>;
    const plan = Object.keys(files).find(f => f.endsWith('plan.platefold.json')) as string;
    const without = { ...files };
    delete without[plan];
    expect(readArchive(without)).toMatchObject({
      ok: false,
      faults: [{ path: plan, fault: 'is missing from the archive' }],
    });
    const manifest = JSON.parse(new TextDecoder().decode(files['manifest.json']));
    const other = {
      ...files,
      'manifest.json': new TextEncoder().encode(
        JSON.stringify({ ...manifest, format: 'plate-fold-archive/9' }),
      ),
    };
    expect(readArchive(other)).toMatchObject({
      ok: false,
      faults: [{ fault: expect.stringContaining('plate-fold-archive/9') }],
    });
    expect(await collect(store)).toMatchObject({ plans: [], shelf: [] });
  });

  it('that swells beyond its bounds is stopped before it is unpacked', async () => {
    const bomb = zipSync({ 'manifest.json': new Uint8Array(5_000_000) }, { level: 9 });
    const said = (size: number) => {
      const lie = bomb.slice();
      const directory = Buffer.from(lie).indexOf('PK\x01\x02', 0, 'latin1');
      new DataView(lie.buffer).setUint32(directory + 24, size, true);
      return lie;
    };
    await expect(unpacked(said(600_000_000))).rejects.toThrow('unpacks to more than 500 MB');
    // one that says less than it is
    await expect(unpacked(said(1000))).rejects.toThrow(/not a whole zip|was not taken/);
  });
});

describe('over the server', () => {
  let server: RunningServer | undefined;
  afterEach(() => server?.close());
  const post = async (bytes: Uint8Array, query = '') => {
    const r = await fetch(`${server?.address}/api/archive${query}`, {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: bytes,
    });
    // biome-ignore lint/suspicious/noExplicitAny: answers of many shapes
    return { status: r.status, body: (await r.json()) as any };
  };

  it('a plan with its runs, log and photos goes out as a file, and back: replace, keep both, or nothing', async () => {
    server = await startServer({ dataDir: await folder(), port: 0, quiet: true });
    const r = await fetch(`${server.address}/api/archive?plan=bramble-winter&versions=1`);
    expect(r.headers.get('content-disposition')).toMatch(/bramble-winter-\d{4}-\d\d-\d\d\.platefold\.zip/);
    const bytes = new Uint8Array(await r.arrayBuffer());
    const names = Object.keys(unzipSync(bytes));
    expect(names).toContain('plans/bramble-winter/plan.platefold.json');
    expect(names).toContain('plans/bramble-winter/runs/demo-install.json');
    const asked = await post(bytes);
    expect([asked.status, asked.body.existing.map((d: { id: string }) => d.id)]).toEqual([
      409,
      ['bramble-winter'],
    ]);
    const both = await post(bytes, '?existing=both');
    expect(both.body.plans).toEqual(['bramble-winter-2']);
    const runs = (await (await fetch(`${server.address}/api/documents/bramble-winter-2/runs`)).json()) as {
      id: string;
    }[];
    expect(runs).toHaveLength(1);
    expect(runs[0]?.id).not.toBe('demo-install');
    const log = (await (
      await fetch(`${server.address}/api/documents/bramble-winter-2/log`)
    ).json()) as LogEntry[];
    expect(log.find(e => e.kind === 'install')?.run).toBe(runs[0]?.id);
    expect((await post(bytes, '?existing=replace')).body.plans).toEqual(['bramble-winter']);
    expect((await post(bytes, '?existing=maybe')).status).toBe(400);
    expect((await post(new Uint8Array(10))).status).toBe(422);
    expect((await fetch(`${server.address}/api/archive?plan=none`)).status).toBe(404);
    const all = (await (await fetch(`${server.address}/api/documents`)).json()) as { id: string }[];
    expect(all).toHaveLength(5);
  });
});

describe('backups by themselves', () => {
  it('are made once a day, whole, and seven are kept; the database file alone is whole after a close', async () => {
    const dir = await folder();
    let now = Date.UTC(2031, 0, 1, 6);
    const server = await startServer({ dataDir: dir, port: 0, quiet: true });
    const file = join(dir, 'plate-fold.db');
    const faults: unknown[] = [];
    const backups = dailyBackups(file, { now: () => now, log: e => faults.push(e) });
    expect(await backups.look()).toBe(true);
    expect(await backups.look()).toBe(false);
    for (let day = 0; day < 9; day++) {
      now += 25 * 3600_000;
      expect(await backups.look()).toBe(true);
    }
    const { kept, folder: place } = await backups.state();
    expect(kept).toHaveLength(7);
    expect(kept[0]?.at).toBe(now);
    expect(place).toBe(join(dir, 'backups'));
    expect(await readdir(place)).toHaveLength(7);
    const count = async (path: string) => {
      const client = createClient({ url: `file:${path}` });
      const { rows } = await client.execute('select count(*) as n from documents');
      const check = await client.execute('pragma integrity_check');
      client.close();
      return [Number(rows[0]?.n), check.rows[0]?.integrity_check];
    };
    expect(await count(join(place, kept[0]?.name as string))).toEqual([4, 'ok']);
    // a clock that was once far ahead does not end them
    now -= 300 * 24 * 3600_000;
    expect(await backups.look()).toBe(true);
    await server.close();
    await backups.stop();
    const alone = join(await folder(), 'copy.db');
    await copyFile(file, alone);
    expect(await count(alone)).toEqual([4, 'ok']);
    expect(faults).toEqual([]);
    const other = await folder();
    await writeFile(join(other, 'backups'), 'in the way');
    const none = dailyBackups(join(other, 'plate-fold.db'), { log: e => faults.push(e) });
    expect(await none.look()).toBe(false);
    expect((await none.state()).fault).toContain('could not be made');
    await none.stop();
  });
});
