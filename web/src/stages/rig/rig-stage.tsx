import { addHole, addPart, type PlanDocument } from '@plate-fold/core/plan';
import { Plus } from 'lucide-react';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { DrawLayer } from '../../picture/draw-layer';
import { PickLayer } from '../../picture/pick-layer';
import { Bench, Pannable, ZoomButtons } from '../../shared/bench';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { TAB } from '../../ui/tab-style';
import { AddEntry, type Adding, lastOf, rounded } from './add-entry';
import { EntryCard } from './entry-card';
import { MeasuringSheet } from './measuring-sheet';
import { RigCard } from './rig-card';
import { type Chosen, RigMap } from './rig-map';
import { RIG_TABLES } from './rig-tables';
import { SurveyTab } from './survey-tab';
import { TableView } from './table-view';

const TABS_HEIGHT = 45;

/** Rig: measured with a tape, corrected on the map and in tables, with its options. */
export function RigStage() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const [chosen, setChosen] = useState<Chosen>();
  const [tab, setTab] = useState('measure');
  const run = useRun();
  const [asking, setAsking] = useState<'part' | 'hole'>();
  const [adding, setAdding] = useState<Adding>();
  const placed = (after: PlanDocument | false): void => {
    if (!adding || !after) return;
    setAdding(undefined);
    setChosen(lastOf(after, adding.what));
  };
  const there =
    chosen && (facts.document.rig[chosen.list] as readonly { id: string }[]).some(e => e.id === chosen.id)
      ? chosen
      : undefined;
  return (
    <Bench
      asideName={there ? 'Chosen on the map' : 'The vehicle'}
      work={(sheet, height) => (
        <Tabs.Root
          value={tab}
          onValueChange={setTab}
          className="flex flex-col max-desk:h-auto!"
          style={{ height }}
        >
          <Tabs.List
            aria-label="The vehicle"
            className="flex shrink-0 overflow-x-auto border-b border-scribe bg-sheet"
          >
            <Tabs.Trigger value="measure" className={`shrink-0 ${TAB}`}>
              Measure
            </Tabs.Trigger>
            <Tabs.Trigger value="map" className={`shrink-0 ${TAB}`}>
              Map
            </Tabs.Trigger>
            <Tabs.Trigger value="survey" className={`shrink-0 ${TAB}`}>
              Survey
            </Tabs.Trigger>
            {RIG_TABLES.map(t => (
              <Tabs.Trigger key={t.list} value={t.list} className={`shrink-0 ${TAB}`}>
                {t.tab}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="measure" className="flex min-h-0 flex-1">
            <MeasuringSheet />
          </Tabs.Content>
          <Tabs.Content value="survey" className="flex min-h-0 flex-1">
            <SurveyTab facts={facts} height={height - TABS_HEIGHT} />
          </Tabs.Content>
          <Tabs.Content value="map">
            <Pannable sheet={sheet}>
              <RigMap
                facts={facts}
                scale={sheet.scale}
                height={Math.max(240, height - TABS_HEIGHT)}
                units={units}
                chosen={there}
                onChoose={setChosen}
              >
                {adding?.what === 'part' && (
                  <DrawLayer
                    scale={sheet.scale}
                    height={Math.max(240, height - TABS_HEIGHT)}
                    units={units}
                    onDrawn={o => placed(run(addPart, { ...adding, footprint: rounded(o) }))}
                  />
                )}
                {adding?.what === 'hole' && (
                  <PickLayer
                    scale={sheet.scale}
                    height={Math.max(240, height - TABS_HEIGHT)}
                    holes={[]}
                    onPick={at => placed(run(addHole, { ...adding, at }))}
                  />
                )}
              </RigMap>
              <div className="absolute top-2 left-2 flex items-center gap-2">
                {adding ? (
                  <p role="status" className="flex items-center gap-2 rounded-edge bg-paper px-3 text-body">
                    {adding.what === 'part' ? 'Draw its outline.' : 'Tap the place of the hole.'}
                    <Button onClick={() => setAdding(undefined)}>Cancel</Button>
                  </p>
                ) : (
                  <>
                    <Button onClick={() => setAsking('part')}>
                      <Plus size={16} aria-hidden="true" /> Add a part
                    </Button>
                    <Button onClick={() => setAsking('hole')}>
                      <Plus size={16} aria-hidden="true" /> Add a hole
                    </Button>
                  </>
                )}
              </div>
              <ZoomButtons sheet={sheet} />
            </Pannable>
          </Tabs.Content>
          {RIG_TABLES.map(t => (
            <Tabs.Content key={t.list} value={t.list} className="flex min-h-0 flex-1">
              <TableView
                of={t}
                onAdd={
                  t.list === 'components'
                    ? () => setAsking('part')
                    : t.list === 'mounts'
                      ? () => setAsking('hole')
                      : undefined
                }
              />
            </Tabs.Content>
          ))}
          <AddEntry
            key={asking}
            what={asking}
            doc={facts.document}
            units={units}
            onClose={() => setAsking(undefined)}
            onPlace={a => {
              setAsking(undefined);
              setAdding(a);
              setTab('map');
            }}
          />
        </Tabs.Root>
      )}
      aside={
        there && tab === 'map' ? (
          <EntryCard key={`${there.list} ${there.id}`} chosen={there} onClose={() => setChosen(undefined)} />
        ) : (
          <RigCard />
        )
      }
    />
  );
}
