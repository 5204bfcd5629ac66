import type { PlanDocument } from '@plate-fold/core/plan';
import { createReducer, type UnknownAction } from '@reduxjs/toolkit';
import undoable, { newHistory, type StateWithHistory } from 'redux-undo';
import { documentClosed, documentOpened, edited, redone, theirsTaken, undone } from './plan-actions';

/** The open plan, and what made it so. */
export interface OpenDocument {
  readonly document?: PlanDocument;
  /** the last thing done to it, as undo says it; none right after it was opened */
  readonly did?: string;
}
export type DocumentState = StateWithHistory<OpenDocument>;

/** Steps that can be undone. Documents share what did not change, so that a step costs no more than its change. */
const DEPTH = 200;

const open = createReducer<OpenDocument>({}, build =>
  build
    .addCase(documentOpened, (_, { payload }) => ({ document: payload.document }))
    .addCase(documentClosed, () => ({}))
    .addCase(edited, (_, { payload }) => ({ document: payload.document, did: payload.label }))
    .addCase(theirsTaken, (_, { payload }) => ({ document: payload.document, did: 'take theirs' })),
);

/** Reducer of the document with its history. One for each store: it remembers where it began. */
export function documentReducer() {
  const steps = undoable(open, {
    limit: DEPTH,
    undoType: undone.type,
    redoType: redone.type,
    groupBy: (action: UnknownAction) => (edited.match(action) ? (action.payload.group ?? null) : null),
  });
  return (state: DocumentState | undefined, action: UnknownAction): DocumentState =>
    // another plan has a history of its own
    documentOpened.match(action) || documentClosed.match(action)
      ? newHistory([], open(undefined, action), [])
      : steps(state, action);
}
