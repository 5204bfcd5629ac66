import type { PlanDocument } from '@plate-fold/core/plan';
import type { Result } from '@plate-fold/core/units';
import { useCallback } from 'react';
import { useStore } from 'react-redux';
import { edited } from './plan-slice';
import { type RootState, useDo } from './store';
import { noticeGiven } from './view-slice';

type Change = (doc: PlanDocument) => PlanDocument | Result<PlanDocument>;

/**
 * Edits the open plan by name. A refused edit leaves it as it was and says why at the top of the bench. Edits of one
 * stroke (a drag, a run of arrow keys) are undone together. True when the edit was made.
 */
export function useEdit(): (intent: string, change: Change, stroke?: string) => boolean {
  const dispatch = useDo();
  const store = useStore<RootState>();
  return useCallback(
    (intent, change, stroke) => {
      const state = store.getState();
      const doc = state.plan.present;
      if (!doc) return false;
      const made = change(doc);
      const result = 'ok' in made ? made : ({ ok: true, value: made } as const);
      if (!result.ok) {
        dispatch(noticeGiven(result.fault));
        return false;
      }
      if (state.view.notice !== undefined) dispatch(noticeGiven(undefined));
      dispatch(edited({ intent, document: result.value, stroke }));
      return true;
    },
    [dispatch, store],
  );
}
