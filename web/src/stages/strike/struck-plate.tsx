import { fixed, type JointState, lengthFigure, loadFigure, stressFigure, type Vec2 } from '@plate-fold/core';
import { useFacts } from '../../app/derived';
import { useApp } from '../../app/store';
import { Button } from '../../ui/button';
import { Row } from '../../ui/figure';
import { MeasureInput } from '../../ui/measure-input';
import { sheetName } from '../../ui/names';
import type { Struck } from './use-strikes';

const STATES: Readonly<Record<JointState, string>> = {
  held: 'held by friction',
  slipped: 'slipped in its hole',
  bearing: 'bears on its shank',
};
/** Below this a plate is heard, Hz: common practice, no source. */
const HEARD = 40;

/** What a rock does to one plate, and where it stands. */
export function StruckPlate({
  struck,
  moved,
  onPlace,
}: {
  struck: Struck;
  moved: boolean;
  onPlace: (at: Vec2 | undefined) => void;
}) {
  const facts = useFacts();
  const units = useApp(s => s.view.units);
  const { folded, answer } = struck;
  const { panel } = folded;
  const head = (
    <h3 className="flex justify-between gap-2 font-bold">
      <span>
        {panel.mark} {panel.name}
      </span>
      <span className="text-[13px] font-normal text-ink2">{sheetName(folded.sheet)}</span>
    </h3>
  );
  const back = (
    <Button className="mt-2 w-full" onClick={() => onPlace(undefined)}>
      Back to the worst place
    </Button>
  );
  if (!answer)
    return (
      <li className="border-t border-scribe pt-2">
        {head}
        <p className="text-ink2">being struck …</p>
      </li>
    );
  if (!answer.ok)
    return (
      <li className="border-t border-scribe pt-2">
        {head}
        <p role="alert" className="border-l-[6px] border-oxide bg-oxidesoft px-3 py-2">
          No answer: {answer.fault}.
        </p>
        {moved && back}
      </li>
    );
  const v = answer.value;
  const part = facts.rig.components.find(c => c.id === v.gapTo);
  const touches = v.gapMm !== undefined && v.gapMm < 0;
  const size = (mm: number) => lengthFigure(mm, units, units === 'metric');
  const yields = stressFigure(v.yieldMPa, units);
  const worst = [...v.reactionsN].sort((a, b) => b.shearN + b.tensionN - a.shearN - a.tensionN)[0];
  return (
    <li className="border-t border-scribe pt-2">
      {head}
      {v.reached < 1 && (
        <p role="alert" className="mt-1 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-[14px]">
          No balance was found beyond {fixed(v.reached * 100, 0)} % of the force: the figures are for that.
        </p>
      )}
      <dl>
        <Row name="Gives" of={size(v.deflectionMm)} meaning={v.theory} />
        {v.gapMm !== undefined && (
          <Row
            name="Gap left"
            of={size(v.gapMm)}
            meaning={
              touches ? (
                <b className="text-oxide">it reaches the {part?.name ?? v.gapTo}</b>
              ) : (
                `to the ${part?.name ?? v.gapTo}`
              )
            }
          />
        )}
        <Row
          name="Stress"
          of={{ value: fixed((v.vonMisesMPa / v.yieldMPa) * 100, 0), unit: '%' }}
          meaning={`of yield, ${yields.value} ${yields.unit}, away from bolts`}
        />
        <Row
          name="Dent left"
          of={v.dentMm === undefined ? { value: '–', unit: '' } : size(v.dentMm)}
          meaning={v.dentMm === undefined ? 'it yields; what stays was not found' : 'after the rock is gone'}
        />
        <Row
          name="Rings at"
          of={{ value: fixed(v.ringHz, 0), unit: 'Hz' }}
          meaning={v.ringHz < HEARD ? <b>may be heard on the road</b> : 'its lowest note'}
        />
        {worst && (
          <Row
            name="Joint"
            of={loadFigure(Math.hypot(worst.tensionN, worst.shearN), units)}
            meaning={`on ${worst.joint}, the most: ${STATES[worst.state]}`}
          />
        )}
      </dl>
      <details className="mt-1">
        <summary className="min-h-11 py-2.5 text-[14px]">
          {moved ? 'The rock stands where you put it' : 'The rock stands at the worst place'}
        </summary>
        <div className="grid grid-cols-2 gap-2">
          <MeasureInput
            label="Behind the front axle"
            value={v.at[0]}
            units={units}
            onEnter={x => onPlace([x, v.at[1]])}
          />
          <MeasureInput
            label="Right of the middle"
            value={v.at[1]}
            units={units}
            onEnter={y => onPlace([v.at[0], y])}
          />
        </div>
        {moved && back}
      </details>
    </li>
  );
}
