import { execFile } from 'node:child_process';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readDxf } from '@plate-fold/core/formats';
import { panelsRemoved, writeDocument } from '@plate-fold/core/plan';
import { foreignUnit } from '@plate-fold/core/testing';
import { demo, demoPath } from '@plate-fold/demo';
import { beforeAll, describe, expect, it } from 'vitest';
import { main } from './main';

const DEMO = demoPath('bramble');
const SCAN = DEMO.replace('.platefold.json', '.scan.bin');
const call = async (...args: string[]) => {
  let [out, err] = ['', ''];
  const code = await main(args, { out: t => (out += t), err: t => (err += t) });
  return { code, out, err };
};
let dir: string;
beforeAll(async () => {
  dir = await mkdtemp(join(tmpdir(), 'platefold-cli-'));
});

describe('platefold', () => {
  it.each([
    ['check', ['findings']],
    [
      'cover',
      [
        'components',
        'fraction',
        'fromAheadFraction',
        'lowestPoint',
        'approachDeg',
        'breakoverDeg',
        'departureDeg',
      ],
    ],
    ['weigh', ['builds']],
    ['bolts', ['joints', 'shopping', 'tools']],
    ['fold', ['panels']],
    ['sequence', ['steps']],
    ['service', ['points']],
  ])('%s --json prints one object with its keys', async (verb, keys) => {
    const { code, out, err } = await call(verb, DEMO, '--json');
    expect(err).toBe('');
    expect(code).toBe(0);
    expect(Object.keys(JSON.parse(out))).toEqual(keys);
  });

  it('service tells every point with its way, and adds up bolts as the plates hold them', async () => {
    const { points } = JSON.parse((await call('service', DEMO, '--json')).out) as {
      points: {
        id: string;
        through: string;
        openingId?: string;
        drop: string[];
        remove: string[];
        minutes: number;
      }[];
    };
    const { plan, rig } = JSON.parse(await readFile(DEMO, 'utf8')) as {
      plan: { joints: { id: string; panels: string[]; nut: string }[] };
      rig: { servicePoints: { id: string }[] };
    };
    expect(points.map(p => p.id)).toEqual(rig.servicePoints.map(s => s.id));
    for (const p of points) {
      expect(['opening', 'drop']).toContain(p.through);
      const held = plan.joints.filter(j => j.panels.some(x => p.drop.includes(x))).map(j => j.id);
      expect([...p.remove].sort()).toEqual(held.sort());
      if (p.through === 'drop') expect(p.drop.length).toBeGreaterThan(0);
    }
    expect((await call('service', DEMO)).out).toMatch(/transfer case fill +drop +plate-c +6 +1/);
  });

  it('holds plates against a scan that lies beside the plan', async () => {
    const { code, out } = await call('cover', DEMO, '--heights', SCAN, '--json');
    expect(code).toBe(0);
    const { scan } = JSON.parse(out) as { scan: { id: string; scanGapMm: number | null }[] };
    expect(scan.length).toBeGreaterThan(3);
    // the demo's scan shows its own parts, and plates clear them
    expect(scan.every(s => s.scanGapMm === null || (s.scanGapMm > -6 && s.scanGapMm < 400))).toBe(true);
    expect((await call('cover', DEMO, '--heights', SCAN)).out).toMatch(/to the scan/);
  });
  it.each(['check', 'cover', 'weigh', 'bolts', 'sequence', 'fold', 'service'])(
    'says %s in the units asked for, and keeps keys and figures of --json metric',
    async verb => {
      for (const units of ['inch', 'metric'] as const) {
        const { out } = await call(verb, DEMO, '--units', units);
        expect(out.split('\n').filter(l => foreignUnit(l, units))).toEqual([]);
      }
      const figures = (text: string): string =>
        JSON.stringify(JSON.parse(text), (_, v) => (typeof v === 'string' ? undefined : v));
      const [inch, metric] = await Promise.all(
        ['inch', 'metric'].map(async u => (await call(verb, DEMO, '--units', u, '--json')).out),
      );
      expect(figures(inch as string)).toBe(figures(metric as string));
    },
  );
  it('export writes the build book and the reminders, in the units asked for', async () => {
    const out = join(dir, 'book');
    const book = await call('export', DEMO, '--as', 'pdf', '--out', out, '--units', 'inch');
    expect(book).toMatchObject({ code: 0, err: '' });
    const pdf = await readFile(join(out, 'bramble-winter-build-book.pdf'));
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    await call('export', DEMO, '--as', 'ics', '--out', out);
    const ics = await readFile(join(out, 'bramble-winter.ics'), 'utf8');
    expect(ics.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(5);
    expect(ics).toContain('Re-torque all bolts: Bramble');
  });

  it('export writes one file a plate, lists, or the plan; and refuses what it cannot write', async () => {
    const out = join(dir, 'shop', 'cut');
    const dxf = await call('export', DEMO, '--as', 'dxf', '--out', out, '--units', 'inch');
    expect(dxf).toMatchObject({ code: 0, err: '' });
    const files = dxf.out.trim().split('\n');
    // six plates, three hangers and the sheets they are nested on
    const nests = files.filter(f => f.includes('nest-'));
    expect(files).toHaveLength(6 + 3 + nests.length);
    expect(nests[0]).toMatch(/nest-1-steel-4\.76mm\.dxf$/);
    let cut = 0;
    for (const f of nests) {
      const sheet = readDxf(await readFile(f, 'utf8'));
      if (sheet.ok) cut += sheet.value.plates.length;
    }
    expect(cut).toBe(6 + 3);
    // from front to rear, each by its own letter
    expect(files.slice(0, 6).map(f => basename(f)[0])).toEqual(['A', 'B', 'E', 'F', 'C', 'D']);
    expect(files[2]).toContain('E-converter-shield.dxf');
    const read = readDxf(await readFile(files[0] ?? '', 'utf8'));
    expect(read.ok && read.value.plates).toHaveLength(1);
    for (const [as, count] of [
      ['svg', 9],
      ['stl', 9],
      ['glb', 1],
      ['csv', 4],
      ['json', 1],
    ] as const) {
      const made = JSON.parse((await call('export', DEMO, '--as', as, '--out', join(dir, as), '--json')).out);
      expect(made.files, as).toHaveLength(count);
    }
    expect(await readFile(join(dir, 'json', 'bramble-winter.platefold.json'), 'utf8')).toBe(
      await readFile(DEMO, 'utf8'),
    );
    expect((await call('export', DEMO, '--as', 'wood', '--out', dir)).err).toContain(
      '--as must be one of dxf, template, svg, stl, glb, csv, pdf, ics, json',
    );
    expect((await call('export', DEMO, '--as', 'dxf')).err).toContain('needs --out');
    expect((await call('check', DEMO, '--as', 'dxf')).err).toContain('belong to export');
    expect((await call('export', DEMO, '--as', 'dxf', '--out', DEMO)).err).toMatch(
      /cannot be written to \((EEXIST|ENOTDIR)\)/,
    );
  });

  it.each(['bramble', 'heron', 'pebble', 'wren'])(
    'export of %s: every bolt of the hole table stands in the drawing of its plate, bars in a list of their own',
    async name => {
      const dir = await mkdtemp(join(tmpdir(), 'plate-fold-holes-'));
      const file = demoPath(name);
      const files = async (as: string): Promise<readonly string[]> =>
        JSON.parse((await call('export', file, '--as', as, '--out', dir, '--json')).out).files;
      const [lists, drawings] = [await files('csv'), await files('dxf')];
      const rows = (await readFile(join(dir, 'holes.csv'), 'utf8')).trim().split(/\r?\n/).slice(1);
      const { joints } = (
        JSON.parse(await readFile(file, 'utf8')) as {
          plan: { joints: { id: string; panels: string[]; nut: string }[] };
        }
      ).plan;
      // a strap has two legs
      const holes = (nut: string): number => (nut === 'axle-strap' ? 2 : 1);
      expect(rows).toHaveLength(joints.reduce((n, j) => n + holes(j.nut) * j.panels.length, 0));
      for (const row of rows) {
        const [mark = '', bolt = ''] = row.split(',');
        const drawing = drawings.find(f => f.includes(`/${mark}-`)) ?? '';
        expect((await readFile(drawing, 'utf8')).split(/\r?\n/), `${mark} ${bolt}`).toContain(bolt);
      }
      expect(lists.some(f => f.endsWith('crossbars.csv'))).toBe(name === 'heron');
    },
  );

  it('rows carry the binding keys', async () => {
    const fold = JSON.parse((await call('fold', DEMO, '--json')).out);
    expect(Object.keys(fold.panels[0])).toEqual(['id', 'blankAreaMm2', 'blankSize', 'bends', 'order']);
    expect(Object.keys(fold.panels[0].bends[0])).toEqual([
      'id',
      'angle',
      'insideRadius',
      'kFactor',
      'allowanceMm',
      'deductionMm',
      'minRadiusMm',
      'ok',
    ]);

    const weigh = JSON.parse((await call('weigh', DEMO, '--json')).out);
    expect(Object.keys(weigh.builds[0])).toEqual(
      expect.arrayContaining([
        'id',
        'panels',
        'hardwareKg',
        'addedKg',
        'removedKg',
        'netKg',
        'axles',
        'rideHeight',
        'cost',
      ]),
    );
    expect(Object.keys(weigh.builds[0].panels[0])).toEqual(
      expect.arrayContaining(['id', 'massKg', 'areaMm2', 'centroid']),
    );
    const bolts = JSON.parse((await call('bolts', DEMO, '--json')).out);
    expect(Object.keys(bolts.joints[0])).toEqual([
      'id',
      'gripMm',
      'lengthMm',
      'torqueNm',
      'preloadN',
      'limitedBy',
      'drill',
      'tools',
    ]);
    const { steps } = JSON.parse((await call('sequence', DEMO, '--json')).out);
    const seen = new Set<string>();
    for (const s of steps) {
      for (const n of s.needs) expect(seen.has(n)).toBe(true);
      seen.add(s.id);
    }
  });

  it('--build picks the build, and a wrong one is refused by name', async () => {
    const a = JSON.parse((await call('bolts', DEMO, '--json', '--build', 'A')).out);
    const b = JSON.parse((await call('bolts', DEMO, '--json', '--build', 'B')).out);
    expect(b.joints[0].gripMm).toBeGreaterThan(a.joints[0].gripMm);
    const bad = await call('bolts', DEMO, '--build', 'Z');
    expect(bad.code).toBe(2);
    expect(bad.err).toContain('no build "Z"; this plan has A (3/16 steel), B (1/4 aluminum), C (mixed)');
  });

  it('--phase looks at the plan as it stands then, and gives the run of that phase alone', async () => {
    const doc = JSON.parse(await readFile(DEMO, 'utf8'));
    doc.plan.phases = [
      { id: 'phase-1', name: 'first', panels: ['plate-a', 'plate-b', 'plate-e', 'plate-f'] },
      { id: 'phase-2', name: 'spring', panels: ['plate-c', 'plate-d'] },
    ];
    const file = join(await mkdtemp(join(tmpdir(), 'phases-')), 'plan.json');
    await writeFile(file, JSON.stringify(doc));
    const bolts = async (...more: string[]) =>
      JSON.parse((await call('bolts', file, '--json', ...more)).out).joints.length;
    expect(await bolts('--phase', 'first')).toBeLessThan(await bolts());
    expect(await bolts('--phase', 'spring')).toBe(await bolts());
    const raised = async (...more: string[]): Promise<readonly string[]> =>
      JSON.parse((await call('sequence', file, '--json', ...more)).out)
        .steps.filter((x: { stage: string }) => x.stage === 'hang')
        .flatMap((x: { panels: string[] }) => x.panels);
    expect(new Set(await raised('--phase', 'phase-2'))).toEqual(
      // its hangers come with plate D
      new Set(['plate-c', 'plate-d', 'bracket-7', 'bracket-8', 'bracket-9']),
    );
    const bad = await call('check', file, '--phase', 'Z');
    expect([bad.code, bad.err]).toEqual([
      2,
      expect.stringContaining('no phase "Z"; this plan has phase-1 (first), phase-2 (spring)'),
    ]);
  });

  it('exits 1 when something must stop the job', async () => {
    const doc = JSON.parse(await readFile(DEMO, 'utf8'));
    doc.plan.joints[0].fastener.length = 10;
    const file = join(dir, 'short.platefold.json');
    await writeFile(file, JSON.stringify(doc));
    const { code, out } = await call('check', file);
    expect(code).toBe(1);
    expect(out).toContain('too short');
  });

  it.each([
    [[], 'no verb'],
    [['fly', DEMO], 'no verb "fly"'],
    [['cover'], 'needs a file'],
    [['cover', '/no/such/file'], 'there is no file'],
    [['cover', DEMO, '--loud'], 'unknown option --loud'],
    [['fold', DEMO, '--heights', SCAN], '--heights belongs to cover and strike'],
    [['cover', demoPath('heron'), '--heights', SCAN], 'has no scan'],
    [['cover', DEMO, '--heights', DEMO], 'heights of the scan are torn'],
    [['cover', DEMO, '--heights', '/no/such/file'], 'cannot be read (ENOENT)'],
  ])('refuses %j with one line and exit 2', async (args, reason) => {
    const { code, err, out } = await call(...args);
    expect(code).toBe(2);
    expect(err).toContain(reason);
    expect(err.trim().split('\n')).toHaveLength(1);
    expect(out).toBe('');
  });

  it('names where a torn or wrong file breaks', async () => {
    const text = await readFile(DEMO, 'utf8');
    const torn = join(dir, 'torn.json');
    await writeFile(torn, text.slice(0, 4000));
    expect((await call('cover', torn)).err).toMatch(/line \d+ the text breaks off/);
    const wrong = join(dir, 'wrong.json');
    await writeFile(wrong, text.replace('"wheelbase": 3220', '"wheelbase": "3220 mm"'));
    const { err, code } = await call('cover', wrong);
    expect(code).toBe(2);
    expect(err).toContain('rig.wheelbase is "3220 mm", which is not a number');
  });

  it('runs from the shell as npx would run it', async () => {
    const bin = fileURLToPath(new URL('../bin/platefold.js', import.meta.url));
    const out = await new Promise<string>((done, fail) =>
      execFile(process.execPath, [bin, 'weigh', DEMO], (e, stdout) => (e ? fail(e) : done(stdout))),
    );
    expect(out).toContain('net');
    expect(out.trim().split('\n')).toHaveLength(4);
  });

  it('shell solves a bare case and names what is wrong with one', async () => {
    const bare = {
      material: { E: 200_000, nu: 0.3 },
      thickness: 4.7625,
      facets: [
        {
          name: 'floor',
          polygon: [
            [0, 0, 0],
            [500, 0, 0],
            [500, 500, 0],
            [0, 500, 0],
          ],
          holes: [],
        },
      ],
      supports: [{ kind: 'clamped', id: 'edges', edges: 'outline' }],
      loads: [{ kind: 'pressure', mpa: 0.01, direction: [0, 0, 1] }],
      analysis: 'linear',
      report: { points: [[250, 250, 0]] },
    };
    const path = join(dir, 'case.json');
    await writeFile(path, JSON.stringify(bare));
    const { code, out } = await call('shell', path, '--json');
    expect(code).toBe(0);
    const a = JSON.parse(out);
    expect(Object.keys(a)).toEqual(
      expect.arrayContaining([
        'deflections',
        'maxDeflection',
        'reactions',
        'vonMises',
        'nodes',
        'elements',
        'steps',
        'solveMs',
        'totalMs',
        'theory',
      ]),
    );
    // Timoshenko and Woinowsky-Krieger, table 35: 0.00126 q a⁴ / D
    const D = (200_000 * 4.7625 ** 3) / 12 / 0.91;
    expect(a.deflections[0].mm[2] / ((0.001265 * 0.01 * 500 ** 4) / D)).toBeCloseTo(1, 1.9);
    expect(a.reactions[0].force[2]).toBeCloseTo(-2500, 3);
    expect((await call('shell', path)).out).toContain('edges on the plate');
    await writeFile(path, JSON.stringify({ ...bare, supports: [] }));
    expect(await call('shell', path)).toMatchObject({ code: 2, err: expect.stringContaining('supports') });
  });

  it('fitup finds which holes together make it bolt up, where it is asked to', async () => {
    const { code, out } = await call('fitup', demoPath('pebble'), '--trials', '200', '--together', '--json');
    expect(code).toBe(0);
    const { together } = JSON.parse(out);
    expect(together.map((t: { measured: boolean }) => t.measured)).toEqual([false, true]);
    expect(together[0].chance).toBeGreaterThan(0.94);
    expect(together[0].changes).toEqual([{ joint: 'j-18', what: 'slot' }]);
    const said = (await call('fitup', demoPath('pebble'), '--trials', '200', '--together')).out;
    expect(said).toMatch(/Slots .+: j-18\.\n +Then every bolt starts with a chance of 9\d %/);
    expect((await call('check', demoPath('pebble'), '--together')).err).toContain('belongs to fitup');
  });

  it('strike answers for every plate of a plan', async () => {
    const whole = demo('wren');
    const kept = ['plate-1', 'plate-4'];
    const few = panelsRemoved(
      whole,
      whole.plan.panels.filter(p => !kept.includes(p.id)).map(p => p.id),
    );
    const path = join(dir, 'few.platefold.json');
    await writeFile(path, writeDocument(few));
    const { code, out } = await call('strike', path, '--json');
    expect(code).toBe(0);
    const { panels } = JSON.parse(out);
    expect(panels.map((p: { id: string }) => p.id).sort()).toEqual(kept);
    for (const p of panels) {
      expect(p.forceN).toBeCloseTo((410 / 2) * 9.80665, 6);
      expect(p.fault ?? p.deflectionMm, p.id).not.toBe(p.fault);
      expect(p.ringHz).toBeGreaterThan(1);
      // what the joints take adds up to the rock's force, less what presses on the members
      expect(p.reactionsN.length).toBeGreaterThan(2);
    }
  }, 120_000);
});
