import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { Bench, Pannable, ZoomButtons } from '../../app/bench';
import { useFacts } from '../../app/derived';
import { useApp } from '../../app/store';
import { TAB } from '../../ui/tab-style';
import { EntryCard } from './entry-card';
import { MeasuringSheet } from './measuring-sheet';
import { RigCard } from './rig-card';
import { type Chosen, RigMap } from './rig-map';
import { RIG_TABLES } from './rig-tables';
import { TableView } from './table-view';

const TABS_HEIGHT = 45;

/** Rig: measured with a tape, corrected on the map and in tables, with its options. */
export function RigStage() {
  const facts = useFacts();
  const units = useApp(s => s.view.units);
  const [chosen, setChosen] = useState<Chosen>();
  const [tab, setTab] = useState('measure');
  const there =
    chosen && (facts.document.rig[chosen.list] as readonly { id: string }[]).some(e => e.id === chosen.id)
      ? chosen
      : undefined;
  return (
    <Bench
      asideName={there ? 'Chosen on the map' : 'The rig'}
      work={(sheet, height) => (
        <Tabs.Root
          value={tab}
          onValueChange={setTab}
          className="flex flex-col max-desk:h-auto!"
          style={{ height }}
        >
          <Tabs.List
            aria-label="The rig"
            className="flex shrink-0 overflow-x-auto border-b border-scribe bg-sheet"
          >
            <Tabs.Trigger value="measure" className={`shrink-0 ${TAB}`}>
              Measure
            </Tabs.Trigger>
            <Tabs.Trigger value="map" className={`shrink-0 ${TAB}`}>
              Map
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
          <Tabs.Content value="map">
            <Pannable sheet={sheet}>
              <RigMap
                facts={facts}
                scale={sheet.scale}
                height={Math.max(240, height - TABS_HEIGHT)}
                units={units}
                chosen={there}
                onChoose={setChosen}
              />
              <ZoomButtons sheet={sheet} />
            </Pannable>
          </Tabs.Content>
          {RIG_TABLES.map(t => (
            <Tabs.Content key={t.list} value={t.list} className="flex min-h-0 flex-1">
              <TableView of={t} />
            </Tabs.Content>
          ))}
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
