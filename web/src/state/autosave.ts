import type { PlanDocument } from '@plate-fold/core/plan';
import { createListenerMiddleware } from '@reduxjs/toolkit';
import jsonPatch from 'fast-json-patch';
import { api } from './api';
import type { DocumentState } from './document-slice';
import { dropDraft, keepDraft, sameDocument } from './drafts';
import { documentOpened } from './plan-actions';
import {
  conflictFound,
  draftKept,
  mineKept,
  type SyncState,
  saveAcknowledged,
  saveFailed,
  saveStarted,
} from './sync-slice';

const SETTLE_MS = 500;
const RETRY_MS = 2500;
/** A change of more than this share of the plan is sent as the plan itself. */
const SHORT = 0.5;

interface Root {
  readonly document: DocumentState;
  readonly sync: SyncState;
}
const presentOf = (s: Root): PlanDocument | undefined => s.document.present.document;

interface QueryFault {
  readonly status: number | string;
  readonly data?: { fault?: string; revision?: number; document?: PlanDocument };
}
interface Saved {
  readonly data?: { readonly revision: number; readonly updatedAt: number };
  readonly error?: unknown;
}

/** Sends a plan: what has changed since the server's revision where that is known and short, the whole otherwise. */
async function sendPlan(
  dispatch: (action: never) => unknown,
  { id, present, acknowledged, revision }: SyncState & { id: string; present: PlanDocument },
): Promise<Saved> {
  const send = dispatch as (action: unknown) => Promise<Saved>;
  if (acknowledged) {
    const patch = jsonPatch.compare(acknowledged, present);
    if (JSON.stringify(patch).length < SHORT * JSON.stringify(present).length) {
      const said = await send(api.endpoints.saveChange.initiate({ id, baseRevision: revision, patch }));
      const { status } = (said.error as QueryFault | undefined) ?? { status: 0 };
      // where the change cannot be laid on what the server has, the whole can
      if (status !== 410 && status !== 413) return said;
    }
  }
  return send(api.endpoints.saveDocument.initiate({ id, baseRevision: revision, document: present }));
}

const isOffline = ({ status }: QueryFault): boolean => typeof status === 'string' || status >= 500;

/** Sees to it that every edit reaches the device and the server. One for each store. */
export function makeAutosave() {
  const autosave = createListenerMiddleware<Root>();
  /** The save that is on its way: the next one waits for its answer, or it would be late by its own fault. */
  let flight: Promise<unknown> = Promise.resolve();
  /** Plans that were sent and never answered: the server may have them. */
  const unanswered = new Set<PlanDocument>();

  /** Every edit is kept on the device before anything else happens. */
  autosave.startListening({
    predicate: (_, now, before) => presentOf(now) !== presentOf(before) && now.sync.save !== 'saved',
    effect: (_, { dispatch, getState }) => {
      const { id, revision } = getState().sync;
      const present = presentOf(getState());
      if (id && present)
        dispatch(draftKept(keepDraft(id, { baseRevision: revision, document: present, at: Date.now() })));
    },
  });

  /** After edits have settled the plan goes to the server; while it is away, again and again. */
  autosave.startListening({
    predicate: (action, now, before) =>
      now.sync.save === 'pending' &&
      (presentOf(now) !== presentOf(before) ||
        now.sync.save !== before.sync.save ||
        documentOpened.match(action) ||
        mineKept.match(action)),
    effect: async (_, { cancelActiveListeners, delay, dispatch, getState }) => {
      cancelActiveListeners();
      await delay(SETTLE_MS);
      for (;;) {
        for (let before: unknown; before !== flight; ) {
          before = flight;
          await flight;
        }
        const { sync } = getState();
        const { id, save } = sync;
        const present = presentOf(getState());
        if (!id || !present || save === 'saved' || save === 'conflict') return;
        /** The server has a plan of ours. What was edited since goes after it by itself. */
        const arrived = (document: PlanDocument, revision: number, savedAt: number): void => {
          unanswered.clear();
          const current = presentOf(getState()) === document;
          dispatch(saveAcknowledged({ document, revision, savedAt, current }));
          if (current) dropDraft(id);
        };
        const lost = [...unanswered].filter(d => d.plan.id === id);
        // changed and taken back before anything was sent
        if (lost.length === 0 && sync.acknowledged && sameDocument(present, sync.acknowledged))
          return arrived(present, sync.revision, sync.savedAt ?? Date.now());
        dispatch(saveStarted());
        const sent = sendPlan(dispatch as never, { ...sync, id, present });
        flight = sent;
        unanswered.add(present);
        const { data, error } = await sent;
        // another plan was opened meanwhile: this one is seen to by whoever saves what is left behind
        if (getState().sync.id !== id) return;
        if (data) return arrived(present, data.revision, data.updatedAt);
        const fault = error as QueryFault;
        const { status, data: answer } = fault;
        if (status === 409 && answer?.document && answer.revision !== undefined) {
          // our own save, whose answer was lost on the way
          const { document, revision } = answer;
          const own = [present, ...lost].find(d => sameDocument(d, document));
          if (own) return arrived(own, revision, Date.now());
          dispatch(conflictFound({ revision, document }));
          return;
        }
        const offline = isOffline(fault);
        dispatch(
          saveFailed({
            offline,
            fault:
              answer?.fault ??
              (getState().sync.unkept
                ? 'The server does not answer, and this device’s storage is full: your edits are only on this page. Keep it open.'
                : 'The server does not answer. Your edits are kept on this device.'),
          }),
        );
        if (!offline) return;
        await delay(RETRY_MS);
      }
    },
  });

  /** An edit that is followed at once by another plan is saved all the same: what was left unsaved goes to the server by itself. */
  autosave.startListening({
    predicate: (_, now, before) =>
      before.sync.id !== undefined &&
      now.sync.id !== before.sync.id &&
      ['pending', 'saving', 'offline'].includes(before.sync.save),
    effect: async (_, { delay, dispatch, getOriginalState, getState }) => {
      const original = getOriginalState();
      let left = original.sync;
      const { id } = left;
      const present = presentOf(original);
      const past = [...original.document.past.flatMap(s => s.document ?? []), ...unanswered];
      if (!id || !present) return;
      await flight;
      for (;;) {
        const { data, error } = await sendPlan(dispatch as never, { ...left, id, present });
        const fault = error as QueryFault | undefined;
        const arrived =
          data ??
          (fault?.status === 409 && fault.data?.document && sameDocument(present, fault.data.document));
        const theirs = fault?.status === 409 ? fault.data : undefined;
        if (!arrived && theirs?.document && theirs.revision !== undefined) {
          const { document, revision } = theirs;
          // an earlier edit of ours was still on its way: this one goes on top of it
          if (revision > left.revision && past.some(p => sameDocument(p, document))) {
            left = { ...left, revision, acknowledged: document };
            continue;
          }
        }
        // opened again meanwhile: from there on the plan sees to itself
        if (getState().sync.id === id) return;
        if (arrived) dropDraft(id);
        // a conflict is told when the plan is opened again: its draft is kept
        if (arrived || !fault || !isOffline(fault)) return;
        await delay(RETRY_MS);
      }
    },
  });

  return autosave;
}

/** What only this page has is not left without a word. */
export function warnBeforeLeaving(sync: () => SyncState): void {
  window.addEventListener('beforeunload', e => {
    const { unkept, save } = sync();
    if (unkept && save !== 'saved') e.preventDefault();
  });
}
