import { type Facet, type FoldedPanel, facetInSpace } from '../fold';
import {
  type Box,
  boxesMeet,
  boxOf,
  contains,
  distance2,
  heightAt,
  intersection,
  type Polygon,
  regionOf,
  toSpace,
  underGround,
  type Vec2,
  type Vec3,
  vertex,
} from '../geometry';
import type { Component } from '../rig';

export interface Gap {
  readonly panel: string;
  readonly component: string;
  /** from the plate's upper face straight up to the component, mm; negative: they collide */
  readonly gapMm: number;
  readonly at: Vec3;
}

/** A flat steeper than this counts by its own thickness, not by the height of its vertical cut. */
const STEEP = 0.3;
const upperFace = (f: Facet, thickness: number): number =>
  f.frame.n[2] > STEEP ? thickness / f.frame.n[2] : thickness;

interface Flat {
  readonly facet: Facet;
  readonly ground: Polygon;
  readonly box: Box;
}

/** Least gap of one panel to one component. */
function leastGap(p: FoldedPanel, flats: readonly Flat[], c: Component, box: Box): Gap | undefined {
  let best: Gap | undefined;
  for (const { facet, ground, box: own } of flats) {
    if (Math.abs(facet.frame.n[2]) < 1e-3 || !boxesMeet(own, box)) continue;
    for (const [x, y] of intersection(regionOf(ground), regionOf(c.footprint)).flat()) {
      const z = heightAt(facet.frame, x, y);
      const gapMm = c.zBottom - z - upperFace(facet, p.sheet.thickness);
      if (z < c.zTop && (!best || gapMm < best.gapMm))
        best = { panel: p.panel.id, component: c.id, gapMm, at: [x, y, z] };
    }
  }
  return best;
}

const keptGaps = new WeakMap<FoldedPanel, WeakMap<Component, { readonly gap: Gap | undefined }>>();

/**
 * Least vertical gap at rest between every panel and every component above it; kept for as long as neither of the two
 * changes.
 */
export function gapsAtRest(components: readonly Component[], panels: readonly FoldedPanel[]): readonly Gap[] {
  const boxes = components.map(c => boxOf(c.footprint));
  return panels.flatMap(p => {
    const known = keptGaps.get(p) ?? new WeakMap<Component, { readonly gap: Gap | undefined }>();
    keptGaps.set(p, known);
    let flats: readonly Flat[] | undefined;
    return components.flatMap((c, i): readonly Gap[] => {
      let hit = known.get(c);
      if (!hit) {
        flats ??= p.facets.map(facet => {
          const ground = facetInSpace(facet).map((q): Vec2 => [q[0], q[1]]);
          return { facet, ground, box: boxOf(ground) };
        });
        hit = { gap: leastGap(p, flats, c, boxes[i] as Box) };
        known.set(c, hit);
      }
      return hit.gap ? [hit.gap] : [];
    });
  });
}

/**
 * Height of a panel's underside over a ground point; undefined where the panel is not there. Flats whose normal
 * stands up by less than `flat` are passed over.
 */
export function undersideAt(p: FoldedPanel, x: number, y: number, flat = 0.05): number | undefined {
  let z: number | undefined;
  for (const f of p.facets) {
    if (Math.abs(f.frame.n[2]) < flat) continue;
    const at = underGround(f.frame, x, y);
    if (!contains(f.outline, at)) continue;
    const here = toSpace(f.frame, at)[2];
    if (z === undefined || here < z) z = here;
  }
  return z;
}

export interface CatchEdge {
  readonly panel: string;
  /** the panel whose underside ends above it */
  readonly behind: string;
  readonly heightMm: number;
  readonly at: Vec3;
}

/** How far ahead of an edge another plate still leads a rock onto it, mm: common practice, no source. */
const REACH = [4, 20, 60, 120] as const;

/** A side turned up steeper than 60° leads no rock onto the plate behind. */
const LEADS = 0.5;

