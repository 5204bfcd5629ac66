import { bestBuild, type Goal, nearest, sheetLimits, valueFor } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { fixed, formatLength, formatMass, type UnitSystem } from '@plate-fold/core/units';
import { leftForPlates } from '@plate-fold/core/weigh';
import { useMemo, useState } from 'react';
import { StockChoice } from '../../shared/stock-choice';
import { useAppSelector } from '../../state/store';
import { BestAnswer } from './best-answer';
import { BestLimits } from './best-limits';
import { Progress } from './ladder-progress';
import { struckOf } from './rungs';
import { useLadder } from './use-ladder';

/** What clearance a strike has to leave, in words. */
const keptGap = (minGap: number | undefined, units: UnitSystem): string =>
  minGap === undefined
    ? 'keeps full clearance at every part'
    : minGap === 0
      ? 'touches no part'
      : `leaves ${formatLength(minGap, units)} to every part`;

/** The best sheet for every plate within limits, searched among what has been struck so far. */
export function BestTab({ facts }: { facts: Facts }) {
  const { units, stock } = useAppSelector(s => s.view);
  const panels = useMemo(() => facts.plates.map(p => p.panel.id), [facts.plates]);
  const [goal, setGoal] = useState<Goal>('mass');
  const { plan } = facts.document;
  const { budget, maxSheets, maxTotalKg } = plan.limits;
  const limits = sheetLimits(plan.limits);
  const ladder = useLadder(facts, panels, { units, stock, materials: plan.limits.materials });
  const ladders = panels.map(p => struckOf(ladder.known.get(p) ?? []));
  const near = ladders.map(l => nearest(facts, l, limits));
  const best = bestBuild(
    near.map(n => n.rungs),
    valueFor(goal),
    {
      // no sheet changes the hardware much: what it costs is taken off first
      ...(budget === undefined ? {} : { budget: leftForPlates(budget, facts.weight.costs, plan.money) }),
      ...(maxSheets === undefined ? {} : { mostSheets: maxSheets }),
      ...(maxTotalKg === undefined ? {} : { mostKg: maxTotalKg }),
    },
  );
  const stuck = facts.plates.filter((_, i) => (near[i]?.broken ?? 0) > 0);
  return (
    <div className="p-3">
      <BestLimits facts={facts} units={units} goal={goal} onGoal={setGoal} />
      <div className="mt-1 flex flex-wrap items-center gap-3">
        <StockChoice />
        <span className="flex-1" />
        <Progress ladder={ladder} />
      </div>
      {stuck.length > 0 && (
        <p role="status" className="mt-3 border-l-[6px] border-marker bg-markersoft px-3 py-2">
          No sheet {ladder.waiting === 0 ? 'of the catalog' : 'struck so far'} meets the limits for{' '}
          {stuck.map(p => `plate ${p.panel.mark}`).join(', ')}: the sheet that breaks fewest is used there.
          Add a crossbar, a flange or more room above, or ease a limit.
        </p>
      )}
      {best ? (
        <>
          <BestAnswer
            facts={facts}
            units={units}
            goal={goal}
            best={best}
            ladders={ladders}
            limits={limits}
            keeps={stuck.length === 0}
          />
          <p className="mt-2 max-w-3xl text-small text-ink2">
            Always required: it bends on the chosen brake, {keptGap(plan.limits.minGap, units)} with half the
            heavier axle on a rock, does not collapse, takes the heat,{' '}
            {budget === undefined ? 'no budget is set' : `costs ${fixed(budget, 0)} or less in total`}
            {maxTotalKg === undefined ? '' : `, plates ${formatMass(maxTotalKg, units)} or less together`}. A
            plate’s cost is what making it costs: its sheet by weight, cutting by length and thickness, bends
            by the piece, finish by area; bolts and crossbars
            {budget === undefined ? ' come on top' : ', shipping and tax are kept out of the budget first'}.
            Exact among the sheets struck so far. Estimates; {facts.weight.rates.note}.
          </p>
        </>
      ) : (
        <p role="status" className="mt-3 border-l-[6px] border-marker bg-markersoft px-3 py-2">
          {ladder.waiting === 0
            ? 'Every plate has a sheet, but together they break the budget, the total weight or the number of different sheets.'
            : 'Striking the sheets \u2026'}
        </p>
      )}
    </div>
  );
}
