import { toolName } from '@plate-fold/core/bolt';
import { setMinutes } from '@plate-fold/core/plan';
import type { Step } from '@plate-fold/core/sequence';
import { torqueFigure, type UnitSystem } from '@plate-fold/core/units';
import { Moon, Pause, Play } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { StepMap } from '../../picture/step-map';
import { useSize } from '../../picture/use-size';
import { Bench } from '../../shared/bench';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { STAGE_NAMES } from '../../ui/names';
import { useNarrow } from '../../ui/use-narrow';
import { RunCard } from './run-card';
import { RunStart } from './run-start';
import { aboutNow, sequenceOf } from './sequence-of';

/** Steps that follow one another in the same stage, under one heading. */
function byStage(steps: readonly Step[]): readonly { stage: Step['stage']; steps: readonly Step[] }[] {
  const out: { stage: Step['stage']; steps: Step[] }[] = [];
  for (const s of steps) {
    const last = out.at(-1);
    if (last?.stage === s.stage) last.steps.push(s);
    else out.push({ stage: s.stage, steps: [s] });
  }
  return out;
}

/** The bolts of a step one after another, as the hands will go; a bolt every 0.9 s. */
function usePlayed(step: Step | undefined) {
  const [at, setAt] = useState<number>();
  const count = step?.joints.length ?? 0;
  const id = step?.id;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another step is not the one that was played
  useEffect(() => setAt(undefined), [id]);
  useEffect(() => {
    if (at === undefined) return;
    const timer = setTimeout(() => setAt(at + 1 < count ? at + 1 : undefined), 900);
    return () => clearTimeout(timer);
  }, [at, count]);
  return {
    joint: at === undefined ? undefined : step?.joints[at],
    done: new Set(at === undefined ? [] : (step?.joints.slice(0, at) ?? [])),
    playing: at !== undefined,
    toggle: () => setAt(at === undefined ? 0 : undefined),
  };
}

/** What the wrench is set to in a step: one figure, or from the lowest to the highest. */
function Torques({ of, units }: { of: Step; units: UnitSystem }) {
  const all = Object.values(of.torques ?? {});
  if (all.length === 0) return null;
  const [low, high] = [Math.min(...all), Math.max(...all)].map(nm => torqueFigure(nm, units));
  return (
    <span className="fig text-small whitespace-nowrap">
      {low?.value === high?.value ? low?.value : `${low?.value}\u2013${high?.value}`}
      <span className="ml-1 font-sans text-fine text-ink2">{low?.unit}</span>
    </span>
  );
}

