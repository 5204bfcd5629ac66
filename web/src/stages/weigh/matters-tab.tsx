import { besideBest, type ProfileTerm, profileOf, RUST, TERM_WORDS } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { PRIORITIES, type Priority, rankPriorities } from '@plate-fold/core/plan';
import { type Figure, fixed, loadFigure, massFigure, type UnitSystem } from '@plate-fold/core/units';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { lazy, Suspense } from 'react';
import { useRun } from '../../state/commands/run';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { Fig } from '../../ui/figure';
import { Sortable, SortableRow } from '../../ui/sortable';
import { ShieldTable } from './shield-table';
import { type Column, useColumns } from './use-columns';

const ProfileChart = lazy(() => import('./profile-chart'));

export const PRIORITY_NAMES: Readonly<Record<Priority, string>> = {
  weight: 'Weight',
  toughness: 'Toughness',
  quiet: 'Quiet',
  cost: 'Cost',
  corrosion: 'Rust',
  theft: 'Theft',
};

const NOT_KNOWN: Figure = { value: '\u2013', unit: '' };

/** A term's figure as it is read. */
function figureOf(t: ProfileTerm, units: UnitSystem): Figure {
  if (t.value === undefined) return NOT_KNOWN;
  switch (t.of) {
    case 'weight':
      return massFigure(t.value, units, t.value > 0);
    case 'toughness': {
      const f = loadFigure(t.value, units);
      return t.atLeast ? { ...f, value: `\u2265 ${f.value}` } : f;
    }
    case 'quiet':
      return { value: fixed(t.value, 0), unit: 'Hz' };
    case 'cost':
      return { value: fixed(t.value, 0), unit: '$' };
    case 'corrosion':
      return { value: `${t.value} of ${RUST.length}`, unit: '' };
    case 'theft':
      return { value: fixed(100 * t.value, 0), unit: '%' };
  }
}

/** The plate or part that decides a term. */
function decidedBy(t: ProfileTerm, { facts }: Column): string {
  const plate = facts.panels.find(p => p.panel.id === t.by);
  if (plate) return `plate ${plate.panel.mark}`;
  return facts.rig.components.find(c => c.id === t.by)?.name ?? '';
}

/** What matters to the owner, in order, and how the builds stand in each of it: no single score. */
export function MattersTab({ facts }: { facts: Facts }) {
  const run = useRun();
  const { units, theme } = useAppSelector(s => s.view);
  const { columns, strikes } = useColumns();
  const ranked = facts.document.plan.priorities ?? PRIORITIES;
  const order = [...ranked, ...PRIORITIES.filter(p => !ranked.includes(p))];
  const profiles = columns.map(c => profileOf(c.facts, c.extra?.shields ?? [], c.struck));
  const share = (p: Priority, i: number): number | undefined => {
    const own = profiles[i];
    return (
      own &&
      besideBest(
        own[p],
        profiles.map(x => x[p]),
      )
    );
  };
  const move = (p: Priority, by: -1 | 1): void => {
    const at = order.indexOf(p);
    const next = [...order];
    next.splice(at, 1);
    next.splice(at + by, 0, p);
    run(rankPriorities, { priorities: next });
  };
  const busy = strikes.waiting > 0 && !strikes.stopped;
  return (
    <div className="p-3">
      <p className="text-small text-ink2">
        Put what matters most to you first. Each build is shown against the best one in each row. There is no
        single score: only you can say what a pound is worth in dollars.
      </p>
      {strikes.waiting > 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-3 text-body">
          <span role="status">
            {busy
              ? `striking, ${strikes.waiting} plates to go …`
              : 'Toughness and quietness need every plate struck.'}
          </span>
          <Button onClick={busy ? strikes.stop : strikes.goOn}>{busy ? 'Stop' : 'Strike every build'}</Button>
        </p>
      )}
      <Suspense fallback={<div className="h-72" />}>
        <ProfileChart
          names={order.map(p => PRIORITY_NAMES[p])}
          builds={columns.map((c, i) => ({
            id: c.facts.build.id,
            name: c.facts.build.name,
            shares: order.map(p => share(p, i)),
          }))}
          theme={theme}
        />
      </Suspense>
      <Sortable order={order} onOrder={priorities => run(rankPriorities, { priorities })}>
        <div className="overflow-x-auto">
          <table className="mt-2 w-full text-body">
            <caption className="sr-only">Builds by what matters, most important first</caption>
            <thead>
              <tr className="border-b border-ink text-left">
                <th scope="col" className="w-64 py-1 pr-3">
                  What matters, most important first
                </th>
                {columns.map(c => (
                  <th key={c.facts.build.id} scope="col" className="min-w-28 px-2 py-1 text-right">
                    {c.facts.build.name}
                  </th>
                ))}
                <th scope="col" className="min-w-56 px-2 py-1">
                  How this was computed
                </th>
              </tr>
            </thead>
            <tbody>
              {order.map((p, at) => (
                <SortableRow
                  key={p}
                  id={p}
                  name={`Move ${PRIORITY_NAMES[p]}`}
                  className="border-b border-scribe/60 align-top"
                >
                  {handle => (
                    <>
                      <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                        <div className="flex items-center gap-1.5">
                          {handle}
                          <Button
                            className="min-h-11 min-w-11 px-2"
                            aria-label={`${PRIORITY_NAMES[p]} matters more`}
                            disabled={at === 0}
                            onClick={() => move(p, -1)}
                          >
                            <ArrowUp size={16} aria-hidden="true" />
                          </Button>
                          <Button
                            className="min-h-11 min-w-11 px-2"
                            aria-label={`${PRIORITY_NAMES[p]} matters less`}
                            disabled={at === order.length - 1}
                            onClick={() => move(p, 1)}
                          >
                            <ArrowDown size={16} aria-hidden="true" />
                          </Button>
                          <span className="ml-1 leading-tight">
                            <b>
                              {at + 1} {PRIORITY_NAMES[p]}
                            </b>
                            <span className="block text-note text-ink2">{TERM_WORDS[p].what}</span>
                          </span>
                        </div>
                      </th>
                      {columns.map((c, i) => {
                        const term = profiles[i]?.[p];
                        if (!term) return null;
                        const of = share(p, i);
                        return (
                          <td key={c.facts.build.id} className="px-2 py-1.5 text-right">
                            <Fig
                              of={figureOf(term, units)}
                              className={of === 1 ? 'text-title font-semibold' : ''}
                            />
                            <div className="text-note text-ink2">
                              {[of === 1 ? 'best' : '', decidedBy(term, c)].filter(Boolean).join(', ')}
                            </div>
                          </td>
                        );
                      })}
                      <td className="px-2 py-1.5 text-note leading-snug text-ink2">{TERM_WORDS[p].how}</td>
                    </>
                  )}
                </SortableRow>
              ))}
            </tbody>
          </table>
        </div>
      </Sortable>
      <ShieldTable columns={columns} units={units} />
    </div>
  );
}
