import type { Crossbar } from './plan';

/** Where a place in plan lies along a bar, 0 to 1, if it lies under it. */
export function underBar(c: Crossbar, [x, y]: readonly [number, number, ...number[]]): number | undefined {
  const [dx, dy] = [c.to[0] - c.from[0], c.to[1] - c.from[1]];
  const l2 = dx * dx + dy * dy;
  if (l2 === 0) return undefined;
  const t = ((x - c.from[0]) * dx + (y - c.from[1]) * dy) / l2;
  const off = Math.hypot(x - c.from[0] - t * dx, y - c.from[1] - t * dy);
  return t >= 0 && t <= 1 && off <= c.section.width / 2 + 1e-6 ? t : undefined;
}
