import {
  breaks,
  type Facts,
  type Figure,
  fixed,
  lengthFigure,
  MATERIALS,
  type MaterialFamily,
  massFigure,
  paretoEdge,
  type StruckRung,
  type UnitSystem,
} from '@plate-fold/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { sheetChosen } from '../../app/plan-slice';
import { useApp, useDo } from '../../app/store';
import { panelSelected } from '../../app/view-slice';
import { Button } from '../../ui/button';
import { Chips } from '../../ui/chips';
import { Fig } from '../../ui/figure';
import { sheetName } from '../../ui/names';
import { type KnownRung, useLadder } from './use-ladder';

const Chart = lazy(() => import('../../ui/chart'));

/** Materials told apart by shape as well as by tone. */
const LOOK: Readonly<
  Record<
    MaterialFamily,
    { readonly tone: string; readonly shape: 'square' | 'diamond' | 'circle' | 'triangle' }
  >
> = {
  steel: { tone: '--ink', shape: 'square' },
  stainless: { tone: '--ink2', shape: 'diamond' },
  aluminium: { tone: '--fluid', shape: 'circle' },
  plastic: { tone: '--marker', shape: 'triangle' },
};
const FAMILIES = Object.keys(LOOK) as MaterialFamily[];

const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** The rungs of a plate that have been struck. */
export const struckOf = (rungs: readonly KnownRung[]): readonly StruckRung[] =>
  rungs.flatMap(r => (r.answer?.ok ? [{ ...r, struck: r.answer.value }] : []));

/** The limits a rung is held against where nothing else is said: all but dents. */
export const limitsOf = (facts: Facts) => ({
  quiet: true,
  ...(facts.document.plan.limits.maxLiftKg === undefined
    ? {}
    : { mostKg: facts.document.plan.limits.maxLiftKg }),
});

/** Marks of the mass axis, in the reader's unit. */
const STEP = 10;

/** No line joins the points of the first series. */
const NO_LINE = [0, 0, 0, 0, 0, 0, 0, 0, 0];

type SortKey = 'sheet' | 'mass' | 'gap' | 'dent' | 'ring' | 'cost';

/** Every sheet of the catalogue for one plate: mass against gap left, and the same as a table. */
export function LadderTab({ facts }: { facts: Facts }) {
  const dispatch = useDo();
  const { units, theme, panel } = useApp(s => s.view);
  const own = facts.panels.find(p => p.panel.id === panel) ?? facts.panels[0];
  const id = own?.panel.id;
  const panels = useMemo(() => (id === undefined ? [] : [id]), [id]);
  const ladder = useLadder(facts, panels, units);
  if (!own || id === undefined) return <p className="p-4">There is no plate yet.</p>;
  const rungs = ladder.known.get(id) ?? [];
  const struck = struckOf(rungs);
  const edge = new Set(paretoEdge(struck.filter(r => r.struck.reached >= 1)).map(r => r.id));
  const take = (r: KnownRung): void => {
    const { gauge: _, ...kept } = own.sheet;
    dispatch(
      sheetChosen({
        build: facts.build.id,
        panels: [id],
        sheet: { ...kept, material: r.material, thickness: r.thickness, gauge: r.gauge },
      }),
    );
  };
  return (
    <div className="p-3">
      <div className="flex flex-wrap items-center gap-3">
        <Chips
          label="Plate"
          value={id}
          choices={facts.panels.map(p => [p.panel.id, `${p.panel.mark} ${p.panel.name}`] as const)}
          onChoose={p => dispatch(panelSelected(p))}
        />
        <span className="flex-1" />
        <Progress ladder={ladder} />
      </div>
      <p className="mt-1 text-[13px] text-ink2">
        Every sheet of the catalogue for plate {own.panel.mark}, struck with half the heavier axle where the
        plate as it is has its worst place. On the edge nothing lighter leaves as much gap. Estimates; prices
        are invented defaults.
      </p>
      {struck.length > 0 && (
        <Suspense fallback={<div className="h-80" />}>
          <ChartKey />
          <LadderChart
            facts={facts}
            struck={struck}
            edge={edge}
            units={units}
            theme={theme}
            now={own.sheet}
            onTake={take}
          />
        </Suspense>
      )}
      <LadderTable facts={facts} rungs={rungs} edge={edge} units={units} now={own.sheet} onTake={take} />
    </div>
  );
}

