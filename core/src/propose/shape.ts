import { toDegrees, type Vec2 } from '../geometry';
import type { Flange, Panel } from '../plan';

/** A turn smaller than this is none, degrees. */
const STRAIGHT = 0.05;

const slope = (a: Vec2, b: Vec2): number => toDegrees(Math.atan2(b[1] - a[1], b[0] - a[0]));
const length = (a: Vec2, b: Vec2): number => Math.hypot(b[0] - a[0], b[1] - a[1]);

/**
 * Base and end flanges of a plate that runs along a profile (places along the vehicle and heights of its underside, front first) between
 * two lines beside each other, y in mm: its longest stretch is the base, what goes on from there at either end are flanges on flanges.
 */
export function shapeOf(
  points: readonly Vec2[],
  [y0, y1]: readonly [number, number],
): Pick<Panel, 'base' | 'flanges'> {
  const stretches = points.slice(1).map((b, i) => ({ a: points[i] as Vec2, b }));
  const runs: { a: Vec2; b: Vec2 }[] = [];
  for (const s of stretches) {
    const last = runs.at(-1);
    if (last && Math.abs(slope(last.a, last.b) - slope(s.a, s.b)) < STRAIGHT) last.b = s.b;
    else runs.push({ ...s });
  }
  const k = runs.reduce((best, r, i) => {
    const longest = runs[best] as (typeof runs)[number];
    return length(r.a, r.b) > length(longest.a, longest.b) ? i : best;
  }, 0);
  const base = runs[k] as (typeof runs)[number];
  const angle = (i: number): number => slope((runs[i] as typeof base).a, (runs[i] as typeof base).b);
  /** the flanges past a run's end: toward the rear (`1`) or the front (`-1`); a rise away from the base folds up */
  const beyond = (i: number, way: 1 | -1, name: string, edge: number | 'far'): readonly Flange[] => {
    const next = runs[i + way];
    if (!next) return [];
    const turn = way > 0 ? angle(i + way) - angle(i) : angle(i) - angle(i + way);
    const inner = beyond(i + way, way, name, 'far');
    const last = inner.length === 0;
    return [
      {
        id: `${name}-${last ? 'lip' : 'ramp'}`,
        edge,
        length: length(next.a, next.b),
        angle: turn,
        ...(last ? {} : { flanges: inner }),
      },
    ];
  };
  const l = length(base.a, base.b);
  const pitch = -angle(k);
  return {
    base: {
      origin: [base.a[0], 0, base.a[1]],
      pitch: Math.abs(pitch) < 1e-9 ? 0 : pitch,
      roll: 0,
      outline: [
        [0, y0],
        [l, y0],
        [l, y1],
        [0, y1],
      ],
    },
    flanges: [...beyond(k, -1, 'front', 3), ...beyond(k, 1, 'rear', 1)],
  };
}
