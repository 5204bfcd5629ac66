import { WheelScales } from '../../shared/wheel-scales';
import { MeasureInput } from '../../ui/measure-input';
import type { FormProps } from './form-props';
import { CORNERS } from './kinds';

/** Four fenders or four wheels; wheels may be read from the scales. */
export function Corners({
  facts,
  units,
  draft,
  onChange,
}: Pick<FormProps, 'facts' | 'units' | 'draft' | 'onChange'>) {
  const mass = draft.kind === 'weights';
  const corners = draft.corners ?? [0, 0, 0, 0];
  const { weight, rig } = facts;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        {CORNERS.map((name, i) => (
          <MeasureInput
            key={`${name} ${corners[i]}`}
            label={name}
            value={corners[i] ?? 0}
            units={units}
            mass={mass}
            least={0}
            most={mass ? 5000 : 3000}
            onEnter={v => {
              const next = corners.map((c, k) => (k === i ? v : c)) as unknown as [
                number,
                number,
                number,
                number,
              ];
              onChange({ ...draft, corners: next });
            }}
          />
        ))}
      </div>
      {mass && (
        <WheelScales
          frontKg={rig.rig.axles.front.massKg + weight.axles.frontKg}
          rearKg={rig.rig.axles.rear.massKg + weight.axles.rearKg}
          units={units}
          take="Use these wheel loads"
          untaken="Type what the scales show."
          onTake={kg =>
            onChange({
              ...draft,
              corners: [kg['front-left'], kg['front-right'], kg['rear-left'], kg['rear-right']],
            })
          }
        />
      )}
    </>
  );
}
