import { blankOutline, type FoldedPanel, type HoleShape, type PlateHole } from '../fold';
import { boxOf, distance2, type Vec2 } from '../geometry';
import type { Crossbar } from '../plan';
import type { Mount } from '../rig';
import { fixed, formatLength, tapeLength, type UnitSystem } from '../units';
import { drillName, holeFor } from './drill';
import { sinkAngle } from './holes';
import type { ResolvedJoint } from './joint';

/** One hole of a plate as a shop measures it: from the blank's corner, along its length and across it, mm. */
export interface HoleRow {
  readonly joint: string;
  readonly plate: string;
  readonly thread: string;
  readonly x: number;
  readonly y: number;
  readonly hole: PlateHole;
}

/** Where holes are measured from, in words. */
export const HOLE_CORNER = 'from the front left corner of the blank, seen on its upper face';

/** The holes of a plate from the corner of its blank that lies foremost and leftmost: x rearward, y to the right, front to rear. */
export function holeRows(p: FoldedPanel, joints: readonly ResolvedJoint[]): readonly HoleRow[] {
  const { min } = boxOf(blankOutline(p).flat());
  return p.holes
    .map(hole => ({
      joint: hole.joint,
      plate: p.panel.mark,
      thread: joints.find(j => j.id === hole.joint)?.thread.designation ?? '',
      x: hole.blank[0] - min[0],
      y: hole.blank[1] - min[1],
      hole,
    }))
    .sort((a, b) => a.x - b.x || a.y - b.y);
}

/** The size of a hole in words: `11 mm`, `0.433 in`, `11 × 25 mm slot at 90°`. */
export function holeSizeWords(shape: HoleShape, units: UnitSystem): string {
  const n = (mm: number): string => formatLength(mm, units, true);
  if ('circle' in shape) return `\u2300${n(shape.circle)}`;
  if ('square' in shape) return `${n(shape.square)} square`;
  const at = ((shape.along % 180) + 180) % 180;
  return `${n(shape.slot[1])} \u00d7 ${n(shape.slot[0])} slot at ${fixed(at, 0)}\u00b0`;
}

const KIND: Readonly<Record<PlateHole['kind'], string>> = {
  clearance: 'through',
  tapped: 'tapped',
  clinch: 'for a clinch nut',
  slot: 'slot',
  square: 'square, for a carriage bolt',
  pilot: 'pilot, opened when fitted',
  uncut: 'marked only, drilled when fitted',
};

/** What a hole is and what becomes of it, in words. */
export function holeKindWords(
  { hole: h, thread }: Pick<HoleRow, 'hole' | 'thread'>,
  units: UnitSystem,
): string {
  if (h.kind === 'tapped' || h.kind === 'clinch')
    return `${KIND[h.kind]} ${thread}${h.pressedFrom ? `, pressed in from the ${h.pressedFrom}` : ''}`;
  const sink = h.sink
    ? `; ${sinkWords(h.sink, units)}, from the ${h.sink.below ? 'underside' : 'upper face'}`
    : '';
  const open = h.kind === 'pilot' || h.kind === 'uncut' ? ` to ${holeSizeWords(h.final, units)}` : '';
  return `${KIND[h.kind]}${open}${sink}`;
}

const sinkWords = (
  s: { readonly diameter: number; readonly depth: number; readonly angle: number },
  units: UnitSystem,
): string =>
  `countersunk ${fixed(s.angle, 0)}\u00b0 to \u2300${formatLength(s.diameter, units, true)}, ${formatLength(s.depth, units, true)} deep`;

/** A hole in a crossbar: along it from the end that the cut list names, and what is drilled. */
export interface BarHole {
  readonly id: string;
  readonly along: number;
  readonly diameter: number;
  /** through the whole bar, into its lower wall only, or tapped */
  readonly how: 'through' | 'lower face' | 'tapped';
  /** a head sunk into the bar's lower face, so that a plate lies against it */
  readonly sink?: { readonly diameter: number; readonly depth: number; readonly angle: number };
  readonly thread: string;
}
/** A crossbar as it is sawn and drilled. mm. */
export interface BarCut {
  readonly bar: Crossbar;
  readonly length: number;
  /** the end that its holes are measured from */
  readonly end: 'front' | 'rear' | 'left' | 'right';
  readonly holes: readonly BarHole[];
}

/** The cut list of the crossbars: lengths, and every hole with its place from one end. */
export function barCuts(
  bars: readonly Crossbar[],
  joints: readonly ResolvedJoint[],
  holes: readonly Mount[] = [],
): readonly BarCut[] {
  return bars.map(bar => {
    const [a, b]: readonly [Vec2, Vec2] = [
      [bar.from[0], bar.from[1]],
      [bar.to[0], bar.to[1]],
    ];
    const l = distance2(a, b) || 1;
    const rise = bar.to[2] - bar.from[2];
    const length = Math.hypot(l, rise);
    const along = ([x, y]: readonly number[]): number =>
      ((((x as number) - a[0]) * (b[0] - a[0]) + ((y as number) - a[1]) * (b[1] - a[1])) / l) * (length / l);
    const up = joints.flatMap((j): BarHole[] =>
      j.mount && bar.mounts.includes(j.mount.id)
        ? [
            {
              id: j.id,
              along: along(j.at),
              diameter: j.thread.clearances[j.joint.fit ?? 'normal'],
              how: 'through',
              thread: j.thread.designation,
              ...(j.joint.panels.length === 0 && j.joint.fastener.head === 'countersunk'
                ? { sink: { diameter: j.head.bearing, depth: j.head.height, angle: sinkAngle(j.thread) } }
                : {}),
            },
          ]
        : [],
    );
    const down = holes.flatMap((m): BarHole[] => {
      const j = m.member === bar.id ? joints.find(x => x.mount?.id === m.id) : undefined;
      if (!j) return [];
      const tapped = m.hole.kind === 'threaded';
      return [
        {
          id: j.id,
          along: along(m.at),
          diameter: tapped ? j.thread.tapDrill : holeFor(j.joint, j.thread),
          how: tapped ? 'tapped' : 'lower face',
          thread: j.thread.designation,
        },
      ];
    });
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const end = Math.abs(dx) > Math.abs(dy) ? (dx > 0 ? 'front' : 'rear') : dy > 0 ? 'left' : 'right';
    return { bar, length, end, holes: [...up, ...down].sort((p, q) => p.along - q.along) };
  });
}

/** A bar's section in words: `2 in x 1 in solid`. */
export const sectionWords = ({ section }: Pick<Crossbar, 'section'>, units: UnitSystem): string =>
  `${formatLength(section.width, units, true)} \u00d7 ${formatLength(section.height, units, true)}${
    section.wall === 'solid' ? ' solid' : `, wall ${formatLength(section.wall, units, true)}`
  }`;

/** How a bar's hole is sunk, in words; empty where it is not. */
export const barSink = (h: BarHole, units: UnitSystem): string =>
  h.sink ? `, its lower end ${sinkWords(h.sink, units)}` : '';

/** A hole of a bar in words. */
export const barHoleWords = (h: BarHole, { end }: Pick<BarCut, 'end'>, units: UnitSystem): string =>
  `${h.id}: ${tapeLength(h.along, units)} from its ${end} end, ${drillName(h.diameter, units)} ${
    h.how === 'tapped' ? `tapped ${h.thread}` : h.how === 'through' ? 'right through' : 'in its lower face'
  }${barSink(h, units)}`;
