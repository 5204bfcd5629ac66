import { contains, distanceToOutline, type Polygon, type Vec2, type Vec3 } from '../geometry';
import type { Component } from '../rig';
import { type Flat3, inPlane2, type Plane3, planeOf } from './shell-mesh';

/** Upper face of the sheet over a node to a part's underside, mm; undefined where the part is not over it. */
export const gapOver = (c: Component, p: Vec3, thickness: number): number | undefined =>
  p[2] < c.zTop && contains(c.footprint, [p[0], p[1]]) ? c.zBottom - p[2] - thickness : undefined;

/** A flat in its own plane. */
export interface Laid {
  readonly plane: Plane3;
  readonly outline: Polygon;
  readonly holes: readonly Polygon[];
}
const laidKept = new WeakMap<Flat3, Laid>();
/** A flat laid into its plane, once: it is asked for at every place that is tried. */
export function laid(f: Flat3): Laid {
  const known = laidKept.get(f);
  if (known) return known;
  const plane = planeOf(f.polygon);
  const flat = (p: readonly Vec3[]): Polygon => p.map(q => inPlane2(plane, q));
  const made = { plane, outline: flat(f.polygon), holes: f.holes.map(flat) };
  laidKept.set(f, made);
  return made;
}

/** Where the upright line over a place in plan meets a flat's plane; undefined for a steep flat or a place beside it. */
export function overPlace(
  { plane, outline }: Laid,
  [x, y]: readonly [number, number, ...number[]],
): Vec3 | undefined {
  const { n, origin } = plane;
  if (Math.abs(n[2]) < 0.3) return undefined;
  const p: Vec3 = [x, y, origin[2] - (n[0] * (x - origin[0]) + n[1] * (y - origin[1])) / n[2]];
  return contains(outline, inPlane2(plane, p)) ? p : undefined;
}

/** A point of the sheet over a place in plan, `off` mm from its edges at least, the lowest where there are several; undefined where there is none. */
export function onPlate(flats: readonly Flat3[], at: Vec2, off = 0): Vec3 | undefined {
  let best: Vec3 | undefined;
  for (const f of flats) {
    const l = laid(f);
    const p = overPlace(l, at);
    if (!p || l.holes.some(h => contains(h, inPlane2(l.plane, p)))) continue;
    if (off > 0 && [l.outline, ...l.holes].some(o => distanceToOutline(o, inPlane2(l.plane, p)) < off))
      continue;
    if (!best || p[2] < best[2]) best = p;
  }
  return best;
}
