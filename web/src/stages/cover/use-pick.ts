import { boltAt } from '@plate-fold/core/bolt';
import type { Vec2 } from '@plate-fold/core/geometry';
import { addCrossbar, type BarEnd, barEnd } from '@plate-fold/core/plan';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppDispatch } from '../../state/store';
import { noticeGiven } from '../../state/view-slice';

/** What a tap on the map is for. */
export type Pick = 'bar' | 'hole';

/** Taps on the map that lay a crossbar (its two ends, one after the other) or bolt the chosen plate at a new hole. */
export function usePick(panel: string | undefined, onBar: (id: string) => void, onDone: () => void) {
  const facts = useFacts();
  const run = useRun();
  const dispatch = useAppDispatch();
  const [first, setFirst] = useState<BarEnd>();
  const pick = (what: Pick, at: Vec2, reach: number): void => {
    if (what === 'hole') {
      if (panel !== undefined && run(boltAt, { panel, at, reach })) onDone();
      return;
    }
    const end = barEnd(facts.document, facts.rig, at, reach);
    if (!end.ok) {
      dispatch(noticeGiven(end.fault));
      return;
    }
    if (!first) {
      setFirst(end.value);
      return;
    }
    const after = run(addCrossbar, { ends: [first, end.value] });
    setFirst(undefined);
    if (after) {
      onBar(after.plan.crossbars.at(-1)?.id ?? '');
      onDone();
    }
  };
  return {
    pick,
    first: first && ([first.hole.at[0], first.hole.at[1]] as Vec2),
    reset: () => setFirst(undefined),
  };
}
