import { type FoldedPanel, facetInSpace, openingOutline, openShare } from '../fold';
import {
  type Box,
  boxOf,
  type Polygon,
  pierced,
  type Region,
  regionOf,
  toRadians,
  toSpace,
  union,
  type Vec2,
  type Vec3,
} from '../geometry';
import type { Opening, Panel } from '../plan';

/** What a folded panel hides, seen along one direction, on the ground plane. */
export interface Shadow {
  /** the plate without its cut openings; louvers still solid */
  readonly solid: Region;
  readonly louvers: readonly { readonly outline: Polygon; readonly open: number }[];
  readonly box: Box;
}

/** A view: where a point in space falls on the ground plane. */
export type View = (p: Vec3) => Vec2;

export const fromBelow: View = p => [p[0], p[1]];

/** Along a ray that climbs rearward at `degrees`: what a rock meets when driving forward. */
export const fromAhead = (degrees: number): View => {
  const run = 1 / Math.tan(toRadians(degrees));
  return p => [p[0] - p[2] * run, p[1]];
};

/** The part of a flat polygon in space at or below a height (Sutherland & Hodgman 1974). */
export function belowHeight(points: readonly Vec3[], z: number): readonly Vec3[] {
  if (points.every(p => p[2] <= z)) return points;
  return points.flatMap((a, i) => {
    const b = points[(i + 1) % points.length] as Vec3;
    const out: Vec3[] = a[2] <= z ? [a] : [];
    if (a[2] <= z !== b[2] <= z) {
      const k = (z - a[2]) / (b[2] - a[2]);
      out.push([a[0] + k * (b[0] - a[0]), a[1] + k * (b[1] - a[1]), z]);
    }
    return out;
  });
}

/** Shadow of a panel in a view; `upTo` leaves out what stands higher than that, mm. */
export function shadowOf(folded: FoldedPanel, view: View, upTo = Number.POSITIVE_INFINITY): Shadow {
  const flats = folded.facets
    .map(f => belowHeight(facetInSpace(f), upTo))
    .filter(f => f.length > 2)
    .map(f => f.map(view));
  const base = folded.facets[0];
  const lay = (o: Opening): Polygon => (base ? openingOutline(o).map(p => view(toSpace(base.frame, p))) : []);
  const cut = folded.panel.openings.filter(o => o.kind !== 'louvers').map(lay);
  const plate = flats.length === 1 && flats[0] ? regionOf(flats[0]) : union(flats);
  const solid = pierced(plate, flats[0] ?? [], cut);
  return {
    solid,
    louvers: folded.panel.openings
      .filter(o => o.kind === 'louvers')
      .map(o => ({ outline: lay(o), open: openShare(o) })),
    box: boxOf(flats.flat()),
  };
}

/** Undersides do not know the sheet: what a panel hides is remembered for the panel, whatever it is cut from. */
const remembered = new WeakMap<Panel, Map<string, Shadow>>();

/** As `shadowOf`, remembered for as long as the panel lives. `name` stands for the view. */
export function keptShadow(
  folded: FoldedPanel,
  name: string,
  view: View,
  upTo = Number.POSITIVE_INFINITY,
): Shadow {
  const known = remembered.get(folded.panel) ?? new Map<string, Shadow>();
  remembered.set(folded.panel, known);
  const key = `${name} ${upTo}`;
  const hit = known.get(key);
  if (hit) return hit;
  const made = shadowOf(folded, view, upTo);
  known.set(key, made);
  return made;
}
