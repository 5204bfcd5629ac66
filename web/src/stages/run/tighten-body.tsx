import { lengthName, partNames, toolName, toolsOfBolt } from '@plate-fold/core/bolt';
import { MOST_TORQUE, type Move, type Turn, targetOf } from '@plate-fold/core/sequence';
import {
  formatLength,
  parseTorque,
  type Result,
  torqueFigure,
  type UnitSystem,
} from '@plate-fold/core/units';
import { useState } from 'react';
import { Section } from '../../picture/section';
import { StepMap } from '../../picture/step-map';
import { useSize } from '../../picture/use-size';
import { Dialog } from '../../ui/dialog';
import type { BodyProps } from './body-props';
import { judge } from './judge';
import { LeaveSo } from './leave-so';
import { Cautions, Missing } from './pick-up';
import { faultyOf } from './step-body';
import { Reports } from './step-words';
import { useWrench } from './use-wrench';
import { WrenchPull } from './wrench-pull';

/** One plate in one round: its bolts numbered in order on a large map, each pressed as it clicks, with what the one under the wrench takes. */
export function TightenBody(
  props: BodyProps & {
    readonly move: Move;
    readonly reading?: number;
    readonly turn?: Turn;
    readonly listening: boolean;
    readonly onListen: (on: boolean) => void;
    readonly onReading: (nm: number | undefined) => void;
    readonly onTurn: (turn: Turn | undefined) => void;
    /** a pull of the wrench has ended */
    readonly onHeard: (turn: Turn) => void;
    readonly onEnter: () => void;
    readonly onTap: (joint: string) => void;
    readonly onChoose: (joint: string | undefined) => void;
  },
) {
  const { walked, units, side, screen, move, help } = props;
  const { facts, states, faults } = walked;
  const [mapBox, size] = useSize<HTMLDivElement>();
  const [section, setSection] = useState(false);
  const { step } = move;
  const joint = facts.joints.find(j => j.id === move.joint);
  const target = targetOf(move);
  const done = new Set(screen.moves.filter(m => states.get(m.id)?.done).flatMap(m => m.joint ?? []));
  const state = states.get(move.id);
  const fault = move.joint === undefined ? undefined : faults.get(move.joint);
  const reports = screen.moves.flatMap(m => states.get(m.id)?.deviations ?? []);
  return (
    <main className="relative flex min-h-0 flex-1 flex-col overflow-y-auto px-3 pb-2 flat:col-start-1 flat:grid flat:grid-cols-[1fr_1.05fr] flat:gap-x-3 desk:mx-auto desk:grid desk:w-full desk:max-w-6xl desk:grid-cols-[1.15fr_1fr] desk:gap-x-8 desk:px-8">
      <div className="flat:hidden desk:hidden">
        <Heading {...props} />
      </div>
      <div
        ref={mapBox}
        className="mt-1 min-h-[min(45dvh,25rem)] flex-1 shrink-0 overflow-hidden bg-paper flat:col-start-1 flat:row-start-1 flat:mt-0 flat:h-full flat:min-h-0 desk:col-start-1 desk:row-start-1 desk:mt-0 desk:min-h-80"
      >
        {size.width > 0 && (
          <StepMap
            facts={facts}
            step={step}
            side={side}
            width={size.width}
            height={size.height}
            joint={move.joint}
            done={done}
            faulty={faultyOf(walked)}
            onTap={props.onTap}
          />
        )}
      </div>
      <div className="flat:col-start-2 flat:overflow-y-auto desk:col-start-2">
        <div className="max-desk:hidden flat:block">
          <Heading {...props} />
        </div>
        {joint && (
          <>
            {fault && fault.state !== 'mended' && step.mends !== joint.id ? (
              <Unsound {...props} />
            ) : (
              <Torque key={move.id} {...props} target={target} />
            )}
            <p className="mt-1.5 text-lead leading-snug">
              <b>In this hole:</b> {partNames(joint).join(', ')}
              {joint.joint.lube === 'dry' ? '' : `, ${joint.joint.lube} on the threads`}.{' '}
              <button
                type="button"
                className="min-h-11 font-semibold underline"
                onClick={() => setSection(true)}
              >
                Show the stack
              </button>
            </p>
            {state?.done && (
              <p className="mt-1 flex items-center justify-between gap-3 border border-scribe bg-paper px-3 text-lead">
                Bolt {move.index + 1} is done
                {state.torqueNm === undefined
                  ? ''
                  : ` at ${torqueFigure(state.torqueNm, units).value} ${torqueFigure(1, units).unit}`}
                {state.by?.who ? `, ${state.by.who}` : ''}.
                <button
                  type="button"
                  className="min-h-11 px-2 font-semibold underline"
                  onClick={() =>
                    props.record({ stepId: step.id, jointId: move.joint ?? null, kind: 'undone' })
                  }
                >
                  Not done after all
                </button>
              </p>
            )}
          </>
        )}
        {help && <p className="mt-2 border-l-[6px] border-fluid bg-paper px-3 py-2 text-lead">{help}</p>}
        <Reports of={reports} run={props.run} />
        <Missing step={step} facts={facts} gaps={walked.gaps} />
        <Cautions of={step.cautions} />
      </div>
      {joint && (
        <Dialog open={section} onClose={() => setSection(false)} title={`The stack at ${joint.id}`}>
          <Section
            joint={joint}
            seat={facts.seats.get(joint.id)}
            panels={facts.panels}
            units={units}
            width={Math.min(440, window.innerWidth - 40)}
            height={360}
            exploded={false}
          />
        </Dialog>
      )}
    </main>
  );
}

