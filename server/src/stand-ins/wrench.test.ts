import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { judgeTurn, type TurnSample } from '@plate-fold/core/sequence';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from '../server';
import { pullAt, type WrenchMood } from './wrench';

let server: RunningServer;
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'plate-fold-wrench-'));
  server = await startServer({ dataDir: folder, port: 0, quiet: true, demo: false });
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

const stream = async (query: string) => {
  const answer = await fetch(`${server.address}/api/devices/wrench/readings?${query}`);
  return { answer, text: () => answer.text() };
};
const events = (text: string) =>
  text
    .split('\n\n')
    .filter(Boolean)
    .map(block => {
      const [event = '', data = ''] = block.split('\n');
      return { event: event.slice(7), data: JSON.parse(data.slice(6)) as Record<string, number> };
    });

describe('the simulated wrench', () => {
  it('reads up to its target, clicks there, is released at its peak, and says that it is simulated', async () => {
    const list = events(await (await stream('targetNm=40&mood=good')).text());
    expect(list.every(e => (e.data as { simulated?: unknown }).simulated === true)).toBe(true);
    const clicks = list.filter(e => e.event === 'click');
    expect(clicks).toHaveLength(1);
    expect(clicks[0]?.data.nm).toBeGreaterThanOrEqual(40);
    const readings = list.filter(e => e.event === 'reading').map(e => e.data as unknown as TurnSample);
    expect(list.at(-1)).toMatchObject({
      event: 'released',
      data: { peakNm: Math.max(...readings.map(r => r.nm)) },
    });
    expect(judgeTurn(readings, 40)).toMatchObject({ verdict: 'good' });
  });
  it('breaks off without a word where its mood is broken', async () => {
    const { text } = await stream('targetNm=40&mood=broken');
    await expect(text()).rejects.toThrow();
  });
  it('refuses a torque that is none and a mood it has not', async () => {
    expect((await stream('targetNm=-3')).answer.status).toBe(422);
    expect((await stream('targetNm=40&mood=happy')).answer.status).toBe(422);
  });
  it.each(['good', 'cross-threaded', 'stripping', 'yielded'] as const)(
    'pulls as a joint that is %s does, at any torque, and is told apart',
    mood => {
      for (const target of [5, 9.5, 24, 40, 87, 180]) {
        const samples = Array.from({ length: 46 }, (_, i) =>
          pullAt(target, (i + 1) / 46, mood as WrenchMood),
        );
        expect(judgeTurn(samples, target).verdict, `${target}`).toBe(mood);
        for (const [i, s] of samples.entries()) if (i > 0) expect(s.deg).toBeGreaterThan(samples[i - 1]!.deg);
      }
    },
  );
});
