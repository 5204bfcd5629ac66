import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gatherFacts } from '@plate-fold/core/derive';
import { SHOPS } from '@plate-fold/core/fold';
import { quoteBlanks } from '@plate-fold/core/weigh';
import { demo } from '@plate-fold/demo';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type RunningServer, startServer } from '../server';

let server: RunningServer;
let folder: string;
let blanks: ReturnType<typeof quoteBlanks>;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'plate-fold-quotes-'));
  server = await startServer({ dataDir: folder, port: 0, quiet: true, demo: false });
  const document = demo('bramble');
  blanks = quoteBlanks(gatherFacts(document).panels);
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

const ask = (body: unknown): Promise<Response> =>
  fetch(`${server.address}/api/services/quotes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const settled = async (id: string): Promise<Record<string, unknown>> => {
  for (let i = 0; i < 60; i++) {
    const answer = (await (await fetch(`${server.address}/api/services/quotes/${id}`)).json()) as Record<
      string,
      unknown
    >;
    if (answer.state !== 'working') return answer;
    await new Promise(done => setTimeout(done, 100));
  }
  throw new Error('never answered');
};

describe('the simulated fabricator', () => {
  it('thinks, then offers a price and days, and says that it is simulated', async () => {
    const asked = await ask({ blanks, shop: SHOPS[1] });
    expect(asked.status).toBe(202);
    const { id, state, simulated } = (await asked.json()) as {
      id: string;
      state: string;
      simulated: boolean;
    };
    expect([state, simulated]).toEqual(['working', true]);
    const answer = await settled(id);
    expect(answer).toMatchObject({ state: 'offered', simulated: true });
    expect(answer.price as number).toBeGreaterThan(200);
    // six plates and three hangers
    expect((answer.lines as unknown[]).length).toBe(6 + 3);
  });

  it('refuses what it cannot make, with the reasons', async () => {
    const tight = blanks.map(b => ({ ...b, bends: b.bends.map(x => ({ ...x, insideRadius: 0.5 })) }));
    const { id } = (await (await ask({ blanks: tight, shop: SHOPS[1] })).json()) as { id: string };
    const answer = await settled(id);
    expect(answer.state).toBe('refused');
    expect((answer.reasons as string[]).some(r => r.includes('would crack'))).toBe(true);
  });

  it('wants a whole request, and forgets nothing it was never asked', async () => {
    const empty = await ask({ blanks: [], shop: SHOPS[1] });
    expect(empty.status).toBe(422);
    expect(await empty.json()).toMatchObject({
      fault: expect.stringContaining('blanks has 0 entries and needs at least 1'),
    });
    expect((await ask({ blanks: [{ ...blanks[0], thickness: 'thick' }], shop: SHOPS[1] })).status).toBe(422);
    expect((await fetch(`${server.address}/api/services/quotes/nobody`)).status).toBe(404);
  });
});
