import earcut from 'earcut';
import {
  add3,
  difference,
  type Polygon,
  type Region,
  regionOf,
  scale3,
  signedArea,
  toRadians,
  toSpace,
  union,
  type Vec2,
  type Vec3,
} from '../geometry';
import { type Facet, hingeOf } from './facets';
import type { FoldedPanel } from './fold';
import { openingOutline, removesMetal } from './openings';

export type Triangle = readonly [Vec3, Vec3, Vec3];

/** Chords of a bend's arc stay this near to it, mm. */
const ARC_TOLERANCE = 0.1;

/** Triangles of a region, in plane coordinates, counter-clockwise. */
function triangulated(region: Region): readonly (readonly [Vec2, Vec2, Vec2])[] {
  const outers = region.filter(p => signedArea(p) > 0);
  return outers.flatMap(outer => {
    const holes = region.filter(p => signedArea(p) < 0 && inside(outer, p[0] as Vec2));
    const rings = [outer, ...holes];
    const flat = rings.flatMap(r => r.flatMap(q => [q[0], q[1]]));
    const starts: number[] = [];
    let n = 0;
    for (const r of rings) {
      starts.push(n);
      n += r.length;
    }
    const points = rings.flat();
    const ids = earcut(flat, starts.slice(1));
    const out: [Vec2, Vec2, Vec2][] = [];
    for (let i = 0; i + 2 < ids.length; i += 3) {
      const t = [points[ids[i] as number], points[ids[i + 1] as number], points[ids[i + 2] as number]] as [
        Vec2,
        Vec2,
        Vec2,
      ];
      out.push(signedArea(t) < 0 ? [t[0], t[2], t[1]] : t);
    }
    return out;
  });
}

const inside = (o: Polygon, [x, y]: Vec2): boolean => {
  let hit = false;
  o.forEach((a, i) => {
    const b = o[(i + 1) % o.length] as Vec2;
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) hit = !hit;
  });
  return hit;
};

/** A flat region of sheet of thickness t as a closed solid, its underside in the facet's plane. */
function slab(facet: Facet, region: Region, t: number): readonly Triangle[] {
  const at = (q: Vec2, w: number): Vec3 => toSpace(facet.frame, q, w);
  const faces = triangulated(region).flatMap(([a, b, c]): Triangle[] => [
    [at(a, t), at(b, t), at(c, t)],
    [at(a, 0), at(c, 0), at(b, 0)],
  ]);
  const walls = region.flatMap(ring =>
    ring.flatMap((a, i): Triangle[] => {
      const b = ring[(i + 1) % ring.length] as Vec2;
      return [
        [at(a, 0), at(b, 0), at(b, t)],
        [at(a, 0), at(b, t), at(a, t)],
      ];
    }),
  );
  return [...faces, ...walls];
}

