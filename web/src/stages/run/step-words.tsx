import { panelWord } from '@plate-fold/core/plan';
import type { Step } from '@plate-fold/core/sequence';
import { formatLength, formatMass, loadFigure, sentence } from '@plate-fold/core/units';
import { when } from '../../ui/dates';
import { Fig } from '../../ui/figure';

import type { BodyProps } from './body-props';
import { RunPhoto } from './run-photo';
import { TipCard } from './tip-card';

/** What to do, why and how; what was reported about it, and whether it is ticked already. */
export function StepWords(props: BodyProps & { readonly step: Step; readonly first: boolean }) {
  const { step, first, walked, units, help } = props;
  const { facts, states } = walked;
  const state = states.get(step.id);
  const Title = first ? 'h1' : 'h2';
  const plate =
    step.support || step.stage === 'hang' ? facts.panels.find(p => p.panel.id === step.panels[0]) : undefined;
  const { shared, aloneN } = step.support ?? {};
  const steady = shared?.bolts.every(b => b.forceN < 0.05 * (aloneN ?? 0));
  const behind =
    step.stage === 'drill' ? facts.joints.find(j => j.id === step.joints[0])?.mount?.behind : undefined;
  return (
    <section className={first ? '' : 'mt-3 border-t border-scribe pt-2'}>
      <Title className="text-large leading-tight font-bold tracking-tight">{step.title}</Title>
      <p className="mt-1 text-sub leading-snug text-ink2">{step.why}</p>
      {plate && first && (
        <p className="mt-1 text-sub">
          {sentence(panelWord(plate.panel))} weighs{' '}
          <span className="fig font-semibold">{formatMass(plate.massKg, units)}</span>.
          {step.people === 2 ? ' Two people, or one and the jack.' : ''}
        </p>
      )}
      {shared && (
        <p className="mt-1 text-sub leading-snug">
          {steady ? (
            <>
              The jack carries all of it, <Fig of={loadFigure(shared.jackN, units)} />; its first two bolts
              only steady it.
            </>
          ) : (
            <>
              With its first two bolts in, the jack carries <Fig of={loadFigure(shared.jackN, units)} />
              {shared.bolts.map(b => (
                <span key={b.joint}>
                  , <span className="fig">{b.joint}</span> <Fig of={loadFigure(b.forceN, units)} />
                </span>
              ))}
              .
            </>
          )}
        </p>
      )}
      {step.hows && step.hows.length > 0 && (
        <ol className="mt-2 list-decimal pl-6 text-sub leading-snug marker:font-semibold marker:text-ink2">
          {step.hows.map(h => (
            <li key={h} className="mt-1 pl-0.5">
              {h}
            </li>
          ))}
        </ol>
      )}
      {behind && (
        <p className="mt-1 text-sub">
          <span className="fig font-semibold">{formatLength(behind.depth, units)}</span> from the hole to what
          is behind it.
        </p>
      )}
      {step.bags && (
        <ul className="mt-2 grid gap-1 text-sub" aria-label="Bags">
          {step.bags.map(b => (
            <li key={b.label} className="border border-scribe bg-paper px-3 py-1.5 leading-snug">
              <b>{{ reuse: 'Bag, used again', keep: 'Bag, keep', discard: 'Throw away' }[b.fate]}:</b>{' '}
              {b.label}
            </li>
          ))}
        </ul>
      )}
      {step.tip && <TipCard tip={step.tip} />}
      {help && first && (
        <p className="mt-2 border-l-[6px] border-fluid bg-paper px-3 py-2 text-lead">{help}</p>
      )}
      <Reports {...props} of={state?.deviations ?? []} />
      {state?.done && (
        <p className="mt-3 flex items-center justify-between gap-3 border border-scribe bg-paper px-3 text-lead">
          Done{state.by?.who ? `, ${state.by.who}` : ''}.
          <button
            type="button"
            className="min-h-11 px-2 font-semibold underline"
            onClick={() => props.record({ stepId: step.id, jointId: null, kind: 'undone' })}
          >
            Not done after all
          </button>
        </p>
      )}
    </section>
  );
}

/** What was reported, with its photos. */
export function Reports({
  of,
  run,
}: Pick<BodyProps, 'run'> & { readonly of: readonly import('@plate-fold/core/sequence').Tick[] }) {
  if (of.length === 0) return null;
  return (
    <ul className="mt-3 grid gap-1" aria-label="Reported">
      {of.map(d => (
        <li key={d.id} className="border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-lead">
          {when(d.at)}
          {d.who ? `, ${d.who}` : ''}: {d.note}
          {d.photo && <RunPhoto run={run.id} id={d.photo} />}
        </li>
      ))}
    </ul>
  );
}
