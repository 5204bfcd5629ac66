import {
  areaOf,
  boxesMeet,
  boxOf,
  circle,
  contains,
  difference,
  distance2,
  distanceToOutline,
  inRegion,
  intersection,
  type Polygon,
  type Region,
  regionOf,
  toRadians,
  toSpace,
  union,
  type Vec2,
  type Vec3,
} from '../geometry';
import { blankOutline } from './blank-outline';
import { type FoldedPanel, type HoleShape, inBlank, type PlateHole } from './folded-panel';
import { openingOutline, removesMetal } from './openings';

/** Sides of a round hole where it becomes a polygon: solids and areas; files for the shop keep true circles. */
const ROUND = 24;
const HALF_ROUND = 10;

/** Where the inner corners of a slot's end stand, in its radii, so that the end has the area of a half circle: (n − 2)·E² + 2·E = π/sin(π/n). */
const ENDS =
  (Math.sqrt(1 + ((HALF_ROUND - 2) * Math.PI) / Math.sin(Math.PI / HALF_ROUND)) - 1) / (HALF_ROUND - 2);

/** The outline of a hole's shape round a place, counter-clockwise; a circle, and the ends of a slot, as polygons of the same area. */
export function holeOutline(shape: HoleShape, at: Vec2): Polygon {
  if ('circle' in shape) return circle(at, shape.circle, ROUND);
  const a = toRadians(shape.along);
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const put = (x: number, y: number): Vec2 => [at[0] + x * c - y * s, at[1] + x * s + y * c];
  if ('square' in shape) {
    const h = shape.square / 2;
    return [put(-h, -h), put(h, -h), put(h, h), put(-h, h)];
  }
  const [length, width] = shape.slot;
  const [straight, r] = [Math.max(0, length - width) / 2, width / 2];
  const arc = (x: number, from: number): Vec2[] =>
    Array.from({ length: HALF_ROUND + 1 }, (_, i) => {
      const b = from + (Math.PI * i) / HALF_ROUND;
      // where the round meets the straight sides it keeps to them
      const out = i === 0 || i === HALF_ROUND ? r : r * ENDS;
      return put(x + out * Math.cos(b), out * Math.sin(b));
    });
  return [...arc(straight, -Math.PI / 2), ...arc(-straight, Math.PI / 2)];
}

/** Area that a hole's shape takes out of the sheet, mm². */
export function holeArea(shape: HoleShape): number {
  if ('circle' in shape) return (Math.PI * shape.circle ** 2) / 4;
  if ('square' in shape) return shape.square ** 2;
  const [l, w] = shape.slot;
  return Math.max(0, l - w) * w + (Math.PI * w * w) / 4;
}

/** Length of the cut round a hole's shape, mm. */
export function holePerimeter(shape: HoleShape): number {
  if ('circle' in shape) return Math.PI * shape.circle;
  if ('square' in shape) return 4 * shape.square;
  const [l, w] = shape.slot;
  return 2 * Math.max(0, l - w) + Math.PI * w;
}

/** The narrowest way across a hole, mm: what a cutter has to get round in. */
export const holeWidth = (shape: HoleShape): number =>
  'circle' in shape ? shape.circle : 'square' in shape ? shape.square : shape.slot[1];

/** Outlines of all holes of a plate as they are cut, in the blank. */
export const cutHoles = (f: FoldedPanel): readonly Polygon[] =>
  f.holes.flatMap(h => (h.cut ? [holeOutline(h.cut, h.blank)] : []));

/**
 * Openings and holes of a facet that take metal away, as one region in the facet's frame: what lies over one another is taken
 * away once.
 */
export function openOf(f: FoldedPanel, facet: string): Region {
  const flat = f.facets.find(x => x.id === facet);
  if (!flat) return [];
  const openings = flat.parent === undefined ? f.panel.openings.filter(removesMetal).map(openingOutline) : [];
  const holes = f.holes.flatMap(h =>
    h.facet === facet && h.cut ? [holeOutline(inFacet(f, h, h.cut), h.at)] : [],
  );
  return union([...openings, ...holes]);
}

