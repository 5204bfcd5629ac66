import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from '../server';
import { cornerLoads, padReading } from './scales';

let server: RunningServer;
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'plate-fold-scales-'));
  server = await startServer({ dataDir: folder, port: 0, quiet: true, demo: false });
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

const readings = async (query: string): Promise<{ event: string; data: Record<string, unknown> }[]> => {
  const answer = await fetch(`${server.address}/api/devices/scales/readings?${query}`);
  expect(answer.headers.get('content-type')).toContain('text/event-stream');
  return (await answer.text())
    .split('\n\n')
    .filter(Boolean)
    .map(block => {
      const [event = '', data = ''] = block.split('\n');
      return { event: event.slice(7), data: JSON.parse(data.slice(6)) };
    });
};

describe('the simulated wheel scales', () => {
  it('swing in, settle near the true load, and say that they are simulated', async () => {
    const events = await readings('frontKg=1120&rearKg=860');
    const last = events.at(-1);
    expect(last?.event).toBe('settled');
    expect(events.every(e => e.data.simulated === true)).toBe(true);
    const pads = last?.data.pads as Record<string, number>;
    const sum = Object.values(pads).reduce((a, b) => a + b, 0);
    expect(Math.abs(sum - 1980)).toBeLessThan(1980 * 0.002);
    const first = events.find(e => e.data.pad === 'front-left')?.data.kg as number;
    expect(Math.abs(first - cornerLoads(1120, 860)['front-left'])).toBeGreaterThan(20);
  });

  it('fail plainly: a dead pad, ground that does not settle', async () => {
    const dead = (await readings('frontKg=1120&rearKg=860&mood=dead-pad')).at(-1);
    expect(dead).toMatchObject({ event: 'failed', data: { pad: 'front-right' } });
    const soft = (await readings('frontKg=1120&rearKg=860&mood=noisy')).at(-1);
    expect(soft?.data.fault).toContain('do not settle');
  });

  it('refuse what is no load', async () => {
    const answer = await fetch(`${server.address}/api/devices/scales/readings?frontKg=-4&rearKg=860`);
    expect(answer.status).toBe(422);
    expect(await answer.json()).toMatchObject({ fault: expect.stringContaining('frontKg') });
  });

  it('a reading is noise about the load once it stands', () => {
    const at = (t: number, n: number) => padReading(500, t, 'good', () => n).kg;
    expect(at(5, 0.5)).toBe(500);
    expect(Math.abs(at(5, 0) - at(5, 1))).toBeLessThanOrEqual(1);
  });
});
