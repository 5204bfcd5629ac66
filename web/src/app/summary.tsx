import type { Facts } from '@plate-fold/core/derive';
import { buildOf } from '@plate-fold/core/plan';
import {
  type Figure,
  fixed,
  lengthFigure,
  massFigure,
  signed,
  type UnitSystem,
} from '@plate-fold/core/units';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { selectFindings, selectStruckNow, selectWeights, useFacts } from '../state/derived';
import { useAppDispatch, useAppSelector } from '../state/store';
import type { LeastStruck, StruckState } from '../state/struck-slice';
import { foldTurned } from '../state/view-slice';
import { useNarrow } from '../ui/use-narrow';

interface Entry {
  readonly name: string;
  readonly of: Figure;
  readonly below: string;
  readonly to: string;
  readonly warn?: boolean;
}

const mark = (facts: Facts, id: string | undefined): string =>
  facts.document.plan.panels.find(p => p.id === id)?.mark ?? '';

/** The gap that is nearest to the room its part wants. */
function leastGap(facts: Facts) {
  return facts.gaps
    .map(g => ({ g, part: facts.rig.components.find(c => c.id === g.component) }))
    .filter(x => x.part && !x.part.moves)
    .sort((a, b) => a.g.gapMm - b.g.gapMm)[0];
}

function leastStruck(facts: Facts, units: UnitSystem, least: LeastStruck): Entry {
  const part = facts.rig.components.find(c => c.id === least.component);
  return {
    name: 'Clearance under a strike',
    of: lengthFigure(least.gapMm, units, units === 'metric'),
    below: `${mark(facts, least.panel)} to ${part?.name ?? least.component}`,
    to: 'strike',
    warn: least.gapMm < (part?.keepOut ?? 0),
  };
}

function entries(
  facts: Facts,
  units: UnitSystem,
  against: { name: string; netKg: number } | undefined,
  counts: { stop: number; fix: number; note: number },
  struck: StruckState | undefined,
): readonly Entry[] {
  const { weight, coverage, lowest, lowestBare, lowestBelly, angles, anglesBare, document } = facts;
  const bare = coverage.components.filter(c => c.fraction < 0.5);
  const near = leastGap(facts);
  const { budget } = document.plan.limits;
  const change = angles.breakoverDeg - anglesBare.breakoverDeg;
  const diff = against && massFigure(weight.netKg - against.netKg, units, true);
  return [
    {
      name: 'Net mass',
      of: massFigure(weight.netKg, units, true),
      below: diff && against ? `${diff.value} vs ${against.name}` : document.plan.name,
      to: 'weigh',
    },
    {
      name: 'Covered',
      of: { value: fixed(coverage.fraction * 100, 0), unit: '%' },
      below:
        bare.length > 0
          ? `${bare.length} part${bare.length > 1 ? 's' : ''} bare`
          : `from ahead ${fixed(coverage.fromAheadFraction * 100, 0)} %`,
      to: 'cover',
      warn: bare.length > 0,
    },
    {
      name: 'Lowest point',
      of: lengthFigure(lowest.z, units),
      // what moves with an axle is told apart from the belly
      below: lowestBelly
        ? `${lowest.panel ? `plate ${mark(facts, lowest.panel)}` : 'the axle'}; belly ${lengthFigure(lowestBelly.z, units).value}`
        : lowest.panel
          ? `plate ${mark(facts, lowest.panel)}, bare ${lengthFigure(lowestBare.z, units).value}`
          : 'the vehicle itself',
      to: 'cover',
    },
    struck?.least
      ? leastStruck(facts, units, struck.least)
      : {
          name: 'Clearance at rest',
          of: near ? lengthFigure(near.g.gapMm, units) : { value: '\u2013', unit: '' },
          below: near ? `${mark(facts, near.g.panel)} to ${near.part?.name}` : 'no part over a plate',
          to: 'cover',
          warn: near !== undefined && near.g.gapMm < (near.part?.keepOut ?? 0),
        },
    {
      name: 'Breakover',
      of: { value: fixed(angles.breakoverDeg, 1), unit: '\u00b0' },
      below: `${signed(change, 1)}\u00b0 with armor`,
      to: 'cover',
    },
    {
      name: 'Cost, estimate',
      of: { value: fixed(weight.cost, 0), unit: '$' },
      below:
        budget === undefined
          ? weight.rates.note
          : weight.cost > budget
            ? `${fixed(weight.cost - budget, 0)} over your limit`
            : `${fixed(budget - weight.cost, 0)} under your limit`,
      to: 'weigh',
      warn: budget !== undefined && weight.cost > budget,
    },
    {
      name: 'Findings',
      of: { value: String(counts.stop + counts.fix + counts.note), unit: '' },
      below:
        counts.stop > 0
          ? `${counts.stop} stop, ${counts.fix} fix`
          : `${counts.fix} to fix, ${counts.note} note${counts.note === 1 ? '' : 's'}`,
      to: 'cover',
      warn: counts.stop + counts.fix > 0,
    },
  ];
}