/** The curved strip of one bend as a closed solid: a ring sector along the hinge. */
function arc(parent: Facet, facet: Facet, f: FoldedPanel): readonly Triangle[] {
  const bend = f.bends.find(b => b.id === facet.id);
  if (!bend || bend.angle === 0 || !facet.flange) return [];
  const t = f.sheet.thickness;
  const hinge = hingeOf(parent.outline, facet.flange);
  const { frame } = parent;
  const direction = (d: Vec2): Vec3 => add3(scale3(frame.u, d[0]), scale3(frame.v, d[1]));
  const [out, along] = [direction(hinge.outward), direction(hinge.along)];
  const up = bend.angle > 0 ? 1 : -1;
  // the axis stands over (or under) where the parent's flat ends
  const start = add3(toSpace(frame, hinge.start), scale3(out, -bend.setbackMm));
  const axis = add3(start, scale3(frame.n, up > 0 ? bend.insideRadius + t : -bend.insideRadius));
  const angle = Math.abs(toRadians(bend.angle));
  const outer = bend.insideRadius + t;
  const steps = Math.max(2, Math.ceil(angle / (2 * Math.acos(1 - ARC_TOLERANCE / outer))));
  const at = (radius: number, i: number, s: number): Vec3 => {
    const a = (angle * i) / steps;
    return add3(
      add3(axis, scale3(out, Math.sin(a) * radius)),
      add3(scale3(frame.n, -up * Math.cos(a) * radius), scale3(along, s)),
    );
  };
  const tri: Triangle[] = [];
  const quad = (a: Vec3, b: Vec3, c: Vec3, d: Vec3): void => {
    // wound so that the solid's outside is seen counter-clockwise, whichever way the bend goes
    if (up < 0) tri.push([a, b, c], [a, c, d]);
    else tri.push([a, c, b], [a, d, c]);
  };
  const w = hinge.width;
  const [ri, ro] = [bend.insideRadius, outer];
  for (let i = 0; i < steps; i++) {
    quad(at(ro, i, 0), at(ro, i + 1, 0), at(ro, i + 1, w), at(ro, i, w));
    quad(at(ri, i, 0), at(ri, i, w), at(ri, i + 1, w), at(ri, i + 1, 0));
    quad(at(ro, i, 0), at(ri, i, 0), at(ri, i + 1, 0), at(ro, i + 1, 0));
    quad(at(ro, i, w), at(ro, i + 1, w), at(ri, i + 1, w), at(ri, i, w));
  }
  quad(at(ro, 0, 0), at(ro, 0, w), at(ri, 0, w), at(ri, 0, 0));
  quad(at(ro, steps, 0), at(ri, steps, 0), at(ri, steps, w), at(ro, steps, w));
  return tri;
}

/**
 * The folded plate as triangles in the vehicle's frame, mm: every flat, cut back to where its bends begin and cut out at
 * its openings, and every bend as a true arc. Each piece is a closed solid; neighbours share their end faces.
 */
export function foldedSolid(f: FoldedPanel): readonly Triangle[] {
  const t = f.sheet.thickness;
  const byId = new Map(f.facets.map(x => [x.id, x]));
  return f.facets.flatMap(facet => {
    const setback = f.bends.find(b => b.id === facet.id)?.setbackMm ?? 0;
    const own: Polygon =
      facet.parent === undefined
        ? facet.outline
        : facet.outline.map(([u, v]): Vec2 => [u === 0 ? setback : u, v]);
    const strips = f.facets
      .filter(c => c.parent === facet.id && c.flange)
      .map((c): Polygon => {
        const h = hingeOf(facet.outline, c.flange as NonNullable<Facet['flange']>);
        const back = f.bends.find(b => b.id === c.id)?.setbackMm ?? 0;
        const put = (s: number, d: number): Vec2 => [
          h.start[0] + h.along[0] * s + h.outward[0] * d,
          h.start[1] + h.along[1] * s + h.outward[1] * d,
        ];
        return [put(0, -back), put(h.width, -back), put(h.width, 1), put(0, 1)];
      });
    const cut = facet.parent === undefined ? f.panel.openings.filter(removesMetal).map(openingOutline) : [];
    const away = [...strips, ...cut];
    const region = away.length > 0 ? difference(regionOf(own), union(away)) : regionOf(own);
    const parent = facet.parent === undefined ? undefined : byId.get(facet.parent);
    return [...slab(facet, region, t), ...(parent ? arc(parent, facet, f) : [])];
  });
}

/** Volume enclosed by closed triangles wound outward, mm³ (divergence theorem). */
export const enclosedVolume = (triangles: readonly Triangle[]): number =>
  triangles.reduce(
    (sum, [a, b, c]) =>
      sum +
      (a[0] * (b[1] * c[2] - b[2] * c[1]) -
        a[1] * (b[0] * c[2] - b[2] * c[0]) +
        a[2] * (b[0] * c[1] - b[1] * c[0])) /
        6,
    0,
  );
