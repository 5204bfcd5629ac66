import type { Facts } from '@plate-fold/core/derive';
import {
  type FoldedPanel,
  facetInSpace,
  facetsOf,
  holeOutline,
  inFacet,
  openingOutline,
} from '@plate-fold/core/fold';
import { type Polygon, toSpace, type Vec2 } from '@plate-fold/core/geometry';
import type { Panel } from '@plate-fold/core/plan';

/** SVG path of closed outlines. */
export const pathOf = (outlines: readonly Polygon[], put: (p: Vec2) => Vec2): string =>
  outlines
    .map(
      o =>
        `M${o
          .map(p =>
            put(p)
              .map(v => v.toFixed(1))
              .join(' '),
          )
          .join('L')}Z`,
    )
    .join('');

/** Flats of a panel seen from above, on the ground plane, biggest parts first in the tree's order. */
export const flatsFromAbove = (p: FoldedPanel): readonly Polygon[] =>
  p.facets.map(f => facetInSpace(f).map((q): Vec2 => [q[0], q[1]]));

/** Flats of a panel that has no sheet yet, on the ground plane. */
export const flatsFromBase = (panel: Panel): readonly Polygon[] =>
  facetsOf(panel).map(f => facetInSpace(f).map((q): Vec2 => [q[0], q[1]]));

/** Openings of a panel on the ground plane. */
export function openingsFromAbove(p: FoldedPanel) {
  const base = p.facets[0];
  if (!base) return [];
  return p.panel.openings.map(o => ({
    opening: o,
    outline: openingOutline(o).map((q): Vec2 => {
      const s = toSpace(base.frame, q);
      return [s[0], s[1]];
    }),
  }));
}

/** Bolt holes of a panel as they are cut, on the ground plane, by the flat they are in. */
export function holesFromAbove(p: FoldedPanel): ReadonlyMap<string, readonly Polygon[]> {
  const out = new Map<string, Polygon[]>();
  for (const h of p.holes) {
    const facet = p.facets.find(f => f.id === h.facet);
    if (!h.cut || !facet) continue;
    const outline = holeOutline(inFacet(p, h, h.cut), h.at).map((q): Vec2 => {
      const s = toSpace(facet.frame, q);
      return [s[0], s[1]];
    });
    out.set(h.facet, [...(out.get(h.facet) ?? []), outline]);
  }
  return out;
}

/** Side view of a panel: each flat as (x, z) points. */
export const flatsFromSide = (p: FoldedPanel): readonly Polygon[] =>
  p.facets.map(f => facetInSpace(f).map((q): Vec2 => [q[0], q[2]]));

/** Left to right extent of a panel along the vehicle, mm. */
export function extentOf(p: FoldedPanel): readonly [number, number] {
  const xs = flatsFromSide(p).flatMap(f => f.map(q => q[0]));
  return [Math.min(...xs), Math.max(...xs)];
}

/** Where the mark of a panel stands on the map: the middle of its base, clear of openings and bolts. */
export function markPlace(p: FoldedPanel): Vec2 {
  const base = flatsFromAbove(p)[0] ?? [];
  const xs = base.map(q => q[0]);
  const ys = base.map(q => q[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const busy = [...openingsFromAbove(p).map(o => o.outline), ...[...holesFromAbove(p).values()].flat()];
  const clear = (x: number, y: number): number =>
    Math.min(
      400,
      x - x0,
      x1 - x,
      y - y0,
      y1 - y,
      ...busy.flatMap(o => o.map(q => Math.hypot(q[0] - x, q[1] - y))),
    );
  let best: Vec2 = [(x0 + x1) / 2, (y0 + y1) / 2];
  let most = clear(best[0], best[1]);
  for (const fx of [0.5, 0.35, 0.65, 0.2, 0.8])
    for (const fy of [0.5, 0.3, 0.7]) {
      const at: Vec2 = [x0 + fx * (x1 - x0), y0 + fy * (y1 - y0)];
      // on a narrow plate a little is much
      if (clear(at[0], at[1]) > most + Math.min(25, Math.max(8, most))) {
        best = at;
        most = clear(at[0], at[1]);
      }
    }
  return best;
}

/** Panels in the order of painting: seen from below the lowest is painted last, from above the highest. */
export function paintOrder(facts: Facts, fromAbove: boolean): readonly FoldedPanel[] {
  const height = (p: FoldedPanel): number =>
    Math.min(
      ...flatsFromSide(p)
        .slice(0, 1)
        .flatMap(f => f.map(q => q[1])),
    );
  return [...facts.panels].sort((a, b) => (height(a) - height(b)) * (fromAbove ? 1 : -1));
}
