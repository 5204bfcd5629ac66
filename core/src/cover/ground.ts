import { type FoldedPanel, facetInSpace } from '../fold';
import { toDegrees, type Vec2, type Vec3 } from '../geometry';
import type { PresentRig } from '../rig';

export interface LowestPoint {
  readonly z: number;
  /** the panel it lies on; undefined when the vehicle itself is lowest */
  readonly panel?: string;
  readonly at: Vec3;
}
export interface GroundAngles {
  readonly approachDeg: number;
  readonly breakoverDeg: number;
  readonly departureDeg: number;
  /** what limits each, side view (x, z) in mm; undefined where nothing does */
  readonly at: {
    readonly approach?: Vec2;
    readonly breakover?: Vec2;
    readonly departure?: Vec2;
  };
}

/** Side view of one closed underside: (x, z) points; consecutive ones are joined. */
type Profile = readonly Vec2[];

/** Underside of the sprung vehicle. Swept spaces are left out: they are unsprung at full travel (SAE J1100). */
function vehicleUnderside(rig: PresentRig): readonly { outline: readonly Vec2[]; z: number }[] {
  return [...rig.components.filter(c => !c.moves), ...rig.members].map(b => ({
    outline: b.footprint,
    z: b.zBottom,
  }));
}

/** The lowest point of plates, parts and members, moving parts and bolt heads left out, mm. */
export function lowestPoint(rig: PresentRig, panels: readonly FoldedPanel[]): LowestPoint {
  let best: LowestPoint = { z: Number.POSITIVE_INFINITY, at: [0, 0, 0] };
  for (const { outline, z } of vehicleUnderside(rig)) {
    const [x, y] = outline[0] ?? [0, 0];
    if (z < best.z) best = { z, at: [x, y, z] };
  }
  for (const p of panels)
    for (const f of p.facets)
      for (const at of facetInSpace(f)) if (at[2] < best.z - 1e-9) best = { z: at[2], panel: p.panel.id, at };
  return best;
}

/**
 * Angle in degrees between the ground and the tangent from a point to a tire's static loaded radius r, the point at
 * height h and `x` mm away from the axle center (SAE J1100): asin(r/d) + atan2(h − r, x). Undefined inside the tire.
 */
export function tangentAngle(h: number, x: number, r: number): number | undefined {
  const d = Math.hypot(x, h - r);
  return x <= 0 || d <= r ? undefined : toDegrees(Math.asin(r / d) + Math.atan2(h - r, x));
}

const WIDE = 90;

/** Place and value of the least of f over a segment's x-range, f quasi-convex, by golden section to 0.01 mm. */
function leastOn(f: (x: number) => number, from: number, to: number): readonly [x: number, value: number] {
  const g = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [from, to];
  let [c, d] = [b - g * (b - a), a + g * (b - a)];
  let [fc, fd] = [f(c), f(d)];
  while (b - a > 0.01) {
    if (fc < fd) {
      [b, d, fd] = [d, c, fc];
      c = b - g * (b - a);
      fc = f(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + g * (b - a);
      fd = f(d);
    }
  }
  const ends = [
    [c, fc],
    [d, fd],
    [from, f(from)],
    [to, f(to)],
  ] as const;
  return ends.reduce((best, e) => (e[1] < best[1] ? e : best));
}

/**
 * Approach, ramp breakover and departure angles by tangents to the loaded tires (SAE J1100 H106, H147, H107).
 * Breakover is the least sum of the two tangent angles over every point of the underside between the axles, edges
 * included. Degrees; 90 where nothing of the underside limits the angle.
 */
export function groundAngles(rig: PresentRig, panels: readonly FoldedPanel[]): GroundAngles {
  const { wheelbase: l, tyreRadius: r } = rig.rig;
  const profiles: Profile[] = [
    ...vehicleUnderside(rig).map(({ outline, z }): Profile => {
      const xs = outline.map(p => p[0]);
      return [
        [Math.min(...xs), z],
        [Math.max(...xs), z],
      ];
    }),
    ...panels.flatMap(p => p.facets.map((f): Profile => facetInSpace(f).map((q): Vec2 => [q[0], q[2]]))),
  ];
  let [approach, departure, breakover] = [WIDE, WIDE, WIDE];
  const at: { approach?: Vec2; breakover?: Vec2; departure?: Vec2 } = {};
  const both = (x: number, z: number): number => {
    const a = tangentAngle(z, x, r);
    const b = tangentAngle(z, l - x, r);
    return a === undefined || b === undefined ? WIDE : a + b;
  };
  for (const profile of profiles) {
    for (const [x, z] of profile) {
      const [ahead, behind] = [tangentAngle(z, -x, r) ?? WIDE, tangentAngle(z, x - l, r) ?? WIDE];
      if (ahead < approach) [approach, at.approach] = [ahead, [x, z]];
      if (behind < departure) [departure, at.departure] = [behind, [x, z]];
    }
    const zLow = Math.min(...profile.map(p => p[1]));
    profile.forEach(([x0, z0], i) => {
      const [x1, z1] = profile[(i + 1) % profile.length] as Vec2;
      const [a, b] = [Math.max(Math.min(x0, x1), 1), Math.min(Math.max(x0, x1), l - 1)];
      if (a >= b) return;
      // no point of this edge can do worse than its lowest height at the place nearest the middle
      if (both(Math.min(Math.max(l / 2, a), b), zLow) >= breakover) return;
      const height = (x: number): number => z0 + ((z1 - z0) * (x - x0)) / (x1 - x0);
      const [x, least] = leastOn(q => both(q, height(q)), a, b);
      if (least < breakover) [breakover, at.breakover] = [least, [x, height(x)]];
    });
  }
  return { approachDeg: approach, breakoverDeg: breakover, departureDeg: departure, at };
}
