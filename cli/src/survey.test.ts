import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoPath } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { main } from './main';

async function call(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const code = await main(args, {
    out: t => {
      out += t;
    },
    err: t => {
      err += t;
    },
  });
  return { code, out, err };
}
async function file(value: unknown): Promise<string> {
  const path = join(await mkdtemp(join(tmpdir(), 'plate-fold-survey-')), 'survey.json');
  await writeFile(path, typeof value === 'string' ? value : JSON.stringify(value));
  return path;
}
/** Four holes in a rectangle of 600 by 400 taped all round and across, and one more read to be an inch too far. */
const NET = {
  survey: {
    points: [
      { id: 'a', name: 'left hole', at: [0, -200, 400] },
      { id: 'b', at: [0, 200, 400] },
      { id: 'c' },
      { id: 'd' },
      { id: 'e' },
    ],
    heights: ['c', 'd', 'e'].map(point => ({ point, mm: 400 })),
    offsets: [{ point: 'c', axis: 'x', mm: 601 }],
    distances: [
      { from: 'a', to: 'c', mm: 600 },
      { from: 'b', to: 'd', mm: 600.4 },
      { from: 'a', to: 'd', mm: 721 },
      { from: 'b', to: 'c', mm: 721.2 },
      { from: 'c', to: 'd', mm: 400.2 },
      { from: 'a', to: 'e', mm: 360.6 },
      { from: 'b', to: 'e', mm: 360.4 },
      { from: 'c', to: 'e', mm: 360.6 + 25.4 },
      { from: 'd', to: 'e', mm: 360.3 },
    ],
  },
};

describe('platefold survey', () => {
  it('rows carry the binding keys, and the misread tape is the first suspect', async () => {
    const { code, out } = await call('survey', await file(NET), '--json');
    expect(code).toBe(0);
    const a = JSON.parse(out);
    expect(Object.keys(a)).toEqual([
      'points',
      'photos',
      'readings',
      'suspects',
      'varianceFactor',
      'freedom',
      'next',
    ]);
    expect(Object.keys(a.points[0])).toEqual(['id', 'at', 'sigma']);
    // the bad tape pulls at it until it is mended
    expect(Math.abs(a.points.find((p: { id: string }) => p.id === 'd').at[1] - 200)).toBeLessThan(12);
    expect(Object.keys(a.readings[0])).toEqual([
      'kind',
      'from',
      'to',
      'residual',
      'redundancy',
      'standardised',
    ]);
    expect(a.readings[a.suspects[0]]).toMatchObject({ kind: 'distance', from: 'c', to: 'e' });
    expect(a.freedom).toBe(NET.survey.distances.length + 4 - 9);
    for (const n of a.next) expect(n.gain).toBeGreaterThan(0);
  });
  it('says in words what it found, in the tape of who reads it', async () => {
    const { out } = await call('survey', await file(NET), '--units', 'inch');
    expect(out).toMatch(/^left hole {2}x 0.000 in/m);
    expect(out).toMatch(/suspect: c to e reads 15 3\/16 in; all others say 14 [\d/]+ in/);
  });
  it('answers 1 where something hangs loose, 2 for a file that is none', async () => {
    const loose = { survey: { ...NET.survey, points: [...NET.survey.points, { id: 'f' }] } };
    const one = await call('survey', await file(loose), '--json');
    expect(one.code).toBe(1);
    expect(JSON.parse(one.out).loose).toEqual([
      { point: 'f', why: expect.stringMatching(/no reading at all/) },
    ]);
    const nowhere = await call('survey', await file({ survey: { points: [{ id: 'a' }] } }));
    expect(nowhere).toMatchObject({ code: 2, err: expect.stringMatching(/a has no reading at all/) });
    expect(await call('survey', await file('{"survey": {'))).toMatchObject({ code: 2 });
    expect((await call('survey', demoPath('pebble'))).err).toMatch(/this plan has no survey/);
  });
});
