import { uncoveredTorques } from '@plate-fold/core/bolt';
import { parseTorque, torqueFigure } from '@plate-fold/core/units';
import { useState } from 'react';
import { usePutOnShelfMutation, useShelfQuery } from '../../state/api';
import { useFacts } from '../../state/derived';
import { useApp } from '../../state/store';
import { Button } from '../../ui/button';

/** The owner's torque wrenches, and which torques none of them reaches. */
export function OwnWrenches() {
  const { joints } = useFacts();
  const units = useApp(s => s.view.units);
  const { data: shelf = [] } = useShelfQuery();
  const [put] = usePutOnShelfMutation();
  const [typed, setTyped] = useState({ name: '', low: '', high: '' });
  const [fault, setFault] = useState<string>();
  const wrenches = shelf.flatMap(e =>
    e.kind === 'wrench' && e.low != null && e.high != null
      ? [{ name: e.name, low: e.low, high: e.high }]
      : [],
  );
  const open = uncoveredTorques(joints, wrenches);
  const add = (): void => {
    const [low, high] = [parseTorque(typed.low, units), parseTorque(typed.high, units)];
    const wrong = !low.ok
      ? `From: ${low.fault}`
      : !high.ok
        ? `To: ${high.fault}`
        : high.value <= low.value
          ? 'the range must end above where it begins'
          : high.value > 1000
            ? 'over 1000 N·m is no wrench for these bolts: check the unit'
            : undefined;
    setFault(wrong);
    if (!low.ok || !high.ok || wrong) return;
    const name = typed.name.trim() || `wrench ${wrenches.length + 1}`;
    void put({ kind: 'wrench', name, count: 1, low: low.value, high: high.value });
    setTyped({ name: '', low: '', high: '' });
  };
  const field = (key: keyof typeof typed, label: string, placeholder: string) => (
    <input
      aria-label={label}
      placeholder={placeholder}
      value={typed[key]}
      maxLength={40}
      onChange={e => setTyped({ ...typed, [key]: e.target.value })}
      className="min-h-11 w-full min-w-0 rounded-[4px] border border-scribe bg-paper px-2 placeholder:text-ink2"
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
              ? `None of them reaches ${[...new Set(open.map(j => `${torqueFigure(j.torqueNm, units).value} ${unit}`))].join(', ')} (${open.map(j => j.id).join(' ')}). The top twentieth of a range is not trusted.`
              : 'They reach every torque of this build.'}
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
                  aria-label={`Take off: ${w.name}`}
                  onClick={() => void put({ kind: 'wrench', name: w.name, count: 0 })}
                >
                  Take off
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
      <form
        className="mt-2 grid grid-cols-[1fr_5.5rem_5.5rem_auto] gap-2"
        onSubmit={e => {
          e.preventDefault();
          add();
        }}
      >
        {field('name', 'Name of the wrench', 'the long one')}
        {field('low', `From, ${unit}`, `from, ${unit}`)}
        {field('high', `To, ${unit}`, `to, ${unit}`)}
        <Button type="submit" disabled={typed.low.trim() === '' || typed.high.trim() === ''}>
          Add
        </Button>
      </form>
      {fault && (
        <p role="alert" className="mt-1 text-[13px] text-oxide">
          {fault}
        </p>
      )}
    </section>
  );
}
