import { buildName } from '@plate-fold/core/plan';
import { equalDent, equalStiffness, MATERIALS } from '@plate-fold/core/sheet';
import { formatLength, lengthFigure } from '@plate-fold/core/units';
import { useEffect, useState } from 'react';
import { Stance } from '../../picture/stance';
import { useSize } from '../../picture/use-size';
import { Bench } from '../../shared/bench';
import { FindingCard } from '../../shared/finding-card';
import { selectFindings, useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Chips } from '../../ui/chips';
import { Row } from '../../ui/figure';
import { sheetName } from '../../ui/names';
import { BestTab } from './best-tab';
import { BuildTable } from './build-table';
import { CostTab } from './cost-tab';
import { LadderTab } from './ladder-tab';
import { MattersTab } from './matters-tab';
import { MeasuredHeights } from './measured-heights';
import { PhasesTab } from './phases-tab';
import { useAhead } from './use-ladder';

const LADDER = ['steel-hr36', 'stainless-304', 'al-5052-h32', 'al-6061-t6'] as const;

/** What the chosen plate's sheet would have to be in other metals, to be as stiff and to dent as late. */
function Equals() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const panel = useAppSelector(s => s.view.panel);
  const folded = facts.panels.find(p => p.panel.id === panel) ?? facts.panels[0];
  if (!folded) return null;
  const { sheet, material } = folded;
  return (
    <section className="mt-5" aria-label="Equivalent sheets">
      <h3 className="font-bold">
        Equivalent of {sheetName(sheet)} on plate {folded.panel.mark}
      </h3>
      <table className="mt-1 w-full">
        <thead>
          <tr className="border-b border-ink2 text-right text-note text-ink2">
            <th scope="col" className="py-1 text-left font-normal">
              In
            </th>
            <th scope="col" className="py-1 font-normal">
              as stiff
            </th>
            <th scope="col" className="py-1 font-normal">
              same dent load
            </th>
          </tr>
        </thead>
        <tbody>
          {LADDER.filter(id => id !== material.id).map(id => {
            const other = MATERIALS[id];
            const cell = (t: number) => {
              const f = lengthFigure(t, units, true);
              return (
                <td className="fig py-1.5 text-right">
                  {f.value}
                  <span className="ml-1 font-sans text-fine text-ink2">{f.unit}</span>
                </td>
              );
            };
            return (
              <tr key={id} className="border-b border-scribe/60">
                <th scope="row" className="py-1.5 text-left font-normal first-letter:uppercase">
                  {other.short}
                </th>
                {cell(equalStiffness(material, sheet.thickness, other))}
                {cell(equalDent(material, sheet.thickness, other))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1.5 text-note leading-snug text-ink2">
        Stiffness goes with modulus and the cube of thickness, dent force with yield strength and its square.
        {` The sheet is ${formatLength(sheet.thickness, units, true)} thick.`}
      </p>
    </section>
  );
}

const TABS = [
  ['builds', 'builds side by side'],
  ['ladder', 'every sheet for a plate'],
  ['best', 'best build'],
  ['matters', 'what matters'],
  ['cost', 'cost'],
  ['phases', 'phases'],
] as const;

/** Weigh: the builds side by side, and how the vehicle stands under the active one. */
export function WeighStage() {
  const facts = useFacts();
  const [tab, setTab] = useState<(typeof TABS)[number][0]>('builds');
  const { units, panel } = useAppSelector(s => s.view);
  const findings = useAppSelector(selectFindings).filter(f => f.where === 'weigh');
  const [ref, size] = useSize<HTMLDivElement>();
  // the ladder begins with where a plate is struck, and with its chart: both are fetched before it is asked for
  useAhead(facts, panel);
  useEffect(() => void import('./ladder-chart'), []);
  const { weight } = facts;
  const rake = weight.rideHeight.frontMm - weight.rideHeight.rearMm;
  return (
    <Bench
      asideName="Axles and ride height"
      work={(_, height) => (
        <div
          className="relative h-full overflow-auto bg-paper max-desk:h-auto"
          style={{ maxHeight: `max(${height}px, 100%)` }}
        >
          <div className="sticky top-0 left-0 z-30 border-b border-scribe bg-sheet px-2 py-1">
            <Chips label="Compared" value={tab} choices={TABS} onChoose={setTab} />
          </div>
          {tab === 'builds' && <BuildTable />}
          {tab === 'ladder' && <LadderTab facts={facts} />}
          {tab === 'best' && <BestTab facts={facts} />}
          {tab === 'matters' && <MattersTab facts={facts} />}
          {tab === 'cost' && <CostTab facts={facts} />}
          {tab === 'phases' && <PhasesTab facts={facts} />}
        </div>
      )}
      aside={
        <div className="p-4">
          <h2 className="text-head font-bold">Axles and ride height in {buildName(facts.build)}</h2>
          <p className="text-small text-ink2">
            Changes by the plan: moments about the axles, wheel rates of the vehicle.
          </p>
          <div ref={ref} className="mt-2">
            {size.width > 0 && (
              <Stance rig={facts.document.rig} weight={weight} units={units} width={size.width} />
            )}
          </div>
          <dl className="mt-2">
            <Row
              name="Rake"
              how="ride-height"
              of={lengthFigure(Math.abs(rake), units, true)}
              meaning={rake < 0 ? 'more nose-down than before' : 'more tail-down than before'}
            />
          </dl>
          <MeasuredHeights facts={facts} units={units} />
          <Equals />
          {findings.length > 0 && (
            <section className="mt-5" aria-label="Findings on weight">
              <h3 className="mb-1.5 font-bold">Findings</h3>
              <ul className="grid gap-2">
                {findings.map(f => (
                  <FindingCard key={f.text} finding={f} />
                ))}
              </ul>
            </section>
          )}
        </div>
      }
    />
  );
}
