import {
  type Facts,
  formatLength,
  formatMass,
  lengthName,
  loadFigure,
  type Move,
  type MoveState,
  type UnitSystem,
} from '@plate-fold/core';
import { Fig } from '../../ui/figure';
import { when } from '../../ui/names';
import { RunPhoto } from './run-photo';

/** What to do and why; what was off about it, and whether it is ticked already. */
export function MoveWords(props: {
  readonly move: Move;
  readonly next?: Move;
  readonly facts: Facts;
  readonly units: UnitSystem;
  readonly state?: MoveState;
  readonly onUndo: () => void;
  readonly run: string;
}) {
  const { move, next, facts, units, state, onUndo } = props;
  const { step } = move;
  const joint = facts.joints.find(j => j.id === move.joint);
  const plate =
    step.stage === 'support' || step.stage === 'hang'
      ? facts.panels.find(p => p.panel.id === step.panels[0])
      : undefined;
  const steady = step.support?.shared?.bolts.every(
    b => Math.abs(b.forceN) < 0.05 * (step.support?.aloneN ?? 0),
  );
  const factory = facts.rig.factoryParts.find(f => step.id === `remove-${f.id}`);
  const behind =
    step.stage === 'drill' ? facts.joints.find(j => j.id === step.joints[0])?.mount?.behind : undefined;
  const order = move.joint && next?.step.id === step.id ? `, then ${next.index + 1}` : '';
  return (
    <>
      <h1 className="text-[26px] leading-tight font-bold tracking-tight first-letter:uppercase">
        {move.joint ? `Bolt ${move.index + 1}${order}` : step.title}
      </h1>
      {joint && (
        <p className="mt-0.5 text-[16px]">
          {step.title}: <span className="fig">{joint.id}</span>, {joint.thread.designation} ×{' '}
          {lengthName(joint.lengthMm, joint.thread)}, {joint.head.tool || 'nut turned'}
        </p>
      )}
      <p className="mt-1 text-[16px] leading-snug text-ink2">{step.why}</p>
      {plate && (
        <p className="mt-1 text-[16px]">
          Plate {plate.panel.mark} weighs{' '}
          <span className="fig font-semibold">{formatMass(plate.massKg, units)}</span>.
        </p>
      )}
      {step.support?.shared && (
        <p className="mt-1 text-[16px] leading-snug">
          {steady ? (
            <>
              The jack carries all of it, <Fig of={loadFigure(step.support.shared.jackN, units)} />; its first
              two bolts only steady it.
            </>
          ) : (
            <>
              With its first two bolts in, the jack carries{' '}
              <Fig of={loadFigure(step.support.shared.jackN, units)} />
              {step.support.shared.bolts.map(b => (
                <span key={b.joint}>
                  , <span className="fig">{b.joint}</span> {b.forceN < 0 ? 'is pushed up by' : 'holds'}{' '}
                  <Fig of={loadFigure(Math.abs(b.forceN), units)} />
                </span>
              ))}
              .
            </>
          )}
        </p>
      )}
      {step.people === 2 && <p className="mt-1 text-[16px]">Two people, or one and a jack.</p>}
      {step.bags && (
        <ul className="mt-2 grid gap-1 text-[16px]" aria-label="Bags">
          {step.bags.map(b => (
            <li key={b.label} className="border border-scribe bg-paper px-3 py-1.5 leading-snug">
              <b>{{ reuse: 'Bag, used again', keep: 'Bag, keep', discard: 'Throw away' }[b.fate]}:</b>{' '}
              {b.label}
            </li>
          ))}
        </ul>
      )}
      {factory && (
        <p className="mt-1 text-[16px]">
          {formatMass(factory.massKg, units)}, held by{' '}
          {factory.fasteners.map(f => `${f.count} × ${f.head} ${f.thread}`.trim()).join(', ')}.
        </p>
      )}
      {behind && (
        <p className="mt-1 text-[16px]">
          <span className="fig font-semibold">{formatLength(behind.depth, units)}</span> from the hole to what
          is behind it.
        </p>
      )}
      {state && state.deviations.length > 0 && (
        <ul className="mt-3 grid gap-1">
          {state.deviations.map(d => (
            <li key={d.id} className="border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-[15px]">
              {when(d.at)}
              {d.who ? `, ${d.who}` : ''}: {d.note}
              {d.photo && <RunPhoto run={props.run} id={d.photo} />}
            </li>
          ))}
        </ul>
      )}
      {state?.done && (
        <p className="mt-3 flex items-center justify-between gap-3 border border-scribe bg-paper px-3 text-[15px]">
          Ticked already.
          <button type="button" className="min-h-11 px-2 font-semibold underline" onClick={onUndo}>
            Not done after all
          </button>
        </p>
      )}
    </>
  );
}
