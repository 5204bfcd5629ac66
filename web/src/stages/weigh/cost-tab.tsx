import type { Facts } from '@plate-fold/core/derive';
import type { FigureId } from '@plate-fold/core/explain';
import { buildName, type Money, type RateId, setMoney, setOffer, setRate } from '@plate-fold/core/plan';
import { fixed, type UnitSystem } from '@plate-fold/core/units';
import {
  againstRepair,
  type BuildCost,
  type RateLine,
  rateFor,
  rateIn,
  rateKept,
  rateLines,
} from '@plate-fold/core/weigh';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { selectWeights } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { How } from '../../ui/how';
import { MeasureInput } from '../../ui/measure-input';

const MOST = 1e6;

/** Parts of a build's price in the order they are added up. */
const PARTS: readonly (readonly [keyof BuildCost, string, FigureId?])[] = [
  ['sheet', 'Sheet', 'cost-sheet'],
  ['cutting', 'Cutting', 'cost-cutting'],
  ['bending', 'Bending', 'cost-bending'],
  ['finish', 'Finish', 'cost-finish'],
  ['crossbars', 'Crossbars', 'cost-hardware'],
  ['hardware', 'Bolts, nuts, washers', 'cost-hardware'],
  ['shipping', 'Shipping'],
  ['tax', 'Tax'],
];

