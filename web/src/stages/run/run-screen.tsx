import {
  boltByBolt,
  FAULT_HELP,
  type FaultKind,
  installs,
  type Move,
  type Turn,
} from '@plate-fold/core/sequence';
import { useCallback, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, useParams, useSearchParams } from 'react-router';
import { useAppSelector } from '../../state/store';
import { ProblemSheet } from './problem-sheet';
import { RunDone } from './run-done';
import { RunHeader } from './run-header';
import { isSharedPage } from './share-button';
import { StepBody } from './step-body';
import { StepsSheet } from './steps-sheet';
import { TightenBody } from './tighten-body';
import { useAwake } from './use-awake';
import { useOffline } from './use-offline';
import { useRun } from './use-run';
import { useScreens } from './use-screens';

/** Name of the digital wrench in the record. */
const WRENCH = 'digital wrench, simulated';
const ALL = 'clicked, all at once';
/** What the wrench feels that leaves no sound bolt behind. */
const GAVE_WAY: Readonly<Partial<Record<Turn['verdict'], FaultKind>>> = {
  'cross-threaded': 'cross-threaded',
  stripping: 'stripped',
  yielded: 'stretched',
};
/** Two ticks this near to one another are one bounce of a finger, ms. */
const BOUNCE_MS = 300;

const FOOT = 'min-h-12 flex-1 px-1 text-lead disabled:opacity-40 flat:min-h-11 flat:text-body';

