import {
  add3,
  distance2,
  type Frame,
  frameOf,
  type Polygon,
  scale3,
  signedArea,
  toRadians,
  toSpace,
  type Vec2,
  type Vec3,
  vertex,
} from '../geometry';
import type { Flange, Panel } from '../plan';
import { madeAngle } from './bend';
import { type EndTrim, mitresOf } from './mitre';

/** Where a flange leaves its parent, in the parent's plane: its counter-clockwise start, direction and width. */
export interface Hinge {
  readonly start: Vec2;
  readonly along: Vec2;
  readonly outward: Vec2;
  readonly width: number;
  /** taken off the edge at both ends, counter-clockwise start first, mm */
  readonly inset: readonly [number, number];
}

/** One flat of a folded plate. */
export interface Facet {
  /** `base` or the flange's id */
  readonly id: string;
  /** the facet it hangs on; undefined for the base */
  readonly parent?: string;
  /** in the plane of the underside; u leads away from the parent, n is the upper side */
  readonly frame: Frame;
  /** underside out to the mold lines, in frame coordinates; a flange is (0,·) (L,·) (L,·) (0,·) */
  readonly outline: Polygon;
  readonly flange?: Flange;
  readonly hinge?: Hinge;
}

/** The hinge of a flange on a base edge or on the free edge of its parent flange, insets taken off. */
export function hingeOf(outline: Polygon, flange: Flange): Hinge {
  // a flange's free edge is edge 1 of its own outline
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
    width: Math.max(length - fromA - fromB, 0),
    inset: [fromA, fromB],
  };
}

/** A flange's underside from its mold line: square to the edge, or along the mitre where its ends have one. */
function flangeOutline(length: number, width: number, [start, end]: readonly [EndTrim?, EndTrim?]): Polygon {
  const at = (u: number): readonly [number, number] => {
    const v0 = start ? start.at + start.per * u : 0;
    const v1 = width - (end ? end.at + end.per * u : 0);
    // where the two mitres meet short of the free edge the flange ends in a point
    return v0 <= v1 ? [v0, v1] : [(v0 + v1) / 2, (v0 + v1) / 2];
  };
  const [near, far] = [at(0), at(length)];
  return [
    [0, near[0]],
    [length, far[0]],
    [length, far[1]],
    [0, near[1]],
  ];
}

/** A flange as a flat in space, turned about its mold line. */
function turnedFlange(parent: Facet, flange: Flange, trims: readonly [EndTrim?, EndTrim?]): Facet {
  const hinge = hingeOf(parent.outline, flange);
  const { frame } = parent;
  const direction = (d: Vec2): Vec3 => add3(scale3(frame.u, d[0]), scale3(frame.v, d[1]));
  const out = direction(hinge.outward);
  const a = toRadians(madeAngle(flange.angle));
  return {
    id: flange.id,
    parent: parent.id,
    flange,
    hinge,
    frame: {
      origin: toSpace(frame, hinge.start),
      u: add3(scale3(out, Math.cos(a)), scale3(frame.n, Math.sin(a))),
      v: direction(hinge.along),
      n: add3(scale3(frame.n, Math.cos(a)), scale3(out, -Math.sin(a))),
    },
    outline: flangeOutline(flange.length, hinge.width, trims),
  };
}

/**
 * All flats of a panel in space, base first, every parent before its flanges. The thickness, mm, only moves the cut of
 * mitred ends, so that folded walls meet instead of running into one another.
 */
export function facetsOf(panel: Panel, thickness = 0): readonly Facet[] {
  const { outline } = panel.base;
  const base: Facet = { id: 'base', frame: frameOf(panel.base), outline };
  const facets: Facet[] = [base];
  const mitres = mitresOf(panel, thickness);
  const hang = (parent: Facet, flanges: readonly Flange[]): void => {
    for (const flange of flanges) {
      const facet = turnedFlange(parent, flange, mitres.get(flange.id) ?? []);
      facets.push(facet);
      hang(facet, flange.flanges ?? []);
    }
  };
  hang(base, panel.flanges);
  return facets;
}

/** The underside of a facet in space. */
export const facetInSpace = (f: Facet): readonly Vec3[] => f.outline.map(p => toSpace(f.frame, p));

/** A flange's flat without its bend: its outline from `setback` on, in frame coordinates. */
export function flatFrom({ outline }: Facet, setback: number): Polygon {
  const [a, b, c, d] = outline as unknown as readonly [Vec2, Vec2, Vec2, Vec2];
  const from = Math.min(Math.max(setback, 0), b[0]);
  const on = (p: Vec2, q: Vec2): Vec2 => [from, q[0] === 0 ? p[1] : p[1] + ((q[1] - p[1]) * from) / q[0]];
  return [on(a, b), b, c, on(d, c)];
}
