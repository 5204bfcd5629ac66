import { type MeasureId, type Measures, remeasured, typicalMeasures } from '@plate-fold/core/rig';
import { WheelScales } from '../../shared/wheel-scales';
import { useFacts } from '../../state/derived';
import { useApp } from '../../state/store';
import { useEdit } from '../../state/use-edit';

/** Reads four wheel scales and takes the axle loads from them. */
export function ScalesCard() {
  const facts = useFacts();
  const units = useApp(s => s.view.units);
  const edit = useEdit();
  const { front, rear } = facts.document.rig.axles;
  return (
    <section aria-label="Wheel scales" className="mt-4">
      <h3 className="font-bold">Wheel scales</h3>
      <WheelScales
        frontKg={front.massKg}
        rearKg={rear.massKg}
        units={units}
        take="Take these axle loads"
        untaken="The axle loads stay as they were."
        onTake={kg =>
          void edit('axle loads weighed', doc => {
            const before = (doc.rig.measures ?? typicalMeasures(doc.rig.body)) as Measures;
            const loads: Partial<Record<MeasureId, number>> = {
              frontAxleKg: kg['front-left'] + kg['front-right'],
              rearAxleKg: kg['rear-left'] + kg['rear-right'],
            };
            return { ...doc, rig: remeasured(doc.rig, { ...before, ...loads }) };
          })
        }
      />
    </section>
  );
}
