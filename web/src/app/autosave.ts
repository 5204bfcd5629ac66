import type { PlanDocument } from '@plate-fold/core';
import { createListenerMiddleware } from '@reduxjs/toolkit';
import { api } from './api';
import { dropDraft, keepDraft, sameDocument } from './drafts';
import {
  conflictFound,
  documentOpened,
  mineKept,
  type PlanState,
  saveAcknowledged,
  saveFailed,
  saveStarted,
} from './plan-slice';

const SETTLE_MS = 500;
const RETRY_MS = 2500;

interface Root {
  readonly plan: PlanState;
}

interface QueryFault {
  readonly status: number | string;
  readonly data?: { fault?: string; revision?: number; document?: PlanDocument };
}

export const autosave = createListenerMiddleware<Root>();

/** Every edit is kept on the device before anything else happens. */
autosave.startListening({
  predicate: (_, now, before) => now.plan.present !== before.plan.present && now.plan.save !== 'saved',
  effect: (_, { getState }) => {
    const { id, present, revision } = getState().plan;
    if (id && present) keepDraft(id, { baseRevision: revision, document: present, at: Date.now() });
  },
});

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
      const { id, present, revision, save } = getState().plan;
      if (!id || !present || save === 'saved' || save === 'conflict') return;
      dispatch(saveStarted());
      const call = dispatch(
        api.endpoints.saveDocument.initiate({ id, baseRevision: revision, document: present }),
      );
      const { data, error } = await call;
      if (data) {
        dispatch(saveAcknowledged({ document: present, revision: data.revision, savedAt: data.updatedAt }));
        if (getState().plan.present === present) dropDraft(id);
        return;
      }
      const { status, data: answer } = error as QueryFault;
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
      const offline = typeof status === 'string' || status >= 500;
      dispatch(
        saveFailed({
          offline,
          fault: answer?.fault ?? 'The server does not answer. Your edits are kept on this device.',
        }),
      );
      if (!offline) return;
      await delay(RETRY_MS);
    }
  },
});
