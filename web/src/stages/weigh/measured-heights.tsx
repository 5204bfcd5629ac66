import type { Facts } from '@plate-fold/core/derive';
import { measureFender, setWheelRates } from '@plate-fold/core/plan';
import { figureText, springFigure, type UnitSystem } from '@plate-fold/core/units';
import { wheelRates } from '@plate-fold/core/weigh';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';

type Axle = 'front' | 'rear';
const AXLES = ['front', 'rear'] as const;

/** Fender heights measured before and after give the wheel rates back, for the next plan on this rig. */
export function MeasuredHeights({ facts, units }: { facts: Facts; units: UnitSystem }) {
  const { document, weight } = facts;
  const { axles } = document.rig;
  const run = useRun();
  // nothing is measured until it is entered: a field at 0 says nothing
  const { fenders = {} } = document.plan;
  const both = (axle: Axle) => {
    const { before, after } = fenders[axle] ?? {};
    return before === undefined || after === undefined ? {} : { [axle]: { before, after } };
  };
  const rates = wheelRates(weight.axles, { ...both('front'), ...both('rear') });
  const set = (axle: Axle, which: 'before' | 'after', mm: number): void => {
    run(measureFender, { axle, which, mm });
  };
  const take = () => run(setWheelRates, rates);
  const spring = (rate: number): string => figureText(springFigure(rate, units));
  const known = AXLES.filter(a => rates[a] !== undefined);
  return (
    <details className="mt-5">
      <summary className="min-h-11 py-2.5 font-bold">Measured before and after</summary>
      <p className="text-small text-ink2">
        From the middle of the wheel to the fender lip, on level ground, after a short drive. The drop gives
        the spring rates. Saved with the plan; 0 is not measured.
      </p>
      {AXLES.map(axle => (
        <fieldset key={axle} className="mt-2">
          <legend className="text-small font-semibold first-letter:uppercase">{axle} axle</legend>
          <div className="grid grid-cols-2 gap-2">
            {(['before', 'after'] as const).map(which => (
              <MeasureInput
                key={which}
                label={`${which === 'before' ? 'Before' : 'After'}, ${axle}`}
                value={fenders[axle]?.[which] ?? 0}
                units={units}
                least={0}
                most={1500}
                onEnter={mm => set(axle, which, mm)}
              />
            ))}
          </div>
        </fieldset>
      ))}
      {known.length > 0 ? (
        <>
          <p className="mt-2" role="status">
            {known
              .map(a => `${a}: ${spring(rates[a] ?? 0)} a wheel (now ${spring(axles[a].wheelRate)})`)
              .join('; ')}
          </p>
          <Button className="mt-2 w-full" onClick={take}>
            Use {known.length > 1 ? 'these rates' : 'this rate'} for this vehicle
          </Button>
        </>
      ) : (
        <p className="mt-2 text-small text-ink2">
          No rate yet: the fender must drop enough to measure where the axle gained weight.
        </p>
      )}
    </details>
  );
}
