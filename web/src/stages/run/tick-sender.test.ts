import type { Tick } from '@plate-fold/core/sequence';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { DeviceStore } from '../../testing/device-store';
import { type TickAnswer, tickSender } from './tick-sender';
import { keepTick, waitingTicks } from './tick-store';

beforeEach(() => {
  (globalThis as { localStorage?: unknown }).localStorage = new DeviceStore();
});

const tick = (n: number): Tick => ({
  id: `t${n}`,
  stepId: `step-${n}`,
  jointId: null,
  kind: 'done',
  at: n,
  device: 'd',
});

/** What can happen to a letter: it never arrives, its answer is lost, the server breaks before or after it wrote, or all is well. */
const FATES = ['well', 'never arrives', 'answer lost', 'breaks'] as const;
type Fate = (typeof FATES)[number];

/** A server that keeps each tick once, in the order it came, refuses some for good, and fails as it is told. */
function failing(s: fc.Scheduler, fates: Fate[], bad: ReadonlySet<string>) {
  const kept = new Map<string, Tick>();
  const refused = new Set<string>();
  const post = async (ticks: readonly Tick[]): Promise<TickAnswer> => {
    const fate = fates.shift() ?? 'well';
    await s.schedule(Promise.resolve(), `a letter of ${ticks.length} (${fate})`);
    if (fate === 'never arrives') return { error: { status: 'FETCH_ERROR' } };
    if (fate === 'breaks') return { error: { status: 500, data: { fault: 'broken' } } };
    const no = ticks.filter(t => bad.has(t.id)).map(t => ({ id: t.id, fault: 'no such step' }));
    for (const t of ticks) if (!bad.has(t.id)) kept.set(t.id, t);
    for (const t of no) refused.add(t.id);
    await s.schedule(Promise.resolve(), 'its answer');
    if (fate === 'answer lost') return { error: { status: 'FETCH_ERROR' } };
    const received = ticks.filter(t => !bad.has(t.id)).map(t => t.id);
    return { data: { received, ticks: [...kept.values()], ...(no.length > 0 ? { refused: no } : {}) } };
  };
  return { kept, refused, post };
}

describe('ticks, sent to a server that fails', () => {
  it('reach it once each and in order, whatever is lost on the way; none leaves the device before', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.constantFrom(...FATES), { maxLength: 25 }),
        fc.integer({ min: 1, max: 12 }),
        fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { maxLength: 3 }),
        async (s, fates, count, bad) => {
          localStorage.clear();
          const no = new Set(bad.map(n => `t${n}`));
          const server = failing(s, [...fates], no);
          const send = tickSender('r', server.post);
          const made: string[] = [];
          const safe = (): void => {
            const here = new Set(waitingTicks('r').map(t => t.id));
            for (const id of made)
              expect(here.has(id) || server.kept.has(id) || server.refused.has(id), id).toBe(true);
          };
          // hands tick on, and the device tries again, in any order with what happens on the way
          s.scheduleSequence(
            Array.from({ length: count }, (_, n) => ({
              label: `tick ${n}`,
              builder: async () => {
                keepTick('r', tick(n));
                made.push(`t${n}`);
                void send();
              },
            })),
          );
          s.scheduleSequence(
            Array.from({ length: 6 }, () => ({ label: 'again', builder: async () => void send() })),
          );
          while (s.count() > 0) {
            await s.waitOne();
            safe();
          }
          // the server is well again: what waits goes out in as many letters as it takes
          fates.length = 0;
          for (let i = 0; i < 60 && waitingTicks('r').length > 0; i++) {
            const sent = send();
            while (s.count() > 0) await s.waitOne();
            await sent;
            safe();
          }
          expect(waitingTicks('r')).toEqual([]);
          expect([...server.kept.keys()]).toEqual(made.filter(id => !no.has(id)));
          // what was refused is kept on the device with the reason
          for (const id of made.filter(i => no.has(i)))
            expect(localStorage.getItem(`plate-fold aside r ${id}`), id).toContain('no such step');
        },
      ),
      { numRuns: Number(process.env.SOAK_SAVES ?? 100) },
    );
  });

  it.each([
    ['a server that is away says nothing new', { error: { status: 'FETCH_ERROR' } }, undefined],
    ['one that is broken neither', { error: { status: 503, data: { fault: 'disk' } } }, undefined],
    [
      'a run that is gone is told',
      { error: { status: 404, data: { fault: 'No such run.' } } },
      'No such run.',
    ],
    ['an ended sharing is told', { error: { status: 401 } }, 'The desk stopped sharing'],
  ] as const)('%s', async (_, answer, said) => {
    keepTick('r', tick(1));
    const sent = await tickSender('r', async () => answer)();
    expect(sent?.left).toBe(1);
    expect(sent?.heard).toBe(false);
    if (said) expect(sent?.tell?.fault).toContain(said);
    else expect(sent?.tell).toBeUndefined();
  });

  it('why one was set aside is told past the letters that follow, until its step is done again', async () => {
    const send = tickSender('r', async ticks => {
      const no = ticks
        .filter(t => t.torqueNm === 1200)
        .map(t => ({ id: t.id, fault: 'no wrench does that.' }));
      const received = ticks.filter(t => t.torqueNm !== 1200).map(t => t.id);
      return { data: { received, ticks: [], ...(no.length > 0 ? { refused: no } : {}) } };
    });
    const told = async (t: Tick): Promise<string | undefined> => {
      keepTick('r', t);
      return (await send())?.tell?.fault;
    };
    expect(await told({ ...tick(1), torqueNm: 1200 })).toMatch(/One tick was not taken: no wrench does that/);
    expect(await told(tick(2))).toMatch(/One tick was not taken/);
    expect(await told({ ...tick(3), torqueNm: 1200 })).toMatch(/2 ticks were not taken/);
    expect(await told({ ...tick(1), id: 'again' })).toMatch(/One tick was not taken/);
    expect(await told({ ...tick(3), id: 'this-too' })).toBeUndefined();
  });
});
