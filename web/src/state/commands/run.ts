import { type Call, type Command, done, type PlanDocument } from '@plate-fold/core/plan';
import { useMemo } from 'react';
import { edited } from '../plan-actions';
import { previewDropped, previewed } from '../preview-slice';
import { selectDocument } from '../select';
import { type Dispatch, type RootState, useAppDispatch } from '../store';
import { noticeGiven } from '../view-slice';
import { commandNamed } from './all';

type Thunk<T> = (dispatch: Dispatch, getState: () => RootState) => T;

/**
 * Changes the open plan by a command: the plan after it. A refused change leaves the plan as it was and says why at the top of the bench
 * (`false`). Changes of one group (a run of arrow keys) are undone together.
 */
export const run =
  <A>(command: Command<A>, args: A, group?: string): Thunk<PlanDocument | false> =>
  (dispatch, getState) => {
    const doc = selectDocument(getState());
    if (!doc) return false;
    const made = done(command, doc, args);
    if (!made.ok) {
      dispatch(noticeGiven(made.fault));
      return false;
    }
    if (getState().view.notice !== undefined) dispatch(noticeGiven(undefined));
    if (made.value !== doc)
      dispatch(
        edited({
          label: command.label(doc, args),
          document: made.value,
          ...(group === undefined ? {} : { group }),
        }),
      );
    else if (getState().preview.call) dispatch(previewDropped());
    return made.value;
  };

/** The same for a call, whose command is known by name. */
export const runCall = (call: Call): Thunk<PlanDocument | false> => run(commandNamed(call), call.args);

/** Shows a change without making it. One that would be refused is told, and the last one that can be stays shown. */
export const preview =
  (call: Call): Thunk<void> =>
  (dispatch, getState) => {
    const doc = selectDocument(getState());
    if (!doc) return;
    const made = done(commandNamed(call), doc, call.args);
    const notice = made.ok ? undefined : made.fault;
    if (getState().view.notice !== notice) dispatch(noticeGiven(notice));
    if (made.ok) dispatch(previewed(call));
  };

/** Makes the change that is shown: one step of undo. */
export const letGo = (): Thunk<void> => (dispatch, getState) => {
  const { call } = getState().preview;
  if (call) dispatch(runCall(call));
};

/** Changes the open plan; see `run`. */
export function useRun(): <A>(command: Command<A>, args: A, group?: string) => PlanDocument | false {
  const dispatch = useAppDispatch();
  return useMemo(() => (command, args, group) => dispatch(run(command, args, group)), [dispatch]);
}

/** What is held in the hand: shown while it is moved, made when it is let go, forgotten on Escape. */
export interface Hand {
  readonly show: (call: Call) => void;
  readonly letGo: () => void;
  readonly forget: () => void;
}

export function useHand(): Hand {
  const dispatch = useAppDispatch();
  return useMemo(
    () => ({
      show: call => dispatch(preview(call)),
      letGo: () => dispatch(letGo()),
      forget: () => {
        dispatch(previewDropped());
        dispatch(noticeGiven(undefined));
      },
    }),
    [dispatch],
  );
}
