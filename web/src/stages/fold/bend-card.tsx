import {
  angleToBendTo,
  bendDeduction,
  bendingForce,
  bendOrder,
  bendTableCsv,
  dieFor,
  type FoldedPanel,
  fixed,
  flangeChanged,
  flatPattern,
  foldedSolid,
  formatLength,
  inPlan,
  kFactor,
  leastFlange,
  longestBend,
  patternDxf,
  patternSvg,
  RULES,
  SHOPS,
  type Shop,
  stl,
} from '@plate-fold/core';
import { Download } from 'lucide-react';
import { selectFindings, useFacts } from '../../app/derived';
import { useApp } from '../../app/store';
import { useEdit } from '../../app/use-edit';
import { Button } from '../../ui/button';
import { Row } from '../../ui/figure';
import { FindingCard } from '../../ui/finding-card';
import { MeasureInput } from '../../ui/measure-input';
import { saveFile } from '../../ui/save-file';
import { Select } from '../../ui/select';
import { QuoteCard } from './quote-card';
import { TestBendForm } from './test-bend';

/** The bends of a plate in the order of the brake, what the shop's brake makes of them, and the files for the shop. */
export function BendCard({
  folded,
  bend,
  onBend,
}: {
  folded: FoldedPanel;
  bend?: string;
  onBend: (id: string) => void;
}) {
  const facts = useFacts();
  const units = useApp(s => s.view.units);
  const edit = useEdit();
  const findings = useApp(selectFindings).filter(
    f => f.where === 'fold' && f.about.includes(folded.panel.id),
  );
  const { panel, sheet, material } = folded;
  const order = bendOrder(folded);
  const shop: Shop = facts.document.plan.shop ?? (SHOPS[0] as Shop);
  const t = sheet.thickness;
  const die = dieFor(t, shop.dies);
  const pattern = flatPattern(folded);
  const widthOf = (id: string): number => folded.facets.find(f => f.id === id)?.outline[2]?.[1] ?? 0;
  const chosen = folded.bends.find(b => b.id === bend) ?? folded.bends.find(b => b.id === order[0]);
  const flange = folded.facets.find(f => f.id === chosen?.id)?.flange;
  const length = (mm: number): string => formatLength(mm, units, true);
  const file = `${panel.mark}-${panel.name}`.replace(/[^\w]+/g, '-');
  const tested = chosen && Math.abs(chosen.kFactor - kFactor(chosen.insideRadius, t)) > 1e-9;
  const to = chosen && angleToBendTo(Math.abs(chosen.angle), chosen.insideRadius, t, material);
  const force = chosen && die ? bendingForce(material.ultimate, t, widthOf(chosen.id), die) : undefined;
  return (
    <div className="p-4">
      <h2 className="text-[19px] font-bold">
        <span className="sr-only">Plate {panel.mark}: </span>
        {order.length === 0 ? 'No bends' : `${order.length} bends, tips first`}
      </h2>
      <p className="text-[13px] text-ink2">
        A working order: whether the brake’s own shape allows it is not simulated.
      </p>
      <ol className="mt-2">
        {order.map((id, i) => {
          const b = folded.bends.find(x => x.id === id);
          if (!b) return null;
          const on = b === chosen;
          return (
            <li key={id}>
              <button
                type="button"
                aria-pressed={on}
                onClick={() => onBend(id)}
                className={`grid min-h-11 w-full grid-cols-[1.4rem_1fr_auto_auto] items-center gap-2 border-b border-scribe/70 px-1.5 text-left ${on ? 'bg-fluid text-onfluid [&_*]:text-onfluid' : 'hover:bg-paper'}`}
              >
                <span className="fig text-[12px] text-ink2">{i + 1}</span>
                <span className="truncate">{id.replaceAll('-', ' ')}</span>
                <span className="fig">
                  {b.angle > 0 ? '↑' : '↓'} {fixed(Math.abs(b.angle), 1)}°
                </span>
                <span className="fig text-[13px] text-ink2">R {length(b.insideRadius)}</span>
              </button>
            </li>
          );
        })}
      </ol>
      {chosen && flange && (
        <section aria-label={`Bend ${chosen.id}`} className="mt-4">
          <h3 className="font-bold first-letter:uppercase">{chosen.id.replaceAll('-', ' ')}</h3>
          <div key={chosen.id} className="mt-1 grid grid-cols-3 gap-2">
            <MeasureInput
              label="Up by"
              value={flange.angle}
              units={units}
              plain="°"
              least={-150}
              most={150}
              onEnter={v => edit('angle set', d => flangeChanged(d, panel.id, flange.id, { angle: v }))}
            />
            <MeasureInput
              label="Flange"
              value={flange.length}
              units={units}
              least={5}
              onEnter={v =>
                edit('flange length set', d => flangeChanged(d, panel.id, flange.id, { length: v }))
              }
            />
            <MeasureInput
              label="Inside radius"
              value={chosen.insideRadius}
              units={units}
              least={0.2}
              onEnter={v =>
                edit('radius set', d => flangeChanged(d, panel.id, flange.id, { insideRadius: v }))
              }
            />
          </div>
          <dl className="mt-2">
            <Row
              name="Bend to"
              of={{ value: to === undefined ? '–' : fixed(to, 1), unit: '°' }}
              meaning="it springs back; estimate"
            />
            <Row
              name="K"
              of={{ value: fixed(chosen.kFactor, 3), unit: '' }}
              meaning={`at R/t ${fixed(chosen.insideRadius / t, 2)}, ${tested ? 'from your test bend' : 'DIN 6935'}`}
            />
            <Row
              name="Allowance"
              of={{
                value: length(chosen.allowanceMm).split(' ')[0] ?? '',
                unit: units === 'inch' ? 'in' : 'mm',
              }}
              meaning="neutral fibre in the bend"
            />
            <Row
              name="Deduction"
              of={{
                value:
                  length(bendDeduction(Math.abs(chosen.angle), chosen.insideRadius, t, chosen.kFactor)).split(
                    ' ',
                  )[0] ?? '',
                unit: units === 'inch' ? 'in' : 'mm',
              }}
              meaning="off both legs, measured outside"
            />
            <Row
              name="Force"
              of={{ value: force === undefined ? '–' : fixed(force, 0), unit: 'kN' }}
              meaning={die ? `V ${die} mm die; brake gives ${fixed(shop.brake.force, 0)}` : 'no die entered'}
            />
            <Row
              name="Least flange"
              of={{
                value: die ? (length(leastFlange(die)).split(' ')[0] ?? '') : '–',
                unit: units === 'inch' ? 'in' : 'mm',
              }}
              meaning="rests on both shoulders of that die"
            />
          </dl>
          {force !== undefined && force > shop.brake.force && (
            <p
              role="status"
              className="mt-2 border-l-[6px] border-marker bg-markersoft px-3 py-2 text-[14px]"
            >
              {shop.name} cannot press this bend in one stroke:{' '}
              {length(longestBend(shop, material.ultimate, t))} is its longest in this sheet.
            </p>
          )}
        </section>
      )}
      <section aria-label="Shop" className="mt-4">
        <h3 className="font-bold">Shop</h3>
        <Select
          label="Shop"
          value={shop.id}
          choices={SHOPS.map(s => ({ value: s.id, name: s.name }))}
          onChoose={v =>
            edit('shop chosen', d => {
              const next = SHOPS.find(s => s.id === v);
              // what was tested goes along: it belongs to the sheet as much as to the brake
              return inPlan(d, { shop: next && { ...next, kFactors: shop.kFactors } });
            })
          }
          className="w-full"
        />
        <div key={shop.id} className="mt-2 grid grid-cols-2 gap-2">
          <MeasureInput
            label="Brake, longest"
            value={shop.brake.length}
            units={units}
            least={200}
            onEnter={v =>
              edit('brake set', d => inPlan(d, { shop: { ...shop, brake: { ...shop.brake, length: v } } }))
            }
          />
          <MeasureInput
            label="Brake, force"
            value={shop.brake.force}
            units={units}
            plain="kN"
            least={20}
            onEnter={v =>
              edit('brake set', d => inPlan(d, { shop: { ...shop, brake: { ...shop.brake, force: v } } }))
            }
          />
        </div>
      </section>
      {chosen && <TestBendForm key={sheet.material} thickness={t} material={sheet.material} shop={shop} />}
      <section aria-label="Files for the shop" className="mt-4">
        <h3 className="mb-1 font-bold">For the shop</h3>
        <div className="grid grid-cols-2 gap-2">
          <Button onClick={() => saveFile(`${file}.dxf`, patternDxf(pattern, units), 'image/vnd.dxf')}>
            <Download size={16} aria-hidden="true" /> Blank, DXF
          </Button>
          <Button onClick={() => saveFile(`${file}.svg`, patternSvg(pattern), 'image/svg+xml')}>
            <Download size={16} aria-hidden="true" /> Blank, SVG
          </Button>
          <Button
            onClick={() =>
              saveFile(`${file}.stl`, stl(`plate ${panel.mark}`, foldedSolid(folded)), 'model/stl')
            }
          >
            <Download size={16} aria-hidden="true" /> Folded, STL
          </Button>
          <Button onClick={() => saveFile('bends.csv', bendTableCsv(facts.panels), 'text/csv')}>
            <Download size={16} aria-hidden="true" /> Bends, CSV
          </Button>
        </div>
        <p className="mt-1 text-[12.5px] text-ink2">
          DXF in {units === 'inch' ? 'inches' : 'millimetres'}, layers CUT, BEND_UP, BEND_DOWN, ETCH.
        </p>
      </section>
      <QuoteCard />
      {findings.length > 0 && (
        <ul className="mt-4 grid gap-2" aria-label="Findings on the bends">
          {findings.map(f => (
            <FindingCard key={f.text} finding={f} why={RULES.find(r => r.id === f.rule)?.why} />
          ))}
        </ul>
      )}
    </div>
  );
}
