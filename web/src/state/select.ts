import { done, type PlanDocument } from '@plate-fold/core/plan';
import { createSelector } from '@reduxjs/toolkit';
import { commandNamed } from './commands/all';
import type { RootState } from './store';

/** The open plan as it was last changed. */
export const selectDocument = (s: RootState): PlanDocument | undefined => s.document.present.document;

const selectCall = (s: RootState) => s.preview.call;

/** The open plan as it is shown: with what is held in the hand. */
export const selectShown = createSelector(
  [selectDocument, selectCall],
  (doc, call): PlanDocument | undefined => {
    if (!doc || !call) return doc;
    const made = done(commandNamed(call), doc, call.args);
    return made.ok ? made.value : doc;
  },
);

/** What undo and redo would take back and do again, in words; undefined where there is nothing. */
export const selectUndo = (s: RootState): string | undefined =>
  s.document.past.length > 0 ? (s.document.present.did ?? 'the last change') : undefined;
export const selectRedo = (s: RootState): string | undefined => {
  const [next] = s.document.future;
  return next && (next.did ?? 'the next change');
};
