import { calibratedK } from '@plate-fold/core/fold';
import { type Shop, setShop } from '@plate-fold/core/plan';
import { MATERIALS, type MaterialId } from '@plate-fold/core/sheet';
import { fixed } from '@plate-fold/core/units';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';

/** K from a strip that was measured flat, bent, and measured again. */
export function TestBendForm(props: {
  readonly thickness: number;
  readonly material: MaterialId;
  readonly shop: Shop;
}) {
  const { thickness, material, shop } = props;
  const run = useRun();
  const units = useAppSelector(s => s.view.units);
  const [m, setM] = useState({ flat: 130, a: 80, b: 60, angle: 90, radius: Math.max(3, thickness) });
  const k = calibratedK({
    flat: m.flat,
    legs: [m.a, m.b],
    angle: m.angle,
    insideRadius: m.radius,
    thickness,
  });
  const tested = shop.kFactors ?? [];
  // a new test of the same sheet at the same ratio takes the place of the old one
  const others = tested.filter(
    t => t.material !== material || Math.abs(t.ratio - m.radius / thickness) > 0.01,
  );
  const set = (part: Partial<typeof m>) => () => setM(x => ({ ...x, ...part }));
  return (
    <details className="mt-4">
      <summary className="min-h-11 py-2.5 font-bold">K from a test bend</summary>
      <p className="text-small text-ink2">
        A strip of this sheet: its flat length, then both legs measured outside, to where they would meet.
      </p>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <MeasureInput
          label="Flat length"
          value={m.flat}
          units={units}
          least={1}
          onEnter={v => set({ flat: v })()}
        />
        <MeasureInput
          label="Angle"
          value={m.angle}
          units={units}
          plain="°"
          least={1}
          most={150}
          onEnter={v => set({ angle: v })()}
        />
        <MeasureInput label="First leg" value={m.a} units={units} least={1} onEnter={v => set({ a: v })()} />
        <MeasureInput label="Second leg" value={m.b} units={units} least={1} onEnter={v => set({ b: v })()} />
        <MeasureInput
          label="Inside radius of the test"
          value={m.radius}
          units={units}
          least={0.2}
          onEnter={v => set({ radius: v })()}
        />
      </div>
      <p role="status" className="mt-2 text-sub">
        {k === undefined ? (
          'These figures give no K between 0 and 0.6: measure again.'
        ) : (
          <>
            K = <span className="fig font-semibold">{fixed(k, 3)}</span>
          </>
        )}
      </p>
      {k !== undefined && (
        <Button
          className="mt-2 w-full"
          onClick={() =>
            run(setShop, {
              shop: { ...shop, kFactors: [...others, { material, ratio: m.radius / thickness, k }] },
            })
          }
        >
          Use it for {MATERIALS[material].short} near R/t {fixed(m.radius / thickness, 1)}
        </Button>
      )}
      {tested.length > 0 && (
        <ul className="mt-2">
          {tested.map(t => (
            <li
              key={`${t.material} ${t.ratio}`}
              className="flex min-h-11 items-center justify-between border-b border-scribe/70"
            >
              <span>
                {MATERIALS[t.material].short}, R/t {fixed(t.ratio, 1)}: K{' '}
                <span className="fig">{fixed(t.k, 3)}</span>
              </span>
              <button
                type="button"
                className="min-h-11 underline"
                onClick={() => run(setShop, { shop: { ...shop, kFactors: tested.filter(x => x !== t) } })}
              >
                drop
              </button>
            </li>
          ))}
        </ul>
      )}
    </details>
  );
}
