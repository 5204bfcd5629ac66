import { X } from 'lucide-react';
import { useAppDispatch, useAppSelector } from '../state/store';
import { noticeGiven } from '../state/view-slice';

/** Why the last edit was refused, until the next one is made or it is put away; and why the server refuses the plan. */
export function Notice() {
  const dispatch = useAppDispatch();
  const notice = useAppSelector(s => s.view.notice);
  const refused = useAppSelector(s => (s.sync.save === 'refused' ? s.sync.fault : undefined));
  if (notice === undefined && refused === undefined) return null;
  if (notice === undefined)
    return (
      <p role="alert" className="border-b border-oxide bg-oxidesoft px-4 py-2 font-semibold">
        {refused} The plan is kept on this device; undo, or save it as a file from the menu.
      </p>
    );
  return (
    <div
      role="alert"
      className="flex items-center justify-between gap-3 border-b border-oxide bg-oxidesoft px-4 py-1 font-semibold"
    >
      <span className="first-letter:uppercase">{notice} Nothing was changed.</span>
      <button
        type="button"
        className="grid size-10 shrink-0 place-items-center"
        aria-label="Dismiss"
        onClick={() => dispatch(noticeGiven(undefined))}
      >
        <X size={18} aria-hidden="true" />
      </button>
    </div>
  );
}
