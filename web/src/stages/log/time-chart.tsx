import { lengthFigure, MM_PER_INCH, type UnitSystem } from '@plate-fold/core/units';
import { useMemo } from 'react';
import Chart from '../../ui/chart';

const color = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Heights of both axles' fenders over time; the figures stand in the table below. */
export default function TimeChart({
  heights,
  units,
  theme,
}: {
  heights: readonly { readonly at: number; readonly front: number; readonly rear: number }[];
  units: UnitSystem;
  theme: string;
}) {
  const key = JSON.stringify([heights, units]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the heights are told by their figures, the colors are read from the page
  const options = useMemo(() => {
    const unit = lengthFigure(0, units).unit;
    const value = (mm: number): number => Math.round((units === 'inch' ? mm / MM_PER_INCH : mm) * 100) / 100;
    return {
      chart: {
        type: 'line' as const,
        height: 240,
        animations: { enabled: false },
        toolbar: { show: false },
        zoom: { enabled: false },
        foreColor: color('--ink'),
        fontFamily: 'inherit',
        background: 'transparent',
      },
      series: (['front', 'rear'] as const).map(k => ({
        name: `${k} fenders`,
        data: heights.map(h => ({ x: h.at, y: value(h[k]) })),
      })),
      colors: [color('--fluid'), color('--ink')],
      stroke: { width: 2.5, curve: 'straight' as const, dashArray: [0, 6] },
      markers: { size: 5, shape: ['circle', 'square'] as never },
      xaxis: { type: 'datetime' as const },
      yaxis: {
        title: { text: `above the wheel centers, ${unit}` },
        labels: { formatter: (v: number) => String(Math.round(v * 10) / 10) },
      },
      legend: { position: 'top' as const, horizontalAlign: 'left' as const, fontSize: '13px' },
      grid: { borderColor: color('--scribe') },
      tooltip: { theme, x: { format: 'd MMM yyyy' } },
    };
  }, [key, theme]);
  return (
    <Chart options={options} label="Heights of the fenders over time; the table below has the figures" />
  );
}