/** Run: the whole order of the hands to look through, and the way onto the floor. */
export function RunStage() {
  const facts = useFacts();
  const { units, side } = useAppSelector(s => s.view);
  const [chosen, setAbout] = useState<string | null>(null);
  // a phase that was taken out of the plan is no longer what the run is about
  const about = aboutNow(facts, chosen);
  const { steps } = useMemo(() => sequenceOf(facts, about, units), [facts, about, units]);
  const [id, setId] = useState<string>();
  const [mapBox, size] = useSize<HTMLDivElement>();
  const step = steps.find(s => s.id === id) ?? steps[0];
  const played = usePlayed(step);
  const run = useRun();
  const narrow = useNarrow();
  const number = new Map(steps.map((s, i) => [s.id, i + 1]));
  return (
    <Bench
      asideName="Method and runs"
      work={(_, height) => (
        <>
          {narrow && (
            <div className="border-b border-scribe bg-sheet p-4">
              <RunStart about={about} onAbout={setAbout} />
            </div>
          )}
          <div className="flex max-desk:h-auto! max-desk:flex-col-reverse" style={{ height }}>
            <div className="overflow-y-auto border-scribe bg-sheet max-desk:max-h-96 max-desk:border-t desk:w-[22rem] desk:border-r">
              {byStage(steps).map(g => (
                <section key={g.steps[0]?.id}>
                  <h3 className="border-b border-scribe bg-ground px-3 py-1 text-note font-semibold text-ink2">
                    {STAGE_NAMES[g.stage]}
                  </h3>
                  <ul>
                    {g.steps.map(s => (
                      <li key={s.id}>
                        <button
                          type="button"
                          aria-pressed={s === step}
                          onClick={() => setId(s.id)}
                          className={`flex min-h-11 w-full items-center gap-2.5 border-b border-scribe/70 px-3 py-1.5 text-left leading-tight ${s === step ? 'bg-fluid text-onfluid [&_*]:text-onfluid' : 'hover:bg-paper'}`}
                        >
                          <span className="fig w-6 shrink-0 text-right text-note text-ink2">
                            {number.get(s.id)}
                          </span>
                          <span className="flex-1">{s.title}</span>
                          {s.night && (
                            <Moon
                              size={15}
                              className="shrink-0 text-ink2"
                              aria-label="good place to stop for the night"
                            />
                          )}
                          <Torques of={s} units={units} />
                        </button>
                      </li>
                    ))}
                  </ul>
                </section>
              ))}
            </div>
            <div className="flex min-w-0 flex-1 flex-col bg-paper">
              {step && (
                <div className="relative max-h-[55%] overflow-y-auto border-b border-scribe p-3 max-desk:max-h-none">
                  <h2 className="text-title leading-tight font-bold">{step.title}</h2>
                  <p className="text-small leading-snug text-ink2">{step.why}</p>
                  <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
                    <MeasureInput
                      key={step.id}
                      label={
                        facts.document.plan.minutes?.[step.id] === undefined
                          ? 'Minutes, estimate'
                          : 'Minutes, yours'
                      }
                      plain="min"
                      value={step.minutes}
                      units="metric"
                      least={0.5}
                      most={1440}
                      onEnter={m => run(setMinutes, { step: step.id, minutes: m })}
                      className="w-28"
                    />
                    <p className="min-h-11 flex-1 py-1 text-small leading-snug text-ink2">
                      {step.people === 2 ? 'Two people, or one and a jack. ' : ''}
                      {step.impact === 'never'
                        ? 'No impact wrench. '
                        : step.impact === 'run-in'
                          ? 'An impact may run it in. '
                          : ''}
                      {step.tools.length > 0
                        ? `Tools: ${step.tools.map(t => toolName(t, units)).join(', ')}. `
                        : ''}
                      {step.drivable === false
                        ? 'Not drivable after this step.'
                        : step.night
                          ? 'Drivable; a good place to stop.'
                          : 'Drivable after it.'}
                    </p>
                    {step.joints.length > 1 && (
                      <Button aria-pressed={played.playing} onClick={played.toggle}>
                        {played.playing ? (
                          <Pause size={17} aria-hidden="true" />
                        ) : (
                          <Play size={17} aria-hidden="true" />
                        )}
                        {played.playing ? 'Stop' : 'Show the order'}
                      </Button>
                    )}
                  </div>
                  <ol className="mt-1 list-decimal pl-5 text-small leading-snug text-ink2">
                    {step.hows?.map(h => (
                      <li key={h}>{h}</li>
                    ))}
                  </ol>
                  {step.tip && <p className="mt-1 text-small leading-snug">{step.tip.text}</p>}
                  {step.bags && (
                    <ul className="mt-1 text-small text-ink2">
                      {step.bags.map(b => (
                        <li key={b.label}>
                          {{ reuse: 'Bag, used again', keep: 'Bag, keep', discard: 'Throw away' }[b.fate]}:{' '}
                          {b.label}
                        </li>
                      ))}
                    </ul>
                  )}
                </div>
              )}
              <div ref={mapBox} className="min-h-0 flex-1 overflow-hidden max-desk:h-60 max-desk:flex-none">
                {step && size.width > 0 && (
                  <StepMap
                    facts={facts}
                    step={step}
                    side={side}
                    width={size.width}
                    height={Math.max(180, size.height)}
                    joint={played.joint}
                    done={played.done}
                  />
                )}
              </div>
            </div>
          </div>
        </>
      )}
      aside={<RunCard onStep={setId} about={about} onAbout={setAbout} />}
    />
  );
}
