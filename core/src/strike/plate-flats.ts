import { type FoldedPanel, openingOutline, removesMetal } from '../fold';
import {
  areaOf,
  contains,
  difference,
  distanceToOutline,
  intersection,
  type Polygon,
  regionOf,
  signedArea,
  simplified,
  toSpace,
  union,
  type Vec2,
  type Vec3,
} from '../geometry';
import type { Flat3 } from './shell-mesh';

/** Corners of an opening that lie nearer together than this are one, mm: fine roundings would only make small triangles. */
const COARSE = 9;

/** An outline with corners left out that stand within `least` of the one before. */
function coarser(p: Polygon, least: number): Polygon {
  const out: Vec2[] = [];
  for (const q of p) {
    const last = out.at(-1);
    if (!last || Math.hypot(q[0] - last[0], q[1] - last[1]) >= least) out.push(q);
  }
  return out.length >= 3 ? out : p;
}

/** Sheet narrower than this beside an opening is no sheet to a mesh, mm: the opening is taken to reach the edge. */
const SLIVER = 4;

/** What is cut out of a flat, as a mesh can bear it. */
interface Opened {
  readonly outline: Polygon;
  readonly holes: readonly Polygon[];
}

/**
 * A flat's outline and openings for a mesh. Openings that lie over one another are one; those that run out over an edge, or leave only a
 * sliver beside it, become part of the outline, of which the largest piece is what is left.
 */
function opened(outline: Polygon, cut: readonly Polygon[]): Opened {
  const apart = cut.every(
    (o, i) =>
      o.every(q => contains(outline, q) && distanceToOutline(outline, q) > SLIVER) &&
      cut.every((x, k) => k === i || areaOf(intersection(regionOf(o), regionOf(x))) < 1),
  );
  if (apart) return { outline, holes: cut };
  const wide = cut.map(o =>
    o.every(q => contains(outline, q) && distanceToOutline(outline, q) > SLIVER)
      ? [o]
      : [o, ...bridges(outline, o)],
  );
  const left = simplified(difference(regionOf(outline), union(wide.flat())), 0.5);
  const [largest] = left.filter(r => signedArea(r) > 0).sort((a, b) => signedArea(b) - signedArea(a));
  if (!largest) return { outline, holes: [] };
  const turned = signedArea(outline) < 0 ? [...largest].reverse() : largest;
  return {
    outline: turned,
    holes: left.filter(r => signedArea(r) < 0 && r.every(q => contains(largest, q))),
  };
}

/** Squares over the corners of an opening that stand too near to the edge, so that no sliver is left between. */
const bridges = (outline: Polygon, o: Polygon): readonly Polygon[] =>
  o
    .filter(q => distanceToOutline(outline, q) <= SLIVER)
    .map(([x, y]): Polygon => {
      const r = SLIVER + 2;
      return [
        [x - r, y - r],
        [x + r, y - r],
        [x + r, y + r],
        [x - r, y + r],
      ];
    });

/**
 * A folded plate as flats that meet in sharp folds along its mold lines, in its underside: half a thickness below the middle
 * surface that it stands for, which changes no length by more than half a thickness. Bolt holes are not cut: heads and washers press the
 * sheet round them.
 */
export const plateFlats = (f: FoldedPanel): readonly Flat3[] =>
  f.facets
    .filter(facet => facet.hinge === undefined || facet.hinge.width > 0)
    .map((facet): Flat3 => {
      const put = (q: Vec2): Vec3 => toSpace(facet.frame, q);
      const cut = facet.parent === undefined ? f.panel.openings.filter(removesMetal) : [];
      const { outline, holes } = opened(
        facet.outline,
        cut.map(o =>
          coarser(openingOutline(o), 'circle' in o.shape ? Math.max(COARSE, o.shape.circle / 8) : 1),
        ),
      );
      return { name: facet.id, polygon: outline.map(put), holes: holes.map(h => h.map(put)) };
    });
