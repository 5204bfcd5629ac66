import { dot3, type Vec3 } from '../geometry';
import type { Member } from '../rig';

/** An edge this near to the line through a hole counts as beside it, mm. */
const HAIR = 1e-9;

/**
 * How far it is through a member from the face that a hole is in to the face on its far side, mm; `out` is the way out of the hole's face. Up
 * and down it is the member's height, to a side as far as its footprint reaches there.
 */
export function throughMember({ footprint, zBottom, zTop }: Member, at: Vec3, out: Vec3): number {
  if (Math.abs(out[2]) > 0.9) return zTop - zBottom;
  const way: Vec3 = [-out[0], -out[1], 0];
  const long = Math.hypot(way[0], way[1]);
  let far = 0;
  footprint.forEach((a, i) => {
    const b = footprint[(i + 1) % footprint.length] as (typeof footprint)[number];
    const side: Vec3 = [b[0] - a[0], b[1] - a[1], 0];
    const cross = way[0] * side[1] - way[1] * side[0];
    if (Math.abs(cross) < HAIR) return;
    const from: Vec3 = [a[0] - at[0], a[1] - at[1], 0];
    const on = (from[0] * way[1] - from[1] * way[0]) / cross;
    if (on < 0 || on > 1) return;
    const hit: Vec3 = [from[0] + side[0] * on, from[1] + side[1] * on, 0];
    far = Math.max(far, dot3(hit, way) / long);
  });
  return far;
}
