import type { FoldedPanel } from '@plate-fold/core/fold';
import { scanGap, scanGapStruck } from '@plate-fold/core/scan';
import { lengthFigure, tapeLength } from '@plate-fold/core/units';
import { useMemo } from 'react';
import { useFacts } from '../state/derived';
import { useAppSelector } from '../state/store';
import { Row } from '../ui/figure';
import { useScanHeights } from './use-scan';

/** The least gap from a plate to what the scan shows over it, at rest or as a strike has moved it; nothing where there is no scan. */
export function ScanRow(props: {
  readonly folded: FoldedPanel;
  readonly struck?: { readonly coordinates: Float32Array; readonly moves: Float32Array };
}) {
  const { folded, struck } = props;
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { heights, fault } = useScanHeights(facts.document.plan.id, facts.document.rig.scan);
  const { members } = facts.rig;
  const gap = useMemo(
    () =>
      heights &&
      (struck
        ? scanGapStruck(heights, struck, folded.sheet.thickness, members)
        : scanGap(heights, folded, members)),
    [heights, struck, folded, members],
  );
  if (!facts.document.rig.scan) return null;
  const place = (at: readonly [number, number]): string =>
    `${tapeLength(at[0], units)} behind the axle, ${tapeLength(Math.abs(at[1]), units)} ${at[1] < 0 ? 'left' : 'right'}`;
  return (
    <Row
      name="To the scan"
      of={gap ? lengthFigure(gap.gapMm, units, units === 'metric') : { value: '–', unit: '' }}
      meaning={
        gap ? (
          gap.gapMm < 0 ? (
            <b className="text-oxide">runs into it at {place(gap.at)}</b>
          ) : (
            `least, at ${place(gap.at)}`
          )
        ) : (
          (fault ?? (heights ? 'the scan shows nothing above it' : 'reading the scan'))
        )
      }
    />
  );
}
