import { type Facts, paretoEdge, withSheet } from '@plate-fold/core';
import { lazy, Suspense, useMemo } from 'react';
import { remedyApplied } from '../../app/plan-slice';
import { useApp, useDo } from '../../app/store';
import { panelSelected } from '../../app/view-slice';
import { Chips } from '../../ui/chips';
import { Progress } from './ladder-progress';
import { LadderTable } from './ladder-table';
import { struckOf } from './rungs';
import { type KnownRung, useLadder } from './use-ladder';

const LadderChart = lazy(() => import('./ladder-chart'));

/** Every sheet of the catalogue for one plate: mass against gap left, and the same as a table. */
export function LadderTab({ facts }: { facts: Facts }) {
  const dispatch = useDo();
  const { units, theme, panel, stock } = useApp(s => s.view);
  const own = facts.panels.find(p => p.panel.id === panel) ?? facts.panels[0];
  const id = own?.panel.id;
  const panels = useMemo(() => (id === undefined ? [] : [id]), [id]);
  const ladder = useLadder(facts, panels, units, stock);
  if (!own || id === undefined) return <p className="p-4">There is no plate yet.</p>;
  const rungs = ladder.known.get(id) ?? [];
  const struck = struckOf(rungs);
  const edge = new Set(paretoEdge(struck.filter(r => r.struck.reached >= 1)).map(r => r.id));
  const take = (r: KnownRung): void => {
    dispatch(remedyApplied(withSheet(facts.document, facts.build.id, id, r)));
  };
  return (
    <div className="p-3">
      <div className="flex flex-wrap items-center gap-3">
        <Chips
          label="Plate"
          value={id}
          choices={facts.panels.map(p => [p.panel.id, `${p.panel.mark} ${p.panel.name}`] as const)}
          onChoose={p => dispatch(panelSelected(p))}
        />
        <span className="flex-1" />
        <Progress ladder={ladder} />
      </div>
      <p className="mt-1 text-[13px] text-ink2">
        Every sheet of the catalogue for plate {own.panel.mark}, struck with half the heavier axle where the
        plate as it is has its worst place. On the edge nothing lighter leaves as much gap. Estimates; prices
        are invented defaults.
      </p>
      {struck.length > 0 && (
        <Suspense fallback={<div className="h-80" />}>
          <LadderChart
            facts={facts}
            struck={struck}
            edge={edge}
            units={units}
            theme={theme}
            now={own.sheet}
            onTake={take}
          />
        </Suspense>
      )}
      <LadderTable facts={facts} rungs={rungs} edge={edge} units={units} now={own.sheet} onTake={take} />
    </div>
  );
}