/** How far the ladder has come; stops it and lets it go on. */
export function Progress({ ladder }: { ladder: ReturnType<typeof useLadder> }) {
  if (ladder.waiting === 0) return null;
  return (
    <span role="status" className="flex items-center gap-3 text-[14px]">
      {ladder.waiting === undefined
        ? 'laying out the sheets …'
        : ladder.stopped
          ? `${ladder.waiting} of ${ladder.total} sheets not struck`
          : `striking ${ladder.waiting} of ${ladder.total} sheets …`}
      <Button onClick={ladder.stopped ? ladder.goOn : ladder.stop}>
        {ladder.stopped ? 'Go on' : 'Stop'}
      </Button>
    </span>
  );
}

/** What the chart's marks stand for: its own key cannot tell shapes and colours apart. */
function ChartKey() {
  const mark = (shape: (typeof LOOK)[MaterialFamily]['shape']) =>
    ({
      square: <rect x="3" y="3" width="10" height="10" />,
      diamond: <path d="M8 1.5L14.5 8L8 14.5L1.5 8Z" />,
      circle: <circle cx="8" cy="8" r="6" />,
      triangle: <path d="M8 2L14.5 13.5H1.5Z" />,
    })[shape];
  return (
    <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-[13px]" aria-label="Marks of the chart">
      {FAMILIES.map(f => (
        <li key={f} className="flex items-center gap-1.5">
          <svg width="16" height="16" fill={`var(${LOOK[f].tone})`} stroke="var(--ink)" aria-hidden="true">
            {mark(LOOK[f].shape)}
          </svg>
          {f}
        </li>
      ))}
      <li className="flex items-center gap-1.5">
        <span className="size-3 bg-oxide" aria-hidden="true" />
        red: breaks a limit
      </li>
      <li className="flex items-center gap-1.5">
        <span className="size-4 rounded-full border-2 border-ink" aria-hidden="true" />
        as it is
      </li>
      <li className="flex items-center gap-1.5">
        <span className="w-6 border-t-2 border-dashed border-ink2" aria-hidden="true" />
        the edge
      </li>
    </ul>
  );
}

type Sheet = { readonly material: string; readonly thickness: number };
const same = (a: Sheet, b: Sheet): boolean =>
  a.material === b.material && Math.abs(a.thickness - b.thickness) < 1e-3;

