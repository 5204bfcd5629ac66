import { assemble } from '@plate-fold/core/derive';
import {
  activateBuild,
  callOf,
  changeJoints,
  checkDocument,
  copyBuild,
  moveCorner,
  movePlate,
  noteBuild,
  orderBuilds,
  type Panel,
  type PlanDocument,
  removeBuild,
  removePlates,
  renameBuild,
  renamePlate,
  setSheets,
} from '@plate-fold/core/plan';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { LET_BE, NEXT_BUILD, REDO, UNDO } from './commands/bound';
import { letGo, preview, run } from './commands/run';
import { selectFacts, selectFindings, selectSettled, selectWeights } from './derived';
import { documentOpened, redone, theirsTaken, undone } from './plan-actions';
import { previewDropped } from './preview-slice';
import { selectDocument, selectRedo, selectShown, selectUndo } from './select';
import { makeStore } from './store';
import { conflictFound, mineKept, saveAcknowledged, saveFailed, saveStarted } from './sync-slice';
import { panelSelected } from './view-slice';

/** Where the first corner of a plate would be beyond its opposite edge, so that two edges cross. */
const across = ({ base: { outline } }: Panel): readonly [number, number] => {
  const [, b, c] = outline as readonly (readonly [number, number])[];
  if (!b || !c) throw new Error('no plate');
  const beyond = Math.sign(b[0] - (outline[0]?.[0] ?? 0)) || 1;
  return [Math.max(b[0] * beyond, c[0] * beyond) * beyond + beyond * 500, (b[1] + c[1]) / 2];
};
/** What the development checks say of the store: nothing may. */
const said: string[] = [];
beforeEach(() => {
  said.length = 0;
  vi.spyOn(console, 'error').mockImplementation((...m) => void said.push(m.join(' ')));
});
afterEach(() => {
  vi.restoreAllMocks();
  expect(said).toEqual([]);
});

type Store = ReturnType<typeof makeStore>;
const opened = (doc = demo('bramble')): Store => {
  const store = makeStore();
  store.dispatch(documentOpened({ document: doc, revision: 4 }));
  return store;
};
const present = (store: Store): PlanDocument => selectDocument(store.getState()) as PlanDocument;
const sync = (store: Store) => store.getState().sync;
const move = (store: Store, by: number, group?: string) =>
  store.dispatch(run(movePlate, { panel: 'plate-a', by: [by, 0, 0] }, group));
const x = (store: Store): number => present(store).plan.panels[0]?.base.origin[0] ?? 0;

