import {
  type Beside,
  type BestBuild,
  breaks,
  cheaper,
  type Goal,
  roomLeft,
  type SheetLimits,
  type StruckRung,
  stops,
  valueFor,
} from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import type { FigureId } from '@plate-fold/core/explain';
import { buildName, copyBuild, resheeted, setSheets } from '@plate-fold/core/plan';
import {
  type Figure,
  figureText,
  fixed,
  lengthFigure,
  massFigure,
  type UnitSystem,
} from '@plate-fold/core/units';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { Fig } from '../../ui/figure';
import { How } from '../../ui/how';
import { sheetName } from '../../ui/names';
import { GOAL_NAMES } from './best-limits';

const BETTER: Readonly<Record<Goal, string>> = {
  mass: 'lighter',
  cost: 'cheaper',
  gap: 'with more clearance',
  stiff: 'stiffer',
};
const HEADS: readonly (readonly [string, FigureId?])[] = [
  ['Plate'],
  ['Now'],
  ['Best'],
  ['Mass', 'plate-mass'],
  ['Clearance', 'gap-struck'],
  ['Dent', 'dent'],
];
const NONE: Figure = { value: '\u2013', unit: '' };

/** The best build plate by plate: what it is, what stops it from being better, and what one step cheaper costs in gap. */
export function BestAnswer({
  facts,
  units,
  goal,
  best,
  ladders,
  limits,
  keeps,
}: {
  facts: Facts;
  units: UnitSystem;
  goal: Goal;
  best: BestBuild<StruckRung>;
  ladders: readonly (readonly StruckRung[])[];
  limits: SheetLimits;
  /** every plate keeps every limit */
  keeps: boolean;
}) {
  const run = useRun();
  const blocked = stops(facts, ladders, best.rungs, valueFor(goal), limits);
  const saving = cheaper(facts, ladders, best.rungs, limits);
  // one edit, so that one undo takes it back
  const accept = (): void => {
    run(setSheets, {
      build: facts.build.id,
      sheets: Object.fromEntries(
        facts.plates.map((p, i) => [p.panel.id, resheeted(p.sheet, best.rungs[i] as StruckRung)]),
      ),
    });
  };
  const size = (mm: number | undefined): Figure =>
    mm === undefined ? NONE : lengthFigure(mm, units, units === 'metric');
  return (
    <section aria-label="Best build" className="mt-3 rounded-edge border-2 border-fluid bg-paper p-3">
      <h3 className="text-title font-bold">
        {keeps
          ? `The ${GOAL_NAMES[goal]} that meets every limit`
          : `No build meets every limit; the ${GOAL_NAMES[goal]} closest to them`}
        : <Fig of={massFigure(best.massKg, units)} /> of plates, ${fixed(best.cost, 0)}
      </h3>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it */}
      <div className="overflow-x-auto" role="region" aria-label="The best sheet of each plate" tabIndex={0}>
        <table className="mt-2 w-full text-body">
          <thead>
            <tr className="border-b border-ink text-left align-bottom">
              {HEADS.map(([h, how], i) => (
                <th
                  key={h}
                  scope="col"
                  className={`py-1 pr-3 font-bold ${i > 2 && i < 6 ? 'text-right' : ''}`}
                >
                  {how ? <How of={how}>{h}</How> : h}
                </th>
              ))}
              <th scope="col" className="py-1 pr-3 font-bold">
                The next {BETTER[goal]}
              </th>
              <th scope="col" className="py-1 font-bold">
                One step cheaper
              </th>
            </tr>
          </thead>
          <tbody>
            {facts.plates.map((p, i) => {
              const r = best.rungs[i];
              if (!r) return null;
              const { id } = p.panel;
              const broken = breaks(facts, r, limits);
              return (
                <tr key={id} className="border-b border-scribe/60 align-top">
                  <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                    {p.panel.mark} {p.panel.name}
                  </th>
                  <td className="py-1.5 pr-3 text-ink2">{sheetName(p.sheet)}</td>
                  <td className="py-1.5 pr-3">
                    <b>{sheetName(r)}</b>
                    {broken.length > 0 && (
                      <span className="block text-small text-oxide">breaks {broken.join(', ')}</span>
                    )}
                  </td>
                  <td className="py-1.5 pr-3 text-right">
                    <Fig of={massFigure(r.massKg, units)} />
                  </td>
                  <td className="py-1.5 pr-3 text-right">
                    <Fig of={size(r.struck.gapMm)} />
                  </td>
                  <td className="py-1.5 pr-3 text-right">
                    <Fig of={size(r.struck.dentMm)} />
                  </td>
                  <td className="py-1.5 pr-3 text-small leading-snug text-ink2">
                    {stopWords(blocked.find(b => b.panel === id))}
                  </td>
                  <td className="py-1.5 text-small leading-snug text-ink2">
                    {savingWords(
                      saving.find(b => b.panel === id),
                      r,
                      units,
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button look="strong" onClick={accept}>
          Use it for {buildName(facts.build)}
        </Button>
        <Button onClick={() => run(copyBuild, { build: facts.build.id })}>
          Duplicate {buildName(facts.build)} first
        </Button>
      </div>
    </section>
  );
}

/** Which limit keeps the next better sheet out. */
function stopWords(b: Beside | undefined): string {
  if (!b) return 'there is none';
  return b.breaks.length > 0
    ? `${sheetName(b.rung)} breaks ${b.breaks.join(', ')}`
    : `${sheetName(b.rung)} fits, but not with the others: budget, total weight or number of sheets`;
}

/** What the next cheaper sheet saves and what that costs in gap (or in give, where nothing is above). */
function savingWords(b: Beside | undefined, best: StruckRung, units: UnitSystem): string {
  if (!b) return 'there is none';
  const change = lengthFigure(roomLeft(b.rung) - roomLeft(best), units, true, true);
  const said = `${sheetName(b.rung)}: saves $${fixed(best.cost - b.rung.cost, 0)}, clearance ${figureText(change)}`;
  return b.breaks.length > 0 ? `${said}; breaks ${b.breaks.join(', ')}` : said;
}
