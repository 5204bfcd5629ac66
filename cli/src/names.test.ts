import { mkdtemp, readdir, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { csv, fileName, oneLine, readDxf, remindersIcs } from '@plate-fold/core/formats';
import { demo } from '@plate-fold/demo';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { main } from './main';

const NASTY = 'belly\r\n0\nSECTION\u2028=1+1,"x";\u0007';
const DEMO = demo('bramble');

describe('names with line breaks and worse', () => {
  it('break no drawing, list or calendar, and plates of one name do not overwrite each other', async () => {
    const plan = {
      ...DEMO.plan,
      panels: DEMO.plan.panels.map((p, i) => ({
        ...p,
        mark: i < 2 ? 'A' : p.mark,
        name: i < 3 ? NASTY : p.name,
      })),
    };
    const folder = await mkdtemp(join(tmpdir(), 'platefold-names-'));
    const file = join(folder, 'plan.json');
    await writeFile(file, JSON.stringify({ ...DEMO, plan }));
    const out = join(folder, 'out');
    for (const as of ['dxf', 'svg', 'stl', 'csv', 'ics', 'glb']) {
      const said = { out: '', err: '' };
      const code = await main(['export', file, '--as', as, '--out', out], {
        out: t => (said.out += t),
        err: t => (said.err += t),
      });
      expect([code, said.err]).toEqual([0, '']);
    }
    const files = await readdir(out);
    const drawings = files.filter(f => f.endsWith('.dxf') && !f.startsWith('nest'));
    expect(drawings).toHaveLength(DEMO.plan.panels.length);
    for (const f of files) expect(f).toMatch(/^[\w.-]+$/);
    // nothing lies outside
    expect((await readdir(folder)).sort()).toEqual(['out', 'plan.json']);
    for (const f of drawings) {
      const r = readDxf(await readFile(join(out, f), 'utf8'));
      expect(r.ok || r.fault, f).toBe(true);
    }
    for (const f of files.filter(n => n.endsWith('.csv'))) {
      const { data, errors } = Papa.parse<string[]>((await readFile(join(out, f), 'utf8')).trim());
      expect(errors).toEqual([]);
      expect(new Set(data.map(r => r.length)).size, f).toBe(1);
    }
  });

  it('are one field in a list, with no formula, and one property in a calendar', () => {
    const rows = Papa.parse<string[]>(csv(['a', 'b'], [[NASTY, 1]]).trim()).data;
    expect(rows.map(r => r.length)).toEqual([2, 2]);
    expect(csv(['a'], [['\n=1+1']])).toContain("'\n=1+1");
    const ics = remindersIcs(NASTY, [{ uid: NASTY, at: 0, what: NASTY, why: 'BEGIN:VEVENT\rEND' }], 0);
    for (const line of ics.split('\r\n')) expect(line).toMatch(/^( |[A-Z-]+[:;]|$)/);
    expect(oneLine('a\u2029b\ud800')).toBe('a b\ufffd');
    expect(fileName('..', '/etc/passwd')).toBe('Etc-passwd');
    expect([fileName('A', 'Größe 1'), fileName('…'), fileName('x'.repeat(500)).length]).toEqual([
      'A-größe-1',
      'File',
      80,
    ]);
  });
});
