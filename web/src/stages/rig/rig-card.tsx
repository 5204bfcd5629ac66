import { yupResolver } from '@hookform/resolvers/yup';
import { type OptionEffect, optionEffect } from '@plate-fold/core/compare';
import { chooseOption, renameRig, setDriverSide, setMisfits, setWheelRates } from '@plate-fold/core/plan';
import { type Misfit, presentRig, type When } from '@plate-fold/core/rig';
import { formatMass, N_PER_MM_PER_LB_PER_IN, nameIn, springFigure } from '@plate-fold/core/units';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import * as yup from 'yup';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { BODY_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';
import { typedName } from '../../ui/typed';
import { useDraftField } from '../../ui/use-draft-field';
import { ScalesCard } from './scales-card';

const list = (names: readonly string[]): string =>
  names.length > 6 ? `${names.slice(0, 6).join(', ')} and ${names.length - 6} more` : names.join(', ');

/** Combinations that do not fit at all: those marked, and the chosen one to mark with its reason. */
function Misfits() {
  const { rig } = useFacts().document;
  const run = useRun();
  const form = useForm({
    defaultValues: { reason: '' },
    resolver: yupResolver(yup.object({ reason: typedName(200).required('is empty') })),
  });
  const misfits = rig.misfits ?? [];
  const named = (when: When): string =>
    Object.entries(when)
      .map(([o, choices]) => {
        const option = rig.options.find(x => x.id === o);
        return `${option?.name ?? o} ${choices.map(c => option?.choices.find(x => x.id === c)?.name ?? c).join(' or ')}`;
      })
      .join(', ');
  const set = (next: readonly Misfit[]) => run(setMisfits, { misfits: next });
  return (
    <details className="mt-3">
      <summary className="min-h-11 py-2.5 font-semibold">
        Options that do not go together ({misfits.length})
      </summary>
      <ul className="grid gap-1.5">
        {misfits.map(m => (
          <li
            key={`${named(m.when)} ${m.reason}`}
            className="flex items-start justify-between gap-2 border border-scribe bg-paper p-2 text-small"
          >
            <span>
              <b>{named(m.when)}.</b> {m.reason}
            </span>
            <button
              type="button"
              className="min-h-11 underline"
              onClick={() => set(misfits.filter(x => x !== m))}
            >
              Works together
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-2"
        onSubmit={e =>
          void form.handleSubmit(({ reason }) => {
            const when = Object.fromEntries(
              rig.options.flatMap(o => {
                const choice = rig.selected[o.id];
                return choice ? [[o.id, [choice]] as const] : [];
              }),
            );
            if (set([...misfits, { when, reason }])) form.reset();
          })(e)
        }
      >
        <label htmlFor="misfit" className="block text-note text-ink2">
          The options chosen above do not go together because
        </label>
        <div className="mt-1 flex gap-1.5">
          <input
            id="misfit"
            maxLength={200}
            {...form.register('reason')}
            className="min-h-11 w-full min-w-0 rounded-edge border border-scribe bg-paper px-2"
          />
          <Button type="submit" disabled={form.watch('reason').trim() === ''}>
            Mark
          </Button>
        </div>
      </form>
    </details>
  );
}

/** The rig as a whole: its options with what each changes, the driver's side, its axles. */
export function RigCard() {
  const facts = useFacts();
  const run = useRun();
  const units = useAppSelector(s => s.view.units);
  /** N/mm in one unit of a wheel rate as it is shown */
  const perUnit = units === 'inch' ? N_PER_MM_PER_LB_PER_IN : 1;
  const { rig } = facts.document;
  const [effect, setEffect] = useState<OptionEffect & { readonly choice: string }>();
  const name = useDraftField({
    value: rig.name,
    onEnter: text => void (text.trim() && run(renameRig, { name: text.trim() })),
  });
  const here = presentRig(rig);
  const choose = (option: string, choice: string): void => {
    const o = rig.options.find(x => x.id === option);
    const named = nameIn(
      `${o?.name ?? option}: ${o?.choices.find(c => c.id === choice)?.name ?? choice}`,
      units,
    );
    setEffect({ ...optionEffect(facts.document, option, choice, units), choice: named });
    run(chooseOption, { option, choice });
  };
  return (
    <div className="p-4">
      <h2 className="text-head font-bold">The vehicle</h2>
      <p className="mb-3 text-small text-ink2">
        {BODY_NAMES[rig.body]}: {here.components.length} parts, {rig.members.length} frame members,{' '}
        {here.mounts.length} holes, {here.factoryParts.length} factory parts to remove.
      </p>
      <div className="grid grid-cols-2 gap-2">
        <label className="block">
          <span className="block text-note text-ink2">Name</span>
          <input
            {...name.field}
            className="min-h-11 w-full rounded-edge border border-scribe bg-paper px-2"
          />
        </label>
        <div>
          <span className="block text-note text-ink2">Driver’s side</span>
          <Select
            label="Driver's side"
            value={rig.driverSide}
            choices={[
              { value: 'left', name: 'left' },
              { value: 'right', name: 'right' },
            ]}
            onChoose={driverSide => run(setDriverSide, { side: driverSide })}
            className="w-full"
          />
        </div>
        {rig.options.map(o => (
          <div key={o.id}>
            <span className="block text-note text-ink2">{o.name}</span>
            <Select
              label={o.name}
              value={rig.selected[o.id] ?? ''}
              choices={o.choices.map(c => ({ value: c.id, name: nameIn(c.name, units) }))}
              onChoose={c => choose(o.id, c)}
              className="w-full"
            />
          </div>
        ))}
      </div>
      {effect && (
        <section
          role="status"
          aria-label="What this option changed"
          className="mt-3 border border-scribe bg-paper p-3 text-body leading-snug"
        >
          <p className="font-semibold">{effect.choice}</p>
          {effect.added.length > 0 && <p>Added: {list(effect.added)}.</p>}
          {effect.removed.length > 0 && <p>Removed: {list(effect.removed)}.</p>}
          {effect.added.length + effect.removed.length === 0 && <p>Nothing under the vehicle changes.</p>}
          {effect.misfits.map(t => (
            <p key={t} className="mt-1 font-semibold text-oxide">
              No longer fits: {t}
            </p>
          ))}
        </section>
      )}
      {rig.options.length > 1 && <Misfits />}
      <section aria-label="Axles" className="mt-4">
        <h3 className="font-bold">Axles</h3>
        <p className="text-small text-ink2">
          Loads {formatMass(rig.axles.front.massKg, units)} front, {formatMass(rig.axles.rear.massKg, units)}{' '}
          rear. Wheel rates are estimates until measured.
        </p>
        <div className="mt-1 grid grid-cols-2 gap-2">
          {(['front', 'rear'] as const).map(a => (
            <MeasureInput
              key={a}
              label={`Wheel rate, ${a}`}
              value={Number(springFigure(rig.axles[a].wheelRate, units).value)}
              units={units}
              plain={springFigure(1, units).unit}
              least={2 / perUnit}
              most={300 / perUnit}
              onEnter={v => run(setWheelRates, { [a]: v * perUnit })}
            />
          ))}
        </div>
      </section>
      <ScalesCard />
    </div>
  );
}