/** What every build costs, part by part, and what that is held against. */
function Prices({ facts, units }: { facts: Facts; units: UnitSystem }) {
  const run = useRun();
  const weights = useAppSelector(selectWeights);
  const { builds, money } = facts.document.plan;
  const offer = (build: string, price: number, source: string): void => {
    run(setOffer, { build, price, source });
  };
  const crossed = (build: string, part: keyof BuildCost): boolean =>
    ['sheet', 'cutting', 'bending', 'finish'].includes(part) &&
    builds.find(b => b.id === build)?.offer !== undefined;
  return (
    <section aria-label="Price of every build" className="overflow-x-auto">
      <table className="w-full text-body">
        <thead>
          <tr className="border-b-2 border-ink2 text-right">
            <th scope="col" className="w-44 py-1 pr-3 text-left text-note font-normal text-ink2">
              Dollars; {facts.weight.rates.note}
            </th>
            {builds.map(b => (
              <th key={b.id} scope="col" className="min-w-32 px-2 py-1">
                {b.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {PARTS.map(([part, name, how]) => (
            <tr key={part} className="border-b border-scribe/60 text-right">
              <th scope="row" className="py-1 pr-3 text-left font-normal">
                {how ? <How of={how}>{name}</How> : name}
              </th>
              {weights.map(w => (
                <td key={w.id} className={`fig px-2 ${crossed(w.id, part) ? 'text-ink2 line-through' : ''}`}>
                  {fixed(w.costs[part], 2)}
                </td>
              ))}
            </tr>
          ))}
          <tr className="border-b border-scribe/60 align-top">
            <th scope="row" className="py-2 pr-3 text-left font-normal">
              Plates as offered
              <span className="block text-note text-ink2">
                a shop’s or seller’s price instead of making them; 0 is none
              </span>
            </th>
            {builds.map(b => (
              <td key={b.id} className="px-2 py-1.5">
                <MeasureInput
                  label={`Offer for ${buildName(b)}`}
                  hideLabel
                  plain="$"
                  value={b.offer?.price ?? 0}
                  units={units}
                  least={0}
                  most={MOST}
                  onEnter={price => offer(b.id, price, b.offer?.source ?? '')}
                />
                {b.offer && (
                  <SourceInput
                    label={`Who offers ${buildName(b)}`}
                    value={b.offer.source}
                    placeholder="from whom, when"
                    onEnter={source => offer(b.id, b.offer?.price ?? 0, source)}
                  />
                )}
              </td>
            ))}
          </tr>
          <tr className="border-b-2 border-ink2 text-right">
            <th scope="row" className="py-2 pr-3 text-left">
              Total
            </th>
            {weights.map(w => (
              <td key={w.id} className="fig px-2 text-title font-semibold">
                {fixed(w.cost, 2)}
              </td>
            ))}
          </tr>
          {againstRepair(1, money).map(({ what }) => (
            <tr key={what} className="border-b border-scribe/60 text-right">
              <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                Compared with {what}
                <span className="block text-note text-ink2">what a prevented hit is worth is up to you</span>
              </th>
              {weights.map(w => (
                <td key={w.id} className="px-2">
                  <span className="fig">
                    {fixed(againstRepair(w.cost, money).find(x => x.what === what)?.times ?? 0, 2)}
                  </span>{' '}
                  times
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function SourceInput(props: {
  readonly label: string;
  readonly value: string;
  readonly placeholder: string;
  readonly onEnter: (source: string) => void;
}) {
  const [typed, setTyped] = useState<string>();
  const commit = (): void => {
    if (typed !== undefined && typed.trim() !== props.value) props.onEnter(typed.trim());
    setTyped(undefined);
  };
  return (
    <input
      aria-label={props.label}
      value={typed ?? props.value}
      placeholder={props.placeholder}
      maxLength={80}
      onChange={e => setTyped(e.target.value)}
      onBlur={commit}
      onKeyDown={e => e.key === 'Enter' && commit()}
      className="mt-1 min-h-11 w-full min-w-0 rounded-edge border border-scribe bg-paper px-2 placeholder:text-ink2"
    />
  );
}

const EXTRAS: readonly (readonly [keyof Money, string, string])[] = [
  ['shipping', 'Shipping', '$'],
  ['taxPercent', 'Tax on the goods', '%'],
  ['repair', 'A repair without plates', '$'],
  ['deductible', 'Your deductible', '$'],
];

/** Rates with their sources, what comes on top, and every build's price by part. */
export function CostTab({ facts }: { facts: Facts }) {
  const run = useRun();
  const units = useAppSelector(s => s.view.units);
  const { rates, money } = facts.document.plan;
  const enterRate = (line: RateLine, value: number, source: string): void => {
    run(setRate, { rate: line.id, entered: { value, source } });
  };
  const resetRate = (id: RateId): void => {
    run(setRate, { rate: id });
  };
  const enterMoney = (key: keyof Money, value: number): void => {
    run(setMoney, { key, value });
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 p-3">
      <Prices facts={facts} units={units} />
      <section aria-label="Extras and comparison">
        <h3 className="font-bold">Extras and comparison</h3>
        <div className="mt-1 grid grid-cols-2 gap-3 desk:grid-cols-4">
          {EXTRAS.map(([key, name, unit]) => (
            <MeasureInput
              key={key}
              label={`${name} (0: none)`}
              plain={unit}
              value={money?.[key] ?? 0}
              units={units}
              least={0}
              most={key === 'taxPercent' ? 100 : MOST}
              onEnter={v => enterMoney(key, v)}
            />
          ))}
        </div>
        <p className="mt-1 text-small text-ink2">
          Tax covers plates, bars and hardware, not shipping; local rules differ.
        </p>
      </section>
      <section aria-label="Rates" className="overflow-x-auto">
        <h3 className="font-bold">Rates</h3>
        <p className="text-small text-ink2">
          Enter your dealer’s and shop’s prices and where you got them. Anything not entered is an invented
          default.
        </p>
        <table className="mt-1 w-full text-body">
          <thead>
            <tr className="border-b border-ink text-left">
              <th scope="col" className="py-1 pr-3">
                What
              </th>
              <th scope="col" className="w-36 py-1 pr-3">
                Dollars
              </th>
              <th scope="col" className="py-1 pr-3 max-desk:hidden">
                for
              </th>
              <th scope="col" className="py-1 pr-3">
                Source
              </th>
              <th scope="col">
                <span className="sr-only">Back to the default</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rateLines(rates).map(line => (
              <tr key={line.id} className="border-b border-scribe/60">
                <th scope="row" className="py-1 pr-3 text-left font-normal">
                  {line.name}
                  <span className="block text-note text-ink2 desk:hidden">{rateFor(line, units)}</span>
                </th>
                <td className="min-w-28 py-1 pr-3">
                  <MeasureInput
                    label={`${line.name}, dollars`}
                    hideLabel
                    plain="$"
                    value={Number(rateIn(line, line.value, units).toFixed(3))}
                    units={units}
                    least={0}
                    most={MOST}
                    onEnter={v =>
                      enterRate(
                        line,
                        rateKept(line, v, units),
                        line.entered ? (rates?.[line.id]?.source ?? '') : '',
                      )
                    }
                  />
                </td>
                <td className="py-1 pr-3 text-small text-ink2 max-desk:hidden">{rateFor(line, units)}</td>
                <td className="min-w-44 py-1 pr-3">
                  {line.entered ? (
                    <SourceInput
                      label={`Source of ${line.name}`}
                      value={rates?.[line.id]?.source ?? ''}
                      placeholder="from whom, when"
                      onEnter={source => enterRate(line, line.value, source)}
                    />
                  ) : (
                    <span className="text-small text-ink2">{line.source}</span>
                  )}
                </td>
                <td className="w-24 py-1">
                  {line.entered && (
                    <Button
                      className="min-h-11 px-2 text-small"
                      aria-label={`${line.name} back to the default`}
                      onClick={() => resetRate(line.id)}
                    >
                      Default
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </div>
  );
}
