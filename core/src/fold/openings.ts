import {
  boxesMeet,
  boxOf,
  centroid,
  circle,
  type Polygon,
  rectangle,
  signedArea,
  union,
  type Vec2,
} from '../geometry';
import type { Opening, Panel } from '../plan';

const outlines = new WeakMap<Opening, Polygon>();

/** Outline of an opening in base coordinates; a circle becomes a polygon of the same area. Kept with the opening. */
export function openingOutline(o: Opening): Polygon {
  const hit = outlines.get(o);
  if (hit) return hit;
  const made = outlineOf(o);
  outlines.set(o, made);
  return made;
}

function outlineOf({ at, shape }: Opening): Polygon {
  if ('circle' in shape) return circle(at, shape.circle);
  if ('rect' in shape) {
    const [w, h] = shape.rect;
    return rectangle(at[0] - w / 2, at[1] - h / 2, at[0] + w / 2, at[1] + h / 2);
  }
  return shape.polygon.map(([u, v]): Vec2 => [u + at[0], v + at[1]]);
}

/** Area of the opening's outline, mm². */
export function openingArea({ shape }: Opening): number {
  if ('circle' in shape) return (Math.PI * shape.circle ** 2) / 4;
  if ('rect' in shape) return shape.rect[0] * shape.rect[1];
  return Math.abs(signedArea(shape.polygon));
}

/** Centroid of the opening in base coordinates. */
export const openingCenter = (o: Opening): Vec2 =>
  'polygon' in o.shape ? centroid(openingOutline(o)) : o.at;

/** Share of the outline that is open: louvers are lanced, the rest is cut right out. */
export const openShare = (o: Opening): number => (o.kind === 'louvers' ? (o.openFraction ?? 0.3) : 1);

/** Louvers are pressed out of the sheet and take no metal away. */
export const removesMetal = (o: Opening): boolean => o.kind !== 'louvers';

/** The largest round thing that passes, mm: a circle's diameter, a rectangle's short side, a polygon's inner width. */
export function clearDiameter(o: Opening): number {
  if ('circle' in o.shape) return o.shape.circle;
  if ('rect' in o.shape) return Math.min(...o.shape.rect);
  const xs = o.shape.polygon.map(p => p[0]);
  const ys = o.shape.polygon.map(p => p[1]);
  return Math.min(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
}

/**
 * What the openings of a plate take out of its base: areas, mm², with their centroids; holes within them negative. Openings that lie
 * over one another are taken away once.
 */
export function openingsTaken(panel: Panel): readonly (readonly [areaMm2: number, at: Vec2])[] {
  const cut = panel.openings.filter(removesMetal);
  const boxes = cut.map(o => boxOf(openingOutline(o)));
  const alone = cut.map(
    (_, i) => !boxes.some((b, k) => k !== i && boxesMeet(b, boxes[i] as (typeof boxes)[number])),
  );
  const apart = cut.flatMap((o, i) => (alone[i] ? [[openingArea(o), openingCenter(o)] as const] : []));
  const together = union(cut.filter((_, i) => !alone[i]).map(openingOutline));
  return [...apart, ...together.map(ring => [signedArea(ring), centroid(ring)] as const)];
}
