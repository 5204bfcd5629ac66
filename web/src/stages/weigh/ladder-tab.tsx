import { paretoEdge, type StruckRung, together } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { resheeted, setSheets } from '@plate-fold/core/plan';
import { lazy, Suspense, useMemo, useState } from 'react';
import { StockChoice } from '../../shared/stock-choice';
import { useRun } from '../../state/commands/run';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { panelSelected } from '../../state/view-slice';
import { Chips } from '../../ui/chips';
import { Progress } from './ladder-progress';
import { LadderTable } from './ladder-table';
import { type Sheet, sameSheet, struckOf } from './rungs';
import { type KnownRung, useLadder } from './use-ladder';

const LadderChart = lazy(() => import('./ladder-chart'));

/** The rungs that every plate has an answer for, as one. */
function allTogether(known: ReadonlyMap<string, readonly KnownRung[]>): readonly KnownRung[] {
  const [first = [], ...others] = [...known.values()];
  return first.map(r => {
    const same = [r, ...others.flatMap(l => l.find(x => x.id === r.id) ?? [])];
    const struck = struckOf(same);
    const whole = together(struck as readonly StruckRung[]);
    const against = [...new Set(same.flatMap(x => x.against))];
    const sum = (of: (x: KnownRung) => number): number => same.reduce((s, x) => s + of(x), 0);
    const one = { ...r, against, massKg: sum(x => x.massKg), cost: sum(x => x.cost) };
    return whole && struck.length === known.size
      ? { ...one, heaviestKg: whole.heaviestKg ?? 0, answer: { ok: true, value: whole.struck } }
      : (({ answer: _, ...rest }) => rest)(one);
  });
}

/** Every sheet of the catalog for one plate or for all: mass against gap left, and the same as a table. */
export function LadderTab({ facts }: { facts: Facts }) {
  const run = useRun();
  const dispatch = useAppDispatch();
  const { units, theme, panel, stock } = useAppSelector(s => s.view);
  const [all, setAll] = useState(false);
  const own = facts.plates.find(p => p.panel.id === panel) ?? facts.plates[0];
  const id = own?.panel.id;
  const panels = useMemo(
    () => (all ? facts.plates.map(p => p.panel.id) : id === undefined ? [] : [id]),
    [all, id, facts.plates],
  );
  const ladder = useLadder(facts, panels, { units, stock });
  const rungs = useMemo(
    () => (all ? allTogether(ladder.known) : (ladder.known.get(id ?? '') ?? [])),
    [all, id, ladder.known],
  );
  const struck = useMemo(() => struckOf(rungs), [rungs]);
  const edge = useMemo(
    () => new Set(paretoEdge(struck.filter(r => r.struck.reached >= 1)).map(r => r.id)),
    [struck],
  );
  if (!own || id === undefined) return <p className="p-4">There is no plate yet.</p>;
  const now: Sheet | undefined =
    !all || facts.plates.every(p => sameSheet(p.sheet, own.sheet)) ? own.sheet : undefined;
  const take = (r: KnownRung): void => {
    const { sheets } = facts.build;
    const next = panels.flatMap(p => {
      const old = sheets[p];
      return old ? [[p, resheeted(old, r)] as const] : [];
    });
    run(setSheets, { build: facts.build.id, sheets: Object.fromEntries(next) });
  };
  return (
    <div className="p-3">
      <div className="flex flex-wrap items-center gap-3">
        <Chips
          label="Plate"
          value={all ? '' : id}
          choices={[
            ...facts.plates.map(p => [p.panel.id, `${p.panel.mark} ${p.panel.name}`] as const),
            ['', 'same sheet on all plates'] as const,
          ]}
          onChoose={p => {
            setAll(p === '');
            if (p !== '') dispatch(panelSelected(p));
          }}
        />
        <span className="flex-1" />
        <StockChoice />
        <Progress ladder={ladder} />
      </div>
      <p className="mt-1 text-small text-ink2">
        Every sheet of the catalog for {all ? 'all plates' : `plate ${own.panel.mark}`}, struck with half the
        heavier axle at the worst spot of the current plate. Best trade-offs: nothing lighter leaves as much
        clearance. Sheets thinner than one that collapses or hits are skipped until you ask. Estimates;{' '}
        {facts.weight.rates.note}.
      </p>
      {struck.length > 0 && (
        <Suspense fallback={<div className="h-80" />}>
          <LadderChart
            facts={facts}
            struck={struck}
            edge={edge}
            units={units}
            theme={theme}
            now={now}
            of={all ? 'all plates' : 'the plate'}
            onTake={take}
          />
        </Suspense>
      )}
      <LadderTable facts={facts} rungs={rungs} edge={edge} units={units} now={now} onTake={take} />
    </div>
  );
}
