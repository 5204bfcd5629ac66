import { type Step, torqueFigure } from '@plate-fold/core';
import { useState } from 'react';
import { Bench } from '../../app/bench';
import { useFacts } from '../../app/derived';
import { useApp } from '../../app/store';
import { StepMap } from '../../picture/step-map';
import { useSize } from '../../picture/use-size';
import { STAGE_NAMES } from '../../ui/names';
import { RunCard } from './run-card';

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

/** Run: the whole order of the hands to look through, and the way onto the floor. */
export function RunStage() {
  const facts = useFacts();
  const { units, side } = useApp(s => s.view);
  const { steps } = facts.sequence;
  const [id, setId] = useState<string>();
  const [mapBox, size] = useSize<HTMLDivElement>();
  const step = steps.find(s => s.id === id) ?? steps.find(s => s.stage === 'tighten') ?? steps[0];
  const number = new Map(steps.map((s, i) => [s.id, i + 1]));
  return (
    <Bench
      asideName="Method and runs"
      work={(_, height) => (
        <div className="flex max-desk:h-auto! max-desk:flex-col-reverse" style={{ height }}>
          <div className="overflow-y-auto border-scribe bg-sheet max-desk:max-h-96 max-desk:border-t desk:w-[22rem] desk:border-r">
            {byStage(steps).map(g => (
              <section key={g.steps[0]?.id}>
                <h3 className="border-b border-scribe bg-ground px-3 py-1 text-[12.5px] font-semibold text-ink2">
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
                        <span className="fig w-6 shrink-0 text-right text-[12px] text-ink2">
                          {number.get(s.id)}
                        </span>
                        <span className="flex-1">{s.title}</span>
                        {s.torqueNm !== undefined && (
                          <span className="fig text-[13px] whitespace-nowrap">
                            {torqueFigure(s.torqueNm, units).value}
                            <span className="ml-1 font-sans text-[11px] text-ink2">
                              {torqueFigure(s.torqueNm, units).unit}
                            </span>
                          </span>
                        )}
                      </button>
                    </li>
                  ))}
                </ul>
              </section>
            ))}
          </div>
          <div className="flex min-w-0 flex-1 flex-col bg-paper">
            {step && (
              <div className="border-b border-scribe p-3">
                <h2 className="text-[18px] leading-tight font-bold">{step.title}</h2>
                <p className="text-[13px] leading-snug text-ink2">{step.why}</p>
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
                />
              )}
            </div>
          </div>
        </div>
      )}
      aside={<RunCard />}
    />
  );
}
