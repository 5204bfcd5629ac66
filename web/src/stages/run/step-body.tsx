import type { Facts } from '@plate-fold/core/derive';
import { facetInSpace } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import { isBracket } from '@plate-fold/core/plan';
import type { Step } from '@plate-fold/core/sequence';
import { useMemo } from 'react';
import { FrontView } from '../../picture/front-view';
import { StepMap } from '../../picture/step-map';
import { useSize } from '../../picture/use-size';
import { AskFields } from './ask-fields';
import type { BodyProps } from './body-props';
import { Cautions, PickUp } from './pick-up';
import { StepWords } from './step-words';
import type { Walked } from './use-screens';

/** Steps about no place: nothing is drawn for them. */
const PLACELESS = (s: Step): boolean =>
  s.stage === 'kit' && s.panels.length === 0 && !(s.asks?.includes('fenders') ?? false);

/** The bracket that goes up in a step, as it is seen from the front: which leg is up, which side it turns to. */
function hungBracket(facts: Facts, steps: readonly Step[]) {
  const hung = steps.find(s => s.stage === 'hang');
  const p = facts.panels.find(x => x.panel.id === hung?.panels[0]);
  if (!p || !isBracket(p.panel)) return undefined;
  const points = p.facets.flatMap(f => facetInSpace(f));
  const xs = points.map(q => q[0]);
  return {
    panel: p.panel.id,
    x: (Math.min(...xs) + Math.max(...xs)) / 2,
    about: points.map((q): Vec2 => [q[1], q[2]]),
  };
}

/** A step to be done as a whole: what, why, how, where, what to pick up and what to watch for. */
export function StepBody(
  props: BodyProps & {
    readonly values: Readonly<Record<string, number>>;
    readonly onValues: (v: Readonly<Record<string, number>>) => void;
  },
) {
  const { walked, units, side, screen } = props;
  const [mapBox, size] = useSize<HTMLDivElement>();
  const main = screen.steps.at(-1) as Step;
  const drawn = screen.steps.find(s => s.support) ?? main;
  const asks = screen.steps.flatMap(s => s.asks ?? []);
  const bare = screen.steps.every(PLACELESS);
  const hung = useMemo(() => hungBracket(walked.facts, screen.steps), [walked.facts, screen.steps]);
  return (
    <main className="relative flex min-h-0 flex-1 flex-col overflow-y-auto px-4 pb-3 flat:col-start-1 flat:grid flat:grid-cols-[1fr_1.1fr] flat:gap-x-3 flat:px-3 desk:mx-auto desk:grid desk:w-full desk:max-w-6xl desk:grid-cols-[1.15fr_1fr] desk:gap-x-8 desk:px-8">
      <div
        className={`flat:col-start-2 flat:overflow-y-auto desk:col-start-2 ${bare ? 'flat:col-span-2 flat:col-start-1 desk:col-span-2 desk:col-start-1 desk:mx-auto desk:w-full desk:max-w-3xl' : ''}`}
      >
        {screen.steps.map((s, i) => (
          <StepWords key={s.id} {...props} step={s} first={i === 0} />
        ))}
        {asks.length > 0 && (
          <AskFields
            of={asks}
            units={units}
            values={props.values}
            onValues={props.onValues}
            run={props.run}
          />
        )}
        <div className="max-desk:hidden flat:block">
          <Below {...props} />
        </div>
      </div>
      {!bare && (
        <div
          ref={mapBox}
          // how a bracket is turned is seen before it is read
          className={`mt-2 min-h-[min(38dvh,20rem)] flex-1 shrink-0 overflow-hidden bg-paper flat:col-start-1 flat:row-start-1 flat:mt-0 flat:h-full flat:min-h-0 desk:col-start-1 desk:row-start-1 desk:mt-0 desk:min-h-80 ${hung ? 'max-desk:order-first max-desk:mb-2 max-desk:flex-none max-desk:h-[38dvh]' : ''}`}
        >
          {size.width > 0 && hung && (
            <FrontView
              facts={walked.facts}
              x={hung.x}
              width={size.width}
              height={size.height}
              units={units}
              panel={hung.panel}
              about={hung.about}
            />
          )}
          {size.width > 0 && !hung && (
            <StepMap
              facts={walked.facts}
              step={drawn}
              side={side}
              width={size.width}
              height={size.height}
              faulty={faultyOf(walked)}
            />
          )}
        </div>
      )}
      <div className="desk:hidden flat:hidden">
        <Below {...props} />
      </div>
    </main>
  );
}

/** Bolts of a run that are not sound. */
export const faultyOf = (walked: Walked): ReadonlySet<string> =>
  new Set([...walked.faults.values()].filter(f => f.state !== 'mended').map(f => f.joint));

function Below({ walked, screen }: BodyProps) {
  const cautions = [...new Set(screen.steps.flatMap(s => s.cautions))];
  return (
    <>
      {screen.steps.map(s => (
        <PickUp key={s.id} step={s} facts={walked.facts} gaps={walked.gaps} />
      ))}
      <Cautions of={cautions} />
    </>
  );
}