describe('editing', () => {
  it('is undone and redone step by step; what is nudged in one go is one step', () => {
    const store = opened();
    const start = x(store);
    move(store, 1);
    for (let i = 0; i < 10; i++) move(store, 1, 'keys');
    move(store, 100, 'others');
    expect(x(store)).toBe(start + 111);
    store.dispatch(undone());
    expect(x(store)).toBe(start + 11);
    store.dispatch(undone());
    expect(x(store)).toBe(start + 1);
    store.dispatch(redone());
    expect(x(store)).toBe(start + 11);
    move(store, 5);
    store.dispatch(redone());
    expect(x(store)).toBe(start + 16);
    for (let i = 0; i < 9; i++) store.dispatch(undone());
    expect(x(store)).toBe(start);
  });

  it('says in words what undo takes back and redo does again, by the command that did it', () => {
    const store = opened();
    expect(UNDO.label(store.getState())).toBe('Undo');
    expect(UNDO.enabled(store.getState())).toBe(false);
    move(store, 3);
    store.dispatch(run(changeJoints, { joints: [{ joint: 'j03', part: { torque: 33 } }] }));
    expect(UNDO.label(store.getState())).toBe('Undo: set the torque of bolt j03');
    UNDO.run(store.dispatch, store.getState());
    expect(UNDO.label(store.getState())).toBe('Undo: move plate A');
    expect(REDO.label(store.getState())).toBe('Redo: set the torque of bolt j03');
    REDO.run(store.dispatch, store.getState());
    expect(selectRedo(store.getState())).toBeUndefined();
  });

  it('what changes nothing is no step', () => {
    const store = opened();
    store.dispatch(run(activateBuild, { build: 'A' }));
    expect(selectUndo(store.getState())).toBeUndefined();
    expect(sync(store).save).toBe('saved');
  });

  it('that cannot be leaves the plan as it was and says why', () => {
    const store = opened();
    const before = present(store);
    const panel = before.plan.panels[1];
    if (!panel) throw new Error('no plate');
    const to = across(panel);
    const made = store.dispatch(run(moveCorner, { panel: panel.id, corner: 0, to }));
    expect(made).toBe(false);
    expect(present(store)).toBe(before);
    expect(store.getState().view.notice).toContain('cross itself');
  });

  it('builds are copied, renamed, taken away, never the last one, never more than eight', () => {
    const store = opened();
    for (let i = 0; i < 9; i++) store.dispatch(run(copyBuild, { build: 'A' }));
    const { builds } = present(store).plan;
    expect(builds.length).toBe(8);
    // a build is told by its name alone
    expect(new Set(builds.map(b => b.id)).size).toBe(8);
    expect(builds.slice(3, 5).map(b => b.name)).toEqual(['3/16 steel, copy', '3/16 steel, copy 2']);
    const last = builds.at(-1)?.id ?? '';
    expect(store.getState().view.notice).toContain('8 builds at the most');
    expect(present(store).plan.activeBuild).toBe(last);
    store.dispatch(run(renameBuild, { build: last, name: 'last' }));
    expect(present(store).plan.builds.at(-1)?.name).toBe('last');
    expect(store.dispatch(run(renameBuild, { build: 'A', name: 'last' }))).toBe(false);
    expect(store.getState().view.notice).toContain('called “last” already');
    for (const { id: build } of [...builds].reverse()) store.dispatch(run(removeBuild, { build }));
    expect(present(store).plan.builds.map(b => b.id)).toEqual(['A']);
    expect(present(store).plan.activeBuild).toBe('A');
    expect(NEXT_BUILD.enabled(store.getState())).toBe(false);
  });

  it('builds are put in another order, and plates hang as they did in each of them', () => {
    const store = opened();
    const before = present(store);
    const hung = (doc: PlanDocument) =>
      Object.fromEntries(
        doc.plan.builds.map(b => [b.id, assemble(doc, b.id).panels.map(p => p.panel.base.origin[2])]),
      );
    const heights = hung(before);
    store.dispatch(run(orderBuilds, { order: ['C', 'A'] }));
    expect(present(store)).toBe(before); // one of the three is left out
    store.dispatch(run(orderBuilds, { order: ['C', 'A', 'C'] }));
    expect(present(store)).toBe(before);
    store.dispatch(run(orderBuilds, { order: ['C', 'A', 'B'] }));
    expect(present(store).plan.builds.map(b => b.id)).toEqual(['C', 'A', 'B']);
    expect(present(store).plan.activeBuild).toBe(before.plan.activeBuild);
    for (const [build, zs] of Object.entries(hung(present(store))))
      for (const [i, z] of zs.entries())
        expect(z, `build ${build}`).toBeCloseTo(heights[build]?.[i] as number, 6);
    store.dispatch(undone());
    expect(present(store).plan).toEqual(before.plan);
  });

  it('a sheet goes to the plates named in the build named, a torque and a lubricant to their joint', () => {
    const store = opened();
    const sheet = { material: 'al-5052-h32', thickness: 6.35, finish: 'raw' } as const;
    store.dispatch(run(setSheets, { build: 'C', sheets: { 'plate-a': sheet, 'plate-b': sheet } }));
    const [a, , c] = present(store).plan.builds;
    expect(c?.sheets['plate-b']).toEqual(sheet);
    expect(a?.sheets['plate-b']?.material).toBe('steel-hr36');
    const of = (part: object) => run(changeJoints, { joints: [{ joint: 'j03', part }] });
    store.dispatch(of({ torque: 33 }));
    store.dispatch(of({ lube: 'anti-seize' }));
    expect(present(store).plan.joints.find(j => j.id === 'j03')).toMatchObject({
      torque: 33,
      lube: 'anti-seize',
    });
  });
});

