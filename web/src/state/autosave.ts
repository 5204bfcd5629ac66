import type { PlanDocument } from '@plate-fold/core/plan';
import { createListenerMiddleware } from '@reduxjs/toolkit';
import jsonPatch from 'fast-json-patch';
import { api } from './api';
import { dropDraft, keepDraft, sameDocument } from './drafts';
import {
  conflictFound,
  documentOpened,
  draftKept,
  mineKept,
  type PlanState,
  saveAcknowledged,
  saveFailed,
  saveStarted,
} from './plan-slice';

const SETTLE_MS = 500;
const RETRY_MS = 2500;
/** A change of more than this share of the plan is sent as the plan itself. */
const SHORT = 0.5;

interface Root {
  readonly plan: PlanState;
}

interface QueryFault {
  readonly status: number | string;
  readonly data?: { fault?: string; revision?: number; document?: PlanDocument };
}
interface Saved {
  readonly data?: { readonly revision: number; readonly updatedAt: number };
  readonly error?: unknown;
}

export const autosave = createListenerMiddleware<Root>();

/** Every edit is kept on the device before anything else happens. */
autosave.startListening({
  predicate: (_, now, before) => now.plan.present !== before.plan.present && now.plan.save !== 'saved',
  effect: (_, { dispatch, getState }) => {
    const { id, present, revision } = getState().plan;
    if (id && present)
      dispatch(draftKept(keepDraft(id, { baseRevision: revision, document: present, at: Date.now() })));
  },
});

/** Sends a plan: what has changed since the server's revision where that is known and short, the whole otherwise. */
async function sendPlan(
  dispatch: (action: never) => unknown,
  { id, present, acknowledged, revision }: PlanState & { id: string; present: PlanDocument },
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

/** After edits have settled the plan goes to the server; while it is away, again and again. */
autosave.startListening({
  predicate: (action, now, before) =>
    now.plan.save === 'pending' &&
    (now.plan.present !== before.plan.present ||
      now.plan.save !== before.plan.save ||
      documentOpened.match(action) ||
      mineKept.match(action)),
  effect: async (_, { cancelActiveListeners, delay, dispatch, getState }) => {
    cancelActiveListeners();
    await delay(SETTLE_MS);
    for (;;) {
      const plan = getState().plan;
      const { id, present, save } = plan;
      if (!id || !present || save === 'saved' || save === 'conflict') return;
      dispatch(saveStarted());
      const { data, error } = await sendPlan(dispatch as never, { ...plan, id, present });
      // another plan was opened meanwhile: this one is seen to by whoever saves what is left behind
      if (getState().plan.id !== id) return;
      if (data) {
        dispatch(saveAcknowledged({ document: present, revision: data.revision, savedAt: data.updatedAt }));
        if (getState().plan.present === present) dropDraft(id);
        return;
      }
      const fault = error as QueryFault;
      const { status, data: answer } = fault;
      if (status === 409 && answer?.document && answer.revision !== undefined) {
        if (sameDocument(present, answer.document)) {
          // our own save, whose answer was lost on the way
          dispatch(saveAcknowledged({ document: present, revision: answer.revision, savedAt: Date.now() }));
          dropDraft(id);
          return;
        }
        dispatch(conflictFound({ revision: answer.revision, document: answer.document }));
        return;
      }
      const offline = isOffline(fault);
      dispatch(
        saveFailed({
          offline,
          fault:
            answer?.fault ??
            (getState().plan.unkept
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
    before.plan.id !== undefined &&
    now.plan.id !== before.plan.id &&
    ['pending', 'saving', 'offline'].includes(before.plan.save),
  effect: async (_, { delay, dispatch, getOriginalState, getState }) => {
    let left = getOriginalState().plan;
    const { id, present, past } = left;
    if (!id || !present) return;
    for (;;) {
      const { data, error } = await sendPlan(dispatch as never, { ...left, id, present });
      const fault = error as QueryFault | undefined;
      const arrived =
        data ?? (fault?.status === 409 && fault.data?.document && sameDocument(present, fault.data.document));
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
      if (getState().plan.id === id) return;
      if (arrived) dropDraft(id);
      // a conflict is told when the plan is opened again: its draft is kept
      if (arrived || !fault || !isOffline(fault)) return;
      await delay(RETRY_MS);
    }
  },
});

/** What only this page has is not left without a word. */
export function warnBeforeLeaving(plan: () => PlanState): void {
  window.addEventListener('beforeunload', e => {
    const { unkept, save } = plan();
    if (unkept && save !== 'saved') e.preventDefault();
  });
}