/** One screen a step, a plate or a round, for a phone on the floor: what, where, how tight, and one great button. */
export function RunScreen() {
  const { runId = '' } = useParams();
  const [search] = useSearchParams();
  const { run, ticks, waiting, unkept, fault, other, record } = useRun(runId);
  const { side, units } = useAppSelector(s => s.view);
  const walked = useScreens(run, ticks, units);
  const [shown, setShown] = useState<number>();
  const [chosen, setChosen] = useState<string>();
  const [reading, setReading] = useState<number>();
  const [turn, setTurn] = useState<Turn>();
  const [values, setValues] = useState<Readonly<Record<string, number>>>({});
  const [listening, setListening] = useState(false);
  const [sheet, setSheet] = useState<'problem' | 'steps'>();
  const [help, setHelp] = useState<string>();
  const ticked = useRef(Number.NEGATIVE_INFINITY);
  useOffline();
  useAwake(run !== undefined && run.endedAt === null);
  const closed = useCallback(() => setSheet(undefined), []);

  const screens = walked?.screens ?? [];
  const at = Math.min(shown ?? walked?.next ?? 0, screens.length);
  const screen = screens[at];
  const states = walked?.states;
  const open = screen?.moves.filter(m => m.fault === undefined && !states?.get(m.id)?.done) ?? [];
  const step = screen?.steps[0];
  const bolts = step !== undefined && boltByBolt(step);
  const move: Move | undefined = screen?.moves.find(m => m.joint === chosen) ?? open[0] ?? screen?.moves[0];
  const gaveWay = turn && GAVE_WAY[turn.verdict];

  const fresh = (): void => {
    setReading(undefined);
    setTurn(undefined);
    setChosen(undefined);
    setHelp(undefined);
  };
  const go = (to: number): void => {
    fresh();
    setValues({});
    setShown(Math.max(0, Math.min(screens.length, to)));
  };
  /** on to what is open next; whoever looked back goes forward from there */
  const forward = (): void => {
    fresh();
    setValues({});
    setShown(shown === undefined || at >= (walked?.next ?? 0) ? undefined : at + 1);
  };
  const bounced = (): boolean => {
    const now = performance.now();
    if (now - ticked.current < BOUNCE_MS) return true;
    ticked.current = now;
    return false;
  };
  const of = (m: Move) => ({ stepId: m.step.id, jointId: m.joint ?? null });
  const clicked = (m: Move, nm: number | undefined, wrench: string | null): void => {
    record({ ...of(m), kind: 'done', torqueNm: nm ?? null, wrench });
    if (open.every(x => x.id === m.id)) forward();
    else {
      fresh();
    }
  };
  const tellTurn = useCallback((t: Turn | undefined) => setTurn(t), []);
  const tellReading = useCallback((nm: number | undefined) => setReading(nm), []);

  const onward = (): void => {
    if (!screen || bounced()) return;
    if (bolts && move) {
      if (gaveWay && turn) {
        setListening(false);
        record({
          ...of(move),
          kind: 'deviation',
          fault: gaveWay,
          torqueNm: turn.peakNm,
          note: turn.said,
          wrench: WRENCH,
        });
        fresh();
        return;
      }
      if (open.length === 0) {
        forward();
        return;
      }
      const target = open.includes(move) || reading !== undefined ? move : open[0];
      if (target) clicked(target, reading, reading === undefined ? null : turn ? WRENCH : 'typed in');
      return;
    }
    for (const m of open)
      record({
        ...of(m),
        kind: 'done',
        ...(m.step.asks && Object.keys(values).length > 0 ? { values } : {}),
        ...(m.joint && reading !== undefined ? { torqueNm: reading } : {}),
      });
    forward();
  };
  const all = (): void => {
    if (bounced()) return;
    for (const m of open)
      record({ ...of(m), kind: 'done', wrench: step?.byHand?.includes(m.joint ?? '') ? null : ALL });
    forward();
  };
  /** the wrench let go: a sound pull is kept and the next bolt is up; anything else waits for a decision */
  const heard = (t: Turn): void => {
    if (!move || !listening) return;
    if (t.verdict === 'good') {
      ticked.current = performance.now();
      clicked(move, t.peakNm, WRENCH);
    } else setListening(false);
  };
  const tap = (joint: string): void => {
    const m = screen?.moves.find(x => x.joint === joint);
    if (!m) return;
    if (m.fault !== undefined || states?.get(m.id)?.done) {
      fresh();
      setChosen(joint);
      return;
    }
    if (!bounced())
      clicked(
        m,
        m === move ? reading : undefined,
        m === move && reading !== undefined ? (turn ? WRENCH : 'typed in') : null,
      );
  };
  useHotkeys('space, enter', onward, {
    enabled: screen !== undefined && sheet === undefined,
    preventDefault: true,
    // a button or a list under the focus is pressed itself
    ignoreEventWhen: e =>
      (e.target as Element).closest(
        'button, a, input, [role="button"], [role="dialog"], [role="listbox"]',
      ) !== null,
  });
  useHotkeys('backspace, arrowleft', () => go(at - 1), { enabled: run !== undefined && sheet === undefined });

  if (!run || !walked)
    return (
      <main className="p-6">
        <p role="status" className="mb-3 text-title">
          {fault ?? 'Opening the run …'}
        </p>
        <Link to="/" className="inline-flex min-h-11 items-center underline">
          All plans
        </Link>
      </main>
    );

  const back = `/plan/${run.documentId}/${installs(run.service) ? 'run' : 'log'}`;
  const next = screens
    .slice(at + 1)
    .find(s => s.moves.some(m => m.fault === undefined && !states?.get(m.id)?.done));
  const label = ((): string => {
    if (gaveWay && move) return `Report bolt ${move.index + 1} as not sound`;
    if (open.length === 0) return 'Next';
    if (!bolts || !move) return screen && screen.moves.length > 1 ? 'Both done' : 'Done';
    const b = open.includes(move) ? move : (open[0] as Move);
    return step?.byHand?.includes(b.joint ?? '')
      ? `Bolt ${b.index + 1} is snug`
      : `Bolt ${b.index + 1} clicked`;
  })();
  const body = { walked, units, side, run, record } as const;
  return (
    <div
      data-fills-page
      className="flex h-full flex-col bg-ground print:block print:h-auto print:bg-paper flat:grid flat:grid-cols-[1fr_9.5rem] flat:grid-rows-[auto_1fr]"
    >
      <RunHeader
        run={run}
        walked={walked}
        screen={screen}
        at={at}
        waiting={waiting}
        unkept={unkept}
        fault={fault}
        other={other}
        phone={search.has('phone')}
        onSteps={() => setSheet('steps')}
      />
      {screen && step ? (
        bolts && move ? (
          <TightenBody
            key={screen.id}
            {...body}
            screen={screen}
            move={move}
            reading={reading}
            turn={turn}
            help={help}
            listening={listening}
            onListen={setListening}
            onReading={tellReading}
            onTurn={tellTurn}
            onHeard={heard}
            onEnter={onward}
            onTap={tap}
            onChoose={setChosen}
          />
        ) : (
          <StepBody
            key={screen.id}
            {...body}
            screen={screen}
            values={values}
            help={help}
            onValues={setValues}
          />
        )
      ) : (
        <RunDone {...body} ticks={ticks} waiting={waiting} onGo={go} />
      )}
      <footer className="relative z-10 shrink-0 border-t border-scribe bg-sheet print:hidden flat:col-start-2 flat:row-span-2 flat:row-start-1 flat:flex flat:flex-col flat:border-t-0 flat:border-l">
        {screen && (
          <button
            type="button"
            onClick={onward}
            className={`block w-full px-2 font-bold leading-tight max-desk:h-[12dvh] max-desk:min-h-[4.5rem] flat:h-auto! flat:flex-1 desk:h-20 ${gaveWay ? 'bg-oxide text-paper' : 'bg-fluid text-onfluid'}`}
          >
            <span className="block text-large">{label}</span>
            {next && (
              <span className="mx-auto block max-w-[34ch] truncate text-small font-normal opacity-90 flat:whitespace-normal">
                {bolts && open.length > 1
                  ? `then bolt ${(open.find(m => m !== move)?.index ?? 0) + 1}`
                  : `then: ${next.steps[0]?.title}`}
              </span>
            )}
          </button>
        )}
        <div className="flex flex-wrap flat:flex-col flat:flex-nowrap desk:mx-auto desk:max-w-3xl">
          <button
            type="button"
            className={FOOT}
            disabled={at === 0}
            onClick={() => go(screen || walked.next >= screens.length ? at - 1 : walked.next)}
          >
            Back
          </button>
          {bolts && open.length > 1 && (
            <button type="button" className={`${FOOT} font-semibold`} onClick={all}>
              All {open.length} {step?.byHand?.length === step?.joints.length ? 'snug' : 'clicked'}
            </button>
          )}
          {screen && (
            <button type="button" className={FOOT} onClick={() => setSheet('problem')}>
              Problem
            </button>
          )}
          {!isSharedPage() && (
            <Link to={back} className={`${FOOT} grid place-items-center`}>
              {screen ? 'Pause' : 'To the plan'}
            </Link>
          )}
        </div>
      </footer>
      {screen && step && (
        <ProblemSheet
          open={sheet === 'problem'}
          facts={walked.facts}
          units={units}
          step={step}
          joints={[...new Set(screen.steps.flatMap(s => s.joints))]}
          joint={move?.joint}
          onClose={closed}
          onReport={({ joint, photo, ...said }) => {
            record({ stepId: step.id, jointId: joint ?? null, kind: 'deviation', ...said }, photo);
            setSheet(undefined);
            fresh();
            setHelp(said.fault ? FAULT_HELP[said.fault] : undefined);
          }}
        />
      )}
      <StepsSheet
        open={sheet === 'steps'}
        walked={walked}
        at={at}
        onClose={closed}
        onGo={i => {
          setSheet(undefined);
          go(i);
        }}
        onClaim={(panel, who) => record({ stepId: 'claim', jointId: null, kind: 'claim', note: panel, who })}
      />
    </div>
  );
}
