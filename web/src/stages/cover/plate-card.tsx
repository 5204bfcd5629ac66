import { RULES } from '@plate-fold/core/checks';
import { AHEAD_DEGREES, undersideAt } from '@plate-fold/core/cover';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { buildOf } from '@plate-fold/core/plan';
import { fixed, lengthFigure, massFigure } from '@plate-fold/core/units';
import { Tabs } from 'radix-ui';
import { DentsFrom, useKnownStrike } from '../../shared/dents-from';
import { FindingCard } from '../../shared/finding-card';
import { ScanRow } from '../../shared/scan-row';
import { selectFindings, selectWeights, useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Row } from '../../ui/figure';
import { HoldCard } from './hold-card';
import { PanelHead } from './panel-head';
import { ShapeCard } from './shape-card';
import { SheetPicker } from './sheet-picker';

const why = (rule: string): string | undefined => RULES.find(r => r.id === rule)?.why;

/** Everything about one plate: its sheet, what it comes to, and what is wrong with it. */
export function PlateCard({ folded, onBar }: { folded: FoldedPanel; onBar: (id: string) => void }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const against = useAppSelector(s => s.view.against);
  const findings = useAppSelector(selectFindings).filter(f => f.about.includes(folded.panel.id));
  const weights = useAppSelector(selectWeights);
  const { panel, sheet } = folded;

  const guarded = panel.guards.flatMap(g => facts.rig.components.find(c => c.id === g) ?? []);
  const cover = facts.coverage.components.filter(c => panel.guards.includes(c.id));
  const share = (of: 'fraction' | 'fromAheadFraction'): string => {
    const area = cover.reduce((s, c) => s + c.areaMm2, 0);
    return area === 0 ? '–' : fixed((cover.reduce((s, c) => s + c[of] * c.areaMm2, 0) / area) * 100, 0);
  };
  const gap = facts.gaps
    .filter(g => g.panel === panel.id)
    .map(g => ({ ...g, part: facts.rig.components.find(c => c.id === g.component) }))
    .filter(g => !g.part?.moves)
    .sort((a, b) => a.gapMm - b.gapMm)[0];
  const joints = facts.joints.filter(j => j.joint.panels.includes(panel.id));
  const shared = joints.filter(j => j.joint.panels.length > 1).length;
  const low = undersideAt(folded, folded.centroid[0], folded.centroid[1]) ?? panel.base.origin[2];
  const other =
    weights.find(w => w.id === against && w.id !== facts.build.id) ??
    weights.find(w => w.id !== facts.build.id);
  const otherMass = other?.panels.find(p => p.id === panel.id)?.massKg;
  const cost = facts.weight.panels.find(p => p.id === panel.id)?.cost ?? 0;
  const lift = facts.document.plan.limits.maxLiftKg;
  const change = otherMass === undefined ? undefined : massFigure(folded.massKg - otherMass, units, true);
  const struck = useKnownStrike(facts, folded);

  return (
    <div className="p-4">
      <PanelHead panel={panel}>
        {guarded.length > 0
          ? `protects ${guarded.map(c => c.name).join(', ')}`
          : 'protects nothing on this vehicle'}
      </PanelHead>

      <Tabs.Root defaultValue="sheet">
        <Tabs.List aria-label={`Plate ${panel.mark}`} className="mb-3 flex border-b border-scribe">
          {(
            [
              ['sheet', 'Sheet'],
              ['shape', 'Shape'],
              ['hold', 'Bolts'],
            ] as const
          ).map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="min-h-11 flex-1 border-b-[3px] border-transparent font-semibold text-ink2 data-[state=active]:border-fluid data-[state=active]:text-ink"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="sheet">
          <SheetPicker panel={panel} sheet={sheet} build={facts.build} />

          <dl className="mt-4">
            <Row
              name="Mass"
              how="plate-mass"
              of={massFigure(folded.massKg, units)}
              meaning={
                change && other
                  ? `${change.value} ${change.unit} vs ${buildOf(facts.document.plan, other.id).name}${lift !== undefined && folded.massKg > lift ? '; too heavy alone' : ''}`
                  : 'one plate'
              }
            />
            <Row
              name="Covers"
              how="covered"
              of={{ value: share('fraction'), unit: '%' }}
              meaning="of what it protects, from below"
            />
            <Row
              name="From ahead"
              how="from-ahead"
              of={{ value: share('fromAheadFraction'), unit: '%' }}
              meaning={`at a climb of ${facts.document.plan.limits.aheadDegrees ?? AHEAD_DEGREES}°`}
            />
            <Row
              name="Clearance at rest"
              how="gap-at-rest"
              of={gap ? lengthFigure(gap.gapMm, units) : { value: '–', unit: '' }}
              meaning={
                gap?.part
                  ? `to ${gap.part.name}; needs ${lengthFigure(gap.part.keepOut, units).value}`
                  : 'nothing above'
              }
            />
            <ScanRow folded={folded} />
            <Row
              name="Ground"
              how="lowest-point"
              of={lengthFigure(low, units)}
              meaning={
                facts.lowest.panel === panel.id
                  ? 'the lowest plate'
                  : `lowest plate ${lengthFigure(facts.lowest.z, units).value}`
              }
            />
            <Row
              name="Bolts"
              of={{ value: String(joints.length), unit: 'bolts' }}
              meaning={shared > 0 ? `${shared} shared with a neighbor` : 'none shared'}
            />
            <DentsFrom answer={struck} units={units} />
            <Row
              name="Cost"
              how="cost"
              of={{ value: fixed(cost, 0), unit: '$' }}
              meaning={`estimate: ${facts.weight.rates.note}`}
            />
          </dl>
        </Tabs.Content>
        <Tabs.Content value="shape">
          <ShapeCard facts={facts} panel={panel} units={units} />
        </Tabs.Content>
        <Tabs.Content value="hold">
          <HoldCard facts={facts} folded={folded} units={units} onBar={onBar} />
        </Tabs.Content>
      </Tabs.Root>

      {findings.length > 0 && (
        <section className="mt-4" aria-label="Findings on this plate">
          <h3 className="mb-1.5 font-bold">Findings</h3>
          <ul className="grid gap-2">
            {findings.map(f => (
              <FindingCard key={`${f.rule} ${f.about.join()}`} finding={f} why={why(f.rule)} />
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
