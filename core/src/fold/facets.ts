import {
  add3,
  baseFrame,
  distance2,
  type Frame,
  type Polygon,
  rectangle,
  scale3,
  signedArea,
  toRadians,
  toSpace,
  type Vec2,
  type Vec3,
  vertex,
} from '../geometry';
import type { Flange, Panel } from '../plan';

/** One flat of a folded plate. */
export interface Facet {
  /** `base` or the flange's id */
  readonly id: string;
  /** the facet it hangs on; undefined for the base */
  readonly parent?: string;
  /** in the plane of the underside; u leads away from the parent, n is the upper side */
  readonly frame: Frame;
  /** underside out to the mould lines, in frame coordinates */
  readonly outline: Polygon;
  readonly flange?: Flange;
}

/** Where a flange leaves its parent, in the parent's plane: its counter-clockwise start, direction and width. */
export interface Hinge {
  readonly start: Vec2;
  readonly along: Vec2;
  readonly outward: Vec2;
  readonly width: number;
}

/** The hinge of a flange on a base edge or on the free edge of its parent flange, insets taken off. */
export function hingeOf(outline: Polygon, flange: Flange): Hinge {
  // a flange's own outline is the rectangle (0,0) (L,0) (L,w) (0,w): its free edge is edge 1
  const index = flange.edge === 'far' ? 1 : flange.edge;
  const [i0, i1] = flange.inset ?? [0, 0];
  const first = vertex(outline, index);
  const second = vertex(outline, index + 1);
  const reversed = signedArea(outline) < 0;
  const [a, b] = reversed ? [second, first] : [first, second];
  const [fromA, fromB] = reversed ? [i1, i0] : [i0, i1];
  const length = distance2(a, b);
  const along: Vec2 = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  return {
    start: [a[0] + along[0] * fromA, a[1] + along[1] * fromA],
    along,
    outward: [along[1], -along[0]],
    width: length - fromA - fromB,
  };
}

/** A flange as a flat in space, turned about its mould line. */
function turnedFlange(parent: Facet, flange: Flange): Facet {
  const hinge = hingeOf(parent.outline, flange);
  const { frame } = parent;
  const direction = (d: Vec2): Vec3 => add3(scale3(frame.u, d[0]), scale3(frame.v, d[1]));
  const out = direction(hinge.outward);
  const a = toRadians(flange.angle);
  return {
    id: flange.id,
    parent: parent.id,
    flange,
    frame: {
      origin: toSpace(frame, hinge.start),
      u: add3(scale3(out, Math.cos(a)), scale3(frame.n, Math.sin(a))),
      v: direction(hinge.along),
      n: add3(scale3(frame.n, Math.cos(a)), scale3(out, -Math.sin(a))),
    },
    outline: rectangle(0, 0, flange.length, Math.max(hinge.width, 0)),
  };
}

/** All flats of a panel in space, base first, every parent before its flanges. */
export function facetsOf(panel: Panel): readonly Facet[] {
  const { origin, pitch, roll, outline } = panel.base;
  const base: Facet = { id: 'base', frame: baseFrame(origin, pitch, roll), outline };
  const facets: Facet[] = [base];
  const hang = (parent: Facet, flanges: readonly Flange[]): void => {
    for (const flange of flanges) {
      const facet = turnedFlange(parent, flange);
      facets.push(facet);
      hang(facet, flange.flanges ?? []);
    }
  };
  hang(base, panel.flanges);
  return facets;
}

/** The underside of a facet in space. */
export const facetInSpace = (f: Facet): readonly Vec3[] => f.outline.map(p => toSpace(f.frame, p));
