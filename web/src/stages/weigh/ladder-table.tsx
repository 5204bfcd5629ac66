import { breaks, sheetLimits } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import type { StrikeAnswer } from '@plate-fold/core/strike';
import { type Figure, fixed, lengthFigure, massFigure, type UnitSystem } from '@plate-fold/core/units';
import { useMemo } from 'react';
import { Button } from '../../ui/button';
import { type Column, DataTable } from '../../ui/data-table';
import { Fig } from '../../ui/figure';
import { sheetName } from '../../ui/names';
import { type Sheet, sameSheet } from './rungs';
import type { KnownRung } from './use-ladder';

/** A rung with what a strike says of it. */
interface Shown {
  readonly r: KnownRung;
  readonly v: StrikeAnswer | undefined;
  readonly wrong: readonly string[];
  /** it is what the plate is made of now */
  readonly mine: boolean;
}

/** What is held against a sheet, or for it. */
function heldAgainst({ r, v, wrong }: Shown, edge: ReadonlySet<string>): string {
  if (r.against[0] !== undefined) return r.against[0];
  if (r.answer?.ok === false) return `No answer: ${r.answer.fault}.`;
  if (!v) return r.left ? 'skipped: a thicker one hits or collapses, or nearly' : 'striking …';
  if (wrong.length > 0) return `breaks ${wrong.join(', ')}`;
  return edge.has(r.id) ? 'best trade-off: nothing lighter leaves as much' : '';
}

/** The rungs of a ladder figure by figure, sorted by any of them. */
export function LadderTable({
  facts,
  rungs,
  edge,
  units,
  now,
  onTake,
}: {
  facts: Facts;
  rungs: readonly KnownRung[];
  edge: ReadonlySet<string>;
  units: UnitSystem;
  now: Sheet | undefined;
  onTake: (r: KnownRung) => void;
}) {
  const rows = useMemo((): readonly Shown[] => {
    const limits = sheetLimits(facts.document.plan.limits);
    return rungs.map(r => {
      const v = r.answer?.ok ? r.answer.value : undefined;
      const wrong = v ? breaks(facts, { ...r, struck: v }, limits) : [];
      return { r, v, wrong, mine: now !== undefined && sameSheet(r, now) };
    });
  }, [facts, rungs, now]);
  const size = (mm: number | undefined): Figure =>
    mm === undefined ? { value: '\u2013', unit: '' } : lengthFigure(mm, units, units === 'metric');
  const columns: readonly Column<Shown>[] = [
    {
      id: 'sheet',
      head: 'Sheet',
      names: true,
      sort: ({ r }) => `${r.material} ${r.thickness.toFixed(3).padStart(8, '0')}`,
      headClass: 'text-left',
      cellClass: 'py-1 text-left font-normal',
      cell: ({ r }) => sheetName(r),
    },
    {
      id: 'mass',
      head: 'Mass',
      sort: ({ r }) => r.massKg,
      cellClass: 'px-1',
      cell: ({ r }) => <Fig of={massFigure(r.massKg, units)} />,
    },
    {
      id: 'gap',
      head: 'Clearance',
      sort: ({ v }) => v && (v.gapMm ?? -v.deflectionMm),
      cellClass: 'px-1',
      cell: ({ v, wrong }) => (
        <Fig of={size(v?.gapMm)} className={wrong.includes('gap') ? 'text-oxide' : ''} />
      ),
    },
    {
      id: 'dent',
      head: 'Dent',
      sort: ({ v }) => v?.dentMm,
      cellClass: 'px-1',
      cell: ({ v }) => <Fig of={size(v?.dentMm)} />,
    },
    {
      id: 'ring',
      head: 'Lowest vibration',
      sort: ({ v }) => v?.ringHz,
      cellClass: 'px-1',
      cell: ({ v }) => <Fig of={v ? { value: fixed(v.ringHz, 0), unit: 'Hz' } : size(undefined)} />,
    },
    {
      id: 'cost',
      head: 'Cost',
      sort: ({ r }) => r.cost,
      cellClass: 'px-1',
      cell: ({ r }) => <Fig of={{ value: fixed(r.cost, 0), unit: '$' }} />,
    },
    {
      id: 'against',
      head: 'Verdict',
      headClass: 'px-2 text-left font-bold',
      cellClass: 'max-w-72 px-2 text-left text-note leading-tight text-ink2',
      cell: s => heldAgainst(s, edge),
    },
    {
      id: 'take',
      head: <span className="sr-only">Use it</span>,
      cellClass: 'w-28 py-0.5',
      cell: ({ r, mine }) =>
        mine ? (
          <span className="text-small">current</span>
        ) : (
          r.against.length === 0 && (
            <Button className="min-h-10 w-full px-2 text-small" onClick={() => onTake(r)}>
              Use it
            </Button>
          )
        ),
    },
  ];
  return (
    <DataTable
      className="mt-2 w-full border-collapse text-body"
      headClass="border-b border-ink text-right"
      caption="Every sheet for this plate"
      columns={columns}
      rows={rows}
      rowKey={({ r }) => r.id}
      rowClass={({ mine }) => `border-b border-scribe/60 text-right ${mine ? 'bg-sheet font-semibold' : ''}`}
      sorted="mass"
    />
  );
}
