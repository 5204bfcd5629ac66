import { HEARD_BELOW } from '@plate-fold/core/checks';
import type { Facts } from '@plate-fold/core/derive';
import type { FigureId } from '@plate-fold/core/explain';
import { liftLimitKg } from '@plate-fold/core/sequence';
import type { StrikeAnswer } from '@plate-fold/core/strike';
import {
  type Figure,
  figureText,
  fixed,
  lengthFigure,
  massFigure,
  signed,
  type UnitSystem,
} from '@plate-fold/core/units';
import { sheetName } from '../../ui/names';
import { hardwareWords, kinds, paidWords } from './row-words';
import type { Column } from './use-columns';

export interface CompareRow {
  readonly name: string;
  readonly about?: string;
  /** what tells how it was computed */
  readonly how?: FigureId;
  /** undefined where it is not known (yet) */
  readonly value?: (c: Column) => number | undefined;
  readonly show?: (v: number, change: boolean) => Figure;
  /** a second line under the figure, or all there is to say; `base` is the build compared to */
  readonly note?: (c: Column, base: Column | undefined) => string;
  /** which way is worse; the differences are marked so */
  readonly worse: 'more' | 'less' | 'neither';
  readonly strong?: boolean;
}

export interface RowGroup {
  readonly name: string;
  readonly rows: readonly CompareRow[];
}

/** Rules whose findings say how a build bears heat, wet and salt. */
const HEAT_AND_RUST = new Set(['hot-part', 'dissimilar-metals', 'galling']);

/** The struck plate that is worst, and which it is. */
const worst = (
  c: Column,
  of: (s: StrikeAnswer) => number | undefined,
  most: boolean,
): StrikeAnswer | undefined =>
  c.struck
    ?.filter(s => of(s) !== undefined)
    .sort((a, b) => ((of(a) ?? 0) - (of(b) ?? 0)) * (most ? -1 : 1))[0];

const markOf = (c: Column, panel: string): string =>
  c.facts.panels.find(p => p.panel.id === panel)?.panel.mark ?? panel;
const partOf = (c: Column, part: string | undefined): string =>
  c.facts.rig.components.find(x => x.id === part)?.name ?? '';

