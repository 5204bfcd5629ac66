import {
  checkStruck,
  gapTo,
  helps,
  mended,
  type StruckRemedy,
  struckRemedies,
  wordsIn,
} from '@plate-fold/core/checks';
import { assemble, type Facts, weighOne } from '@plate-fold/core/derive';
import { type StrikeAnswer, wishOf } from '@plate-fold/core/strike';
import { fixed, lengthFigure, massFigure, type Result, type UnitSystem } from '@plate-fold/core/units';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { FindingCard } from '../../shared/finding-card';
import { runCall } from '../../state/commands/run';
import { useAppDispatch } from '../../state/store';
import { found, useAnswers, useAsker } from '../../state/strikes/store';
import { type Blow, forceOf, howOf, type Struck } from '../../state/strikes/use-strikes';
import { wishKey } from '../../state/strikes/wish-key';
import { Button } from '../../ui/button';

interface Tried {
  readonly remedy: StruckRemedy;
  readonly key: string;
  readonly addedKg: number;
}

/** What the strike of one plate found, and what each thing that may help would bring, tried in the background. */
export function Help({
  facts,
  struck,
  blow,
  units,
  ready,
}: {
  facts: Facts;
  struck: Struck;
  blow: Blow;
  units: UnitSystem;
  /** all plates are answered: there is time for trying */
  ready: boolean;
}) {
  // figures first: what is found in them is looked for once they stand
  const answered = useDeferredValue(struck.answer);
  const answer = answered?.ok ? answered.value : undefined;
  const findings = useMemo(() => (answer ? checkStruck(facts, [answer], units) : []), [facts, answer, units]);
  const bad = findings.some(f => f.severity !== 'note' || f.rule === 'ring');
  if (findings.length === 0) return null;
  return (
    <div className="mt-2 grid gap-2">
      <ul className="grid gap-2">
        {findings.map(f => (
          <FindingCard key={`${f.rule} ${f.about.join()}`} finding={f} />
        ))}
      </ul>
      {bad && ready && answer && (
        <Remedies
          facts={facts}
          answer={answer}
          blow={blow}
          units={units}
          panel={struck.folded.panel.id}
          crowded={findings.find(f => f.rule === 'touches')?.about[1]}
        />
      )}
    </div>
  );
}

function Remedies({
  facts,
  answer,
  blow,
  units,
  panel,
  crowded,
}: {
  facts: Facts;
  answer: StrikeAnswer;
  blow: Blow;
  units: UnitSystem;
  panel: string;
  /** the part that is touched or crowded */
  crowded: string | undefined;
}) {
  const dispatch = useAppDispatch();
  const [tried, setTried] = useState<readonly Tried[]>([]);
  const asker = useAsker();
  useAnswers();
  useEffect(() => {
    let off = false;
    setTried([]);
    const list = struckRemedies(facts, answer, wordsIn(units));
    // one at a time, each in a moment of its own: the page is not held up
    const step = (i: number): void => {
      const remedy = list[i];
      if (off || !remedy) return;
      const t = tryOut(facts, remedy, blow);
      setTried(old => [...old, t]);
      asker.ask({ key: t.key, wish: t.wish });
      setTimeout(() => step(i + 1), 0);
    };
    setTimeout(() => step(0), 0);
    return () => {
      off = true;
      asker.forget();
    };
  }, [facts, answer, blow, units, asker]);
  return (
    <div>
      <h4 className="text-small font-bold">What would help</h4>
      <ul className="mt-1 grid gap-1.5">
        {tried.map(t => {
          const a = found(t.key);
          const good = a?.ok && helps(answer, a.value, crowded);
          return (
            <li key={t.remedy.id} className="rounded-tight border border-scribe bg-paper p-2.5">
              <p className="font-semibold">{t.remedy.text}</p>
              <p className="text-small text-ink2">
                {a ? told(a, answer, crowded, t.addedKg, units) : 'trying …'}
                {a?.ok && !good && '. No help.'}
              </p>
              {good && (
                <Button className="mt-1.5 w-full" onClick={() => dispatch(runCall(t.remedy.mend))}>
                  Use it for plate {facts.document.plan.panels.find(p => p.id === panel)?.mark}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}

/** A remedy as it would be struck, and the mass it adds. */
function tryOut(facts: Facts, remedy: StruckRemedy, blow: Blow) {
  const document = mended(facts.document, remedy.mend);
  const assembly = assemble(document, facts.build.id);
  const folded = assembly.panels.find(p => p.panel.id === remedy.panel) as Facts['panels'][number];
  const at = blow.places[remedy.panel];
  // where the reader has put the rock, else at the new worst place
  const wish = wishOf(assembly, folded, forceOf(assembly.rig, folded, blow), howOf(blow, at));
  return {
    remedy,
    wish,
    key: wishKey(wish),
    addedKg: weighOne(document, facts.build.id).netKg - facts.weight.netKg,
  };
}

/** What a remedy brings, in words. */
function told(
  a: Result<StrikeAnswer>,
  before: StrikeAnswer,
  crowded: string | undefined,
  addedKg: number,
  units: UnitSystem,
): string {
  if (!a.ok) return `No answer: ${a.fault}.`;
  const v = a.value;
  const size = (mm: number): string => {
    const f = lengthFigure(mm, units, units === 'metric');
    return `${f.value}\u00a0${f.unit}`;
  };
  const mass = massFigure(addedKg, units, true);
  const [was, is] = [gapTo(before, crowded), gapTo(v, crowded)];
  return [
    was === undefined || is === undefined
      ? `deflection ${size(v.deflectionMm)}`
      : `clearance ${size(is)} (${is >= was ? '+' : ''}${size(is - was)})`,
    v.reached < 1 ? `collapses at ${fixed((v.gaveWayAt ?? v.reached) * 100, 0)} %` : '',
    v.dentMm === undefined ? '' : `dent ${size(v.dentMm)}`,
    `${fixed(v.ringHz, 0)}\u00a0Hz`,
    `${mass.value}\u00a0${mass.unit}`,
  ]
    .filter(Boolean)
    .join(', ');
}
