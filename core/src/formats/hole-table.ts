import {
  type BarCut,
  barSink,
  HOLE_CORNER,
  holeKindWords,
  holeRows,
  holeSizeWords,
  type ResolvedJoint,
} from '../bolt';
import type { FoldedPanel } from '../fold';
import { MATERIALS } from '../sheet';
import { MM_PER_INCH, roundTo, type UnitSystem } from '../units';
import { csv } from './csv';

const lengthIn = (mm: number, units: UnitSystem): number =>
  units === 'inch' ? roundTo(mm / MM_PER_INCH, 4) : roundTo(mm, 3);
const unit = (units: UnitSystem): string => (units === 'inch' ? 'in' : 'mm');

/** The bolt holes of plates as CSV: one row a hole, its place from the blank's corner, what is cut and what it is for. */
export const holeTableCsv = (
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
  units: UnitSystem = 'metric',
): string =>
  csv(
    ['plate', 'bolt', 'thread', `x ${unit(units)}`, `y ${unit(units)}`, 'cut', 'kind', 'measured'],
    panels.flatMap(p =>
      holeRows(p, joints).map(r => [
        r.plate,
        r.joint,
        r.thread,
        lengthIn(r.x, units),
        lengthIn(r.y, units),
        r.hole.cut ? holeSizeWords(r.hole.cut, units) : 'not cut',
        holeKindWords(r, units),
        HOLE_CORNER,
      ]),
    ),
  );

/** The crossbars as they are sawn and drilled, as CSV: one row a hole, a row without a hole for a bar that has none. */
export const barCutsCsv = (cuts: readonly BarCut[], units: UnitSystem = 'metric'): string =>
  csv(
    [
      'crossbar',
      'material',
      `width ${unit(units)}`,
      `height ${unit(units)}`,
      `wall ${unit(units)}`,
      `length ${unit(units)}`,
      'bolt',
      'measured from',
      `place ${unit(units)}`,
      `drill ${unit(units)}`,
      'how',
      'thread',
    ],
    cuts.flatMap(({ bar, length, end, holes }) => {
      const { width, height, wall } = bar.section;
      const own = [
        bar.name,
        MATERIALS[bar.material].name,
        lengthIn(width, units),
        lengthIn(height, units),
        wall === 'solid' ? 'solid' : lengthIn(wall, units),
        lengthIn(length, units),
      ];
      return holes.length === 0
        ? [[...own, '', '', '', '', '', '']]
        : holes.map(h => [
            ...own,
            h.id,
            `${end} end`,
            lengthIn(h.along, units),
            lengthIn(h.diameter, units),
            `${h.how}${barSink(h, units)}`,
            h.thread,
          ]);
    }),
  );
