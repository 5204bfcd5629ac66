import { add3, scale3, toRadians, type Vec2, type Vec3 } from './vector';

/** A plane in space: a point, its two unit axes and its unit normal. */
export interface Frame {
  readonly origin: Vec3;
  readonly u: Vec3;
  readonly v: Vec3;
  readonly n: Vec3;
}

/**
 * The base plane of a panel. `pitch` turns about v (positive: front edge up), then `roll` about the turned u
 * (positive: right edge up); degrees, the origin stays. At zero both u = x (rearward), v = y (right), n = z.
 */
export function baseFrame(origin: Vec3, pitch: number, roll: number): Frame {
  const p = toRadians(pitch);
  const r = toRadians(roll);
  const [cp, sp, cr, sr] = [Math.cos(p), Math.sin(p), Math.cos(r), Math.sin(r)];
  return { origin, u: [cp, 0, -sp], v: [sp * sr, cr, cp * sr], n: [sp * cr, -sr, cp * cr] };
}

/** Plane coordinates (and a height `w` above the plane) to space. */
export function toSpace(f: Frame, at: Vec2, w = 0): Vec3 {
  return add3(f.origin, add3(scale3(f.u, at[0]), add3(scale3(f.v, at[1]), scale3(f.n, w))));
}

/** The point of the plane straight above or below the ground point (x, y): its plane coordinates. */
export function underGround(f: Frame, x: number, y: number): Vec2 {
  const det = f.u[0] * f.v[1] - f.v[0] * f.u[1];
  const dx = x - f.origin[0];
  const dy = y - f.origin[1];
  return [(dx * f.v[1] - dy * f.v[0]) / det, (dy * f.u[0] - dx * f.u[1]) / det];
}

/** Height z of the plane above the ground point (x, y). Not for upright planes. */
export function heightAt(f: Frame, x: number, y: number): number {
  return f.origin[2] - (f.n[0] * (x - f.origin[0]) + f.n[1] * (y - f.origin[1])) / f.n[2];
}
