import { areaOf, distanceToSegment, intersection, regionOf, type Vec2 } from '../geometry';
import { holeToBend } from './brake';
import type { BlankPiece, FoldedPanel } from './fold';
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

export interface HoleNearBend {
  readonly panel: string;
  readonly opening: string;
  readonly bend: string;
  readonly distanceMm: number;
  readonly wantedMm: number;
}

/** Openings nearer to a bend's mould line than 2t + R: they would be drawn out of shape. */
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
