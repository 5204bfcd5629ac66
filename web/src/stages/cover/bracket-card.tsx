import { addTwin, BRACKET_SHEET, PLAY, remakeBracket } from '@plate-fold/core/bracket';
import { type FoldedPanel, facetInSpace } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import { panelNamed, removePlates, type SheetChoice, topPlateOf } from '@plate-fold/core/plan';
import { memberName } from '@plate-fold/core/rig';
import { type MaterialId, stockThicknesses } from '@plate-fold/core/sheet';
import { fixed, lengthFigure, massFigure, torqueFigure } from '@plate-fold/core/units';
import { FlipVertical2, Trash2 } from 'lucide-react';
import { FrontView } from '../../picture/front-view';
import { useSize } from '../../picture/use-size';
import { FindingCard } from '../../shared/finding-card';
import { useRun } from '../../state/commands/run';
import { selectFindings, useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { panelSelected } from '../../state/view-slice';
import { Button } from '../../ui/button';
import { Fig, Row } from '../../ui/figure';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { PanelHead } from './panel-head';

/** What brackets are bent of. */
const METALS = [
  'steel-hr36',
  'steel-hsla50',
  'stainless-304',
  'al-5052-h32',
] as const satisfies readonly MaterialId[];
const NAMES: Readonly<Record<(typeof METALS)[number], string>> = {
  'steel-hr36': 'steel',
  'steel-hsla50': 'steel 50',
  'stainless-304': 'stainless',
  'al-5052-h32': '5052 aluminum',
};

/** One bracket: from which hole to which plate, of what, how it sits as seen from the front, and what is wrong with it. */
export function BracketCard({ folded }: { folded: FoldedPanel }) {
  const facts = useFacts();
  const run = useRun();
  const dispatch = useAppDispatch();
  const { units, stock } = useAppSelector(s => s.view);
  const [box, size] = useSize<HTMLDivElement>();
  const { panel } = folded;
  const joints = facts.joints.filter(j => j.joint.panels.includes(panel.id));
  const hole = joints.find(j => j.mount);
  const plate = joints.find(j => !j.mount);
  const top = joints.find(j => topPlateOf(j.joint) === panel.id);
  const sheet: SheetChoice = panel.sheet ?? BRACKET_SHEET;
  const mine = new Set([panel.id, ...joints.map(j => j.id)]);
  const findings = useAppSelector(selectFindings).filter(f => f.about.some(id => mine.has(id)));
  const points = folded.facets.flatMap(f => facetInSpace(f));
  const xs = points.map(p => p[0]);
  const middle = (Math.min(...xs) + Math.max(...xs)) / 2;
  const twins = facts.document.plan.panels.filter(
    p => p.id !== panel.id && (p.pairOf === (panel.pairOf ?? panel.id) || p.id === panel.pairOf),
  );
  const remake = (part: { sheet?: SheetChoice; at?: Vec2; play?: number }) =>
    run(remakeBracket, { bracket: panel.id, ...part });
  const sheets = stockThicknesses(sheet.material, stock).filter(s => s.thickness >= 2.5);
  const stocked = sheets.find(s => Math.abs(s.thickness - sheet.thickness) < 0.01);
  const slotted = joints.some(j => j.joint.slots?.[panel.id]);
  const length = (mm: number) => lengthFigure(mm, units, true);
  return (
    <div className="p-4">
      <PanelHead panel={panel}>
        {top?.member ? (
          `on top of the ${memberName(facts.rig, top.member.id)}, with the threads of ${panelNamed(facts.document, top.joint.panels[0] ?? '')}`
        ) : (
          <>
            from {hole?.member ? `the ${memberName(facts.rig, hole.member.id)}` : 'its hole'} to{' '}
            {plate ? panelNamed(facts.document, plate.joint.panels[0] ?? '') : 'no plate'}
          </>
        )}
        {twins.length > 0 && `; the same part as ${twins.map(t => t.mark).join(', ')}`}
      </PanelHead>
      <div ref={box} className="mb-3 border border-scribe">
        {size.width > 0 && (
          <FrontView
            facts={facts}
            x={middle}
            width={size.width}
            height={210}
            units={units}
            panel={panel.id}
            about={points.map((p): Vec2 => [p[1], p[2]])}
          />
        )}
      </div>
      <div className="grid grid-cols-2 gap-2">
        <Select<MaterialId>
          label="Bracket’s metal"
          value={sheet.material}
          choices={METALS.map(m => ({ value: m, name: NAMES[m] }))}
          onChoose={material => {
            const near = stockThicknesses(material, stock).reduce((a, b) =>
              Math.abs(b.thickness - sheet.thickness) < Math.abs(a.thickness - sheet.thickness) ? b : a,
            );
            remake({
              sheet: { ...sheet, material, ...near, finish: material === 'steel-hr36' ? 'powder' : 'raw' },
            });
          }}
        />
        <Select
          label="Bracket’s thickness"
          value={String(stocked?.thickness ?? sheet.thickness)}
          choices={[
            ...(stocked
              ? []
              : [{ value: String(sheet.thickness), name: sheet.gauge ?? `${fixed(sheet.thickness, 2)} mm` }]),
            ...sheets.map(s => ({ value: String(s.thickness), name: s.gauge })),
          ]}
          onChoose={v => {
            const next = sheets.find(s => String(s.thickness) === v);
            if (next) remake({ sheet: { ...sheet, ...next } });
          }}
        />
      </div>
      {plate && (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <MeasureInput
            label="Bolt in the plate, behind the axle"
            value={plate.at[0]}
            units={units}
            onEnter={x => remake({ at: [x, plate.at[1]] })}
          />
          <MeasureInput
            label="Right of center"
            value={plate.at[1]}
            units={units}
            onEnter={y => remake({ at: [plate.at[0], y] })}
          />
        </div>
      )}
      {!top && (
        <label className="mt-1 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-6 accent-[var(--fluid)]"
            checked={slotted}
            onChange={e => remake({ play: e.target.checked ? PLAY : 0 })}
          />
          slots, to center the plate by
        </label>
      )}
      <dl className="mt-2">
        <Row
          name="Mass"
          how="plate-mass"
          of={massFigure(folded.massKg, units, false, 2)}
          meaning="one bracket"
        />
        <Row
          name="Bends"
          of={{ value: String(folded.bends.length), unit: '' }}
          meaning={
            folded.bends.map(b => `${fixed(Math.abs(b.angle), 0)}°`).join(', ') ||
            (top ? 'a flat plate' : 'a straight strap')
          }
        />
        {joints.map(j => (
          <Row
            key={j.id}
            name={top ? `Bolt ${j.id}` : j.mount ? 'To vehicle' : 'To plate'}
            of={torqueFigure(j.torqueNm, units)}
            meaning={
              <>
                {j.thread.designation}, {j.nut?.name ?? 'no nut'}, grip <Fig of={length(j.gripMm)} />
              </>
            }
          />
        ))}
      </dl>
      <p className="mt-1 text-small text-ink2">
        Strike lets a plate give with its brackets. Strength figures are estimates, not certificates.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        {!top && (
          <Button onClick={() => run(addTwin, { bracket: panel.id })}>
            <FlipVertical2 size={17} aria-hidden="true" /> Twin on the other side
          </Button>
        )}
        <Button
          onClick={() => {
            if (run(removePlates, { panels: [panel.id] })) dispatch(panelSelected(undefined));
          }}
        >
          <Trash2 size={17} aria-hidden="true" /> Delete
        </Button>
      </div>
      {findings.length > 0 && (
        <section className="mt-4" aria-label={`Findings on bracket ${panel.mark}`}>
          <h3 className="mb-1.5 font-bold">Findings</h3>
          <ul className="grid gap-2">
            {findings.map(f => (
              <FindingCard key={f.text} finding={f} />
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
