import type { Facts } from '@plate-fold/core/derive';
import type { Method } from '@plate-fold/core/plan';
import { evenings, installation, installationOf, totalMinutes } from '@plate-fold/core/sequence';
import { Moon } from 'lucide-react';
import { useMemo, useState } from 'react';
import { MeasureInput } from '../../ui/measure-input';

/** Minutes as hours and minutes, to five. */
export const hours = (minutes: number): string => {
  const whole = Math.max(5, Math.round(minutes / 5) * 5);
  const [h, m] = [Math.floor(whole / 60), whole % 60];
  return h === 0 ? `${m} min` : m === 0 ? `${h} h` : `${h} h ${m} min`;
};

const LIFTS: readonly (readonly [Method['lift'], string])[] = [
  ['ground', 'on stands'],
  ['ramps', 'on ramps'],
  ['two-post', 'on a lift'],
];

/** What fits in an evening, and what a lift or a friend would save. */
export function TimePlan({ facts, onStep }: { facts: Facts; onStep: (id: string) => void }) {
  const [evening, setEvening] = useState(180);
  const { steps } = installationOf(facts);
  const plan = useMemo(() => evenings(steps, evening), [steps, evening]);
  // how it is done changes neither plates nor bolts: only the order is worked out anew
  const { document, rig, panels, joints } = facts;
  const other = useMemo(
    () =>
      LIFTS.map(([lift, name]) => ({
        name,
        here: lift === document.plan.method.lift,
        minutes: ([1, 2] as const).map(people => {
          const doc = {
            ...document,
            plan: { ...document.plan, method: { ...document.plan.method, lift, people } },
          };
          return { people, minutes: totalMinutes(installation(doc, rig, panels, joints).steps) };
        }),
      })),
    [document, rig, panels, joints],
  );
  return (
    <section aria-label="Time" className="mt-4">
      <h3 className="font-bold">Time, estimate: {hours(totalMinutes(steps))}</h3>
      <MeasureInput
        label="Minutes per evening"
        plain="min"
        value={evening}
        units="metric"
        least={30}
        most={1440}
        onEnter={setEvening}
        className="mt-1 w-40"
      />
      <ol className="mt-2 grid gap-1">
        {plan.map((e, i) => (
          <li key={e.steps[0]?.id} className="border border-scribe bg-paper">
            <button
              type="button"
              className="flex min-h-12 w-full items-center gap-2 px-2 py-1 text-left leading-tight"
              onClick={() => e.steps[0] && onStep(e.steps[0].id)}
            >
              <Moon size={16} aria-hidden="true" className="shrink-0" />
              <span className="flex-1">
                <b>Evening {i + 1}</b>, {e.steps.length} steps to “{e.steps.at(-1)?.title}”
                {e.over && (
                  <b className="block text-oxide">
                    longer than an evening: nothing here can be left loose overnight
                  </b>
                )}
                {!e.drivable && !e.over && <b className="block text-oxide">not drivable after it</b>}
              </span>
              <span className="fig whitespace-nowrap">{hours(e.minutes)}</span>
            </button>
          </li>
        ))}
      </ol>
      <table className="mt-2 w-full text-small">
        <thead className="text-left text-ink2">
          <tr className="border-b border-ink2">
            <th scope="col" className="py-1 font-normal">
              Total
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              alone
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              with a friend
            </th>
          </tr>
        </thead>
        <tbody>
          {other.map(o => (
            <tr key={o.name} className={`border-b border-scribe/70 ${o.here ? 'font-bold' : ''}`}>
              <th scope="row" className={`py-1 text-left ${o.here ? '' : 'font-normal'}`}>
                {o.name}
              </th>
              {o.minutes.map(m => (
                <td key={m.people} className="fig py-1 text-right">
                  {hours(m.minutes)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