function LadderChart({
  facts,
  struck,
  edge,
  units,
  theme,
  now,
  onTake,
}: {
  facts: Facts;
  struck: readonly StruckRung[];
  edge: ReadonlySet<string>;
  units: UnitSystem;
  theme: string;
  now: Sheet;
  onTake: (r: StruckRung) => void;
}) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's colours are read from the page
  const options = useMemo(() => {
    const mass = (kg: number): number => Number(massFigure(kg, units).value);
    const gap = (r: StruckRung): number =>
      Number(
        lengthFigure(r.struck.gapMm ?? -r.struck.deflectionMm, units, units === 'metric').value.replace(
          '\u2212',
          '-',
        ),
      );
    const point = (r: StruckRung) => ({ x: mass(r.massKg), y: gap(r), rung: r });
    const limits = limitsOf(facts);
    const good = (r: StruckRung): boolean => breaks(facts, r, limits).length === 0;
    const line = [...struck]
      .filter(r => edge.has(r.id))
      .sort((a, b) => a.massKg - b.massKg)
      .map(point);
    const series = [
      ...FAMILIES.map(f => ({
        name: f,
        type: 'scatter',
        data: struck.filter(r => MATERIALS[r.material].family === f && good(r)).map(point),
      })),
      ...FAMILIES.map(f => ({
        name: `${f}, breaks a limit`,
        type: 'scatter',
        data: struck.filter(r => MATERIALS[r.material].family === f && !good(r)).map(point),
      })),
      { name: 'as it is', type: 'scatter', data: struck.filter(r => same(r, now)).map(point) },
      { name: 'edge', type: 'line', data: line },
    ];
    const masses = struck.map(r => mass(r.massKg));
    const low = Math.floor(Math.min(...masses) / STEP) * STEP;
    const high = Math.ceil(Math.max(...masses) / STEP) * STEP;
    const ink = colour('--ink');
    const length = units === 'inch' ? 'in' : 'mm';
    return {
      chart: {
        type: 'line' as const,
        height: 320,
        animations: { enabled: false },
        toolbar: { show: false },
        zoom: { enabled: false },
        foreColor: ink,
        fontFamily: 'inherit',
        background: 'transparent',
        events: {
          markerClick: (_e: unknown, _c: unknown, at?: { seriesIndex: number; dataPointIndex: number }) => {
            const r =
              at &&
              (series[at.seriesIndex]?.data[at.dataPointIndex] as { rung?: StruckRung } | undefined)?.rung;
            if (r) onTake(r);
          },
        },
      },
      series,
      colors: [
        ...FAMILIES.map(f => colour(LOOK[f].tone)),
        ...FAMILIES.map(() => colour('--oxide')),
        colour('--fluid'),
        colour('--ink2'),
      ],
      stroke: {
        width: [...NO_LINE, 1.5],
        curve: 'stepline' as const,
        dashArray: [...NO_LINE, 4],
      },
      markers: {
        size: [...FAMILIES.map(() => 7), ...FAMILIES.map(() => 5), 13, 0],
        shape: [
          ...FAMILIES.map(f => LOOK[f].shape),
          ...FAMILIES.map(f => LOOK[f].shape),
          'circle' as const,
          'circle' as const,
        ],
        strokeWidth: 1.5,
        strokeColors: ink,
        fillOpacity: [1, 1, 1, 1, 1, 1, 1, 1, 0, 0],
      },
      fill: { opacity: [1, 1, 1, 1, 1, 1, 1, 1, 0, 1] },
      legend: { show: false },
      grid: { borderColor: colour('--scribe') },
      tooltip: {
        shared: false,
        intersect: true,
        theme,
        custom: ({ seriesIndex, dataPointIndex }: { seriesIndex: number; dataPointIndex: number }) => {
          const r = (series[seriesIndex]?.data[dataPointIndex] as { rung?: StruckRung } | undefined)?.rung;
          return r ? `<div style="padding:6px 10px">${r.gauge} ${MATERIALS[r.material].short}</div>` : '';
        },
      },
      xaxis: {
        type: 'numeric' as const,
        decimalsInFloat: 0,
        title: { text: `mass of the plate, ${units === 'inch' ? 'lb' : 'kg'}` },
        min: low,
        max: high,
        tickAmount: (high - low) / STEP,
      },
      yaxis: {
        decimalsInFloat: units === 'inch' ? 1 : 0,
        title: {
          text: struck.some(r => r.struck.gapMm !== undefined)
            ? `gap left, ${length}`
            : `gives (down), ${length}`,
        },
      },
    };
  }, [facts, struck.length, edge.size, units, theme, now]);
  return (
    <Chart
      options={options}
      label="Mass of the plate against the gap left under a strike, every sheet a point; the table below has the figures"
    />
  );
}

