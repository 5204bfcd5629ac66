import type { PlanDocument } from '@plate-fold/core/plan';
import { createAction } from '@reduxjs/toolkit';

/** What happens to the open plan. Document, history and sync each take their own part of it. */
export const documentOpened = createAction<{
  readonly document: PlanDocument;
  readonly revision: number;
  readonly savedAt?: number;
  /** it has edits that the server has not acknowledged */
  readonly unsaved?: boolean;
  /** the plan as the server has it at that revision, where that is known */
  readonly acknowledged?: PlanDocument;
}>('plan/opened');
export const documentClosed = createAction('plan/closed');

/** A command was run. Edits of one group (a run of arrow keys) are one step of undo. */
export const edited = createAction<{
  /** what was done, as undo says it: `move plate B` */
  readonly label: string;
  readonly document: PlanDocument;
  readonly group?: string;
}>('plan/edited');
export const undone = createAction('plan/undone');
export const redone = createAction('plan/redone');

/** In a conflict: the other's version is gone on with; undo brings one's own back. */
export const theirsTaken = createAction<{ readonly document: PlanDocument; readonly revision: number }>(
  'plan/theirsTaken',
);
