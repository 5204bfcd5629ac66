import { type FlatPattern, holeWidth, type PatternHole } from '../fold';
import type { Vec2 } from '../geometry';
import { formatLength, type UnitSystem } from '../units';

const GRAIN_ARROW = 60;

/** Lines of the etched arrow along the grain. */
export const arrow = (at: Vec2, [gx, gy]: Vec2): readonly (readonly [Vec2, Vec2])[] => {
  const tip: Vec2 = [at[0] + gx * GRAIN_ARROW, at[1] + gy * GRAIN_ARROW];
  const barb = (s: number): Vec2 => [tip[0] - gx * 10 - gy * 5 * s, tip[1] - gy * 10 + gx * 5 * s];
  return [
    [at, tip],
    [tip, barb(1)],
    [tip, barb(-1)],
  ];
};

/** Where the arrow to the front begins, from where the mark stands, mm. */
const WAY_BELOW = 22;
/** Lines of the etched arrow to the vehicle's front, and where its word stands; none where it is not told. */
export function wayMark({
  etch,
}: FlatPattern):
  | { readonly lines: ReturnType<typeof arrow>; readonly at: Vec2; readonly text: string }
  | undefined {
  if (!etch.way) return undefined;
  const from: Vec2 = [etch.at[0] + (etch.way.along[0] < 0 ? GRAIN_ARROW : 0), etch.at[1] - WAY_BELOW];
  return {
    lines: arrow(from, etch.way.along),
    at: [etch.at[0], etch.at[1] - WAY_BELOW - 14],
    text: etch.way.text,
  };
}

export const label = (p: FlatPattern): string => `${p.mark} ${p.name}`;

/** Height of a bolt's name beside its hole, mm. */
export const HOLE_TEXT = 6;
/** A bolt's name at its hole, and what its countersink is. */
export const holeLabel = ({ joint, sink }: PatternHole, units: UnitSystem): string =>
  sink ? `${joint} CSK ${sink.angle} deg, ${formatLength(sink.depth, units, true)} deep` : joint;
/** Where that name begins, from the hole's middle. */
export const beside = (h: PatternHole): Vec2 => {
  const r = Math.max(holeWidth(h.cut ?? h.final), h.sink?.diameter ?? 0) / 2;
  return [r * 0.75 + 2, r * 0.75 + 2];
};
/** Lines of the cross that marks a hole which is drilled later. */
export const cross = ([x, y]: Vec2): readonly (readonly [Vec2, Vec2])[] => [
  [
    [x - 5, y],
    [x + 5, y],
  ],
  [
    [x, y - 5],
    [x, y + 5],
  ],
];
