import { type Tick, targetOf } from '@plate-fold/core/sequence';
import { KM_PER_MILE, parseNumber, torqueFigure, type UnitSystem } from '@plate-fold/core/units';
import { useState } from 'react';
import { type Run, useEndRunMutation } from '../../state/api';
import { Button } from '../../ui/button';
import { judge } from './judge';
import { LeaveSo } from './leave-so';
import { RunPhoto } from './run-photo';
import { RunRecord } from './run-record';
import { standing } from './steps-sheet';
import type { RunState } from './use-run';
import type { Walked } from './use-screens';

/** The end of a run: what is still open, what is not sound, what was read and reported, and what is due next. */
export function RunDone(props: {
  readonly run: Run;
  readonly walked: Walked;
  readonly ticks: readonly Tick[];
  readonly units: UnitSystem;
  readonly waiting: number;
  readonly record: RunState['record'];
  readonly onGo: (screen: number) => void;
}) {
  const { run, walked, ticks, units, waiting, record, onGo } = props;
  const { moves, screens, states, faults } = walked;
  const [odometer, setOdometer] = useState('');
  const [end, ending] = useEndRunMutation();
  const open = screens.flatMap((s, i) => (standing(walked, s) === 'open' ? [{ s, i }] : []));
  const unsound = [...faults.values()].filter(f => f.state !== 'mended');
  const read = moves.flatMap(m => {
    const torqueNm = states.get(m.id)?.torqueNm;
    const target = targetOf(m);
    return torqueNm !== undefined && target !== undefined
      ? [{ move: m, torqueNm, ...judge(torqueNm, target, units) }]
      : [];
  });
  const off = ticks.filter(t => t.kind === 'deviation');
  const ended = run.endedAt !== null || ending.isSuccess;
  const km = odometer.trim() === '' ? undefined : parseNumber(odometer);
  const inch = units === 'inch';
  const known = [...ticks].reverse().find(t => t.kind === 'done' && t.values?.km !== undefined)?.values?.km;
  const finish = (): void => {
    const reading = km?.ok && km.value >= 0 ? { km: km.value * (inch ? KM_PER_MILE : 1) } : {};
    void end({ run: run.id, ...reading });
  };
  const blocked = unsound.some(f => f.state === 'open');
  const fault = (ending.error as { data?: { fault?: string } } | undefined)?.data?.fault;
  return (
    <main className="relative min-h-0 flex-1 overflow-y-auto px-4 pb-4 print:overflow-visible flat:col-start-1 desk:mx-auto desk:w-full desk:max-w-3xl">
      <h1 className="text-large leading-tight font-bold">
        {open.length > 0
          ? `${open.length} ${open.length === 1 ? 'step is' : 'steps are'} still open`
          : blocked
            ? 'Not done yet: a bolt is not sound'
            : 'All done'}
      </h1>
      {open.length > 0 && (
        <ul className="mt-1">
          {open.map(({ s, i }) => (
            <li key={s.id}>
              <button
                type="button"
                className="min-h-11 w-full border-b border-scribe/70 text-left text-sub underline"
                onClick={() => onGo(i)}
              >
                {s.steps[0]?.title}
              </button>
            </li>
          ))}
        </ul>
      )}
      {unsound.length > 0 && (
        <section aria-label="Not sound" className="mt-3">
          {unsound.map(f => {
            const at = screens.findIndex(s => s.steps.some(x => x.mends === f.joint));
            return (
              <div
                key={f.joint}
                className="mb-2 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-lead"
              >
                <p>
                  <span className="fig font-semibold">{f.joint}</span>: {f.tick.note ?? f.fault}
                  {f.state === 'overridden' ? `. Left as it is: ${f.by?.note}` : ''}
                </p>
                {f.state === 'open' && at >= 0 && (
                  <Button className="mt-1 w-full" onClick={() => onGo(at)}>
                    Go to its repair
                  </Button>
                )}
                {f.state === 'open' && <LeaveSo joint={f.joint} stepId={f.tick.stepId} record={record} />}
              </div>
            );
          })}
        </section>
      )}
      <p className="mt-3 text-title leading-snug">
        Bolts settle: re-torque after the first hard trip. Push on the plates, knock on them, and check again
        for anything that touches.
      </p>
      {read.some(r => !r.near) && (
        <>
          <h2 className="mt-4 text-title font-bold">Readings off target</h2>
          <ul className="mt-1">
            {read
              .filter(r => !r.near)
              .map(r => (
                <li key={r.move.id} className="border-b border-scribe/70 py-1.5">
                  <span className="fig">{r.move.joint}</span>, round {r.move.step.pass}:{' '}
                  <span className="fig">{torqueFigure(r.torqueNm, units).value}</span>,{' '}
                  <b className="text-oxide">{r.text}</b>
                </li>
              ))}
          </ul>
        </>
      )}
      <h2 className="mt-4 text-title font-bold">Problems reported: {off.length}</h2>
      <ul className="mt-1">
        {off.map(t => (
          <li key={t.id} className="border-b border-scribe/70 py-1.5">
            {t.jointId ? (
              <span className="fig">{t.jointId}: </span>
            ) : (
              `${moves.find(m => m.step.id === t.stepId)?.step.title ?? 'Before the run'}: `
            )}
            {t.note}
            {t.photo && <RunPhoto run={run.id} id={t.photo} />}
          </li>
        ))}
      </ul>
      {ended ? (
        <p className="mt-5 text-title font-semibold">
          This run is ended and kept with the plan; it stands in the log.
        </p>
      ) : (
        <>
          <div className="mt-5 flex items-center gap-3">
            <label htmlFor="odometer" className="text-sub">
              Odometer, {inch ? 'miles' : 'km'}
            </label>
            <input
              id="odometer"
              inputMode="numeric"
              autoComplete="off"
              value={odometer}
              placeholder={
                known === undefined ? 'if known' : `${Math.round(known / (inch ? KM_PER_MILE : 1))}`
              }
              onChange={e => setOdometer(e.target.value)}
              aria-invalid={km !== undefined && !km.ok}
              className="fig h-12 w-36 rounded-edge border border-scribe bg-paper px-3 text-title placeholder:text-ink2"
            />
            {km && !km.ok && (
              <span role="alert" className="text-oxide">
                {km.fault}
              </span>
            )}
          </div>
          <Button
            look="strong"
            className="mt-3 min-h-16 w-full text-title"
            disabled={ending.isLoading || waiting > 0 || blocked || (km !== undefined && !km.ok)}
            onClick={finish}
          >
            {waiting > 0
              ? 'Waiting for the server …'
              : blocked
                ? 'Fix the bolt that is not sound first'
                : open.length > 0
                  ? 'End the run with steps open'
                  : 'End the run'}
          </Button>
        </>
      )}
      {ending.isError && (
        <p role="alert" className="mt-2 text-oxide">
          {fault ?? 'The server did not answer: try again.'}
        </p>
      )}
      <RunRecord run={run} walked={walked} ticks={ticks} units={units} />
    </main>
  );
}