/** The foot of the page: what it all comes to, with the change against the compared build. */
export function Summary() {
  const facts = useFacts();
  const findings = useAppSelector(selectFindings);
  const weights = useAppSelector(selectWeights);
  const { units, against } = useAppSelector(s => s.view);
  const navigate = useNavigate();
  const { planId } = useParams();
  const dispatch = useAppDispatch();
  const fold = `${useLocation().pathname.split('/')[3] ?? ''}/summary`;
  const folded = useAppSelector(s => s.view.folded.includes(fold));
  const line = useNarrow() || folded;
  const beside =
    weights.find(w => w.id === against && w.id !== facts.build.id) ??
    weights.find(w => w.id !== facts.build.id);
  const other = beside && { netKg: beside.netKg, name: buildOf(facts.document.plan, beside.id).name };
  const count = (s: string): number => findings.filter(f => f.severity === s).length;
  const struck = useAppSelector(selectStruckNow);
  const counts = { stop: count('stop'), fix: count('fix'), note: count('note') };
  const list = entries(facts, units, other, counts, struck);
  return (
    <footer
      role="group"
      className={`flex shrink-0 bg-foot text-[#f2f5f7] print:hidden ${line ? 'h-9 max-desk:h-11' : 'h-15'}`}
      aria-label="Summary"
    >
      <div className="flex min-w-0 flex-1 overflow-x-auto">
        {list.map(e => (
          <button
            key={e.name}
            type="button"
            onClick={() => navigate(`/plan/${planId}/${e.to}`)}
            title={e.below}
            className={`flex-1 px-3 text-left leading-tight hover:bg-white/8 ${line ? 'flex items-center gap-1.5 whitespace-nowrap' : 'desk:min-w-[8.2rem] desk:py-1'}`}
          >
            <span className="block text-note text-[#c3ccd3]">{e.name}</span>
            <span
              className={`fig block leading-none whitespace-nowrap ${line ? 'text-title' : 'text-head'} ${e.warn && line ? 'text-[#ffcf33]' : ''}`}
            >
              {e.of.value}
              <span className="ml-1 font-sans text-note text-[#c3ccd3]">{e.of.unit}</span>
            </span>
            <span
              hidden={line}
              className={`truncate text-note ${line ? 'hidden' : 'block'} ${e.warn ? 'text-[#ffcf33]' : 'text-[#c3ccd3]'}`}
            >
              {e.below}
            </span>
          </button>
        ))}
      </div>
      <button
        type="button"
        aria-expanded={!folded}
        aria-label={folded ? 'Show the summary in full' : 'Fold the summary'}
        title={folded ? 'Show the summary in full' : 'Fold the summary to a line'}
        className="grid w-10 shrink-0 place-items-center hover:bg-white/8 max-desk:hidden"
        onClick={() => dispatch(foldTurned(fold))}
      >
        {folded ? <ChevronUp size={17} aria-hidden="true" /> : <ChevronDown size={17} aria-hidden="true" />}
      </button>
    </footer>
  );
}
