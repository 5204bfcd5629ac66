// Saving to a server that fails, in every order of what happens: whatever is lost on the way, the owner's last word arrives.
import { movePlate, type PlanDocument } from '@plate-fold/core/plan';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { DeviceStore } from '../testing/device-store';
import { run } from './commands/run';
import { documentOpened, undone } from './plan-actions';
import { selectDocument, selectUndo } from './select';
import { makeStore } from './store';
import { mineKept } from './sync-slice';

const SAVES = Number(process.env.SOAK_SAVES ?? 30);
const ID = 'bramble-winter';
const AT = 'http://plate-fold.test';
/** What can happen to a save: see the names. */
const FATES = ['well', 'never arrives', 'answer lost', 'breaks'] as const;
type Fate = (typeof FATES)[number];

interface Body {
  readonly baseRevision: number;
  readonly patch?: readonly Operation[];
  readonly document?: PlanDocument;
}

/** The same document with the keys of every object in another order: who sends it back need not keep ours. */
const reordered = <T>(of: T): T =>
  Array.isArray(of)
    ? (of.map(reordered) as T)
    : of !== null && typeof of === 'object'
      ? (Object.fromEntries(
          Object.entries(of)
            .reverse()
            .map(([k, v]) => [k, reordered(v)]),
        ) as T)
      : of;

/** A server that keeps one plan as the real one does: a change or a whole, on the revision it was made from, or 409 with its own. */
function failing(s: fc.Scheduler, fates: Fate[], document: PlanDocument) {
  const kept = { revision: 4, document, written: [] as string[] };
  const answer = (status: number, body: unknown): Response =>
    new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
  const fetch = async (request: Request): Promise<Response> => {
    const fate = fates.shift() ?? 'well';
    const body = (await request.json()) as Body;
    await s.schedule(Promise.resolve(), `${request.method} (${fate})`);
    if (fate === 'never arrives') throw new TypeError('no network');
    if (fate === 'breaks') return answer(503, { fault: 'The disk is full.' });
    const stale = body.baseRevision !== kept.revision;
    if (!stale) {
      kept.document =
        body.document ??
        jsonPatch.applyPatch(structuredClone(kept.document), structuredClone(body.patch ?? []) as Operation[])
          .newDocument;
      kept.revision++;
      kept.written.push(JSON.stringify(kept.document));
    }
    const said = stale
      ? answer(409, {
          fault: 'late',
          revision: kept.revision,
          document: reordered(kept.document),
        })
      : answer(200, { revision: kept.revision, updatedAt: 1000 * kept.revision });
    await s.schedule(Promise.resolve(), 'its answer');
    if (fate === 'answer lost') throw new TypeError('no network');
    return said;
  };
  return { kept, fetch };
}