/** What builds are compared by, row by row. */
export function compareRows(facts: Facts, units: UnitSystem): readonly RowGroup[] {
  const mass = (v: number, change: boolean): Figure => massFigure(v, units, change);
  const added = (v: number, change: boolean): Figure => massFigure(v, units, change || v > 0);
  const length = (v: number, change: boolean): Figure => lengthFigure(v, units, true, change);
  const number =
    (unit: string, digits = 0) =>
    (v: number, change: boolean): Figure => ({ value: (change ? signed : fixed)(v, digits), unit });
  const money = number('$');
  const { fenders } = facts.document.plan;
  const fender = (axle: 'front' | 'rear'): CompareRow => {
    const before = fenders?.[axle]?.before;
    const change = (c: Column): number =>
      axle === 'front' ? c.facts.weight.rideHeight.frontMm : c.facts.weight.rideHeight.rearMm;
    return {
      name: axle === 'front' ? 'Fender, front' : 'Fender, rear',
      how: 'ride-height',
      about: before === undefined ? 'change in height' : 'height, from your measurements',
      value: c => (before ?? 0) + change(c),
      show: (v, diff) => lengthFigure(v, units, true, diff || before === undefined),
      ...(before === undefined
        ? {}
        : { note: (c: Column) => `${figureText(lengthFigure(change(c), units, true, true))} against bare` }),
      worse: 'less',
    };
  };
  const group = (name: string, rows: readonly (CompareRow | false)[]): RowGroup => ({
    name,
    rows: rows.filter(r => r !== false),
  });
  return [
    group('Mass', [
      {
        name: 'Net mass',
        how: 'net-mass',
        about: 'plates, bars and hardware less factory parts',
        value: c => c.facts.weight.netKg,
        show: added,
        worse: 'more',
        strong: true,
      },
      ...facts.panels.map(
        (p): CompareRow => ({
          name: `${p.panel.mark} ${p.panel.name}`,
          how: 'plate-mass',
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
        how: 'hardware-mass',
        about: 'from its geometry',
        value: c => c.facts.weight.hardwareKg,
        show: mass,
        worse: 'more',
      },
      facts.document.plan.crossbars.length > 0 && {
        name: 'Crossbars',
        how: 'plate-mass',
        value: c => c.facts.weight.crossbarKg,
        show: mass,
        worse: 'more',
      },
      {
        name: 'Factory parts to remove',
        how: 'removed-mass',
        value: c => -c.facts.weight.removedKg,
        show: mass,
        worse: 'neither',
      },
      {
        name: 'Heaviest plate',
        how: 'plate-mass',
        about: 'the most you lift',
        value: c => Math.max(0, ...c.facts.weight.panels.map(p => p.massKg)),
        show: mass,
        note: c => {
          const top = [...c.facts.panels].sort((a, b) => b.massKg - a.massKg)[0];
          const limit = liftLimitKg(c.facts.document);
          return top
            ? `${top.panel.mark}, ${top.massKg > limit ? 'two people or a jack' : 'one person'}`
            : '';
        },
        worse: 'more',
      },
    ]),
    group('Axles and ride height', [
      {
        name: 'Front axle',
        how: 'axle-load',
        value: c => c.facts.weight.axles.frontKg,
        show: added,
        worse: 'more',
      },
      {
        name: 'Rear axle',
        how: 'axle-load',
        value: c => c.facts.weight.axles.rearKg,
        show: added,
        worse: 'more',
      },
      facts.weight.unsprungKg > 0 && {
        name: 'Of it unsprung',
        about: 'moves with an axle',
        how: 'axle-load' as const,
        value: (c: Column) => c.facts.weight.unsprungKg,
        show: mass,
        worse: 'more' as const,
      },
      fender('front'),
      fender('rear'),
      {
        name: 'Rake',
        how: 'ride-height',
        about: 'nose over tail, changed',
        value: c => c.facts.weight.rideHeight.frontMm - c.facts.weight.rideHeight.rearMm,
        show: v => lengthFigure(v, units, true, true),
        worse: 'neither',
      },
      {
        name: 'Right over left',
        how: 'side-load',
        about: 'at the wheels',
        value: c => c.facts.weight.sideKg,
        show: added,
        worse: 'neither',
      },
      {
        name: 'Breakover',
        how: 'breakover',
        about: 'over a crest, wheels on the ground',
        value: c => c.facts.angles.breakoverDeg,
        show: number('\u00b0', 1),
        worse: 'less',
      },
      {
        name: 'Lowest point',
        how: 'lowest-point',
        about: facts.lowestBelly ? 'above the ground, at rest' : 'above the ground',
        value: c => c.facts.lowest.z,
        show: length,
        note: c => (c.facts.lowest.panel === undefined ? '' : `plate ${markOf(c, c.facts.lowest.panel)}`),
        worse: 'less',
      },
    ]),
    group('Under a strike', [
      {
        name: 'Least clearance at rest',
        how: 'gap-at-rest',
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
        name: 'Clearance under a strike',
        how: 'gap-struck',
        about: 'half the heavier axle on a rock',
        value: c => worst(c, s => s.gapMm, false)?.gapMm,
        show: length,
        note: c => {
          const s = worst(c, x => x.gapMm, false);
          return s ? `${markOf(c, s.panel)} to ${partOf(c, s.gapTo)}` : '';
        },
        worse: 'less',
        strong: true,
      },
      {
        name: 'Deepest dent',
        how: 'dent',
        value: c => worst(c, s => s.dentMm, true)?.dentMm,
        show: length,
        note: c => {
          const s = worst(c, x => x.dentMm, true);
          return s && (s.dentMm ?? 0) > 0.05 ? `plate ${markOf(c, s.panel)}` : '';
        },
        worse: 'more',
      },
      {
        name: 'Lowest vibration',
        how: 'vibration',
        about: `below ${HEARD_BELOW} Hz it may drum`,
        value: c => worst(c, s => s.ringHz, false)?.ringHz,
        show: number('Hz'),
        note: c => {
          const s = worst(c, x => x.ringHz, false);
          return s ? `plate ${markOf(c, s.panel)}` : '';
        },
        worse: 'less',
      },
      {
        name: 'Shaken by the road',
        how: 'shaken',
        about: 'stress at bolts by the sheet’s endurance limit; compares builds, predicts no life',
        value: c => {
          const share = worst(c, s => s.shakenShare, true)?.shakenShare;
          return share === undefined ? undefined : 100 * share;
        },
        show: number('%'),
        note: c => {
          const s = worst(c, x => x.shakenShare, true);
          return s ? `plate ${markOf(c, s.panel)}` : '';
        },
        worse: 'more',
      },
      {
        name: 'Plates that collapse',
        how: 'collapse',
        value: c => c.struck?.filter(s => s.reached < 1).length,
        show: number(''),
        note: c =>
          (c.struck ?? [])
            .filter(s => s.reached < 1)
            .map(s => markOf(c, s.panel))
            .join(', '),
        worse: 'more',
      },
    ]),
    group('Making it', [
      {
        name: 'Blanks',
        value: c => c.facts.panels.length,
        show: number(''),
        note: c => kinds(c),
        worse: 'neither',
      },
      {
        name: 'Stock sheets',
        how: 'stock-sheets',
        about: 'of the chosen shop, as nested in Fold',
        value: c => c.extra?.sheets,
        show: number(''),
        note: c =>
          c.extra && c.extra.tooLarge.length > 0
            ? `too large for any: ${c.extra.tooLarge.map(p => markOf(c, p)).join(', ')}`
            : '',
        worse: 'more',
      },
      {
        name: 'Bends made',
        value: c => c.facts.panels.reduce((n, p) => n + p.bends.filter(b => b.ok && b.angle !== 0).length, 0),
        show: number(''),
        worse: 'neither',
      },
      {
        name: 'Bends that cannot be made',
        value: c => c.facts.panels.reduce((n, p) => n + p.bends.filter(b => !b.ok).length, 0),
        show: number(''),
        note: c =>
          c.facts.panels
            .filter(p => p.bends.some(b => !b.ok))
            .map(p => p.panel.mark)
            .join(', '),
        worse: 'more',
      },
      {
        name: 'Hardware that changes',
        about: 'compared with the baseline',
        note: (c, base) => (base && base !== c ? hardwareWords(base.facts, c.facts, units) : ''),
        worse: 'neither',
      },
      {
        name: 'Heat and rust',
        note: c => {
          const said = c.findings.filter(f => HEAT_AND_RUST.has(f.rule)).map(f => f.text);
          return said.length === 0
            ? 'nothing found'
            : said.slice(0, 2).join(' ') + (said.length > 2 ? ` And ${said.length - 2} more.` : '');
        },
        worse: 'neither',
      },
      {
        name: 'Findings to fix',
        value: c => c.findings.filter(f => f.severity !== 'note').length,
        show: number(''),
        worse: 'more',
      },
    ]),
    group('Cost', [
      {
        name: 'Sheet',
        how: 'cost-sheet',
        value: c => c.facts.weight.costs.sheet,
        show: money,
        worse: 'more',
      },
      {
        name: 'Cutting',
        how: 'cost-cutting',
        value: c => c.facts.weight.costs.cutting,
        show: money,
        worse: 'more',
      },
      {
        name: 'Bending',
        how: 'cost-bending',
        value: c => c.facts.weight.costs.bending,
        show: money,
        worse: 'more',
      },
      {
        name: 'Finish',
        how: 'cost-finish',
        value: c => c.facts.weight.costs.finish,
        show: money,
        worse: 'more',
      },
      {
        name: 'Bolts and bars',
        how: 'cost-hardware',
        value: c => c.facts.weight.costs.hardware + c.facts.weight.costs.crossbars,
        show: money,
        worse: 'more',
      },
      {
        name: 'Total, estimate',
        how: 'cost',
        about: facts.weight.rates.note,
        value: c => c.facts.weight.cost,
        show: money,
        note: c => paidWords(c.facts),
        worse: 'more',
        strong: true,
      },
    ]),
  ];
}
