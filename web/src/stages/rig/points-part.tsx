import { type Rig, wholeSurvey } from '@plate-fold/core/rig';
import { type Adjustment, addPoint, holdPoint, pointName, removePoint } from '@plate-fold/core/survey';
import { tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { Part } from './part';
import { PointSelect } from './reading-form';

/** Points of the survey: held, let go, taken out, and others that are no holes. */
export function PointsPart(props: {
  readonly rig: Rig;
  readonly adjustment: Adjustment;
  readonly points: readonly (readonly [string, string])[];
  readonly point: string | undefined;
  readonly onPoint: (id: string | undefined) => void;
  readonly units: UnitSystem;
}) {
  const { rig, adjustment, points, point, onPoint, units } = props;
  const run = useRun();
  const [mark, setMark] = useState('');
  const chosen = adjustment.points.find(p => p.id === point);
  const chosenPoint = wholeSurvey(rig.survey).points.find(p => p.id === point);
  return (
    <Part title="Points">
      <p className="mb-1 text-small text-ink2">
        A held point stays where it is; the others are found from it.{' '}
        {chosen ? '' : 'Tap one on the map or below.'}
      </p>
      <PointSelect
        label="Point"
        value={point ?? ''}
        points={points}
        onChoose={id => onPoint(id || undefined)}
      />
      {point !== undefined && (
        <div className="mt-2 grid gap-2">
          {chosen && (
            <p className="fig text-small">
              {tapeLength(chosen.at[0], units)} behind the axle, {tapeLength(Math.abs(chosen.at[1]), units)}{' '}
              {chosen.at[1] < 0 ? 'left' : 'right'}, {tapeLength(chosen.at[2], units)} up; within{' '}
              {chosen.sigma.map(s => tapeLength(s, units)).join(', ')}
            </p>
          )}
          <div className="flex flex-wrap gap-2">
            {chosenPoint?.at ? (
              <Button onClick={() => run(holdPoint, { point, at: null })}>Let it go</Button>
            ) : (
              <Button
                disabled={!rig.mounts.some(m => m.id === point) && !chosen}
                onClick={() =>
                  run(holdPoint, {
                    point,
                    at: rig.mounts.find(m => m.id === point)?.at ?? chosen?.at ?? null,
                  })
                }
              >
                Hold it where it is
              </Button>
            )}
            {chosenPoint && (
              <Button
                onClick={() => {
                  run(removePoint, { point });
                  onPoint(undefined);
                }}
              >
                Take {pointName(chosenPoint)} out
              </Button>
            )}
          </div>
        </div>
      )}
      <form
        className="mt-2 flex items-end gap-2"
        onSubmit={e => {
          e.preventDefault();
          if (mark.trim() !== '' && run(addPoint, { name: mark.trim() }) !== false) setMark('');
        }}
      >
        <label className="min-w-0 flex-1 text-note text-ink2">
          Another mark, not a hole
          <input
            value={mark}
            onChange={e => setMark(e.target.value)}
            className="min-h-11 w-full rounded-edge border border-scribe bg-paper px-2 text-lead text-ink"
          />
        </label>
        <Button type="submit" disabled={mark.trim() === ''}>
          <Plus size={16} aria-hidden="true" /> Mark
        </Button>
      </form>
    </Part>
  );
}
