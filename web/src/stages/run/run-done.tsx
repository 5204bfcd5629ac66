import { type Facts, moveStates, movesOf, type Tick, torqueFigure, type UnitSystem } from '@plate-fold/core';
import { type Run, useEndRunMutation } from '../../app/api';
import { Button } from '../../ui/button';
import { judge } from './torque-target';

/** The end of a run: what was read, what was off, and what is due next. */
export function RunDone(props: {
  readonly run: Run;
  readonly facts: Facts;
  readonly ticks: readonly Tick[];
  readonly units: UnitSystem;
  readonly waiting: number;
}) {
  const { run, facts, ticks, units, waiting } = props;
  const [end, ending] = useEndRunMutation();
  const states = moveStates(ticks);
  const moves = movesOf(facts.sequence);
  const open = moves.filter(m => !states.get(m.id)?.done);
  const read = moves.flatMap(m => {
    const torqueNm = states.get(m.id)?.torqueNm;
    return torqueNm !== undefined && m.step.torqueNm !== undefined
      ? [{ move: m, torqueNm, ...judge(torqueNm, m.step.torqueNm, units) }]
      : [];
  });
  const off = ticks.filter(t => t.kind === 'deviation');
  const ended = run.endedAt !== null || ending.isSuccess;
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-4 pb-4 desk:mx-auto desk:w-full desk:max-w-3xl">
      <h1 className="text-[28px] leading-tight font-bold">
        {open.length === 0 ? 'All done' : `${open.length} moves were passed over`}
      </h1>
      {open.length > 0 && (
        <p className="mt-1 text-[16px]">The first of them: {open[0]?.step.title}. Back brings you there.</p>
      )}
      <p className="mt-3 text-[17px] leading-snug">
        Bolts settle: go round once more with the wrench after the first hard trip. Push it, knock on it; look
        again for anything that touches.
      </p>
      <h2 className="mt-4 text-[17px] font-bold">Readings of the wrench: {read.length}</h2>
      {read.filter(r => !r.near).length > 0 && (
        <ul className="mt-1">
          {read
            .filter(r => !r.near)
            .map(r => (
              <li key={r.move.id} className="border-b border-scribe/70 py-1.5">
                <span className="fig">{r.move.joint}</span>, pass {r.move.step.pass}:{' '}
                <span className="fig">{torqueFigure(r.torqueNm, units).value}</span>, {r.text}
              </li>
            ))}
        </ul>
      )}
      <h2 className="mt-4 text-[17px] font-bold">What was off: {off.length}</h2>
      <ul className="mt-1">
        {off.map(t => (
          <li key={t.id} className="border-b border-scribe/70 py-1.5">
            {t.jointId && <span className="fig">{t.jointId}: </span>}
            {t.note}
          </li>
        ))}
      </ul>
      {ended ? (
        <p className="mt-5 text-[17px] font-semibold">This run is ended and kept with the plan.</p>
      ) : (
        <Button
          look="strong"
          className="mt-5 min-h-16 w-full text-[18px]"
          disabled={ending.isLoading || waiting > 0}
          onClick={() => void end(run.id)}
        >
          {waiting > 0 ? 'Waiting for the server …' : 'End the run'}
        </Button>
      )}
      {ending.isError && (
        <p role="alert" className="mt-2 text-oxide">
          The server does not answer: try again.
        </p>
      )}
    </main>
  );
}
