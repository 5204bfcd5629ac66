import { FROM_MEMORY } from '@plate-fold/core/bolt';
import { type Build, buildName, type Panel, type SheetChoice, setSheets } from '@plate-fold/core/plan';
import {
  equalStiffness,
  MATERIAL_IDS,
  MATERIALS,
  type MaterialId,
  parseThickness,
  type Stock,
  stockThicknesses,
  tradeName,
} from '@plate-fold/core/sheet';
import { MM_PER_INCH, stressFigure } from '@plate-fold/core/units';
import { RadioGroup } from 'radix-ui';
import { useState } from 'react';
import { HatchStrip } from '../../picture/hatch';
import { StockChoice } from '../../shared/stock-choice';
import { useRun } from '../../state/commands/run';
import { selectShown } from '../../state/select';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { FINISH_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';

/** The stock thickness nearest to equal stiffness when the metal changes. */
function asStiff(from: SheetChoice, to: MaterialId, kind: Stock): SheetChoice {
  const want = equalStiffness(MATERIALS[from.material], from.thickness, MATERIALS[to]);
  const stock = stockThicknesses(to, kind).reduce((a, b) =>
    Math.abs(b.thickness - want) < Math.abs(a.thickness - want) ? b : a,
  );
  const bare = MATERIALS[to].family !== 'steel';
  return { material: to, ...stock, finish: bare ? 'raw' : from.finish };
}

const PICK = 'rounded-edge border bg-paper text-small leading-tight';
const on = (chosen: boolean): string =>
  chosen ? 'border-fluid ring-2 ring-fluid font-bold' : 'border-scribe hover:border-ink2';

/** Metal, thickness and finish of one plate in the active build. */
export function SheetPicker({ panel, sheet, build }: { panel: Panel; sheet: SheetChoice; build: Build }) {
  const run = useRun();
  const units = useAppSelector(s => s.view.units);
  const plan = useAppSelector(s => selectShown(s)?.plan);
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string>();
  const choose = (next: SheetChoice, panels: readonly string[] = [panel.id]): void => {
    setFault(undefined);
    run(setSheets, { build: build.id, sheets: Object.fromEntries(panels.map(p => [p, next])) });
  };
  const material = MATERIALS[sheet.material];
  const { family } = material;
  const stress = (mpa: number): string => {
    const f = stressFigure(mpa, units);
    return `${f.value} ${f.unit}`;
  };
  const kind = useAppSelector(s => s.view.stock);
  const stock = stockThicknesses(sheet.material, kind);
  const inStock = stock.find(s => Math.abs(s.thickness - sheet.thickness) < 0.01);
  const isStock = inStock !== undefined;
  const enter = (): void => {
    if (typed.trim() === '') return;
    const t = parseThickness(typed, sheet.material, units);
    const wrong = !t.ok
      ? t.fault
      : t.value > MM_PER_INCH
        ? 'thicker than 1 in is not sheet. Check the unit'
        : undefined;
    setFault(wrong);
    if (!t.ok || wrong) return;
    setTyped('');
    choose({ ...sheet, thickness: t.value, gauge: tradeName(family, t.value) });
  };
  return (
    <section aria-label={`Sheet of plate ${panel.mark} in ${buildName(build)}`}>
      <h3 className="mb-1.5 font-bold">Sheet in {buildName(build)}</h3>
      <RadioGroup.Root
        aria-label="Material"
        value={sheet.material}
        onValueChange={id => choose(asStiff(sheet, id as MaterialId, kind))}
        className="grid grid-cols-4 gap-1.5"
      >
        {MATERIAL_IDS.map(id => {
          const m = MATERIALS[id];
          const chosen = id === sheet.material;
          return (
            <RadioGroup.Item
              key={id}
              value={id}
              aria-label={m.name}
              title={m.name}
              className={`${PICK} flex min-h-13 flex-col items-stretch gap-1 p-1.5 ${on(chosen)}`}
            >
              <HatchStrip family={m.family} />
              <span className="text-center first-letter:uppercase">{m.short}</span>
            </RadioGroup.Item>
          );
        })}
      </RadioGroup.Root>
      <div className="mt-2">
        <StockChoice />
      </div>
      <RadioGroup.Root
        aria-label="Thickness"
        value={String(isStock ? inStock?.thickness : sheet.thickness)}
        onValueChange={v => {
          const s = stock.find(x => String(x.thickness) === v);
          if (s) choose({ ...sheet, ...s });
        }}
        className="mt-2 grid grid-cols-4 gap-1.5"
      >
        {stock.map(s => {
          const chosen = Math.abs(s.thickness - sheet.thickness) < 0.01;
          return (
            <RadioGroup.Item
              key={s.thickness}
              value={String(s.thickness)}
              className={`${PICK} fig min-h-11 px-1 whitespace-nowrap ${on(chosen)}`}
            >
              {s.gauge.replace(' in', '″')}
            </RadioGroup.Item>
          );
        })}
        {!isStock && (
          <RadioGroup.Item
            value={String(sheet.thickness)}
            className={`${PICK} fig min-h-11 px-1 whitespace-nowrap ${on(true)}`}
          >
            {sheet.gauge ?? tradeName(family, sheet.thickness)}
          </RadioGroup.Item>
        )}
      </RadioGroup.Root>
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        <form
          onSubmit={e => {
            e.preventDefault();
            enter();
          }}
        >
          <input
            aria-label="Another thickness"
            aria-invalid={fault !== undefined}
            placeholder={units === 'inch' ? 'other: 3/16' : 'other: 4.8'}
            value={typed}
            onChange={e => setTyped(e.target.value)}
            onBlur={enter}
            className="fig min-h-11 w-full rounded-edge border border-scribe bg-paper px-2.5 placeholder:font-sans placeholder:text-ink2"
          />
        </form>
        <Select
          label="Finish"
          value={sheet.finish}
          choices={(['raw', 'powder', 'paint', 'zinc'] as const)
            .filter(f => f === 'raw' || (family !== 'plastic' && (f !== 'zinc' || family === 'steel')))
            .map(f => ({ value: f, name: FINISH_NAMES[f] }))}
          onChoose={finish => choose({ ...sheet, finish })}
        />
      </div>
      {fault && (
        <p role="alert" className="mt-1 text-small text-oxide">
          {fault}
        </p>
      )}
      <Button
        className="mt-2 w-full"
        onClick={() =>
          choose(
            sheet,
            (plan?.panels ?? []).map(p => p.id),
          )
        }
      >
        Use this sheet for every plate
      </Button>
      <details className="mt-1 text-small">
        <summary className="min-h-11 py-2.5">Where its figures come from</summary>
        <p>
          {material.name}: yield {stress(material.yield)}, ultimate {stress(material.ultimate)}
          {material.typical ? ', typical and not guaranteed' : ''}.
        </p>
        <p className="text-ink2">
          {material.source}. {material.radiusSource}.
        </p>
        <p className="mt-1 text-ink2">{FROM_MEMORY}</p>
      </details>
    </section>
  );
}