const RealRequest = globalThis.Request;
let device: DeviceStore;
beforeEach(() => {
  device = new DeviceStore();
  vi.stubGlobal('localStorage', device);
  vi.stubGlobal('sessionStorage', new DeviceStore());
  // a page's own addresses begin with a slash
  vi.stubGlobal(
    'Request',
    class extends RealRequest {
      constructor(to: string | Request, init?: RequestInit) {
        super(typeof to === 'string' ? new URL(to, AT) : to, init);
      }
    },
  );
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** A store with the demo plan open at revision 4, saving to a server that fails as told. */
function opened(s: fc.Scheduler, fates: Fate[]) {
  device.clear();
  const server = failing(s, fates, demo('bramble'));
  vi.stubGlobal('fetch', server.fetch);
  const store = makeStore({ saves: true });
  store.dispatch(documentOpened({ document: demo('bramble'), revision: 4 }));
  const present = (): PlanDocument => selectDocument(store.getState()) as PlanDocument;
  const save = () => store.getState().sync.save;
  /** The draft on this device, as text. */
  const draft = (): string | undefined => {
    const key = Object.keys(device).find(k => k.startsWith(`plate-fold draft ${ID} `));
    return key && (device.getItem(key) ?? undefined);
  };
  /** Nothing the owner did is only in the page; what is called saved is at the server. */
  const safe = (): void => {
    if (save() === 'saved') expect(server.kept.document).toEqual(present());
    else
      expect(JSON.parse(draft() ?? 'null'), `a draft while ${save()}`).toMatchObject({ document: present() });
  };
  const edit = (by: number): void => {
    if (by > 0) store.dispatch(run(movePlate, { panel: 'plate-a', by: [by, 0, 0] }));
    // Undo is offered only where there is something to take back
    else if (selectUndo(store.getState())) store.dispatch(undone());
  };
  return { store, server, present, save, draft, safe, edit };
}

/** Lets time and the network go on until nothing more comes. */
async function settle(s: fc.Scheduler, done: () => boolean): Promise<void> {
  for (let i = 0; i < 200 && !done(); i++) {
    await vi.advanceTimersByTimeAsync(600);
    while (s.count() > 0) {
      await s.waitOne();
      await vi.advanceTimersByTimeAsync(0);
    }
  }
}

describe('saving to a server that fails', () => {
  it('ends with the owner’s last word there, nothing lost in between, nothing sent for nothing', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.constantFrom(...FATES), { maxLength: 12 }),
        // moves in mm, 0: one step taken back; and how long the owner waits after each
        fc.array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.constantFrom(0, 200, 700, 3000)), {
          minLength: 1,
          maxLength: 8,
        }),
        async (s, fates, moves) => {
          const { server, present, save, draft, safe, edit } = opened(s, [...fates]);
          s.scheduleSequence(
            moves.map(([by, wait]) => ({
              label: by === 0 ? 'undo' : `move by ${by}, then ${wait} ms`,
              builder: async () => {
                edit(by);
                await vi.advanceTimersByTimeAsync(wait);
              },
            })),
          );
          while (s.count() > 0) {
            await s.waitOne();
            await vi.advanceTimersByTimeAsync(0);
            safe();
          }
          await settle(s, () => save() === 'saved');
          expect(save()).toBe('saved');
          expect(server.kept.document).toEqual(present());
          expect(draft()).toBeUndefined();
          // a server that always answers is sent nothing that it has already
          if (fates.every(f => f === 'well'))
            for (const [i, w] of server.kept.written.entries())
              expect(w).not.toBe(server.kept.written[i - 1] ?? JSON.stringify(demo('bramble')));
        },
      ),
      { numRuns: SAVES },
    );
  });

  it('goes on after another plan was opened, wherever the save was; then no draft is left', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.constantFrom(...FATES), { maxLength: 8 }),
        fc.array(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.constantFrom(0, 200, 700)), {
          minLength: 1,
          maxLength: 4,
        }),
        async (s, fates, moves) => {
          const { store, server, present, draft, edit } = opened(s, [...fates]);
          let mine = present();
          s.scheduleSequence([
            ...moves.map(([by, wait]) => ({
              label: `move by ${by}, then ${wait} ms`,
              builder: async () => {
                edit(by);
                mine = present();
                await vi.advanceTimersByTimeAsync(wait);
              },
            })),
            {
              label: 'another plan is opened',
              builder: async () =>
                void store.dispatch(documentOpened({ document: demo('heron'), revision: 1 })),
            },
          ]);
          while (s.count() > 0) {
            await s.waitOne();
            await vi.advanceTimersByTimeAsync(0);
          }
          await settle(s, () => draft() === undefined);
          expect(draft()).toBeUndefined();
          expect(server.kept.document).toEqual(mine);
          expect(store.getState().sync).toMatchObject({ id: 'heron-autumn', save: 'saved', revision: 1 });
        },
      ),
      { numRuns: SAVES },
    );
  });

  it('never writes over what another device saved: it asks, and does as told', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.constantFrom(...FATES), { maxLength: 8 }),
        fc.integer({ min: 1, max: 4 }),
        async (s, fates, count) => {
          const { store, server, present, save, edit } = opened(s, [...fates]);
          const theirs = (): void => {
            server.kept.document = structuredClone(server.kept.document);
            (server.kept.document.plan as { name: string }).name = 'renamed elsewhere';
            server.kept.revision++;
          };
          s.scheduleSequence([
            ...Array.from({ length: count }, (_, i) => ({
              label: `move ${i}`,
              builder: async () => {
                edit(i + 1);
                await vi.advanceTimersByTimeAsync(600);
              },
            })),
            { label: 'another device saves', builder: async () => theirs() },
            { label: 'one more move', builder: async () => edit(7) },
          ]);
          while (s.count() > 0) {
            await s.waitOne();
            await vi.advanceTimersByTimeAsync(0);
          }
          await settle(s, () => save() === 'conflict');
          expect(save()).toBe('conflict');
          expect(server.kept.document.plan.name).toBe('renamed elsewhere');
          store.dispatch(mineKept());
          await settle(s, () => save() === 'saved');
          expect(server.kept.document).toEqual(present());
        },
      ),
      { numRuns: Math.ceil(SAVES / 2) },
    );
  });
});
