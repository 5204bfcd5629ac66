import { breaks, roomLeft, type StruckRung, sheetLimits } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { MATERIALS, type MaterialFamily } from '@plate-fold/core/sheet';
import { lengthFigure, massFigure, type UnitSystem } from '@plate-fold/core/units';
import { useMemo, useRef } from 'react';
import Chart from '../../ui/chart';
import { type Sheet, sameSheet } from './rungs';

/** Materials told apart by shape as well as by tone. */
const LOOK: Readonly<
  Record<
    MaterialFamily,
    { readonly tone: string; readonly shape: 'square' | 'diamond' | 'circle' | 'triangle' }
  >
> = {
  steel: { tone: '--ink', shape: 'square' },
  stainless: { tone: '--ink2', shape: 'diamond' },
  aluminum: { tone: '--fluid', shape: 'circle' },
  plastic: { tone: '--marker', shape: 'triangle' },
};
const FAMILIES = Object.keys(LOOK) as MaterialFamily[];

const color = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Marks of the mass axis, in the reader's unit. */
const STEP = 10;

/** No line joins the points of the first series. */
const NO_LINE = [0, 0, 0, 0, 0, 0, 0, 0, 0];

/** What the chart's marks stand for: its own key cannot tell shapes and colors apart. */
function ChartKey() {
  const mark = (shape: (typeof LOOK)[MaterialFamily]['shape']) =>
    ({
      square: <rect x="3" y="3" width="10" height="10" />,
      diamond: <path d="M8 1.5L14.5 8L8 14.5L1.5 8Z" />,
      circle: <circle cx="8" cy="8" r="6" />,
      triangle: <path d="M8 2L14.5 13.5H1.5Z" />,
    })[shape];
  return (
    <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-small" aria-label="Marks of the chart">
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
        current
      </li>
      <li className="flex items-center gap-1.5">
        <span className="w-6 border-t-2 border-dashed border-ink2" aria-hidden="true" />
        best trade-offs
      </li>
    </ul>
  );
}

/** Mass against gap left, every struck sheet a point, with the edge that nothing beats. */
export default function LadderChart({
  facts,
  struck,
  edge,
  units,
  theme,
  now,
  of,
  onTake,
}: {
  facts: Facts;
  struck: readonly StruckRung[];
  edge: ReadonlySet<string>;
  units: UnitSystem;
  theme: string;
  now: Sheet | undefined;
  /** whose mass it is */
  of: string;
  onTake: (r: StruckRung) => void;
}) {
  const take = useRef(onTake);
  take.current = onTake;
  const options = useMemo(() => {
    const mass = (kg: number): number => Number(massFigure(kg, units).value);
    const gap = (r: StruckRung): number =>
      Number(lengthFigure(roomLeft(r), units, units === 'metric').value.replace('\u2212', '-'));
    const point = (r: StruckRung) => ({ x: mass(r.massKg), y: gap(r), rung: r });
    const limits = sheetLimits(facts.document.plan.limits);
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
      { name: 'current', type: 'scatter', data: struck.filter(r => now && sameSheet(r, now)).map(point) },
      { name: 'edge', type: 'line', data: line },
    ];
    const masses = struck.map(r => mass(r.massKg));
    const low = Math.floor(Math.min(...masses) / STEP) * STEP;
    const high = Math.ceil(Math.max(...masses) / STEP) * STEP;
    const ink = color('--ink');
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
            if (r) take.current(r);
          },
        },
      },
      series,
      colors: [
        ...FAMILIES.map(f => color(LOOK[f].tone)),
        ...FAMILIES.map(() => color('--oxide')),
        color('--fluid'),
        color('--ink2'),
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
      grid: { borderColor: color('--scribe') },
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
        title: { text: `mass of ${of}, ${units === 'inch' ? 'lb' : 'kg'}` },
        min: low,
        max: high,
        tickAmount: (high - low) / STEP,
      },
      yaxis: {
        decimalsInFloat: units === 'inch' ? 1 : 0,
        title: {
          text: struck.some(r => r.struck.gapMm !== undefined)
            ? `clearance, ${length}`
            : `deflection (down), ${length}`,
        },
      },
    };
  }, [facts, struck, edge, units, theme, now, of]);
  return (
    <>
      <ChartKey />
      <Chart
        options={options}
        label="Mass of the plate against the clearance under a strike, every sheet a point; the table below has the figures"
      />
    </>
  );
}
