import {
  bestBuild,
  breaks,
  type Facts,
  fixed,
  GOALS,
  type Goal,
  lengthFigure,
  massFigure,
  type StruckRung,
  valueFor,
  withSheet,
} from '@plate-fold/core';
import { useMemo, useState } from 'react';
import { buildCopied, remedyApplied } from '../../app/plan-slice';
import { useApp, useDo } from '../../app/store';
import { Button } from '../../ui/button';
import { Chips } from '../../ui/chips';
import { Fig } from '../../ui/figure';
import { MeasureInput } from '../../ui/measure-input';
import { sheetName } from '../../ui/names';
import { Progress } from './ladder-progress';
import { limitsOf, struckOf } from './rungs';
import { useLadder } from './use-ladder';

const GOAL_NAMES: Readonly<Record<Goal, string>> = {
  mass: 'lightest',
  cost: 'cheapest',
  gap: 'most gap',
};

/** The best sheet for every plate within limits, searched among what has been struck so far. */
export function BestTab({ facts }: { facts: Facts }) {
  const dispatch = useDo();
  const { units, stock } = useApp(s => s.view);
  const panels = useMemo(() => facts.panels.map(p => p.panel.id), [facts.panels]);
  const ladder = useLadder(facts, panels, units, stock);
  const [goal, setGoal] = useState<Goal>('mass');
  const [mostDentMm, setDent] = useState(10);
  const [quiet, setQuiet] = useState(true);
  const [sheets, setSheets] = useState<'any' | '1' | '2' | '3'>('any');
  const { budget } = facts.document.plan.limits;
  const limits = { ...limitsOf(facts), quiet, mostDentMm };
  const ladders = panels.map(p => struckOf(ladder.known.get(p) ?? []));
  const fit = ladders.map(l => l.filter(r => breaks(facts, r, limits).length === 0));
  // what the plates may cost: the limit less hardware and crossbars, which no sheet changes much
  const rest = facts.weight.cost - facts.weight.panels.reduce((s, p) => s + p.cost, 0);
  const ties = {
    ...(budget === undefined ? {} : { budget: budget - rest }),
    ...(sheets === 'any' ? {} : { mostSheets: Number(sheets) }),
  };
  const best = bestBuild(fit, valueFor(goal), ties);
  const stuck = facts.panels.filter((_, i) => (ladders[i]?.length ?? 0) > 0 && fit[i]?.length === 0);
  // one edit, so that one undo takes it back
  const accept = (): void => {
    if (!best) return;
    dispatch(
      remedyApplied(
        facts.panels.reduce(
          (doc, p, i) => withSheet(doc, facts.build.id, p.panel.id, best.rungs[i] as StruckRung),
          facts.document,
        ),
      ),
    );
  };
  return (
    <div className="p-3">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Chips
          label="Best at"
          value={goal}
          choices={GOALS.map(g => [g, GOAL_NAMES[g]] as const)}
          onChoose={setGoal}
        />
        <MeasureInput
          label="Dent at most"
          value={mostDentMm}
          units={units}
          least={0}
          most={200}
          onEnter={setDent}
          className="w-32"
        />
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-6 accent-[var(--fluid)]"
            checked={quiet}
            onChange={e => setQuiet(e.target.checked)}
          />
          must not drum
        </label>
        <Chips
          label="Different sheets at most"
          value={sheets}
          choices={(['any', '1', '2', '3'] as const).map(
            n => [n, n === 'any' ? 'any sheets' : `${n} at most`] as const,
          )}
          onChoose={setSheets}
        />
        <span className="flex-1" />
        <Progress ladder={ladder} />
      </div>
      <p className="mt-2 text-[13px] text-ink2">
        Kept in any case: it can be bent, leaves every part its room under half the heavier axle, does not
        give way, {facts.document.plan.limits.maxLiftKg === undefined ? '' : 'can be lifted by one person, '}
        {budget === undefined ? 'no budget is set' : `costs $${fixed(budget, 0)} or less with its hardware`}.
        Searched exactly among the sheets struck so far. Estimates; prices are invented defaults.
      </p>
      {best ? (
        <section aria-label="Best build" className="mt-3 rounded-[4px] border-2 border-fluid bg-paper p-3">
          <h3 className="text-[17px] font-bold">
            The {GOAL_NAMES[goal]} that keeps it all: <Fig of={massFigure(best.massKg, units)} /> of plates, $
            {fixed(best.cost, 0)}
          </h3>
          <table className="mt-2 w-full text-[14px]">
            <thead>
              <tr className="border-b border-ink text-left">
                {['Plate', 'Now', 'Best', 'Mass', 'Gap left', 'Dent'].map((h, i) => (
                  <th key={h} scope="col" className={`py-1 pr-2 font-bold ${i > 2 ? 'text-right' : ''}`}>
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {facts.panels.map((p, i) => {
                const r = best.rungs[i] as StruckRung;
                const size = (mm: number | undefined) =>
                  mm === undefined
                    ? { value: '\u2013', unit: '' }
                    : lengthFigure(mm, units, units === 'metric');
                return (
                  <tr key={p.panel.id} className="border-b border-scribe/60">
                    <th scope="row" className="py-1.5 pr-2 text-left font-normal">
                      {p.panel.mark} {p.panel.name}
                    </th>
                    <td className="pr-2 text-ink2">{sheetName(p.sheet)}</td>
                    <td className="pr-2 font-semibold">{sheetName(r)}</td>
                    <td className="pr-2 text-right">
                      <Fig of={massFigure(r.massKg, units)} />
                    </td>
                    <td className="pr-2 text-right">
                      <Fig of={size(r.struck.gapMm)} />
                    </td>
                    <td className="pr-2 text-right">
                      <Fig of={size(r.struck.dentMm)} />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <div className="mt-3 flex flex-wrap gap-2">
            <Button look="strong" onClick={accept}>
              Take it into build {facts.build.id}
            </Button>
            <Button onClick={() => dispatch(buildCopied(facts.build.id))}>
              Copy build {facts.build.id} first
            </Button>
          </div>
        </section>
      ) : (
        <p role="status" className="mt-3 border-l-[6px] border-marker bg-markersoft px-3 py-2">
          {stuck.length > 0
            ? `No sheet struck so far keeps the limits for ${stuck.map(p => `plate ${p.panel.mark}`).join(', ')}: ${whatStops(facts, ladders[facts.panels.indexOf(stuck[0] as (typeof stuck)[number])] ?? [], limits)}.`
            : ladder.waiting === 0
              ? 'Every plate has a sheet that suits it, but together they break the budget or the number of sheets.'
              : 'The sheets are being struck …'}
        </p>
      )}
    </div>
  );
}

/** What stops the sheet that comes nearest: the one that breaks the fewest limits. */
function whatStops(facts: Facts, rungs: readonly StruckRung[], limits: Parameters<typeof breaks>[2]): string {
  const [nearest] = rungs
    .map(r => ({ r, wrong: breaks(facts, r, limits) }))
    .sort((a, b) => a.wrong.length - b.wrong.length || a.r.massKg - b.r.massKg);
  return nearest
    ? `${sheetName(nearest.r)} comes nearest and breaks ${nearest.wrong.join(' and ')}`
    : 'none has been struck';
}
