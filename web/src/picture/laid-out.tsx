import type { Vec2 } from '@plate-fold/core/geometry';
import type { Ground } from '@plate-fold/core/survey';

/** A picture as it lies on the ground plane, and where; or why there is none. */
export interface GroundPhoto {
  readonly url?: string;
  readonly ground?: Ground;
  readonly fault?: string;
}

/** A picture as it lies on the ground plane, whichever way the map is turned. */
export function LaidOut({ ground, put }: { ground: GroundPhoto | undefined; put: (p: Vec2) => Vec2 }) {
  if (ground?.fault)
    return (
      <text x="10" y="22" fontSize="13" fill="var(--oxide)">
        {ground.fault}
      </text>
    );
  if (!ground?.url || !ground.ground) return null;
  const { from, mmPerPx: k, width, height } = ground.ground;
  const o = put(from);
  const [x, y] = [put([from[0] + k, from[1]]), put([from[0], from[1] + k])];
  return (
    <image
      href={ground.url}
      width={width}
      height={height}
      transform={`matrix(${x[0] - o[0]} ${x[1] - o[1]} ${y[0] - o[0]} ${y[1] - o[1]} ${o[0]} ${o[1]})`}
      data-ground
      aria-hidden="true"
    />
  );
}
