import { type FoldedPanel, facetInSpace } from '../fold';
import {
  areaOf,
  boxesMeet,
  boxOf,
  difference,
  intersection,
  type Region,
  regionOf,
  union,
} from '../geometry';
import type { Component } from '../rig';
import { fromAhead, fromBelow, keptShadow, type Shadow, shadowOf, type View } from './shadow';

export const AHEAD_DEGREES = 20;

export interface ComponentCover {
  readonly id: string;
  readonly areaMm2: number;
  readonly coveredMm2: number;
  readonly fraction: number;
  readonly fromAheadFraction: number;
  /** what is bare from below, on the ground plane */
  readonly bare: Region;
}
export interface Coverage {
  readonly components: readonly ComponentCover[];
  /** by summed areas; 1 when nothing is to be protected */
  readonly fraction: number;
  readonly fromAheadFraction: number;
}

/** Covered area of a footprint under the shadows that can reach it, and what stays bare. */
function coveredBy(footprint: Region, shadows: readonly Shadow[]): { area: number; bare: Region } {
  const box = boxOf(footprint.flat());
  const near = shadows.filter(s => boxesMeet(s.box, box));
  if (near.length === 0) return { area: 0, bare: footprint };
  const first = near[0] as Shadow;
  const under = near.length === 1 ? first.solid : union(near.flatMap(s => s.solid));
  let area = areaOf(intersection(footprint, under));
  for (const s of near)
    for (const { outline, open } of s.louvers) {
      const others = near.filter(x => x !== s).flatMap(x => x.solid);
      const gap = difference(intersection(intersection(regionOf(outline), s.solid), footprint), others);
      area -= open * areaOf(gap);
    }
  return { area, bare: difference(footprint, under) };
}

/**
 * Coverage of what is to be protected: footprint ∩ union of the projected panels less their openings, from below
 * and along a ray that climbs rearward at `aheadDegrees`. Louvers count open by their open share. From ahead only
 * sheet that lies below the component's underside stands in the way of the ray. Areas in mm².
 */
export function coverage(
  components: readonly Component[],
  panels: readonly FoldedPanel[],
  aheadDegrees: number = AHEAD_DEGREES,
): Coverage {
  const below = panels.map(p => keptShadow(p, 'below', fromBelow));
  const ahead = fromAhead(aheadDegrees);
  const tops = panels.map(p => Math.max(...p.facets.flatMap(f => facetInSpace(f).map(q => q[2]))));
  const seen = (p: FoldedPanel, i: number, z: number, view: View): Shadow =>
    (tops[i] ?? 0) <= z ? keptShadow(p, `ahead ${aheadDegrees}`, view) : shadowOf(p, view, z);
  let [total, covered, coveredAhead] = [0, 0, 0];
  const rows = components
    .filter(c => c.protect)
    .map((c): ComponentCover => {
      const footprint = regionOf(c.footprint);
      const area = areaOf(footprint);
      const down = coveredBy(footprint, below);
      const shifted = regionOf(c.footprint.map(([x, y]) => ahead([x, y, c.zBottom])));
      const front = coveredBy(
        shifted,
        panels.map((p, i) => seen(p, i, c.zBottom, ahead)),
      );
      total += area;
      covered += down.area;
      coveredAhead += front.area;
      return {
        id: c.id,
        areaMm2: area,
        coveredMm2: down.area,
        fraction: down.area / area,
        fromAheadFraction: front.area / area,
        bare: down.bare,
      };
    });
  return {
    components: rows,
    fraction: total > 0 ? covered / total : 1,
    fromAheadFraction: total > 0 ? coveredAhead / total : 1,
  };
}
