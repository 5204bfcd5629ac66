import type { Triangle } from '../fold';
import { cross3, length3, scale3, sub3, type Vec3 } from '../geometry';
import { oneLine } from './names';

/** The unit normal of a triangle, out of the side from which it runs counter-clockwise. */
export function normalOf([a, b, c]: Triangle): Vec3 {
  const n = cross3(sub3(b, a), sub3(c, a));
  return scale3(n, 1 / (length3(n) || 1));
}

/** Triangles as ASCII STL, mm. */
export function stl(name: string, triangles: readonly Triangle[]): string {
  const n = (v: number): string => v.toFixed(4);
  const facet = (t: Triangle): string =>
    `facet normal ${normalOf(t).map(n).join(' ')}\nouter loop\n${t.map(q => `vertex ${q.map(n).join(' ')}`).join('\n')}\nendloop\nendfacet`;
  const title = oneLine(name).replace(/\s+/g, '-');
  return `solid ${title}\n${triangles.map(facet).join('\n')}\nendsolid ${title}\n`;
}
