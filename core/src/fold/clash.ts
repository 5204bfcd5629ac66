import { areaOf, distanceToSegment, intersection, regionOf, type Vec2 } from '../geometry';
import { holeToBend } from './brake';
import type { BlankPiece, FoldedPanel, PlateHole } from './folded-panel';
import { holeWidth } from './holes';
import { openingOutline, removesMetal } from './openings';

/** Two pieces of a blank that want the same sheet. */
export interface BlankClash {
  readonly panel: string;
  readonly between: readonly [string, string];
  readonly areaMm2: number;
}

/**
 * Flanges whose developed blanks overlap: they cannot be cut from one sheet. Touching edges do not count, nor the small
 * square where the strips of two bends meet at a corner: a relief takes that away.
 */
export function blankClashes(f: FoldedPanel): readonly BlankClash[] {
  const byFacet = new Map<string, BlankPiece[]>();
  for (const p of f.blank.pieces) byFacet.set(p.id, [...(byFacet.get(p.id) ?? []), p]);
  const parent = new Map(f.facets.map(x => [x.id, x.parent]));
  const ids = [...byFacet.keys()];
  return ids.flatMap((a, i) =>
    ids.slice(i + 1).flatMap((b): readonly BlankClash[] => {
      // a flange's strip begins inside its own parent's flat: that is the bend, not a clash
      if (parent.get(a) === b || parent.get(b) === a) return [];
      let shared = 0;
      for (const p of byFacet.get(a) ?? [])
        for (const q of byFacet.get(b) ?? [])
          if (p.kind === 'flat' || q.kind === 'flat')
            shared += areaOf(intersection(regionOf(p.outline), regionOf(q.outline)));
      return shared > 1 ? [{ panel: f.panel.id, between: [a, b], areaMm2: shared }] : [];
    }),
  );
}

export interface BendNear {
  readonly bend: string;
  /** from the hole's center to the mold line, mm */
  readonly distanceMm: number;
  readonly wantedMm: number;
}

/**
 * The bend that crowds a bolt's hole most: the hole's edge stays 2t + R off the mold line, as any hole's, and a head or washer of
 * `bears` mm across stays off the curve. Undefined on a flat without bends.
 */
export function bendDistance(
  f: FoldedPanel,
  { facet, at, final }: Pick<PlateHole, 'facet' | 'at' | 'final'>,
  bears: number,
): BendNear | undefined {
  const lines = f.facets.flatMap(x => {
    const bend = f.bends.find(b => b.id === x.id);
    if (!bend || bend.angle === 0 || !x.hinge || x.hinge.width <= 0) return [];
    const { start, along, width } = x.hinge;
    if (x.parent === facet)
      return [{ bend, a: start, b: [start[0] + along[0] * width, start[1] + along[1] * width] as Vec2 }];
    return x.id === facet ? [{ bend, a: [0, 0] as Vec2, b: [0, width] as Vec2 }] : [];
  });
  let worst: BendNear | undefined;
  for (const { bend, a, b } of lines) {
    const distanceMm = distanceToSegment(at, a, b);
    const wantedMm = Math.max(
      holeToBend(bend.insideRadius, f.sheet.thickness) + holeWidth(final) / 2,
      bend.setbackMm + bears / 2,
    );
    if (!worst || distanceMm - wantedMm < worst.distanceMm - worst.wantedMm)
      worst = { bend: bend.id, distanceMm, wantedMm };
  }
  return worst;
}

export interface HoleNearBend {
  readonly panel: string;
  readonly opening: string;
  readonly bend: string;
  readonly distanceMm: number;
  readonly wantedMm: number;
}

/** Openings nearer to a bend's mold line than 2t + R: they would be drawn out of shape. */
export function holesNearBends(f: FoldedPanel): readonly HoleNearBend[] {
  return f.facets
    .filter(x => x.parent === 'base')
    .flatMap(x => {
      const bend = f.bends.find(b => b.id === x.id);
      const h = x.hinge;
      if (!bend || bend.angle === 0 || !h) return [];
      const end: Vec2 = [h.start[0] + h.along[0] * h.width, h.start[1] + h.along[1] * h.width];
      const wanted = holeToBend(bend.insideRadius, f.sheet.thickness);
      return f.panel.openings.filter(removesMetal).flatMap((o): readonly HoleNearBend[] => {
        const distance = Math.min(...openingOutline(o).map(q => distanceToSegment(q, h.start, end)));
        return distance < wanted - 1e-6
          ? [{ panel: f.panel.id, opening: o.id, bend: x.id, distanceMm: distance, wantedMm: wanted }]
          : [];
      });
    });
}
