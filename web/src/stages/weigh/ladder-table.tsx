import { breaks, sheetLimits } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { type Figure, fixed, lengthFigure, massFigure, type UnitSystem } from '@plate-fold/core/units';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Fig } from '../../ui/figure';
import { sheetName } from '../../ui/names';
import { type Sheet, sameSheet } from './rungs';
import type { KnownRung } from './use-ladder';

type SortKey = 'sheet' | 'mass' | 'gap' | 'dent' | 'ring' | 'cost';

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
  const [by, setBy] = useState<{ key: SortKey; down: boolean }>({ key: 'mass', down: false });
  const limits = sheetLimits(facts.document.plan.limits);
  const value = (r: KnownRung): number | string => {
    const v = r.answer?.ok ? r.answer.value : undefined;
    return {
      sheet: `${r.material} ${r.thickness.toFixed(3).padStart(8, '0')}`,
      mass: r.massKg,
      gap: v ? (v.gapMm ?? -v.deflectionMm) : -1e9,
      dent: v?.dentMm ?? 1e9,
      ring: v?.ringHz ?? -1e9,
      cost: r.cost,
    }[by.key];
  };
  const sorted = [...rungs].sort((a, b) => {
    const [x, y] = [value(a), value(b)];
    return (x < y ? -1 : x > y ? 1 : 0) * (by.down ? -1 : 1);
  });
  const size = (mm: number | undefined): Figure =>
    mm === undefined ? { value: '\u2013', unit: '' } : lengthFigure(mm, units, units === 'metric');
  const head: readonly (readonly [SortKey, string])[] = [
    ['sheet', 'Sheet'],
    ['mass', 'Mass'],
    ['gap', 'Gap left'],
    ['dent', 'Dent'],
    ['ring', 'Rings'],
    ['cost', 'Cost'],
  ];
  return (
    <table className="mt-2 w-full border-collapse text-[14px]">
      <caption className="sr-only">Every sheet for this plate</caption>
      <thead>
        <tr className="border-b border-ink text-right">
          {head.map(([key, name]) => (
            <th
              key={key}
              scope="col"
              aria-sort={by.key === key ? (by.down ? 'descending' : 'ascending') : 'none'}
              className={key === 'sheet' ? 'text-left' : ''}
            >
              <button
                type="button"
                className="min-h-11 px-1 font-bold hover:text-fluid"
                onClick={() => setBy(b => ({ key, down: b.key === key && !b.down }))}
              >
                {name}
                {by.key === key && <span aria-hidden="true">{by.down ? ' ▼' : ' ▲'}</span>}
              </button>
            </th>
          ))}
          <th scope="col" className="px-2 text-left font-bold">
            Held against
          </th>
          <th scope="col">
            <span className="sr-only">Take it</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sorted.map(r => {
          const v = r.answer?.ok ? r.answer.value : undefined;
          const wrong = v ? breaks(facts, { ...r, struck: v }, limits) : [];
          const mine = now !== undefined && sameSheet(r, now);
          const said =
            r.against[0] ??
            (r.answer?.ok === false
              ? `No answer: ${r.answer.fault}.`
              : v
                ? wrong.length > 0
                  ? `breaks ${wrong.join(', ')}`
                  : edge.has(r.id)
                    ? 'on the edge: nothing lighter leaves as much'
                    : ''
                : r.left
                  ? 'not struck: one thicker hits or gives way, or nearly'
                  : 'being struck …');
          return (
            <tr
              key={r.id}
              className={`border-b border-scribe/60 text-right ${mine ? 'bg-sheet font-semibold' : ''}`}
            >
              <th scope="row" className="py-1 text-left font-normal">
                {sheetName(r)}
              </th>
              <td className="px-1">
                <Fig of={massFigure(r.massKg, units)} />
              </td>
              <td className="px-1">
                <Fig of={size(v?.gapMm)} className={wrong.includes('gap') ? 'text-oxide' : ''} />
              </td>
              <td className="px-1">
                <Fig of={size(v?.dentMm)} />
              </td>
              <td className="px-1">
                <Fig of={v ? { value: fixed(v.ringHz, 0), unit: 'Hz' } : size(undefined)} />
              </td>
              <td className="px-1">
                <Fig of={{ value: fixed(r.cost, 0), unit: '$' }} />
              </td>
              <td className="max-w-72 px-2 text-left text-[12.5px] leading-tight text-ink2">{said}</td>
              <td className="w-28 py-0.5">
                {mine ? (
                  <span className="text-[13px]">as it is</span>
                ) : (
                  r.against.length === 0 && (
                    <Button className="min-h-10 w-full px-2 text-[13px]" onClick={() => onTake(r)}>
                      Take it
                    </Button>
                  )
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
