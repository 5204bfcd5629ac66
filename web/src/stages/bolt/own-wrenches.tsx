import { yupResolver } from '@hookform/resolvers/yup';
import { uncoveredTorques } from '@plate-fold/core/bolt';
import { parseTorque, torqueFigure } from '@plate-fold/core/units';
import { useForm } from 'react-hook-form';
import * as yup from 'yup';
import { usePutOnShelfMutation, useShelfQuery } from '../../state/api';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { typedName, typedTorque } from '../../ui/typed';

/** A torque wrench that goes further is for trucks' wheels, N·m. */
const MOST_WRENCH = 1000;

/** The owner's torque wrenches, and which torques none of them reaches. */
export function OwnWrenches() {
  const { joints } = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { data: shelf = [] } = useShelfQuery();
  const [put] = usePutOnShelfMutation();
  const wrenches = shelf.flatMap(e =>
    e.kind === 'wrench' && e.low != null && e.high != null
      ? [{ name: e.name, low: e.low, high: e.high }]
      : [],
  );
  const open = uncoveredTorques(joints, wrenches);
  const nm = (text: string): number => {
    const t = parseTorque(text, units);
    return t.ok ? t.value : Number.NaN;
  };
  const form = useForm({
    defaultValues: { name: '', low: '', high: '' },
    resolver: yupResolver(
      yup.object({
        name: typedName(40),
        low: typedTorque(units),
        high: typedTorque(units, v =>
          v > MOST_WRENCH ? `over ${MOST_WRENCH} N·m is too much for these bolts. Check the unit` : undefined,
        ).test('above', 'the range must end above where it begins', (high, { parent }) => {
          const low = nm((parent as { low: string }).low);
          return Number.isNaN(low) || nm(high) > low;
        }),
      }),
    ),
  });
  const { errors } = form.formState;
  const fault = errors.low
    ? `From: ${errors.low.message}`
    : errors.high?.message && `To: ${errors.high.message}`;
  const add = form.handleSubmit(({ name, low, high }) => {
    const called = name || `wrench ${wrenches.length + 1}`;
    void put({ kind: 'wrench', name: called, count: 1, low: nm(low), high: nm(high) });
    form.reset();
  });
  const field = (key: 'name' | 'low' | 'high', label: string, placeholder: string) => (
    <input
      aria-label={label}
      aria-invalid={errors[key] !== undefined}
      placeholder={placeholder}
      maxLength={40}
      {...form.register(key)}
      className="min-h-11 w-full min-w-0 rounded-edge border border-scribe bg-paper px-2 placeholder:text-ink2"
    />
  );
  const unit = torqueFigure(10, units).unit;
  return (
    <section className="mt-5" aria-label="Your torque wrenches">
      <h3 className="font-bold">Your torque wrenches</h3>
      {wrenches.length > 0 && (
        <>
          <p
            role="status"
            className={open.length > 0 ? 'mt-1 border-l-[6px] border-marker bg-markersoft px-3 py-2' : 'mt-1'}
          >
            {open.length > 0
              ? `None of them covers ${[...new Set(open.map(j => `${torqueFigure(j.torqueNm, units).value} ${unit}`))].join(', ')} (${open.map(j => j.id).join(' ')}). The top 5 % of a wrench’s range is not used.`
              : 'They cover every torque of this build.'}
          </p>
          <ul>
            {wrenches.map(w => (
              <li
                key={w.name}
                className="flex min-h-12 items-center justify-between gap-3 border-b border-scribe/70"
              >
                <span>
                  {w.name},{' '}
                  <span className="fig">
                    {torqueFigure(w.low, units).value} to {torqueFigure(w.high, units).value}
                  </span>{' '}
                  {unit}
                </span>
                <Button
                  aria-label={`Remove ${w.name}`}
                  onClick={() => void put({ kind: 'wrench', name: w.name, count: 0 })}
                >
                  Take off
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
      <form className="mt-2 grid grid-cols-[1fr_5.5rem_5.5rem_auto] gap-2" onSubmit={e => void add(e)}>
        {field('name', 'Name of the wrench', 'the long one')}
        {field('low', `From, ${unit}`, `from, ${unit}`)}
        {field('high', `To, ${unit}`, `to, ${unit}`)}
        <Button type="submit" disabled={form.watch('low').trim() === '' || form.watch('high').trim() === ''}>
          Add
        </Button>
      </form>
      {fault && (
        <p role="alert" className="mt-1 text-small text-oxide">
          {fault}
        </p>
      )}
    </section>
  );
}
