import { type PlanDocument, panelMoved } from '@plate-fold/core/plan';
import { demo } from '@plate-fold/demo';
import { configureStore } from '@reduxjs/toolkit';
import { describe, expect, it } from 'vitest';
import {
  buildActivated,
  buildCopied,
  buildRemoved,
  buildRenamed,
  conflictFound,
  documentOpened,
  edited,
  lubeChosen,
  mineKept,
  planSlice,
  redone,
  saveAcknowledged,
  saveFailed,
  saveStarted,
  sheetChosen,
  theirsTaken,
  torqueEntered,
  undone,
} from './plan-slice';

const opened = () => {
  const store = configureStore({
    reducer: planSlice.reducer,
    middleware: get => get({ serializableCheck: false, immutableCheck: false }),
  });
  store.dispatch(documentOpened({ document: demo('bramble'), revision: 4 }));
  return store;
};
const present = (store: ReturnType<typeof opened>): PlanDocument => store.getState().present as PlanDocument;
const move = (store: ReturnType<typeof opened>, by: number, stroke?: string): void =>
  void store.dispatch(
    edited({ intent: 'moved', document: panelMoved(present(store), 'plate-a', [by, 0, 0]), stroke }),
  );
const x = (store: ReturnType<typeof opened>): number => present(store).plan.panels[0]?.base.origin[0] ?? 0;

describe('editing', () => {
  it('is undone and redone step by step; a stroke is one step', () => {
    const store = opened();
    const start = x(store);
    move(store, 1);
    for (let i = 0; i < 10; i++) move(store, 1, 'drag');
    move(store, 100, 'another');
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

  it('what changes nothing is no step', () => {
    const store = opened();
    store.dispatch(buildActivated('A'));
    expect(store.getState().past).toHaveLength(0);
    expect(store.getState().save).toBe('saved');
  });

  it('builds are copied, renamed, taken away, never the last one, never more than eight', () => {
    const store = opened();
    for (let i = 0; i < 9; i++) store.dispatch(buildCopied('A'));
    expect(
      present(store)
        .plan.builds.map(b => b.id)
        .join(''),
    ).toBe('ABCDEFGH');
    expect(present(store).plan.activeBuild).toBe('H');
    store.dispatch(buildRenamed({ id: 'H', name: 'last' }));
    expect(present(store).plan.builds.at(-1)?.name).toBe('last');
    for (const id of 'HGFEDCBA') store.dispatch(buildRemoved(id));
    expect(present(store).plan.builds.map(b => b.id)).toEqual(['A']);
    expect(present(store).plan.activeBuild).toBe('A');
  });

  it('a sheet goes to the plates named in the build named, a torque and a lubricant to their joint', () => {
    const store = opened();
    const sheet = { material: 'al-5052-h32', thickness: 6.35, finish: 'raw' } as const;
    store.dispatch(sheetChosen({ build: 'C', panels: ['plate-a', 'plate-b'], sheet }));
    const [a, , c] = present(store).plan.builds;
    expect(c?.sheets['plate-b']).toEqual(sheet);
    expect(a?.sheets['plate-b']?.material).toBe('steel-hr36');
    store.dispatch(torqueEntered({ joint: 'j03', torque: 33 }));
    store.dispatch(lubeChosen({ joint: 'j03', lube: 'anti-seize' }));
    expect(present(store).plan.joints.find(j => j.id === 'j03')).toMatchObject({
      torque: 33,
      lube: 'anti-seize',
    });
  });
});

describe('saving', () => {
  it('an edit made while a save is under way is saved next', () => {
    const store = opened();
    move(store, 1);
    const sent = present(store);
    store.dispatch(saveStarted());
    move(store, 1);
    store.dispatch(saveAcknowledged({ document: sent, revision: 5, savedAt: 1 }));
    expect(store.getState()).toMatchObject({ save: 'pending', revision: 5 });
    store.dispatch(saveAcknowledged({ document: present(store), revision: 6, savedAt: 2 }));
    expect(store.getState().save).toBe('saved');
  });

  it('away is offline, refused is refused, with the reason', () => {
    const store = opened();
    move(store, 1);
    store.dispatch(saveFailed({ offline: true, fault: 'away' }));
    expect(store.getState().save).toBe('offline');
    store.dispatch(saveFailed({ offline: false, fault: 'no' }));
    expect(store.getState()).toMatchObject({ save: 'refused', fault: 'no' });
  });

  it('in a conflict mine goes on theirs, or theirs is taken and undo brings mine back', () => {
    const theirs = { ...demo('bramble'), plan: { ...demo('bramble').plan, name: 'theirs' } };
    const kept = opened();
    move(kept, 7);
    kept.dispatch(conflictFound({ revision: 9, document: theirs }));
    move(kept, 1);
    expect(kept.getState().save).toBe('conflict');
    kept.dispatch(mineKept());
    expect(kept.getState()).toMatchObject({ save: 'pending', revision: 9 });
    const taken = opened();
    move(taken, 7);
    const mine = x(taken);
    taken.dispatch(conflictFound({ revision: 9, document: theirs }));
    taken.dispatch(theirsTaken());
    expect(present(taken).plan.name).toBe('theirs');
    expect(taken.getState()).toMatchObject({ save: 'saved', revision: 9 });
    taken.dispatch(undone());
    expect(x(taken)).toBe(mine);
  });
});
