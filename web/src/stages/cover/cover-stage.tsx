import { Bench, Pannable, ZoomButtons } from '../../app/bench';
import { useFacts } from '../../app/derived';
import { useApp, useDo } from '../../app/store';
import { jointSelected, panelSelected } from '../../app/view-slice';
import { UndersideMap } from '../../picture/map';
import { PlateStrip, stripHeight } from '../../picture/plate-strip';
import { PlateCard } from './plate-card';
import { SetCard } from './set-card';

/** Cover: what lies under what, seen from below; the chosen plate's sheet at the right. */
export function CoverStage() {
  const facts = useFacts();
  const dispatch = useDo();
  const { panel, joint, units } = useApp(s => s.view);
  const chosen = facts.panels.find(p => p.panel.id === panel);
  return (
    <Bench
      asideName={chosen ? 'Chosen plate' : 'The whole set'}
      work={(sheet, height) => {
        const strip = stripHeight(facts, sheet.scale);
        const mapHeight = Math.max(200, height - strip - 1);
        return (
          <>
            <Pannable sheet={sheet}>
              <UndersideMap
                facts={facts}
                scale={sheet.scale}
                height={mapHeight}
                units={units}
                panel={panel}
                joint={joint}
                onPanel={id => dispatch(panelSelected(id))}
                onJoint={id => dispatch(jointSelected(id))}
              />
              <ZoomButtons sheet={sheet} />
            </Pannable>
            <div className="border-t border-scribe">
              <PlateStrip
                facts={facts}
                scale={sheet.scale}
                units={units}
                panel={panel}
                onPanel={id => dispatch(panelSelected(id))}
              />
            </div>
          </>
        );
      }}
      aside={chosen ? <PlateCard key={chosen.panel.id} folded={chosen} /> : <SetCard />}
    />
  );
}