/** A shape of the blank turned into the axes of the facet it lies in. */
export function inFacet(f: FoldedPanel, hole: Pick<PlateHole, 'facet'>, shape: HoleShape): HoleShape {
  if ('circle' in shape) return shape;
  const d = f.blank.developed.find(x => x.facet.id === hole.facet);
  if (!d) return shape;
  return { ...shape, along: shape.along - (Math.atan2(d.u[1], d.u[0]) * 180) / Math.PI };
}

/**
 * A folded plate with its bolt holes: they lessen its area, its mass and move its center of mass. Holes that lie partly in an opening,
 * in one another or off the flat take away no more than what is there.
 */
export function drilled(f: FoldedPanel, holes: readonly PlateHole[]): FoldedPanel {
  if (holes.length === 0 && f.holes.length === 0) return f;
  const t = f.sheet.thickness;
  let [area, mx, my, mz] = [
    f.blank.areaMm2,
    f.centroid[0] * f.blank.areaMm2,
    f.centroid[1] * f.blank.areaMm2,
    f.centroid[2] * f.blank.areaMm2,
  ];
  const openings = f.panel.openings.filter(removesMetal).map(openingOutline);
  // by facet: each has axes of its own
  const taken = new Map<string, readonly Polygon[]>();
  for (const h of holes) {
    if (!h.cut) continue;
    const facet = f.facets.find(x => x.id === h.facet);
    if (!facet) continue;
    const shape = inFacet(f, h, h.cut);
    const outline = holeOutline(shape, h.at);
    const whole = holeArea(shape);
    const mine = taken.get(facet.id) ?? [];
    const box = boxOf(outline);
    const crowded = [...(facet.parent === undefined ? openings : []), ...mine].filter(o =>
      boxesMeet(boxOf(o), box),
    );
    const clear = crowded.length === 0 || areaOf(intersection(regionOf(outline), union(crowded))) < 1e-6;
    // most holes lie well within their flat: nothing has to be cut to know it
    const reach = Math.max(...outline.map(q => distance2(q, h.at)));
    const within = contains(facet.outline, h.at) && distanceToOutline(facet.outline, h.at) >= reach;
    const inside = within ? regionOf(outline) : intersection(regionOf(outline), regionOf(facet.outline));
    const own = within ? whole : areaOf(inside);
    const a =
      clear && own > whole - 1e-3
        ? whole
        : areaOf(crowded.length > 0 ? difference(inside, union(crowded)) : inside);
    taken.set(facet.id, [...mine, outline]);
    const at: Vec3 = toSpace(facet.frame, h.at, t / 2);
    area -= a;
    mx -= a * at[0];
    my -= a * at[1];
    mz -= a * at[2];
  }
  return {
    ...f,
    holes,
    blank: { ...f.blank, areaMm2: area },
    massKg: area * t * f.material.density * 1e-9,
    centroid: [mx / area, my / area, mz / area],
  };
}

/** The place of a facet's point in the blank. */
export const blankPlace = (f: FoldedPanel, facet: string, at: Vec2): Vec2 => {
  const d = f.blank.developed.find(x => x.facet.id === facet);
  return d ? inBlank(d, at) : at;
};

/**
 * Distance from a place in the blank to the nearest edge of the sheet, mm: its cut outline with reliefs, or an opening. Below zero
 * off the sheet or within an opening.
 */
export function edgeDistance(f: FoldedPanel, at: Vec2): number {
  const outline = blankOutline(f);
  const openings = f.panel.openings.filter(removesMetal).map(openingOutline);
  const least = Math.min(...[...outline, ...openings].map(ring => distanceToOutline(ring, at)));
  return inRegion(outline, at) && !openings.some(o => contains(o, at)) ? least : -least;
}

const margins = new WeakMap<PlateHole, number>();
/** Sheet left between a finished hole and the nearest edge, mm; zero or less where it breaks out. Kept as long as the hole. */
export function holeMargin(f: FoldedPanel, hole: PlateHole): number {
  const hit = margins.get(hole);
  if (hit !== undefined) return hit;
  const made =
    'circle' in hole.final
      ? edgeDistance(f, hole.blank) - hole.final.circle / 2
      : Math.min(...holeOutline(hole.final, hole.blank).map(q => edgeDistance(f, q)));
  margins.set(hole, made);
  return made;
}
