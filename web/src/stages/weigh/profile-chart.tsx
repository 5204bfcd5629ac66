import { useMemo } from 'react';
import Chart from '../../ui/chart';

const color = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Builds told apart by hatch as well as by tone; there are eight at most. */
const HATCHES = [
  'slantedLines',
  'verticalLines',
  'circles',
  'horizontalLines',
  'squares',
  'slantedLines',
  'verticalLines',
  'circles',
] as const;
const TONES = ['--fluid', '--ink', '--ink2', '--marker', '--oxide', '--scribe', '--fluid', '--ink'] as const;

export interface ProfiledBuild {
  readonly id: string;
  readonly name: string;
  /** beside the best build in each thing, 0 to 1; undefined where it is not known */
  readonly shares: readonly (number | undefined)[];
}

/** Every build beside the best of them in each thing that matters; its figures stand in the table below. */
export default function ProfileChart({
  names,
  builds,
  theme,
}: {
  names: readonly string[];
  builds: readonly ProfiledBuild[];
  theme: string;
}) {
  const key = JSON.stringify([names, builds]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the builds are told by their figures, the colors are read from the page
  const options = useMemo(
    () => ({
      chart: {
        type: 'bar' as const,
        height: 110 + names.length * (14 + 13 * builds.length),
        animations: { enabled: false },
        toolbar: { show: false },
        foreColor: color('--ink'),
        fontFamily: 'inherit',
        background: 'transparent',
      },
      series: builds.map(b => ({
        name: b.name,
        data: b.shares.map((s, i) => ({
          x: names[i] ?? '',
          y: s === undefined ? null : Math.round(100 * s),
        })),
      })),
      colors: builds.map((_, i) => color(TONES[i] ?? '--ink')),
      fill: {
        type: builds.map(() => 'pattern'),
        pattern: {
          style: builds.map((_, i) => HATCHES[i] ?? 'circles'),
          width: 5,
          height: 5,
          strokeWidth: 2,
        },
      },
      stroke: { show: true, width: 1.5, colors: builds.map((_, i) => color(TONES[i] ?? '--ink')) },
      plotOptions: { bar: { horizontal: true, barHeight: '78%' } },
      dataLabels: { enabled: false },
      legend: { position: 'top' as const, horizontalAlign: 'left' as const, fontSize: '13px' },
      grid: { borderColor: color('--scribe') },
      tooltip: {
        theme,
        y: { formatter: (v: number | null) => (v === null ? 'not known' : `${v} % of the best build`) },
      },
      xaxis: {
        min: 0,
        max: 100,
        tickAmount: 4,
        labels: { formatter: (v: string) => `${v} %` },
        title: { text: 'beside the best of the builds' },
      },
      yaxis: { labels: { style: { fontSize: '14px' } } },
    }),
    [key, theme],
  );
  return (
    <Chart
      key={`${names.length} ${builds.length}`}
      options={options}
      label="Every build beside the best of them in each thing that matters; the table below has the figures"
    />
  );
}
