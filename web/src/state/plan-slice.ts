import {
  inPlan,
  type Lube,
  type Method,
  type PlanDocument,
  redrawnFor,
  type SheetChoice,
  sheetsSet,
  withJoint,
} from '@plate-fold/core/plan';
import { withChoice } from '@plate-fold/core/rig';
import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';

/** How the plan stands with the server. */
export type SaveState = 'saved' | 'pending' | 'saving' | 'offline' | 'conflict' | 'refused';

export interface Conflict {
  readonly revision: number;
  readonly document: PlanDocument;
}

export interface PlanState {
  readonly id?: string;
  readonly revision: number;
  readonly past: readonly PlanDocument[];
  readonly present?: PlanDocument;
  /** the plan as the server has it at `revision`; undefined where that is not known here */
  readonly acknowledged?: PlanDocument;
  /** the device's store had no room for the last edit: only this page has it */
  readonly unkept?: boolean;
  readonly future: readonly PlanDocument[];
  readonly save: SaveState;
  readonly savedAt?: number;
  readonly fault?: string;
  readonly conflict?: Conflict;
  /** the drag or run of key presses under way: its edits are one undoable step */
  readonly stroke?: string;
}

/** An edit by name: what was done, in a word or two, and the document after it. */
export interface Edit {
  readonly intent: string;
  readonly document: PlanDocument;
  readonly stroke?: string;
}

const DEPTH = 200;
const initialState: PlanState = { revision: 0, past: [], future: [], save: 'saved' };

/** How the plan stands after an edit: to be saved, unless a conflict waits for the owner's word. */
const changed = (state: PlanState): SaveState => (state.save === 'conflict' ? 'conflict' : 'pending');

/** One undoable step: the present goes to the past, the future is dropped. */
function step(state: PlanState, next: PlanDocument): PlanState {
  if (!state.present || next === state.present) return state;
  return {
    ...state,
    past: [...state.past.slice(-DEPTH), state.present],
    present: next,
    future: [],
    save: changed(state),
    stroke: undefined,
  };
}

/**
 * A reducer over the plain state. The toolkit hands reducers a draft whose parts are no longer the objects they were;
 * here documents are told apart by identity, so the state itself is what reducers see.
 */
const plain =
  <A extends unknown[]>(reduce: (state: PlanState, ...rest: A) => PlanState) =>
  (draft: PlanState, ...rest: A): PlanState =>
    reduce((original(draft as object) as PlanState | undefined) ?? draft, ...rest);

const edit = <P>(change: (doc: PlanDocument, payload: P) => PlanDocument) =>
  plain(
    (state, action: PayloadAction<P>): PlanState =>
      state.present ? step(state, change(state.present, action.payload)) : state,
  );

/** The next free letter for a build. */
function freeLetter(taken: readonly { id: string }[]): string {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
  return [...letters].find(l => !taken.some(t => t.id === l)) ?? `B${taken.length + 1}`;
}

