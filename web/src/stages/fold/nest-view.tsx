import {
  type FlatPattern,
  flatPattern,
  holeOutline,
  NEST_DEFAULTS,
  type Nest,
  type NestedSheet,
  onSheet,
  shopOf,
} from '@plate-fold/core/fold';
import { nestDxf } from '@plate-fold/core/formats';
import { boxOf, circle, type Polygon } from '@plate-fold/core/geometry';
import { MATERIALS } from '@plate-fold/core/sheet';
import { fixed, formatLength, massFigure, type UnitSystem } from '@plate-fold/core/units';
import { nestTotals } from '@plate-fold/core/weigh';
import { Download } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { HatchDefs, hatch } from '../../picture/hatch';
import { useSize } from '../../picture/use-size';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { sheetName } from '../../ui/names';
import { saveFile } from '../../ui/save-file';
import { Select } from '../../ui/select';
import { nestInWorker } from '../../work/nest-client';

/** What is cut out of a blank: openings and bolt holes. */
const cutsOf = (p: FlatPattern): readonly Polygon[] => [
  ...p.cutouts.map(c => ('circle' in c ? circle(c.at, c.circle, 24) : c.polygon)),
  ...p.holes.flatMap(h => (h.cut ? [holeOutline(h.cut, h.at)] : [])),
];