describe('what is held in the hand', () => {
  const held = (by: number) => preview(callOf(movePlate, { panel: 'plate-a', by: [by, 0, 0] }));
  it('is shown and computed, but neither a step nor to be saved before it is let go; then it is one', () => {
    const store = opened();
    const [before, findings, weights] = [
      present(store),
      selectFindings(store.getState()),
      selectWeights(store.getState()),
    ];
    const start = x(store);
    for (let by = 1; by <= 40; by++) store.dispatch(held(by));
    const s = store.getState();
    expect(selectShown(s)?.plan.panels[0]?.base.origin[0]).toBe(start + 40);
    expect(selectFacts(s)?.document).toBe(selectShown(s));
    expect(present(store)).toBe(before);
    expect(sync(store).save).toBe('saved');
    expect(selectUndo(s)).toBeUndefined();
    // the rest waits
    expect(selectFindings(s)).toBe(findings);
    expect(selectWeights(s)[1]).toBe(weights[1]);
    store.dispatch(letGo());
    expect(x(store)).toBe(start + 40);
    expect(sync(store).save).toBe('pending');
    expect(selectSettled(store.getState())?.document).toBe(present(store));
    expect(selectFindings(store.getState())).not.toBe(findings);
    store.dispatch(undone());
    expect(x(store)).toBe(start);
    expect(selectUndo(store.getState())).toBeUndefined();
  });
  it('is dropped by Escape, and then nothing has happened; without anything held Escape chooses nothing', () => {
    const store = opened();
    store.dispatch(panelSelected('plate-a'));
    store.dispatch(held(9));
    LET_BE.run(store.dispatch, store.getState());
    expect(selectShown(store.getState())).toBe(present(store));
    store.dispatch(letGo());
    expect(selectUndo(store.getState())).toBeUndefined();
    expect(store.getState().view.panel).toBe('plate-a');
    LET_BE.run(store.dispatch, store.getState());
    expect(store.getState().view.panel).toBeUndefined();
  });
  it('stays where it last could be when it is dragged where it cannot, and says why', () => {
    const store = opened();
    const [, b] = present(store).plan.panels;
    if (!b) throw new Error('no plate');
    const at = (to: readonly [number, number]) => preview(callOf(moveCorner, { panel: b.id, corner: 0, to }));
    const [u, v] = b.base.outline[0] as readonly [number, number];
    const far = across(b);
    store.dispatch(at([u - 5, v]));
    store.dispatch(at(far));
    expect(store.getState().view.notice).toContain('cross itself');
    expect(selectShown(store.getState())?.plan.panels[1]?.base.outline[0]).toEqual([u - 5, v]);
    store.dispatch(at([u - 6, v]));
    expect(store.getState().view.notice).toBeUndefined();
    store.dispatch(letGo());
    expect(present(store).plan.panels[1]?.base.outline[0]).toEqual([u - 6, v]);
  });
});

describe('saving', () => {
  it('an edit made while a save is under way is saved next', () => {
    const store = opened();
    move(store, 1);
    const sent = present(store);
    store.dispatch(saveStarted());
    move(store, 1);
    store.dispatch(saveAcknowledged({ document: sent, revision: 5, savedAt: 1, current: false }));
    expect(sync(store)).toMatchObject({ save: 'pending', revision: 5 });
    store.dispatch(saveAcknowledged({ document: present(store), revision: 6, savedAt: 2, current: true }));
    expect(sync(store).save).toBe('saved');
  });

  it('away is offline, refused is refused, with the reason', () => {
    const store = opened();
    move(store, 1);
    store.dispatch(saveFailed({ offline: true, fault: 'away' }));
    expect(sync(store).save).toBe('offline');
    store.dispatch(saveFailed({ offline: false, fault: 'no' }));
    expect(sync(store)).toMatchObject({ save: 'refused', fault: 'no' });
  });

  it('in a conflict mine goes on theirs, or theirs is taken and undo brings mine back', () => {
    const bramble = demo('bramble');
    const theirs = { revision: 9, document: { ...bramble, plan: { ...bramble.plan, name: 'theirs' } } };
    const kept = opened();
    move(kept, 7);
    kept.dispatch(conflictFound(theirs));
    move(kept, 1);
    expect(sync(kept).save).toBe('conflict');
    kept.dispatch(mineKept());
    expect(sync(kept)).toMatchObject({ save: 'pending', revision: 9 });
    const taken = opened();
    move(taken, 7);
    const mine = x(taken);
    taken.dispatch(conflictFound(theirs));
    taken.dispatch(theirsTaken(theirs));
    expect(present(taken).plan.name).toBe('theirs');
    expect(sync(taken)).toMatchObject({ save: 'saved', revision: 9 });
    expect(UNDO.label(taken.getState())).toBe('Undo: take theirs');
    taken.dispatch(undone());
    expect(x(taken)).toBe(mine);
  });
});

