import {
  KM_PER_MILE,
  type Move,
  moveStates,
  parseNumber,
  type Tick,
  torqueFigure,
  type UnitSystem,
} from '@plate-fold/core';
import { useState } from 'react';
import { type Run, useEndRunMutation } from '../../app/api';
import { Button } from '../../ui/button';
import { RunPhoto } from './run-photo';
import { RunRecord } from './run-record';
import { judge } from './torque-target';

/** The end of a run: what was read, what was off, and what is due next. */
export function RunDone(props: {
  readonly run: Run;
  readonly moves: readonly Move[];
  readonly ticks: readonly Tick[];
  readonly units: UnitSystem;
  readonly waiting: number;
}) {
  const { run, moves, ticks, units, waiting } = props;
  const [odometer, setOdometer] = useState('');
  const [end, ending] = useEndRunMutation();
  const states = moveStates(ticks);
  const open = moves.filter(m => !states.get(m.id)?.done);
  const read = moves.flatMap(m => {
    const torqueNm = states.get(m.id)?.torqueNm;
    return torqueNm !== undefined && m.step.torqueNm !== undefined
      ? [{ move: m, torqueNm, ...judge(torqueNm, m.step.torqueNm, units) }]
      : [];
  });
  const off = ticks.filter(t => t.kind === 'deviation');
  const ended = run.endedAt !== null || ending.isSuccess;
  const km = odometer.trim() === '' ? undefined : parseNumber(odometer);
  const inch = units === 'inch';
  const finish = (): void => {
    const reading = km?.ok && km.value >= 0 ? { km: km.value * (inch ? KM_PER_MILE : 1) } : {};
    void end({ run: run.id, ...reading });
  };
  return (
    <main className="min-h-0 flex-1 overflow-y-auto print:overflow-visible px-4 pb-4 desk:mx-auto desk:w-full desk:max-w-3xl">
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
            {t.jointId ? (
              <span className="fig">{t.jointId}: </span>
            ) : (
              `${moves.find(m => m.step.id === t.stepId)?.step.title ?? t.stepId}: `
            )}
            {t.note}
            {t.photo && <RunPhoto run={run.id} id={t.photo} />}
          </li>
        ))}
      </ul>
      {ended ? (
        <p className="mt-5 text-[17px] font-semibold">
          This run is ended and kept with the plan; it stands in the log.
        </p>
      ) : (
        <>
          <div className="mt-5 flex items-center gap-3">
            <label htmlFor="odometer" className="text-[16px]">
              Odometer, {inch ? 'miles' : 'km'}
            </label>
            <input
              id="odometer"
              inputMode="numeric"
              autoComplete="off"
              value={odometer}
              placeholder="if at hand"
              onChange={e => setOdometer(e.target.value)}
              aria-invalid={km !== undefined && !km.ok}
              className="fig h-12 w-36 rounded-[4px] border border-scribe bg-paper px-3 text-[17px] placeholder:text-ink2"
            />
            {km && !km.ok && (
              <span role="alert" className="text-oxide">
                {km.fault}
              </span>
            )}
          </div>
          <Button
            look="strong"
            className="mt-3 min-h-16 w-full text-[18px]"
            disabled={ending.isLoading || waiting > 0 || (km !== undefined && !km.ok)}
            onClick={finish}
          >
            {waiting > 0 ? 'Waiting for the server …' : 'End the run'}
          </Button>
        </>
      )}
      {ending.isError && (
        <p role="alert" className="mt-2 text-oxide">
          The server does not answer: try again.
        </p>
      )}
      <RunRecord run={run} moves={moves} ticks={ticks} units={units} />
    </main>
  );
}
