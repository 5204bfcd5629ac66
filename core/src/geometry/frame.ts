import { toDegrees, toRadians, type Vec2, type Vec3 } from './vector';

/** A plane in space: a point, its two unit axes and its unit normal. */
export interface Frame {
  readonly origin: Vec3;
  readonly u: Vec3;
  readonly v: Vec3;
  readonly n: Vec3;
}

/** How a panel's base lies: a point of its plane and its turns, degrees. */
export interface Pose {
  readonly origin: Vec3;
  readonly pitch: number;
  readonly roll: number;
  readonly yaw?: number;
}

/**
 * The base plane of a panel. `yaw` turns about z (positive: from rearward toward right), then `pitch` about v (positive: front edge up),
 * then `roll` about the turned u (positive: right edge up); degrees, the origin stays. At zero u = x (rearward), v = y (right), n = z.
 */
export function baseFrame(origin: Vec3, pitch: number, roll: number, yaw = 0): Frame {
  const p = toRadians(pitch);
  const r = toRadians(roll);
  const [cp, sp, cr, sr] = [Math.cos(p), Math.sin(p), Math.cos(r), Math.sin(r)];
  if (yaw === 0) return { origin, u: [cp, 0, -sp], v: [sp * sr, cr, cp * sr], n: [sp * cr, -sr, cp * cr] };
  const y = toRadians(yaw);
  const [cy, sy] = [Math.cos(y), Math.sin(y)];
  const about = ([a, b, c]: Vec3): Vec3 => [a * cy - b * sy, a * sy + b * cy, c];
  return {
    origin,
    u: about([cp, 0, -sp]),
    v: about([sp * sr, cr, cp * sr]),
    n: about([sp * cr, -sr, cp * cr]),
  };
}

/** The plane of a base as it lies. */
export const frameOf = ({ origin, pitch, roll, yaw }: Pose): Frame => baseFrame(origin, pitch, roll, yaw);

/** The turns that bring a base's u and v into two given directions at right angles, degrees: the other way round of `baseFrame`. */
export function turnsOf(u: Vec3, v: Vec3): Pick<Pose, 'pitch' | 'roll'> & { readonly yaw: number } {
  const n: Vec3 = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  const flat = Math.hypot(u[0], u[1]);
  const pitch = toDegrees(Math.atan2(-u[2], flat));
  // where u stands upright, yaw and roll turn about the same line: all of it is called yaw
  if (flat < 1e-9) {
    const s = -Math.sign(u[2]);
    return { yaw: toDegrees(Math.atan2(-v[0], v[1])), pitch: 90 * s, roll: 0 };
  }
  return { yaw: toDegrees(Math.atan2(u[1], u[0])), pitch, roll: toDegrees(Math.atan2(v[2], n[2])) };
}

/** Plane coordinates (and a height `w` above the plane) to space. */
export function toSpace(f: Frame, at: Vec2, w = 0): Vec3 {
  // written out: every picture, check and tool path passes here
  const { origin, u, v, n } = f;
  const a = at[0];
  const b = at[1];
  return [
    origin[0] + (u[0] * a + (v[0] * b + n[0] * w)),
    origin[1] + (u[1] * a + (v[1] * b + n[1] * w)),
    origin[2] + (u[2] * a + (v[2] * b + n[2] * w)),
  ];
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