describe('any way of editing', () => {
  /** A model of the store: the documents that undo goes through, and where in them it stands. */
  interface Model {
    steps: PlanDocument[];
    at: number;
  }
  type Step = fc.Command<Model, Store>;
  const sound = (m: Model, s: Store): void => {
    const doc = present(s);
    expect(doc).toBe(m.steps[m.at]);
    expect(selectUndo(s.getState()) !== undefined).toBe(m.at > 0);
    expect(selectRedo(s.getState()) !== undefined).toBe(m.at < m.steps.length - 1);
    const read = checkDocument(JSON.parse(JSON.stringify(doc)));
    expect(read.ok ? [] : read.faults).toEqual([]);
  };
  const taken = (m: Model, s: Store, before: PlanDocument): void => {
    const after = present(s);
    if (after !== before) {
      m.steps = [...m.steps.slice(0, m.at + 1), after];
      m.at++;
    }
    sound(m, s);
  };
  const step = (name: string, doIt: (s: Store) => void): Step => ({
    check: () => true,
    run: (m, s) => {
      const before = present(s);
      doIt(s);
      taken(m, s, before);
    },
    toString: () => name,
  });
  const nth = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)];
  const small = fc.double({ min: -120, max: 120, noNaN: true, noDefaultInfinity: true });
  const steps = [
    fc.tuple(fc.nat(9), small, small).map(([i, dx, dz]) =>
      step(`move plate ${i} by ${dx} ${dz}`, s => {
        const p = nth(present(s).plan.panels, i);
        if (p) s.dispatch(run(movePlate, { panel: p.id, by: [dx, 0, dz / 10] }));
      }),
    ),
    fc.tuple(fc.nat(9), fc.nat(9), small, small).map(([i, c, du, dv]) =>
      step(`drag corner ${c} of plate ${i} by ${du} ${dv}`, s => {
        const p = nth(present(s).plan.panels, i);
        if (!p) return;
        const corner = c % p.base.outline.length;
        const [u, v] = p.base.outline[corner] as readonly [number, number];
        s.dispatch(preview(callOf(moveCorner, { panel: p.id, corner, to: [u + du, v + dv] })));
        s.dispatch(letGo());
      }),
    ),
    fc.tuple(fc.nat(9), small).map(([i, dx]) =>
      step(`hold plate ${i}, then Escape`, s => {
        const p = nth(present(s).plan.panels, i);
        if (p) s.dispatch(preview(callOf(movePlate, { panel: p.id, by: [dx, 0, 0] })));
        s.dispatch(previewDropped());
      }),
    ),
    fc.nat(9).map(i =>
      step(`remove plate ${i}`, s => {
        const p = nth(present(s).plan.panels, i);
        if (p) s.dispatch(run(removePlates, { panels: [p.id] }));
      }),
    ),
    fc.tuple(fc.nat(9), fc.string({ minLength: 1, maxLength: 30 })).map(([i, name]) =>
      step(`rename plate ${i}`, s => {
        const p = nth(present(s).plan.panels, i);
        if (p && name.trim()) s.dispatch(run(renamePlate, { panel: p.id, name: name.trim() }));
      }),
    ),
    fc.nat(9).map(i =>
      step(`copy build ${i}`, s => {
        const b = nth(present(s).plan.builds, i);
        if (b) s.dispatch(run(copyBuild, { build: b.id }));
      }),
    ),
    fc.nat(9).map(i =>
      step(`remove build ${i}`, s => {
        const b = nth(present(s).plan.builds, i);
        if (b) s.dispatch(run(removeBuild, { build: b.id }));
      }),
    ),
    fc.nat(9).map(i =>
      step(`build ${i} first`, s => {
        const ids = present(s).plan.builds.map(b => b.id);
        const first = nth(ids, i);
        if (first) s.dispatch(run(orderBuilds, { order: [first, ...ids.filter(b => b !== first)] }));
      }),
    ),
    fc.tuple(fc.nat(9), fc.string({ maxLength: 30 })).map(([i, note]) =>
      step(`note build ${i}`, s => {
        const b = nth(present(s).plan.builds, i);
        if (b) s.dispatch(run(noteBuild, { build: b.id, note }));
      }),
    ),
    fc.constant<Step>({
      check: m => m.at > 0,
      run: (m, s) => {
        s.dispatch(undone());
        m.at--;
        sound(m, s);
      },
      toString: () => 'undo',
    }),
    fc.constant<Step>({
      check: m => m.at < m.steps.length - 1,
      run: (m, s) => {
        s.dispatch(redone());
        m.at++;
        sound(m, s);
      },
      toString: () => 'redo',
    }),
  ];
  it('leaves a sound plan, and undo and redo walk the very plans that were', () => {
    fc.assert(
      fc.property(fc.commands(steps, { maxCommands: 40 }), commands =>
        fc.modelRun(() => {
          const real = opened();
          return { model: { steps: [present(real)], at: 0 }, real };
        }, commands),
      ),
      { numRuns: Number(process.env.SOAK_EDITS ?? 60) },
    );
  });
});
