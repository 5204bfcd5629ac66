import {
  type Facts,
  type Figure,
  type Finding,
  fixed,
  lengthFigure,
  massFigure,
  signed,
  type UnitSystem,
} from '@plate-fold/core';
import { sheetName } from '../../ui/names';

/** One build as the table looks at it. */
export interface Column {
  readonly facts: Facts;
  readonly findings: readonly Finding[];
}

export interface CompareRow {
  readonly name: string;
  readonly about?: string;
  readonly value: (c: Column) => number;
  readonly show: (v: number, change: boolean) => Figure;
  /** a second line under the figure */
  readonly note?: (c: Column) => string;
  /** which way is worse; the differences are marked so */
  readonly worse: 'more' | 'less' | 'neither';
  readonly strong?: boolean;
}

/** What builds are compared by, row by row. */
export function compareRows(facts: Facts, units: UnitSystem): readonly CompareRow[] {
  const mass = (v: number, change: boolean): Figure => massFigure(v, units, change);
  const length = (v: number, change: boolean): Figure => lengthFigure(v, units, true, change);
  const heightChange = (v: number): Figure => lengthFigure(v, units, true, true);
  const count = (v: number, change: boolean): Figure => ({
    value: (change ? signed : fixed)(v, 0),
    unit: '',
  });
  const money = (v: number, change: boolean): Figure => ({
    value: (change ? signed : fixed)(v, 0),
    unit: '$',
  });
  return [
    {
      name: 'Net mass',
      about: 'plates, bars and hardware less factory parts',
      value: c => c.facts.weight.netKg,
      show: (v, change) => massFigure(v, units, change || v > 0),
      worse: 'more',
      strong: true,
    },
    ...facts.panels.map(
      (p): CompareRow => ({
        name: `${p.panel.mark} ${p.panel.name}`,
        value: c => c.facts.weight.panels.find(x => x.id === p.panel.id)?.massKg ?? 0,
        show: mass,
        note: c => {
          const sheet = c.facts.build.sheets[p.panel.id];
          return sheet ? sheetName(sheet) : '';
        },
        worse: 'more',
      }),
    ),
    {
      name: 'Hardware',
      about: 'from its geometry',
      value: c => c.facts.weight.hardwareKg,
      show: mass,
      worse: 'more',
    },
    ...(facts.document.plan.crossbars.length > 0
      ? [
          {
            name: 'Crossbars',
            value: (c: Column) => c.facts.weight.crossbarKg,
            show: mass,
            worse: 'more' as const,
          },
        ]
      : []),
    { name: 'Factory parts off', value: c => -c.facts.weight.removedKg, show: mass, worse: 'neither' },
    {
      name: 'Heaviest plate',
      about: 'what has to be held up',
      value: c => Math.max(0, ...c.facts.weight.panels.map(p => p.massKg)),
      show: mass,
      note: c => {
        const top = [...c.facts.panels].sort((a, b) => b.massKg - a.massKg)[0];
        const limit = c.facts.document.plan.limits.maxLiftKg ?? 23;
        return top ? `${top.panel.mark}, ${top.massKg > limit ? 'two people or a jack' : 'one person'}` : '';
      },
      worse: 'more',
    },
    {
      name: 'Front axle',
      value: c => c.facts.weight.axles.frontKg,
      show: (v, change) => massFigure(v, units, change || v > 0),
      worse: 'more',
    },
    {
      name: 'Rear axle',
      value: c => c.facts.weight.axles.rearKg,
      show: (v, change) => massFigure(v, units, change || v > 0),
      worse: 'more',
    },
    {
      name: 'Nose',
      about: 'ride height',
      value: c => c.facts.weight.rideHeight.frontMm,
      show: heightChange,
      worse: 'less',
    },
    {
      name: 'Tail',
      about: 'ride height',
      value: c => c.facts.weight.rideHeight.rearMm,
      show: heightChange,
      worse: 'less',
    },
    {
      name: 'Right over left',
      about: 'at the wheels',
      value: c => c.facts.weight.sideKg,
      show: (v, change) => massFigure(v, units, change || v > 0),
      worse: 'neither',
    },
    {
      name: 'Least gap at rest',
      value: c =>
        Math.min(
          ...c.facts.gaps
            .filter(g => !c.facts.rig.components.find(x => x.id === g.component)?.moves)
            .map(g => g.gapMm),
        ),
      show: length,
      worse: 'less',
    },
    {
      name: 'Bends that cannot be made',
      value: c => c.facts.panels.reduce((n, p) => n + p.bends.filter(b => !b.ok).length, 0),
      show: count,
      worse: 'more',
    },
    {
      name: 'Findings to mend',
      value: c => c.findings.filter(f => f.severity !== 'note').length,
      show: count,
      worse: 'more',
    },
    {
      name: 'Cost, a guess',
      about: 'invented default rates',
      value: c => c.facts.weight.cost,
      show: money,
      worse: 'more',
      strong: true,
    },
  ];
}
