import type { Facts } from '@plate-fold/core/derive';
import { toRadians, type Vec2 } from '@plate-fold/core/geometry';
import { fixed } from '@plate-fold/core/units';
import type { SheetScale } from './sheet-scale';

interface Line {
  readonly from: Vec2;
  readonly to: Vec2;
}

/** The line from where it touches a tire (center `c`, radius r) through the limiting point and a bit beyond. */
function tangent(c: Vec2, p: Vec2, deg: number, forward: boolean): Line {
  const a = toRadians(deg);
  const u: Vec2 = [forward ? -Math.cos(a) : Math.cos(a), Math.sin(a)];
  const along = (p[0] - c[0]) * u[0] + (p[1] - c[1]) * u[1];
  return {
    from: [p[0] - along * u[0], p[1] - along * u[1]],
    to: [p[0] + 170 * u[0], p[1] + 170 * u[1]],
  };
}

const steep = (c: Vec2, p: Vec2, r: number): number => {
  const [x, h] = [Math.abs(p[0] - c[0]), p[1]];
  return (Math.asin(r / Math.hypot(x, h - r)) + Math.atan2(h - r, x)) * (180 / Math.PI);
};

/** Approach, breakover and departure in the side view: the tangents that limit them, each with and without armor. */
export function AngleLines({
  facts,
  scale,
  Z,
}: {
  facts: Facts;
  scale: SheetScale;
  Z: (z: number) => number;
}) {
  const { rig } = facts.rig;
  const r = rig.tyreRadius;
  const [front, rear]: readonly [Vec2, Vec2] = [
    [0, r],
    [rig.wheelbase, r],
  ];
  const { angles: now, anglesBare: bare } = facts;
  const lines: Line[] = [];
  if (now.at.approach) lines.push(tangent(front, now.at.approach, now.approachDeg, true));
  if (now.at.departure) lines.push(tangent(rear, now.at.departure, now.departureDeg, false));
  const peak = now.at.breakover;
  if (peak) {
    lines.push({ ...tangent(front, peak, steep(front, peak, r), false), to: peak });
    lines.push({ ...tangent(rear, peak, steep(rear, peak, r), true), to: peak });
  }
  const degrees = (v: number): string => `${fixed(v, 1)}°`;
  const texts: readonly (readonly [number, string])[] = [
    [
      now.at.approach?.[0] ?? -rig.frontOverhang,
      `approach ${degrees(now.approachDeg)}, bare ${degrees(bare.approachDeg)}`,
    ],
    [
      peak?.[0] ?? rig.wheelbase / 2,
      `breakover ${degrees(now.breakoverDeg)}, bare ${degrees(bare.breakoverDeg)}`,
    ],
    [
      now.at.departure?.[0] ?? rig.wheelbase + rig.rearOverhang,
      `departure ${degrees(now.departureDeg)}, bare ${degrees(bare.departureDeg)}`,
    ],
  ];
  const width = 178;
  return (
    <g pointerEvents="none" aria-hidden="true">
      {lines.map(l => (
        <path
          key={`${l.from} ${l.to}`}
          d={`M${scale.X(l.from[0])} ${Z(l.from[1])}L${scale.X(l.to[0])} ${Z(l.to[1])}`}
          stroke="var(--fluid)"
          strokeWidth="1.3"
          strokeDasharray="5 4"
          opacity="0.85"
        />
      ))}
      {texts.map(([x, text]) => (
        <text
          key={text}
          x={Math.max(width / 2 + 4, Math.min(scale.width - width / 2 - 4, scale.X(x)))}
          y={Z(0) - 5}
          textAnchor="middle"
          fontSize="11.5"
          stroke="var(--ground)"
          strokeWidth="4"
          paintOrder="stroke"
          style={{ fill: 'var(--ink2)' }}
        >
          {text}
        </text>
      ))}
    </g>
  );
}