/** The free edges of a panel with the direction they face. */
function* freeEdges(p: FoldedPanel): Generator<{ a: Vec3; b: Vec3 }> {
  for (const f of p.facets) {
    const taken = new Set(p.facets.filter(x => x.parent === f.id).map(x => x.flange?.edge));
    const edges = f.parent === undefined ? f.outline.map((_, i) => i) : [1];
    for (const i of edges) {
      if (taken.has(f.parent === undefined ? i : 'far')) continue;
      const [a, b] = [vertex(f.outline, i), vertex(f.outline, i + 1)];
      if (distance2(a, b) > 5) yield { a: toSpace(f.frame, a), b: toSpace(f.frame, b) };
    }
  }
}

/**
 * Edges on which a vehicle driving forward hangs up: forward-facing, and below the underside of the plate just
 * ahead by more than the plate's own thickness.
 */
export function catchEdges(panels: readonly FoldedPanel[]): readonly CatchEdge[] {
  const found: CatchEdge[] = [];
  const boxes = panels.map(p => boxOf(p.facets.flatMap(f => facetInSpace(f).map((q): Vec2 => [q[0], q[1]]))));
  panels.forEach((p, k) => {
    let worst: CatchEdge | undefined;
    for (const { a, b } of freeEdges(p)) {
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const l = Math.hypot(dx, dy);
      if (l < 5) continue;
      const middle: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
      // forward-facing: the panel itself lies behind the edge
      if (Math.abs(dy) / l < 0.6 || undersideAt(p, middle[0] - 2, middle[1]) !== undefined) continue;
      for (const s of [0.12, 0.5, 0.88]) {
        const [x, y, z] = [a[0] + s * dx, a[1] + s * dy, a[2] + s * (b[2] - a[2])];
        panels.forEach((other, j) => {
          const box = boxes[j];
          if (j === k || !box || !boxesMeet(box, { min: [x - 120, y], max: [x, y] })) return;
          for (const ahead of REACH) {
            const there = undersideAt(other, x - ahead, y, LEADS);
            if (there === undefined) continue;
            const heightMm = there - z;
            if (heightMm > p.sheet.thickness && heightMm > (worst?.heightMm ?? 0))
              worst = { panel: p.panel.id, behind: other.panel.id, heightMm, at: [x, y, z] };
            return;
          }
        });
      }
    }
    if (worst) found.push(worst);
  });
  return found;
}

export interface WaterTrap {
  readonly panel: string;
  readonly at: Vec3;
}

/**
 * Panels whose low edge is turned up all along and has no opening at that height: water and stones stay.
 * Heights within 3 mm count as level.
 */
export function waterTraps(panels: readonly FoldedPanel[]): readonly WaterTrap[] {
  return panels.flatMap(p => {
    const base = p.facets[0];
    if (!base) return [];
    const corners = facetInSpace(base);
    const low = Math.min(...corners.map(c => c[2]));
    const level = (z: number): boolean => z < low + 3;
    // a flange holds water back where it rises from the edge it stands on; one that lies level lets it off
    const upturned = new Map(
      p.panel.flanges
        .filter(f => (f.inset?.[0] ?? 0) + (f.inset?.[1] ?? 0) < 20)
        .flatMap(f => {
          const facet = p.facets.find(x => x.id === f.id);
          const far = facet ? facetInSpace(facet).slice(1, 3) : [];
          return far.some(c => level(c[2])) ? [] : [[f.edge, true] as const];
        }),
    );
    const spills = corners.some((c, i) => {
      const next = corners[(i + 1) % corners.length] as Vec3;
      return level(c[2]) && level(next[2]) && !upturned.get(i);
    });
    const lowest = corners.find(c => level(c[2]));
    const single = corners.filter(c => level(c[2])).length < 2;
    const drained = p.panel.openings.some(
      o => o.kind !== 'louvers' && level(toSpace(base.frame, o.at)[2] - 3),
    );
    return spills || single || drained || !lowest ? [] : [{ panel: p.panel.id, at: lowest }];
  });
}
