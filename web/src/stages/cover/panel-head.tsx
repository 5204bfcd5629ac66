import { type Panel, panelWord } from '@plate-fold/core/plan';
import { sentence } from '@plate-fold/core/units';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { useAppDispatch } from '../../state/store';
import { panelSelected } from '../../state/view-slice';

/** The head of a plate's or a bracket's card: its mark, its name, what it is for, and the way back to the whole set. */
export function PanelHead({ panel, children }: { panel: Panel; children: ReactNode }) {
  const dispatch = useAppDispatch();
  return (
    <header className="mb-3 flex items-start gap-3">
      <span
        aria-hidden="true"
        className="grid size-9 shrink-0 place-items-center rounded-full bg-fluid text-title font-bold text-onfluid"
      >
        {panel.mark}
      </span>
      <div className="min-w-0 flex-1">
        <h2 className="text-head leading-tight font-bold first-letter:uppercase">
          <span className="sr-only">{sentence(panelWord(panel))}, </span>
          {panel.name}
        </h2>
        <p className="text-small leading-snug text-ink2">{children}</p>
      </div>
      <button
        type="button"
        className="-mt-1.5 -mr-2 grid size-11 place-items-center rounded-edge hover:bg-paper"
        aria-label="Show the whole set"
        onClick={() => dispatch(panelSelected(undefined))}
      >
        <X size={19} aria-hidden="true" />
      </button>
    </header>
  );
}
