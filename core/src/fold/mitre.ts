import { distance2, signedArea, toRadians, type Vec2, vertex } from '../geometry';
import type { Flange, Panel } from '../plan';
import { madeAngle } from './bend';

/** Left open on each side of a mitre for welding and for the brake's error, mm: common practice, no source. */
export const MITRE_GAP = 0.5;
/** Angles of two flanges that count as the same, degrees. */
const SAME_ANGLE = 0.01;
/** Edges that turn less than this at their corner, degrees, are one edge. */
export const LEAST_TURN = 5;

/** What a mitre takes off one side of a flange: `at` its mold line, and `per` mm away from it (negative adds). */
export interface EndTrim {
  readonly at: number;
  readonly per: number;
}

/** A corner of the base where flanges may meet, met counter-clockwise. */
export interface BaseCorner {
  readonly at: Vec2;
  /** directions of the edge before and after */
  readonly before: Vec2;
  readonly after: Vec2;
  /** degrees, positive at an outward corner */
  readonly turn: number;
  /** flanges that leave the edge before and after, with what their insets leave free at this corner, mm */
  readonly ends: readonly [CornerEnd | undefined, CornerEnd | undefined];
}
export interface CornerEnd {
  readonly flange: Flange;
  readonly inset: number;
}

/** The corners of a panel's base, counter-clockwise, with the flanges beside them. */
export function baseCorners(panel: Panel): readonly BaseCorner[] {
  const { outline } = panel.base;
  const n = outline.length;
  const reversed = signedArea(outline) < 0;
  // edge k, counter-clockwise, is edge `index` of the outline as it is written
  const index = (k: number): number => (((reversed ? n - 1 - k : k) % n) + n) % n;
  const point = (k: number): Vec2 => vertex(outline, reversed ? n - k : k);
  const direction = (k: number): Vec2 => {
    const [a, b] = [point(k), point(k + 1)];
    const l = distance2(a, b);
    return [(b[0] - a[0]) / l, (b[1] - a[1]) / l];
  };
  const on = (k: number, atEnd: boolean): CornerEnd | undefined => {
    const flange = panel.flanges.find(f => f.edge === index(k));
    const [i0, i1] = flange?.inset ?? [0, 0];
    return flange && { flange, inset: atEnd !== reversed ? i1 : i0 };
  };
  return Array.from({ length: n }, (_, k): BaseCorner => {
    const [before, after] = [direction(k - 1), direction(k)];
    const turn = Math.atan2(
      before[0] * after[1] - before[1] * after[0],
      before[0] * after[0] + before[1] * after[1],
    );
    return {
      at: point(k),
      before,
      after,
      turn: (turn * 180) / Math.PI,
      ends: [on(k - 1, true), on(k, false)],
    };
  });
}

/** True where two flanges of the same angle leave a corner without inset: their ends can be mitred. */
export const canMitre = ({ ends: [a, b], turn }: BaseCorner): boolean =>
  a !== undefined &&
  b !== undefined &&
  Math.abs(turn) >= LEAST_TURN &&
  a.inset < 1e-6 &&
  b.inset < 1e-6 &&
  a.flange.angle !== 0 &&
  Math.abs(a.flange.angle - b.flange.angle) <= SAME_ANGLE;

/**
 * The mitred ends of a panel's flanges, by flange: counter-clockwise start, then end. Two flanges of angle A that leave a
 * corner of turn T meet in the plane through its bisector; at distance u from the mold line the hip lies u·cos A·tan(T/2)
 * beyond the square side, and the sheet's inner face t·sin A·tan(T/2) short of it (both by plane geometry).
 */
export function mitresOf(
  panel: Panel,
  thickness: number,
): ReadonlyMap<string, readonly [EndTrim?, EndTrim?]> {
  const out = new Map<string, [EndTrim?, EndTrim?]>();
  for (const corner of baseCorners(panel)) {
    const [a, b] = corner.ends;
    if (!a || !b || !canMitre(corner) || !(a.flange.mitre || b.flange.mitre)) continue;
    const angle = toRadians(madeAngle(a.flange.angle));
    const tan = Math.tan(toRadians(corner.turn) / 2);
    const trim: EndTrim = {
      at: Math.max(0, thickness * Math.sin(angle) * tan) + MITRE_GAP,
      per: -Math.cos(angle) * tan,
    };
    out.set(a.flange.id, [out.get(a.flange.id)?.[0], trim]);
    out.set(b.flange.id, [trim, out.get(b.flange.id)?.[1]]);
  }
  return out;
}