function Heading({ screen, move }: Pick<BodyProps, 'screen'> & { readonly move: Move }) {
  const { step } = move;
  return (
    <>
      <h1 className="text-large leading-tight font-bold tracking-tight">{step.title}</h1>
      <p className="text-body leading-snug text-ink2">
        {step.pass === undefined || step.passes === 1 ? '' : `Round ${step.pass} of ${step.passes}. `}
        {screen.moves.length} bolts, in the order of the numbers.{' '}
        {step.impact === 'run-in' ? 'An impact wrench may run them in. ' : ''}
      </p>
      {step.hows?.map(h => (
        <p key={h} className="mt-0.5 text-body leading-snug">
          {h}
        </p>
      ))}
    </>
  );
}

/** A bolt that is not sound is not asked for as if it were. */
function Unsound(props: Parameters<typeof TightenBody>[0]) {
  const { move, walked, record } = props;
  const fault = walked.faults.get(move.joint as string);
  if (!fault) return null;
  return (
    <div className="mt-1 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-lead">
      <p>
        Bolt {move.index + 1}, <span className="fig">{move.joint}</span>, is not sound: {fault.tick.note}. Its
        repair is in the list of steps; the bolt is skipped until then.
      </p>
      {fault.state === 'open' && <LeaveSo joint={fault.joint} stepId={move.step.id} record={record} />}
    </div>
  );
}

/** What was typed as a reading, N·m; a fault where no wrench reads that; undefined where nothing was typed. */
function readTorque(typed: string, units: UnitSystem): Result<number> | undefined {
  if (typed.trim() === '') return undefined;
  const read = parseTorque(typed, units);
  const most = torqueFigure(MOST_TORQUE, units);
  return read.ok && read.value > MOST_TORQUE
    ? { ok: false, fault: `not above ${most.value} ${most.unit}` }
    : read;
}

/** The torque to reach, large, with the reading of the wrench and its verdict beside it. */
function Torque(props: Parameters<typeof TightenBody>[0] & { readonly target?: number }) {
  const { move, units, walked, target, reading, turn, listening } = props;
  const { facts, states } = walked;
  const joint = facts.joints.find(j => j.id === move.joint);
  const [typed, setTyped] = useState('');
  const digital = useWrench(target ?? 0, listening && target !== undefined, {
    onTurn: t => {
      setTyped('');
      props.onReading(t.peakNm);
      props.onTurn(t);
      props.onHeard(t);
    },
  });
  if (!joint) return null;
  const tools = toolsOfBolt(joint, facts);
  const wrench = move.step.wrenches?.[joint.id] ?? tools.wrench;
  const toolLine = [
    tools.turn && `${tools.turn}`,
    tools.extensionMm === undefined ? '' : `extension ${formatLength(tools.extensionMm, units)}`,
    tools.hold ? `hold the nut with ${tools.hold.replace('wrench ', 'a wrench ')}` : '',
    target === undefined || !wrench ? 'ordinary wrench' : toolName(wrench, units),
  ]
    .filter(Boolean)
    .join(' \u00b7 ');
  const name = (
    <p className="text-lead leading-snug">
      <b>
        Bolt {move.index + 1}, <span className="fig">{joint.id}</span>
      </b>
      , {joint.thread.designation} × {lengthName(joint.lengthMm, joint.thread)}: {toolLine}
    </p>
  );
  if (target === undefined)
    return (
      <section aria-label="Torque" className="mt-1.5">
        <p className="text-figure leading-tight font-semibold">snug by hand</p>
        {name}
      </section>
    );
  const figure = torqueFigure(target, units);
  const other = torqueFigure(target, units === 'inch' ? 'metric' : 'inch');
  const parsed = readTorque(typed, units);
  const recorded = states.get(move.id)?.torqueNm;
  const shown = parsed?.ok ? parsed.value : (turn?.peakNm ?? reading);
  const verdict = shown === undefined ? undefined : judge(shown, target, units);
  return (
    <section aria-label="Torque" className="mt-1.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <p className="flex items-baseline gap-2 leading-none">
          <span className="fig text-giant font-semibold tracking-tight">{figure.value}</span>
          <span className="text-head font-semibold">{figure.unit}</span>
          <span className="text-body text-ink2">
            {other.value} {other.unit}
          </span>
        </p>
        <div className="flex min-w-0 flex-1 items-center gap-2">
          <label htmlFor="reading" className="sr-only">
            Wrench reads
          </label>
          <input
            id="reading"
            inputMode="decimal"
            autoComplete="off"
            value={typed}
            placeholder={recorded === undefined ? 'reading' : torqueFigure(recorded, units).value}
            onChange={e => {
              setTyped(e.target.value);
              if (turn) digital.forget();
              props.onListen(false);
              props.onTurn(undefined);
              const p = readTorque(e.target.value, units);
              props.onReading(p?.ok && p.value > 0 ? p.value : undefined);
            }}
            onKeyDown={e => {
              if (e.key !== 'Enter' || (parsed && !parsed.ok)) return;
              e.preventDefault();
              props.onEnter();
            }}
            className="fig h-12 w-24 rounded-edge border border-scribe bg-paper px-3 text-title placeholder:text-body placeholder:text-ink2"
          />
          <span
            role="status"
            className={`text-lead leading-tight ${(verdict && !verdict.near) || (parsed && !parsed.ok) ? 'font-bold text-oxide' : ''}`}
          >
            {parsed && !parsed.ok ? parsed.fault : (verdict?.text ?? '')}
          </span>
        </div>
      </div>
      {name}
      <p className="text-small text-ink2">
        {Math.round((move.step.share ?? 1) * 100)} % of its torque, which is limited by {joint.limitedBy}: an
        estimate.
      </p>
      <WrenchPull
        of={digital}
        targetNm={target}
        units={units}
        listening={listening}
        onListen={props.onListen}
      />
    </section>
  );
}
