import type { Facts } from '@plate-fold/core/derive';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { DENT_LIMIT, dentingForce, type StrikeAnswer } from '@plate-fold/core/strike';
import { figureText, lengthFigure, loadFigure, type UnitSystem } from '@plate-fold/core/units';
import { useMemo } from 'react';
import { knownStrikes, SET_DOWN } from '../state/strikes/use-strikes';
import { Row } from '../ui/figure';

/** The force that leaves a dent at the struck place; before a plate is struck it says where that is found out. */
export function DentsFrom({ answer, units }: { answer: StrikeAnswer | undefined; units: UnitSystem }) {
  const limit = lengthFigure(DENT_LIMIT, units, units === 'metric');
  const found = answer && dentingForce(answer);
  const of = found ? loadFigure(found.force, units) : { value: '\u2013', unit: '' };
  return (
    <Row
      name="Dents from"
      how="dents-from"
      of={found?.atLeast ? { ...of, value: `\u2265 ${of.value}` } : of}
      meaning={
        !answer
          ? 'run Strike to find out'
          : !found
            ? 'no dent found'
            : found.atLeast
              ? `that leaves less than ${figureText(limit)}`
              : `leaves ${figureText(limit)} at that place`
      }
    />
  );
}

/** What is known already of a plate struck at its worst place. */
export function useKnownStrike(
  { build, document, rig, panels, joints, seats }: Facts,
  folded: FoldedPanel,
): StrikeAnswer | undefined {
  return useMemo(
    () =>
      knownStrikes({ build: build.id, document, rig, panels, joints, seats }, SET_DOWN).find(
        s => s.panel === folded.panel.id,
      ),
    [build, document, rig, panels, joints, seats, folded],
  );
}