/** A stock sheet with the blanks on it, to scale, grain along its long side. */
function SheetDrawing(props: {
  sheet: NestedSheet;
  patterns: readonly FlatPattern[];
  units: UnitSystem;
  width: number;
}) {
  const { sheet, patterns, units, width } = props;
  const k = (width - 2) / sheet.size[0];
  const height = sheet.size[1] * k + 2;
  const put = (p: readonly [number, number]): string =>
    `${(1 + p[0] * k).toFixed(1)} ${(height - 1 - p[1] * k).toFixed(1)}`;
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Sheet with plates ${sheet.blanks.map(b => b.mark).join(', ')}, ${Math.round(sheet.yield * 100)} percent used`}
      className="block"
    >
      <HatchDefs id="nest" />
      <rect
        x="1"
        y="1"
        width={width - 2}
        height={height - 2}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
      {sheet.left && (
        <g>
          <rect
            x={1 + sheet.left.at[0] * k}
            y={height - 1 - (sheet.left.at[1] + sheet.left.size[1]) * k}
            width={sheet.left.size[0] * k}
            height={sheet.left.size[1] * k}
            fill="none"
            stroke="var(--ghostline)"
            strokeDasharray="5 4"
          />
          {sheet.left.size[0] * k > 150 && sheet.left.size[1] * k > 24 && (
            <text
              x={1 + (sheet.left.at[0] + sheet.left.size[0] / 2) * k}
              y={height - 1 - (sheet.left.at[1] + sheet.left.size[1] / 2) * k}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize="12"
              style={{ fill: 'var(--ink2)' }}
            >
              left over {formatLength(sheet.left.size[0], units)} × {formatLength(sheet.left.size[1], units)}
            </text>
          )}
        </g>
      )}
      {sheet.blanks.map(b => {
        const { min, max } = boxOf(b.outlines.flat());
        const [x, y] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
        return (
          <g key={b.panel}>
            <path
              d={b.outlines.map(o => `M${o.map(put).join('L')}Z`).join('')}
              fill={hatch('nest', MATERIALS[sheet.material].family)}
              fillRule="evenodd"
              stroke="var(--ink)"
              strokeWidth="1.3"
            />
            <path
              d={patterns
                .filter(p => p.panel === b.panel)
                .flatMap(cutsOf)
                .map(o => `M${o.map(q => put(onSheet(b, q))).join('L')}Z`)
                .join('')}
              fill="var(--paper)"
              stroke="var(--ink)"
              strokeWidth="0.9"
            />
            <circle cx={1 + x * k} cy={height - 1 - y * k} r="12" fill="var(--ink)" />
            <text
              x={1 + x * k}
              y={height - 1 - y * k}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize="13"
              fontWeight="700"
              style={{ fill: 'var(--paper)' }}
            >
              {b.mark}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** All blanks of the build on the shop's stock sheets: how many sheets, how much of them is used, what is left. */
export function NestView() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { sheets: stock, name } = shopOf(facts.document.plan);
  const [kerf, setKerf] = useState<number>(NEST_DEFAULTS.kerf);
  const [margin, setMargin] = useState<number>(NEST_DEFAULTS.margin);
  const [keepGrain, setKeepGrain] = useState<boolean>(NEST_DEFAULTS.keepGrain);
  const [step, setStep] = useState<'90' | '45' | '15'>('90');
  const [made, setMade] = useState<Nest>({ sheets: [], tooLarge: [] });
  const [busy, setBusy] = useState(true);
  const [fault, setFault] = useState<string>();
  const [box, size] = useSize<HTMLDivElement>();
  const { panels, weight } = facts;
  const { rates } = weight;
  const patterns = useMemo(() => panels.map(flatPattern), [panels]);
  const columns = size.width > 700 && made.sheets.length > 1 ? 2 : 1;
  useEffect(() => {
    setBusy(true);
    const job = nestInWorker(panels, { sheets: stock, kerf, margin, keepGrain, step: Number(step) });
    job.result.then(
      n => {
        setMade(n);
        setFault(undefined);
        setBusy(false);
      },
      (e: Error) => {
        setFault(e.message);
        setBusy(false);
      },
    );
    return job.cancel;
  }, [panels, stock, kerf, margin, keepGrain, step]);
  const { massKg, cost, used } = nestTotals(made, rates);
  const figure = massFigure(massKg, units);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-ground p-4">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <MeasureInput
          className="w-32"
          label="Kerf"
          value={kerf}
          units={units}
          least={0}
          most={20}
          onEnter={v => void setKerf(v)}
        />
        <MeasureInput
          className="w-32"
          label="Edge margin"
          value={margin}
          units={units}
          least={0}
          most={100}
          onEnter={v => void setMargin(v)}
        />
        <label className="flex min-h-11 items-center gap-2.5">
          <input
            type="checkbox"
            className="size-5 accent-[var(--fluid)]"
            checked={keepGrain}
            onChange={e => setKeepGrain(e.target.checked)}
          />
          grain along the sheet
        </label>
        {!keepGrain && (
          <Select
            label="Turned in steps of"
            value={step}
            choices={[
              { value: '90', name: 'quarter turns' },
              { value: '45', name: 'steps of 45°' },
              { value: '15', name: 'steps of 15°' },
            ]}
            onChoose={setStep}
          />
        )}
        <p role="status" aria-busy={busy} className="ml-auto text-right">
          {busy ? 'Nesting … ' : ''}
          <span className="fig text-head font-semibold">{made.sheets.length}</span>{' '}
          {made.sheets.length === 1 ? 'sheet' : 'sheets'}, <span className="fig">{fixed(used * 100, 0)}</span>{' '}
          % used, <span className="fig">{figure.value}</span> {figure.unit} of sheet, about{' '}
          <span className="fig">{fixed(cost, 0)}</span> $ ({rates.note})
        </p>
      </div>
      {fault && (
        <p role="alert" className="mb-3 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2">
          The blanks could not be nested: {fault}.
        </p>
      )}
      {made.tooLarge.length > 0 && (
        <p role="alert" className="mb-3 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2">
          No sheet of {name} holds the blank of plate{' '}
          {made.tooLarge.map(id => panels.find(p => p.panel.id === id)?.panel.mark).join(', ')}: split it on
          Cover, or choose another shop.
        </p>
      )}
      <div
        ref={box}
        className="grid items-start gap-4"
        style={{ gridTemplateColumns: `repeat(${columns}, 1fr)` }}
      >
        {size.width > 0 &&
          made.sheets.map((s, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: sheets of one kind are told apart by their place only
            <figure key={i}>
              <figcaption className="mb-1 flex items-center gap-3 text-body">
                <span className="flex-1">
                  <b>{sheetName(s)}</b> {formatLength(s.size[0], units)} × {formatLength(s.size[1], units)},{' '}
                  <span className="fig">{fixed(s.yield * 100, 0)}</span> % used
                </span>
                <Button
                  onClick={() => saveFile(`nest-${i + 1}.dxf`, nestDxf(s, patterns, units), 'image/vnd.dxf')}
                >
                  <Download size={16} aria-hidden="true" /> Sheet {i + 1}, DXF
                </Button>
              </figcaption>
              <SheetDrawing
                sheet={s}
                patterns={patterns}
                units={units}
                width={(size.width - (columns - 1) * 16) / columns}
              />
            </figure>
          ))}
      </div>
    </div>
  );
}
