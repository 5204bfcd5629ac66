import type { Facet, FoldedPanel } from '../fold';
import { add3, dot3, scale3, sub3, type Vec3 } from '../geometry';
import { plateFlats } from './plate-flats';
import type { Flat3 } from './shell-mesh';

/**
 * The flats of a folded sheet in its middle surface: every corner moved by half a thickness along the normals of the flats it belongs to, so
 * that they still meet in their folds.
 */
export function middleFlats(f: FoldedPanel): readonly Flat3[] {
  const facet = new Map(f.facets.map(x => [x.id, x]));
  const half = f.sheet.thickness / 2;
  const beside = (own: Facet): readonly Facet[] =>
    f.facets.filter(x => x.id === own.parent || x.parent === own.id);
  return plateFlats(f).map(flat => {
    const own = facet.get(flat.name) as Facet;
    const near = beside(own);
    const shifted = (v: Vec3): Vec3 => {
      const normals = [own.frame.n];
      for (const x of near)
        if (
          Math.abs(dot3(sub3(v, x.frame.origin), x.frame.n)) < 1e-3 &&
          normals.every(n => dot3(n, x.frame.n) < 0.9999)
        )
          normals.push(x.frame.n);
      return add3(v, alongAll(normals.slice(0, 2), half));
    };
    return { ...flat, polygon: flat.polygon.map(shifted), holes: flat.holes.map(h => h.map(shifted)) };
  });
}

/** The shortest way that goes `by` along each of one or two unit normals. */
function alongAll([a, b]: readonly Vec3[], by: number): Vec3 {
  if (!b) return scale3(a as Vec3, by);
  // two planes met at equal distances: along their normals' sum
  const c = dot3(a as Vec3, b);
  return scale3(add3(a as Vec3, b), by / (1 + c));
}
