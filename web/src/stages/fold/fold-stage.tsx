import { type FoldedPanel, flatPattern } from '@plate-fold/core/fold';
import { RadioGroup } from 'radix-ui';
import { useState } from 'react';
import { BlankDrawing } from '../../picture/blank-drawing';
import { useSize } from '../../picture/use-size';
import { Bench } from '../../shared/bench';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { panelSelected } from '../../state/view-slice';
import { BendCard } from './bend-card';
import { NestView } from './nest-view';
import { SpacePane } from './space-pane';

/** The flat blank beside the plate in space. */
function Pictures({
  folded,
  bend,
  onBend,
}: {
  folded: FoldedPanel;
  bend?: string;
  onBend: (id: string) => void;
}) {
  const units = useAppSelector(s => s.view.units);
  const [flatBox, flat] = useSize<HTMLDivElement>();
  return (
    <div className="flex min-h-0 flex-1 max-desk:flex-col">
      <div
        ref={flatBox}
        className="min-h-72 min-w-0 flex-1 overflow-hidden border-scribe bg-paper desk:border-r"
      >
        {flat.width > 0 && (
          <BlankDrawing
            pattern={flatPattern(folded)}
            units={units}
            width={flat.width}
            height={Math.max(288, flat.height)}
            bend={bend}
            onBend={onBend}
          />
        )}
      </div>
      <SpacePane folded={folded} />
    </div>
  );
}

/** Stands for the stock sheets among the plates. */
const NEST = 'stock sheets';

/** Fold: each plate as a blank a shop can cut and bend, and as it will look. */
export function FoldStage() {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const { panel } = useAppSelector(s => s.view);
  const [bend, setBend] = useState<string>();
  const [nesting, setNesting] = useState(false);
  const folded = facts.panels.find(p => p.panel.id === panel) ?? facts.panels[0];
  return (
    <Bench
      asideName="Bends"
      work={(_, height) => (
        <div className="flex flex-col max-desk:h-auto!" style={{ height }}>
          <RadioGroup.Root
            aria-label="Plate"
            value={nesting ? NEST : (folded?.panel.id ?? '')}
            onValueChange={v => {
              setNesting(v === NEST);
              if (v === NEST) return;
              dispatch(panelSelected(v));
              setBend(undefined);
            }}
            className="flex shrink-0 gap-1 overflow-x-auto border-b border-scribe bg-sheet px-2 py-1"
          >
            {facts.panels.map(p => (
              <RadioGroup.Item
                key={p.panel.id}
                value={p.panel.id}
                className={`min-h-11 shrink-0 rounded-edge border px-3 ${!nesting && p === folded ? 'border-fluid bg-paper font-bold ring-1 ring-fluid' : 'border-transparent hover:bg-paper'}`}
              >
                {p.panel.mark} {p.panel.name}
              </RadioGroup.Item>
            ))}
            <RadioGroup.Item
              value={NEST}
              disabled={facts.panels.length === 0}
              className={`ml-auto min-h-11 shrink-0 rounded-edge border px-3 ${nesting ? 'border-fluid bg-paper font-bold ring-1 ring-fluid' : 'border-scribe hover:bg-paper'}`}
            >
              On stock sheets
            </RadioGroup.Item>
          </RadioGroup.Root>
          {nesting && folded ? (
            <NestView />
          ) : folded ? (
            <Pictures key={folded.panel.id} folded={folded} bend={bend} onBend={setBend} />
          ) : (
            <p className="p-4">No plates yet. Draw or suggest plates on Cover.</p>
          )}
        </div>
      )}
      aside={folded ? <BendCard folded={folded} bend={bend} onBend={setBend} /> : null}
    />
  );
}
