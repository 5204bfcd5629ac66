import type { PlanDocument } from '@plate-fold/core/plan';
import { createSlice, isAnyOf, type PayloadAction } from '@reduxjs/toolkit';
import { documentClosed, documentOpened, edited, redone, theirsTaken, undone } from './plan-actions';

/** How the plan stands with the server. */
export type SaveState = 'saved' | 'pending' | 'saving' | 'offline' | 'conflict' | 'refused';

export interface Conflict {
  readonly revision: number;
  readonly document: PlanDocument;
}

export interface SyncState {
  readonly id?: string;
  readonly revision: number;
  readonly save: SaveState;
  /** the plan as the server has it at `revision`; undefined where that is not known here */
  readonly acknowledged?: PlanDocument;
  /** the device's store had no room for the last edit: only this page has it */
  readonly unkept?: boolean;
  readonly savedAt?: number;
  readonly fault?: string;
  readonly conflict?: Conflict;
}

const initialState: SyncState = { revision: 0, save: 'saved' };

/** What is known of the open plan at the server, and what is on its way there. */
export const syncSlice = createSlice({
  name: 'sync',
  initialState,
  reducers: {
    draftKept: (s, a: PayloadAction<boolean>) =>
      Boolean(s.unkept) === !a.payload ? s : { ...s, unkept: !a.payload },
    saveStarted: s => ({ ...s, save: 'saving' as const }),
    /** `current`: nothing was edited since it was sent */
    saveAcknowledged: (
      s,
      {
        payload: { document, revision, savedAt, current },
      }: PayloadAction<{ document: PlanDocument; revision: number; savedAt: number; current: boolean }>,
    ) => ({
      ...s,
      revision,
      savedAt,
      acknowledged: document,
      fault: undefined,
      save: current ? ('saved' as const) : ('pending' as const),
      ...(current ? { unkept: false } : {}),
    }),
    saveFailed: (s, { payload }: PayloadAction<{ offline: boolean; fault: string }>) => ({
      ...s,
      save: payload.offline ? ('offline' as const) : ('refused' as const),
      fault: payload.fault,
    }),
    conflictFound: (s, a: PayloadAction<Conflict>) => ({
      ...s,
      save: 'conflict' as const,
      conflict: a.payload,
    }),
    /** mine again, on top of theirs */
    mineKept: s =>
      s.conflict
        ? {
            ...s,
            revision: s.conflict.revision,
            acknowledged: s.conflict.document,
            conflict: undefined,
            save: 'pending' as const,
          }
        : s,
  },
  extraReducers: build =>
    build
      .addCase(documentOpened, (_, { payload: p }) => ({
        id: p.document.plan.id,
        revision: p.revision,
        acknowledged: p.unsaved ? p.acknowledged : p.document,
        savedAt: p.savedAt,
        save: p.unsaved ? ('pending' as const) : ('saved' as const),
      }))
      .addCase(documentClosed, () => initialState)
      .addCase(theirsTaken, (s, { payload }) => ({
        ...s,
        acknowledged: payload.document,
        revision: payload.revision,
        conflict: undefined,
        save: 'saved' as const,
      }))
      .addMatcher(isAnyOf(edited, undone, redone), s =>
        // to be saved, unless a conflict waits for the owner's word
        s.save === 'conflict' ? s : { ...s, save: 'pending' as const },
      ),
});

export const { draftKept, saveStarted, saveAcknowledged, saveFailed, conflictFound, mineKept } =
  syncSlice.actions;
