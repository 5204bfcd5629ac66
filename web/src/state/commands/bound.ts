import { activateBuild, frontToRear, markAt, reletterPlates } from '@plate-fold/core/plan';
import { redone, undone } from '../plan-actions';
import { previewDropped } from '../preview-slice';
import { selectDocument, selectRedo, selectUndo } from '../select';
import type { Dispatch, RootState } from '../store';
import { panelSelected, sideTurned, themeSwitched, unitsSwitched } from '../view-slice';
import { run } from './run';

/** What a key or a button of the frame does: both, the key sheet and the screen reader read it here. */
export interface Bound {
  readonly id: string;
  /** what the key sheet says of it */
  readonly says: string;
  /** what its button is called now */
  readonly label: (s: RootState) => string;
  /** as the key sheet prints them */
  readonly shown?: string;
  /** as they are listened for */
  readonly keys?: readonly string[];
  /** the key by what it writes, whatever the keyboard's layout */
  readonly useKey?: true;
  readonly enabled: (s: RootState) => boolean;
  readonly run: (dispatch: Dispatch, s: RootState) => void;
}

const bound = (b: Omit<Bound, 'label' | 'enabled'> & Partial<Bound>): Bound => ({
  label: () => b.says,
  enabled: s => selectDocument(s) !== undefined,
  ...b,
});

/** The plate `by` places after the chosen one. */
const plate =
  (by: 1 | -1): Bound['run'] =>
  (dispatch, s) => {
    const ids = frontToRear(selectDocument(s)?.plan.panels ?? []).map(p => p.id);
    const { panel } = s.view;
    const at = panel === undefined ? (by > 0 ? -1 : 0) : ids.indexOf(panel);
    dispatch(panelSelected(ids[(at + by + ids.length) % ids.length]));
  };

export const UNDO = bound({
  id: 'undo',
  says: 'undo',
  label: s => {
    const what = selectUndo(s);
    return what === undefined ? 'Undo' : `Undo: ${what}`;
  },
  shown: 'Ctrl+Z',
  keys: ['mod+z'],
  enabled: s => selectUndo(s) !== undefined,
  run: dispatch => dispatch(undone()),
});
export const REDO = bound({
  id: 'redo',
  says: 'redo',
  label: s => {
    const what = selectRedo(s);
    return what === undefined ? 'Redo' : `Redo: ${what}`;
  },
  shown: 'Ctrl+Shift+Z',
  keys: ['mod+shift+z', 'mod+y'],
  enabled: s => selectRedo(s) !== undefined,
  run: dispatch => dispatch(redone()),
});
export const TURN_SIDE = bound({
  id: 'side',
  says: 'view side',
  shown: 'V',
  keys: ['v'],
  run: dispatch => dispatch(sideTurned()),
});
export const SWITCH_UNITS = bound({
  id: 'units',
  says: 'units',
  shown: 'U',
  keys: ['u'],
  run: dispatch => dispatch(unitsSwitched()),
});
export const SWITCH_THEME = bound({
  id: 'theme',
  says: 'light or dark',
  run: dispatch => dispatch(themeSwitched()),
});
export const PLATE_BEFORE = bound({
  id: 'plate.before',
  says: 'plate before',
  shown: '[',
  keys: ['['],
  useKey: true,
  run: plate(-1),
});
export const PLATE_AFTER = bound({
  id: 'plate.after',
  says: 'plate after',
  shown: ']',
  keys: [']'],
  useKey: true,
  run: plate(1),
});
export const NEXT_BUILD = bound({
  id: 'build.next',
  says: 'next build',
  shown: 'B',
  keys: ['b'],
  enabled: s => (selectDocument(s)?.plan.builds.length ?? 0) > 1,
  run: (dispatch, s) => {
    const plan = selectDocument(s)?.plan;
    const ids = plan?.builds.map(b => b.id) ?? [];
    const next = ids[(ids.indexOf(plan?.activeBuild ?? '') + 1) % ids.length];
    if (next !== undefined) dispatch(run(activateBuild, { build: next }));
  },
});
export const RELETTER = bound({
  id: 'plate.letter',
  says: 'letter the plates from front to rear',
  enabled: s => frontToRear(selectDocument(s)?.plan.panels ?? []).some((p, i) => p.mark !== markAt(i)),
  run: dispatch => dispatch(run(reletterPlates, {})),
});
/** What is held is put back where it was; else nothing is chosen any more. */
export const LET_BE = bound({
  id: 'escape',
  says: 'cancel the drag; select nothing',
  shown: 'Esc',
  keys: ['escape'],
  run: (dispatch, s) => dispatch(s.preview.call ? previewDropped() : panelSelected(undefined)),
});

/** Everything that the keys of the planning stages do, in the order of the key sheet. */
export const BOUND: readonly Bound[] = [
  PLATE_BEFORE,
  PLATE_AFTER,
  NEXT_BUILD,
  TURN_SIDE,
  SWITCH_UNITS,
  UNDO,
  REDO,
  LET_BE,
];
