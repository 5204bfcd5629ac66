import { RULES } from '@plate-fold/core/checks';
import { AHEAD_DEGREES } from '@plate-fold/core/cover';
import { chooseOption, setLimits } from '@plate-fold/core/plan';
import { fixed } from '@plate-fold/core/units';
import { FindingCard } from '../../shared/finding-card';
import { useRun } from '../../state/commands/run';
import { selectFindings, useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { How } from '../../ui/how';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { BarList } from './bar-list';

const percent = (f: number): string => fixed(f * 100, 0);

/** The whole set: the vehicle's options, what each part has under it, and everything found. */
export function SetCard({ onBar }: { onBar: (id: string) => void }) {
  const facts = useFacts();
  const run = useRun();
  const findings = useAppSelector(selectFindings);
  const units = useAppSelector(s => s.view.units);
  const { rig } = facts.document;
  return (
    <div className="p-4">
      <h2 className="text-head font-bold">The whole set</h2>
      <p className="mb-3 text-small text-ink2">Select a plate on the map or the side view to work on it.</p>

      {rig.options.length > 0 && (
        <section aria-label="On this vehicle" className="mb-4 grid grid-cols-2 gap-2">
          {rig.options.map(o => (
            <div key={o.id}>
              <span className="text-small text-ink2">{o.name}</span>
              <Select
                label={o.name}
                value={rig.selected[o.id] ?? ''}
                choices={o.choices.map(c => ({ value: c.id, name: c.name }))}
                onChoose={choice => run(chooseOption, { option: o.id, choice })}
                className="w-full"
              />
            </div>
          ))}
        </section>
      )}

      <table className="w-full">
        <caption className="sr-only">Coverage of each part</caption>
        <thead>
          <tr className="border-b border-ink2 text-left text-note text-ink2">
            <th scope="col" className="py-1 font-normal">
              Part
            </th>
            <th scope="col" className="w-[38%] py-1 font-normal">
              <How of="covered">From below</How>
            </th>
            <th scope="col" className="w-[4.6rem] py-1 text-right font-normal">
              <How of="from-ahead">From ahead</How>
            </th>
          </tr>
        </thead>
        <tbody>
          {facts.coverage.components.map(c => (
            <tr key={c.id} className="border-b border-scribe/60">
              <th scope="row" className="py-1.5 pr-2 text-left font-normal first-letter:uppercase">
                {facts.rig.components.find(x => x.id === c.id)?.name ?? c.id}
              </th>
              <td className="py-1.5">
                <span className="flex items-center gap-2">
                  <span aria-hidden="true" className="h-2.5 flex-1 bg-oxidesoft outline outline-oxide/40">
                    <span
                      className="block h-full bg-ink2"
                      style={{ width: `${(c.fraction * 100).toFixed(1)}%` }}
                    />
                  </span>
                  <span className="fig w-11 text-right">
                    {percent(c.fraction)}
                    <span className="ml-0.5 font-sans text-fine text-ink2">%</span>
                  </span>
                </span>
              </td>
              <td className="fig py-1.5 text-right">
                {percent(c.fromAheadFraction)}
                <span className="ml-0.5 font-sans text-fine text-ink2">%</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>

      <MeasureInput
        className="mt-3"
        label="From ahead: a rock comes in at a climb of"
        value={facts.document.plan.limits.aheadDegrees ?? AHEAD_DEGREES}
        units="metric"
        plain="°"
        least={3}
        most={60}
        onEnter={v => run(setLimits, { part: { aheadDegrees: v } })}
      />

      <div className="mt-4">
        <BarList facts={facts} units={units} onChoose={onBar} />
      </div>

      <section className="mt-4" aria-label="All findings">
        <h3 className="mb-1.5 font-bold">
          {findings.length === 0 ? 'No findings' : `Findings (${findings.length})`}
        </h3>
        <ul className="grid gap-2">
          {findings.map(f => (
            <FindingCard
              key={`${f.rule} ${f.about.join()} ${f.text}`}
              finding={f}
              why={RULES.find(r => r.id === f.rule)?.why}
            />
          ))}
        </ul>
      </section>
    </div>
  );
}
