import { type FoldedPanel, facetInSpace } from '../fold';
import {
  areaOf,
  type Box,
  boxesMeet,
  boxOf,
  difference,
  intersection,
  type Region,
  regionOf,
} from '../geometry';
import type { Component } from '../rig';
import { fromAhead, fromBelow, keptShadow, type Shadow, type View } from './shadow';

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

interface Under {
  readonly area: number;
  readonly bare: Region;
}

/**
 * Covered area of a footprint under shadows, and what stays bare. The shadows need not be merged first: with the
 * non-zero rule outlines and holes of several plates together fill exactly their union.
 */
function coveredBy(footprint: Region, near: readonly Shadow[]): Under {
  if (near.length === 0) return { area: 0, bare: footprint };
  const bare = difference(
    footprint,
    near.flatMap(s => s.solid),
  );
  let area = areaOf(footprint) - areaOf(bare);
  for (const s of near)
    for (const { outline, open } of s.louvers) {
      const others = near.filter(x => x !== s).flatMap(x => x.solid);
      const gap = difference(intersection(intersection(regionOf(outline), s.solid), footprint), others);
      area -= open * areaOf(gap);
    }
  return { area, bare };
}

const lastUnder = new WeakMap<Component, Map<string, { near: readonly Shadow[]; under: Under }>>();

/** As `coveredBy`, skipped while neither the component nor any plate near it has changed. */
function keptUnder(c: Component, view: string, footprint: Region, near: readonly Shadow[]): Under {
  const known = lastUnder.get(c) ?? new Map<string, { near: readonly Shadow[]; under: Under }>();
  lastUnder.set(c, known);
  const last = known.get(view);
  if (last && last.near.length === near.length && last.near.every((s, i) => s === near[i])) return last.under;
  const under = coveredBy(footprint, near);
  known.set(view, { near, under });
  return under;
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
  const ahead = fromAhead(aheadDegrees);
  const corners = panels.map(p => p.facets.flatMap(f => facetInSpace(f)));
  const tops = corners.map(c => Math.max(...c.map(q => q[2])));
  const reach = (view: View): readonly Box[] => corners.map(c => boxOf(c.map(view)));
  const [reachBelow, reachAhead] = [reach(fromBelow), reach(ahead)];
  const near = (
    footprint: Region,
    boxes: readonly Box[],
    shadow: (p: FoldedPanel, i: number) => Shadow,
  ): Shadow[] => {
    const box = boxOf(footprint.flat());
    return panels.flatMap((p, i) => (boxesMeet(boxes[i] as Box, box) ? [shadow(p, i)] : []));
  };
  let [total, covered, coveredAhead] = [0, 0, 0];
  const rows = components
    .filter(c => c.protect)
    .map((c): ComponentCover => {
      const footprint = regionOf(c.footprint);
      const area = areaOf(footprint);
      const down = keptUnder(
        c,
        'below',
        footprint,
        near(footprint, reachBelow, p => keptShadow(p, 'below', fromBelow)),
      );
      const shifted = regionOf(c.footprint.map(([x, y]) => ahead([x, y, c.zBottom])));
      const view = `ahead ${aheadDegrees}`;
      const front = keptUnder(
        c,
        view,
        shifted,
        near(shifted, reachAhead, (p, i) =>
          keptShadow(p, view, ahead, (tops[i] ?? 0) <= c.zBottom ? undefined : c.zBottom),
        ),
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
