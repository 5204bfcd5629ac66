import { weighAxles } from '@plate-fold/core/plan';
import { WheelScales } from '../../shared/wheel-scales';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';

/** Reads four wheel scales and takes the axle loads from them. */
export function ScalesCard() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const { front, rear } = facts.document.rig.axles;
  return (
    <section aria-label="Wheel scales" className="mt-4">
      <h3 className="font-bold">Wheel scales</h3>
      <WheelScales
        frontKg={front.massKg}
        rearKg={rear.massKg}
        units={units}
        take="Use these axle loads"
        untaken="The axle loads stay as they were."
        onTake={kg =>
          void run(weighAxles, {
            frontKg: kg['front-left'] + kg['front-right'],
            rearKg: kg['rear-left'] + kg['rear-right'],
          })
        }
      />
    </section>
  );
}
