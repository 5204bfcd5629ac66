import { firstOpen, gatherFacts, type Move, moveStates, movesOf, type Turn } from '@plate-fold/core';
import { useCallback, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, useParams, useSearchParams } from 'react-router';
import { useApp } from '../../app/store';
import { StepMap } from '../../picture/step-map';
import { useSize } from '../../picture/use-size';
import { STAGE_NAMES } from '../../ui/names';
import { DeviationSheet } from './deviation-sheet';
import { HandsButton } from './hands-button';
import { MoveWords } from './move-words';
import { Cautions, PickUp } from './pick-up';
import { RunDone } from './run-done';
import { sequenceOf } from './sequence-of';
import { isSharedPage, ShareButton } from './share-button';
import { TorqueTarget } from './torque-target';
import { useAwake } from './use-awake';
import { useOffline } from './use-offline';
import { useRun } from './use-run';

/** Name of the digital wrench in the record. */
const WRENCH = 'digital wrench, simulated';
const GAVE_WAY = new Set<Turn['verdict']>(['cross-threaded', 'stripping', 'yielded']);

const FOOT = 'min-h-14 flex-1 px-2 text-[16px] disabled:opacity-40';

/** One move a screen, for a phone on the floor: what, where, how tight, and one great button. */
export function Walk() {
  const { runId = '' } = useParams();
  const [search] = useSearchParams();
  const { run, ticks, waiting, fault, record } = useRun(runId);
  const { side, units } = useApp(s => s.view);
  const facts = useMemo(() => run && gatherFacts(run.document, run.buildId), [run]);
  const moves = useMemo(() => (facts && run ? movesOf(sequenceOf(facts, run.service)) : []), [facts, run]);
  const states = useMemo(() => moveStates(ticks), [ticks]);
  const [shown, setShown] = useState<number>();
  const [reading, setReading] = useState<number>();
  const [turn, setTurn] = useState<Turn>();
  const took = useCallback((t: Turn | undefined) => setTurn(t), []);
  const typed = useCallback((nm: number | undefined) => setReading(nm), []);
  useOffline();
  useAwake(run !== undefined && run.endedAt === null);
  const [off, setOff] = useState(false);
  const [mapBox, size] = useSize<HTMLDivElement>();

  const at = shown ?? firstOpen(moves, states);
  const move: Move | undefined = moves[at];
  const state = move && states.get(move.id);
  // what the wrench felt is no tight bolt: it is noted, and the bolt stays open
  const gaveWay = turn !== undefined && GAVE_WAY.has(turn.verdict);
  const go = (to: number): void => {
    setReading(undefined);
    setTurn(undefined);
    setShown(Math.max(0, Math.min(moves.length, to)));
  };
  const onward = (): void => {
    if (!move) return;
    if (gaveWay && turn)
      record({
        stepId: move.step.id,
        jointId: move.joint ?? null,
        kind: 'deviation',
        torqueNm: turn.peakNm,
        note: turn.said,
        wrench: WRENCH,
      });
    else if (!state?.done || reading !== undefined)
      record({
        stepId: move.step.id,
        jointId: move.joint ?? null,
        kind: 'done',
        torqueNm: reading ?? null,
        wrench: reading === undefined ? null : turn ? WRENCH : 'typed in',
      });
    go(at + 1);
  };
  useHotkeys('space, enter', onward, {
    enabled: move !== undefined && !off,
    preventDefault: true,
    // a button or a list under the focus is pressed itself
    ignoreEventWhen: e =>
      (e.target as Element).closest('button, a, [role="dialog"], [role="listbox"]') !== null,
  });
  useHotkeys('backspace, arrowleft', () => go(at - 1), { enabled: run !== undefined && !off });

  if (!run || !facts)
    return (
      <main className="p-6">
        <p role="status" className="mb-3 text-[18px]">
          {fault ?? 'Opening the run …'}
        </p>
        <Link to="/" className="inline-flex min-h-11 items-center underline">
          All plans
        </Link>
      </main>
    );

  const back = `/plan/${run.documentId}/${run.service === null ? 'run' : 'log'}`;
  const doneCount = moves.filter(m => states.get(m.id)?.done).length;
  const joint = facts.joints.find(j => j.id === move?.joint);
  const plates = move?.step.panels.flatMap(id => facts.panels.find(p => p.panel.id === id)?.panel ?? []);
  const doneHere = new Set(move?.step.joints.filter(j => states.get(`${move.step.id}/${j}`)?.done) ?? []);
  return (
    <div className="flex h-full flex-col bg-ground print:block print:h-auto print:bg-paper">
      <header className="shrink-0 print:hidden px-4 pt-3 desk:mx-auto desk:w-full desk:max-w-6xl desk:px-8">
        <div className="flex min-h-9 items-center justify-between gap-3 text-[15px] text-ink2">
          <span className="truncate">
            {move ? STAGE_NAMES[move.step.stage] : 'Done'}
            {plates && plates.length > 0 && plates.length < 4
              ? ` · ${plates.map(p => `${p.mark} ${p.name}`).join(', ')}`
              : ''}
          </span>
          <span className="flex-1" />
          <HandsButton />
          <ShareButton run={run.id} atOnce={search.has('phone')} />
          <span className="whitespace-nowrap">
            <span className="fig">{Math.min(at + 1, moves.length)}</span> of{' '}
            <span className="fig">{moves.length}</span>
          </span>
        </div>
        <div
          role="progressbar"
          aria-label="Moves done"
          aria-valuemin={0}
          aria-valuemax={moves.length}
          aria-valuenow={doneCount}
          className="mt-1.5 h-1.5 bg-scribe"
        >
          <div
            className="h-full bg-fluid"
            style={{ width: `${(doneCount / Math.max(1, moves.length)) * 100}%` }}
          />
        </div>
        <p role="status" className="min-h-5 text-[13px] text-ink2">
          {[waiting > 0 ? `${waiting} kept on this device, sent when the server answers` : '', fault ?? '']
            .filter(Boolean)
            .join('. ')}
        </p>
      </header>
      {move ? (
        <main className="flex min-h-0 flex-1 flex-col overflow-y-auto px-4 pb-3 desk:mx-auto desk:grid desk:w-full desk:max-w-6xl desk:grid-cols-[1.15fr_1fr] desk:grid-rows-[auto_auto_1fr] desk:gap-x-8 desk:px-8">
          <div className="desk:col-start-2">
            <MoveWords
              key={move.id}
              move={move}
              next={moves[at + 1]}
              facts={facts}
              units={units}
              state={state}
              run={run.id}
              onUndo={() => record({ stepId: move.step.id, jointId: move.joint ?? null, kind: 'undone' })}
            />
          </div>
          <div
            ref={mapBox}
            className={`mt-3 ${move.joint ? 'h-[150px]' : 'h-[212px]'} shrink-0 overflow-hidden bg-paper desk:col-start-1 desk:row-span-3 desk:row-start-1 desk:mt-0 desk:h-auto desk:min-h-80`}
          >
            {size.width > 0 && (
              <StepMap
                facts={facts}
                step={move.step}
                side={side}
                width={size.width}
                height={size.height}
                joint={move.joint}
                done={doneHere}
              />
            )}
          </div>
          {joint && move.step.torqueNm !== undefined && (
            <div className="desk:col-start-2">
              <TorqueTarget
                key={move.id}
                move={move}
                joint={joint}
                units={units}
                onReading={typed}
                onTurn={took}
                onEnter={onward}
                recorded={state?.torqueNm}
              />
            </div>
          )}
          <div className="desk:col-start-2">
            <PickUp step={move.step} facts={facts} />
            <Cautions of={move.step.cautions} />
          </div>
        </main>
      ) : (
        <RunDone run={run} moves={moves} ticks={ticks} units={units} waiting={waiting} />
      )}
      <footer className="shrink-0 print:hidden border-t border-scribe bg-sheet">
        {move && (
          <button
            type="button"
            onClick={onward}
            className={`block w-full text-[24px] font-bold max-desk:h-[15dvh] max-desk:min-h-24 desk:h-20 ${gaveWay ? 'bg-oxide text-paper' : 'bg-fluid text-onfluid'}`}
          >
            {gaveWay
              ? 'Note it, leave it open, next'
              : state?.done
                ? 'Next'
                : move.joint
                  ? 'Done, next bolt'
                  : 'Done, next'}
          </button>
        )}
        <div className="flex desk:mx-auto desk:max-w-3xl">
          <button type="button" className={FOOT} disabled={at === 0} onClick={() => go(at - 1)}>
            Back
          </button>
          {move && (
            <button type="button" className={FOOT} onClick={() => setOff(true)}>
              Something’s off
            </button>
          )}
          {!isSharedPage() && (
            <Link to={back} className={`${FOOT} grid place-items-center`}>
              {move ? 'Pause' : 'To the plan'}
            </Link>
          )}
        </div>
      </footer>
      {move && (
        <DeviationSheet
          open={off}
          what={move.joint ? `bolt ${move.joint}` : move.step.title}
          onClose={() => setOff(false)}
          onNote={(note, photo) => {
            record({ stepId: move.step.id, jointId: move.joint ?? null, kind: 'deviation', note }, photo);
            setOff(false);
          }}
        />
      )}
    </div>
  );
}
