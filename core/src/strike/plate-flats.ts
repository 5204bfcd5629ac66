import { type FoldedPanel, openingOutline, removesMetal } from '../fold';
import { type Polygon, toSpace, type Vec2, type Vec3 } from '../geometry';
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

/**
 * A folded plate as flats that meet in sharp folds along its mould lines, in its underside: half a thickness below the middle
 * surface that it stands for, which changes no length by more than half a thickness. Mounting holes are not cut.
 */
export const plateFlats = (f: FoldedPanel): readonly Flat3[] =>
  f.facets
    .filter(facet => facet.hinge === undefined || facet.hinge.width > 0)
    .map((facet): Flat3 => {
      const put = (q: Vec2): Vec3 => toSpace(facet.frame, q);
      const cut = facet.parent === undefined ? f.panel.openings.filter(removesMetal) : [];
      return {
        name: facet.id,
        polygon: facet.outline.map(put),
        holes: cut.map(o =>
          coarser(openingOutline(o), 'circle' in o.shape ? Math.max(COARSE, o.shape.circle / 8) : 1).map(put),
        ),
      };
    });
