import { frontSection } from '@plate-fold/core/cover';
import type { Facts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { topPlateOf } from '@plate-fold/core/plan';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { useMemo } from 'react';
import { HatchDefs, hatch } from './hatch';

/** Room round what is drawn, mm. */
const ROUND = 70;
/** Sheet is drawn at least so thick, px: at scale it would be a hairline. */
const LEAST_PX = 2.4;

/**
 * The vehicle cut across at x and seen from the front: plates as cut, brackets near the cut whole, the chosen one marked. `about`: what the
 * picture is fitted to, (y, z), mm; the whole underside unless told.
 */
export function FrontView({
  facts,
  x,
  width,
  height,
  units,
  panel,
  about,
}: {
  facts: Facts;
  x: number;
  width: number;
  height: number;
  units: UnitSystem;
  panel?: string;
  about?: readonly Vec2[];
}) {
  const cut = useMemo(() => frontSection(facts.rig, facts.panels, x), [facts, x]);
  const all: readonly Vec2[] =
    about ?? cut.sheet.flatMap(s => [s.from, s.to]).concat(cut.near.flatMap(n => n.outline));
  const [ys, zs] = [all.map(p => p[0]), all.map(p => p[1])];
  const [y0, y1] = [Math.min(...ys, 0) - ROUND, Math.max(...ys, 0) + ROUND];
  const [z0, z1] = [Math.min(...zs) - ROUND, Math.max(...zs) + ROUND];
  if (all.length === 0) return <p className="text-small text-ink2">Nothing is cut here.</p>;
  const span = about
    ? [Math.min(...about.map(p => p[0])) - ROUND, Math.max(...about.map(p => p[0])) + ROUND]
    : [y0, y1];
  const [a, b] = span as [number, number];
  const k = Math.min(width / (b - a), height / (z1 - z0));
  const [my, mz] = [(a + b) / 2, (z0 + z1) / 2];
  // seen from the front the vehicle's right is at the left
  const X = (y: number): number => width / 2 - (y - my) * k;
  const Y = (z: number): number => height / 2 - (z - mz) * k;
  const path = (points: readonly Vec2[]): string =>
    `M${points.map(p => `${X(p[0]).toFixed(1)} ${Y(p[1]).toFixed(1)}`).join('L')}Z`;
  const thick = (id: string, [dy, dz]: Vec2): Vec2 => {
    const l = Math.hypot(dy, dz) || 1;
    const s = Math.max(1, LEAST_PX / (l * k));
    return id === '' ? [0, 0] : [dy * s, dz * s];
  };
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Cut across the vehicle ${formatLength(x, units)} behind the front axle, seen from the front`}
      className="block bg-ground"
    >
      <HatchDefs id="front" />
      {cut.blocks.map(g => (
        <rect
          key={`${g.id} ${g.y[0]}`}
          x={X(g.y[1])}
          y={Y(g.z[1])}
          width={(g.y[1] - g.y[0]) * k}
          height={(g.z[1] - g.z[0]) * k}
          fill={g.kind === 'member' ? 'var(--ghostline)' : 'var(--ghost)'}
          fillOpacity={g.kind === 'member' ? 0.55 : 0.75}
          stroke="var(--ghostline)"
        />
      ))}
      {cut.near.map((n, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: flats of one bracket in their order
          key={`${n.panel} ${i}`}
          d={path(n.outline)}
          fill={hatch('front', 'steel')}
          fillOpacity="0.35"
          stroke={n.panel === panel ? 'var(--fluid)' : 'var(--ink2)'}
          strokeWidth={n.panel === panel ? 1.6 : 1}
        />
      ))}
      {cut.sheet.map((s, i) => {
        const t = thick(s.panel, s.thick);
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: cuts of one plate in their order
            key={`${s.panel} ${i}`}
            d={path([s.from, s.to, [s.to[0] + t[0], s.to[1] + t[1]], [s.from[0] + t[0], s.from[1] + t[1]]])}
            fill={s.panel === panel ? 'var(--fluid)' : 'var(--ink)'}
          />
        );
      })}
      {facts.joints
        .filter(j => Math.abs(j.at[0] - x) < 120)
        .map(j => {
          const axis = facts.seats.get(j.id)?.axis ?? [0, 0, -1];
          const [cy, cz] = [j.at[1], j.at[2]];
          const reach = 26;
          // through its member and into a top plate
          const back = topPlateOf(j.joint) === undefined ? reach : Math.max(reach, j.gripMm + j.thread.d);
          return (
            <path
              key={j.id}
              d={`M${X(cy - axis[1] * back)} ${Y(cz - axis[2] * back)}L${X(cy + axis[1] * reach)} ${Y(cz + axis[2] * reach)}`}
              stroke="var(--marker)"
              strokeWidth="2.4"
              strokeDasharray="5 2 1.5 2"
            />
          );
        })}
      <text x="8" y="16" fontSize="12" style={{ fill: 'var(--ink2)' }}>
        from the front, {formatLength(Math.abs(x), units)} {x < 0 ? 'ahead of' : 'behind'} the axle
      </text>
    </svg>
  );
}