export const planSlice = createSlice({
  name: 'plan',
  initialState: initialState as PlanState,
  reducers: {
    documentOpened: (
      _,
      a: PayloadAction<{
        document: PlanDocument;
        revision: number;
        savedAt?: number;
        unsaved?: boolean;
        acknowledged?: PlanDocument;
      }>,
    ) => ({
      ...initialState,
      id: a.payload.document.plan.id,
      revision: a.payload.revision,
      present: a.payload.document,
      acknowledged: a.payload.unsaved ? a.payload.acknowledged : a.payload.document,
      savedAt: a.payload.savedAt,
      save: a.payload.unsaved ? 'pending' : 'saved',
    }),
    documentClosed: () => initialState,
    undone: plain(s => {
      const back = s.past.at(-1);
      if (!back || !s.present) return s;
      const future = [s.present, ...s.future];
      return { ...s, past: s.past.slice(0, -1), present: back, future, save: changed(s), stroke: undefined };
    }),
    redone: plain(s => {
      const [next, ...future] = s.future;
      if (!next || !s.present) return s;
      return {
        ...s,
        past: [...s.past, s.present],
        present: next,
        future,
        save: changed(s),
        stroke: undefined,
      };
    }),

    buildActivated: edit<string>((doc, id) =>
      doc.plan.activeBuild === id ? doc : inPlan(doc, { activeBuild: id }),
    ),
    buildCopied: edit<string>((doc, id) => {
      const from = doc.plan.builds.find(b => b.id === id);
      if (!from || doc.plan.builds.length >= 8) return doc;
      const copy = { ...from, id: freeLetter(doc.plan.builds), name: `${from.name}, copy` };
      return inPlan(doc, { builds: [...doc.plan.builds, copy], activeBuild: copy.id });
    }),
    buildRenamed: edit<{ id: string; name: string }>((doc, { id, name }) =>
      inPlan(doc, { builds: doc.plan.builds.map(b => (b.id === id ? { ...b, name } : b)) }),
    ),
    buildNoted: edit<{ id: string; note: string }>((doc, { id, note }) =>
      inPlan(doc, { builds: doc.plan.builds.map(b => (b.id === id ? { ...b, note } : b)) }),
    ),
    buildRemoved: edit<string>((doc, id) => {
      const builds = doc.plan.builds.filter(b => b.id !== id);
      const first = builds[0];
      if (!first) return doc;
      // plates are drawn for the first build: as they hang in the one that takes its place
      const drawn = doc.plan.builds[0]?.id === id ? redrawnFor(doc, first) : doc;
      return inPlan(drawn, {
        builds,
        activeBuild: doc.plan.activeBuild === id ? first.id : doc.plan.activeBuild,
      });
    }),
    sheetChosen: edit<{ build: string; panels: readonly string[]; sheet: SheetChoice }>(
      (doc, { build, panels, sheet }) =>
        sheetsSet(doc, build, Object.fromEntries(panels.map(p => [p, sheet]))),
    ),
    optionChosen: edit<{ option: string; choice: string }>((doc, { option, choice }) => ({
      ...doc,
      rig: withChoice(doc.rig, option, choice),
    })),
    methodChanged: edit<Partial<Method>>((doc, part) =>
      inPlan(doc, { method: { ...doc.plan.method, ...part } }),
    ),
    torqueEntered: edit<{ joint: string; torque: 'auto' | number }>((doc, { joint, torque }) =>
      withJoint(doc, joint, j => ({ ...j, torque })),
    ),
    lubeChosen: edit<{ joint: string; lube: Lube }>((doc, { joint, lube }) =>
      withJoint(doc, joint, j => ({ ...j, lube })),
    ),
    remedyApplied: edit<PlanDocument>((_, next) => next),
    versionRestored: edit<PlanDocument>((_, next) => next),
    edited: plain((s, { payload }: PayloadAction<Edit>) => {
      if (!s.present || payload.document === s.present) return s;
      if (payload.stroke === undefined || payload.stroke !== s.stroke)
        return { ...step(s, payload.document), stroke: payload.stroke };
      return { ...s, present: payload.document, save: changed(s) };
    }),

    draftKept: plain((s, a: PayloadAction<boolean>) =>
      Boolean(s.unkept) === !a.payload ? s : { ...s, unkept: !a.payload },
    ),
    saveStarted: plain(s => ({ ...s, save: 'saving' })),
    saveAcknowledged: plain(
      (s, a: PayloadAction<{ document: PlanDocument; revision: number; savedAt: number }>) => ({
        ...s,
        revision: a.payload.revision,
        savedAt: a.payload.savedAt,
        acknowledged: a.payload.document,
        fault: undefined,
        save: s.present === a.payload.document ? 'saved' : 'pending',
        ...(s.present === a.payload.document ? { unkept: false } : {}),
      }),
    ),
    saveFailed: plain((s, a: PayloadAction<{ offline: boolean; fault: string }>) => ({
      ...s,
      save: a.payload.offline ? 'offline' : 'refused',
      fault: a.payload.fault,
    })),
    conflictFound: plain((s, a: PayloadAction<Conflict>) => ({
      ...s,
      save: 'conflict',
      conflict: a.payload,
    })),
    /** mine again, on top of theirs */
    mineKept: plain(s =>
      s.conflict
        ? {
            ...s,
            revision: s.conflict.revision,
            acknowledged: s.conflict.document,
            conflict: undefined,
            save: 'pending',
          }
        : s,
    ),
    theirsTaken: plain(s =>
      s.conflict && s.present
        ? {
            ...s,
            past: [...s.past, s.present],
            present: s.conflict.document,
            acknowledged: s.conflict.document,
            future: [],
            revision: s.conflict.revision,
            conflict: undefined,
            save: 'saved',
          }
        : s,
    ),
  },
});

export const {
  documentOpened,
  documentClosed,
  undone,
  redone,
  buildActivated,
  buildCopied,
  buildRenamed,
  buildNoted,
  buildRemoved,
  sheetChosen,
  optionChosen,
  methodChanged,
  torqueEntered,
  lubeChosen,
  remedyApplied,
  versionRestored,
  edited,
  draftKept,
  saveStarted,
  saveAcknowledged,
  saveFailed,
  conflictFound,
  mineKept,
  theirsTaken,
} = planSlice.actions;