function LadderTable({
  facts,
  rungs,
  edge,
  units,
  now,
  onTake,
}: {
  facts: Facts;
  rungs: readonly KnownRung[];
  edge: ReadonlySet<string>;
  units: UnitSystem;
  now: Sheet;
  onTake: (r: KnownRung) => void;
}) {
  const [by, setBy] = useState<{ key: SortKey; down: boolean }>({ key: 'mass', down: false });
  const limits = limitsOf(facts);
  const value = (r: KnownRung): number | string => {
    const v = r.answer?.ok ? r.answer.value : undefined;
    return {
      sheet: `${r.material} ${r.thickness.toFixed(3).padStart(8, '0')}`,
      mass: r.massKg,
      gap: v ? (v.gapMm ?? -v.deflectionMm) : -1e9,
      dent: v?.dentMm ?? 1e9,
      ring: v?.ringHz ?? -1e9,
      cost: r.cost,
    }[by.key];
  };
  const sorted = [...rungs].sort((a, b) => {
    const [x, y] = [value(a), value(b)];
    return (x < y ? -1 : x > y ? 1 : 0) * (by.down ? -1 : 1);
  });
  const size = (mm: number | undefined): Figure =>
    mm === undefined ? { value: '\u2013', unit: '' } : lengthFigure(mm, units, units === 'metric');
  const head: readonly (readonly [SortKey, string])[] = [
    ['sheet', 'Sheet'],
    ['mass', 'Mass'],
    ['gap', 'Gap left'],
    ['dent', 'Dent'],
    ['ring', 'Rings'],
    ['cost', 'Cost'],
  ];
  return (
    <table className="mt-2 w-full border-collapse text-[14px]">
      <caption className="sr-only">Every sheet for this plate</caption>
      <thead>
        <tr className="border-b border-ink text-right">
          {head.map(([key, name]) => (
            <th
              key={key}
              scope="col"
              aria-sort={by.key === key ? (by.down ? 'descending' : 'ascending') : 'none'}
              className={key === 'sheet' ? 'text-left' : ''}
            >
              <button
                type="button"
                className="min-h-11 px-1 font-bold hover:text-fluid"
                onClick={() => setBy(b => ({ key, down: b.key === key && !b.down }))}
              >
                {name}
                {by.key === key && <span aria-hidden="true">{by.down ? ' ▼' : ' ▲'}</span>}
              </button>
            </th>
          ))}
          <th scope="col" className="px-2 text-left font-bold">
            Held against
          </th>
          <th scope="col">
            <span className="sr-only">Take it</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sorted.map(r => {
          const v = r.answer?.ok ? r.answer.value : undefined;
          const wrong = v ? breaks(facts, { ...r, struck: v }, limits) : [];
          const mine = same(r, now);
          const said =
            r.against[0] ??
            (r.answer?.ok === false
              ? `No answer: ${r.answer.fault}.`
              : v
                ? wrong.length > 0
                  ? `breaks ${wrong.join(', ')}`
                  : edge.has(r.id)
                    ? 'on the edge: nothing lighter leaves as much'
                    : ''
                : 'being struck …');
          return (
            <tr
              key={r.id}
              className={`border-b border-scribe/60 text-right ${mine ? 'bg-sheet font-semibold' : ''}`}
            >
              <th scope="row" className="py-1 text-left font-normal">
                {sheetName({ material: r.material, thickness: r.thickness, gauge: r.gauge, finish: 'raw' })}
              </th>
              <td className="px-1">
                <Fig of={massFigure(r.massKg, units)} />
              </td>
              <td className="px-1">
                <Fig of={size(v?.gapMm)} className={wrong.includes('gap') ? 'text-oxide' : ''} />
              </td>
              <td className="px-1">
                <Fig of={size(v?.dentMm)} />
              </td>
              <td className="px-1">
                <Fig of={v ? { value: fixed(v.ringHz, 0), unit: 'Hz' } : size(undefined)} />
              </td>
              <td className="px-1">
                <Fig of={{ value: fixed(r.cost, 0), unit: '$' }} />
              </td>
              <td className="max-w-72 px-2 text-left text-[12.5px] leading-tight text-ink2">{said}</td>
              <td className="w-28 py-0.5">
                {mine ? (
                  <span className="text-[13px]">as it is</span>
                ) : (
                  r.against.length === 0 && (
                    <Button className="min-h-10 w-full px-2 text-[13px]" onClick={() => onTake(r)}>
                      Take it
                    </Button>
                  )
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
