import type { Vec2 } from '@plate-fold/core/geometry';
import { isBracket } from '@plate-fold/core/plan';
import type { Proposal } from '@plate-fold/core/propose';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useSearchParams } from 'react-router';
import { AngleLines } from '../../picture/angle-lines';
import { DrawLayer, ProposalLayer } from '../../picture/draw-layer';
import { UndersideMap } from '../../picture/map';
import { PickLayer } from '../../picture/pick-layer';
import { PlateStrip, stripHeight } from '../../picture/plate-strip';
import { Bench, Pannable, ScanButton, ZoomButtons } from '../../shared/bench';
import { useGroundScan, useScanHeights } from '../../shared/use-scan';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { jointSelected, panelSelected } from '../../state/view-slice';
import { BarCard } from './bar-card';
import { BarHeight } from './bar-height';
import { BarLayer } from './bar-layer';
import { BracketCard } from './bracket-card';
import { EndHandles } from './end-handles';
import { PlateCard } from './plate-card';
import { ProposeCard } from './propose-card';
import { SetCard } from './set-card';
import { ShapeLayer } from './shape-layer';
import { PlateTools, useAddPlate } from './tools';
import { freeHoles, type Pick, usePick } from './use-pick';

const TOOLS_HEIGHT = 45;

/** Cover: what lies under what, seen from below; plates drawn, shaped and proposed, the chosen one at the right. */
export function CoverStage() {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const { panel, joint, units } = useAppSelector(s => s.view);
  const [mode, setMode] = useState<'shape' | 'draw' | 'propose' | Pick>('shape');
  const [seen, setSeen] = useState(false);
  const { scan } = facts.document.rig;
  const scanned = useScanHeights(facts.document.plan.id, seen ? scan : undefined);
  const laid = useGroundScan(scanned.heights);
  const under = useMemo(
    () => (seen && scan ? { ...laid, ...(scanned.fault ? { fault: scanned.fault } : {}) } : undefined),
    [seen, scan, laid, scanned.fault],
  );
  const [barId, setBarId] = useState<string>();
  const bar = facts.document.plan.crossbars.find(b => b.id === barId);
  const [proposal, setProposal] = useState<Proposal>();
  const addPlate = useAddPlate();
  const chosen = facts.panels.find(p => p.panel.id === panel);
  const startProposing = (): void => {
    setProposal(undefined);
    setMode('propose');
  };
  useHotkeys('p', startProposing);
  // asked for from elsewhere: by the palette
  const [asked, setAsked] = useSearchParams();
  const suggest = asked.has('suggest');
  useEffect(() => {
    if (!suggest) return;
    setProposal(undefined);
    setMode('propose');
    setAsked({}, { replace: true });
  }, [suggest, setAsked]);
  // the same functions from one drawing to the next, so that the map is not drawn anew for them
  const choosePlate = useCallback(
    (id: string): void => {
      setBarId(undefined);
      dispatch(panelSelected(id));
    },
    [dispatch],
  );
  const chooseJoint = useCallback((id: string): void => void dispatch(jointSelected(id)), [dispatch]);
  const chooseBar = (id: string): void => {
    dispatch(panelSelected(undefined));
    setBarId(id);
  };
  const picking = usePick(panel, chooseBar, () => setMode('shape'));
  const reach = (k: number): number => 16 / k;
  return (
    <Bench
      asideName={
        mode === 'propose'
          ? 'Suggest plates'
          : bar
            ? 'Chosen crossbar'
            : chosen
              ? 'Chosen plate'
              : 'The whole set'
      }
      work={(sheet, height) => {
        const strip = stripHeight(facts, sheet.scale);
        const mapHeight = Math.max(200, height - strip - TOOLS_HEIGHT - 1);
        return (
          <>
            <PlateTools
              drawing={mode === 'draw'}
              picking={mode === 'bar' || mode === 'hole' || mode === 'bracket' ? mode : undefined}
              picked={picking.first !== undefined}
              onDraw={on => setMode(on ? 'draw' : 'shape')}
              onPick={what => {
                picking.reset();
                setMode(what ?? 'shape');
              }}
              onPropose={startProposing}
            />
            <Pannable sheet={sheet}>
              <UndersideMap
                facts={facts}
                scale={sheet.scale}
                height={mapHeight}
                units={units}
                panel={panel}
                joint={joint}
                onPanel={choosePlate}
                onJoint={chooseJoint}
                {...(under ? { under } : {})}
              >
                <BarLayer
                  facts={facts}
                  scale={sheet.scale}
                  height={mapHeight}
                  chosen={bar?.id}
                  panel={panel}
                  onChoose={chooseBar}
                  onPanel={choosePlate}
                />
                {mode === 'shape' && chosen && !isBracket(chosen.panel) && !bar && (
                  <ShapeLayer
                    key={chosen.panel.id}
                    facts={facts}
                    panel={chosen.panel}
                    scale={sheet.scale}
                    height={mapHeight}
                    units={units}
                  />
                )}
                {(mode === 'bar' || mode === 'hole' || mode === 'bracket') && (
                  <PickLayer
                    scale={sheet.scale}
                    height={mapHeight}
                    holes={(mode === 'bracket'
                      ? picking.first
                        ? []
                        : freeHoles(facts)
                      : facts.rig.mounts.filter(m => m.condition !== 'blocked')
                    ).map((m): Vec2 => [m.at[0], m.at[1]])}
                    first={picking.first}
                    onPick={at => picking.pick(mode, at, reach(sheet.scale.k))}
                  />
                )}
                {mode === 'draw' && (
                  <DrawLayer
                    scale={sheet.scale}
                    height={mapHeight}
                    units={units}
                    onDrawn={outline => {
                      addPlate(outline, 'new plate');
                      setMode('shape');
                    }}
                  />
                )}
                {mode === 'propose' && proposal && (
                  <ProposalLayer proposal={proposal} scale={sheet.scale} height={mapHeight} />
                )}
              </UndersideMap>
              <ZoomButtons sheet={sheet}>{scan && <ScanButton seen={seen} onSeen={setSeen} />}</ZoomButtons>
            </Pannable>
            <div className="border-t border-scribe bg-sheet">
              <PlateStrip
                facts={facts}
                scale={sheet.scale}
                units={units}
                panel={panel}
                onPanel={choosePlate}
              />
            </div>
          </>
        );
      }}
      sideViewOver={(sheet, Z, zAt) => (
        <>
          {sheet.scale.width > 600 && <AngleLines facts={facts} scale={sheet.scale} Z={Z} />}
          {mode === 'shape' && chosen && !isBracket(chosen.panel) && (
            <EndHandles panel={chosen.panel} scale={sheet.scale} units={units} Z={Z} zAt={zAt} />
          )}
          {bar && <BarHeight bar={bar} scale={sheet.scale} units={units} Z={Z} zAt={zAt} />}
        </>
      )}
      aside={
        mode === 'propose' ? (
          <ProposeCard
            proposal={proposal}
            onProposal={setProposal}
            onClose={() => {
              setProposal(undefined);
              setMode('shape');
            }}
          />
        ) : bar ? (
          <BarCard key={bar.id} bar={bar} onClose={() => setBarId(undefined)} />
        ) : chosen && isBracket(chosen.panel) ? (
          <BracketCard key={chosen.panel.id} folded={chosen} />
        ) : chosen ? (
          <PlateCard key={chosen.panel.id} folded={chosen} onBar={chooseBar} />
        ) : (
          <SetCard onBar={chooseBar} />
        )
      }
    />
  );
}
