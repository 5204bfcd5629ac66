import type { FlatPattern } from '../fold';
import type { Vec2 } from '../geometry';

const GRAIN_ARROW = 60;

/** Lines of the etched arrow along the grain. */
export const arrow = (at: Vec2, [gx, gy]: Vec2): readonly (readonly [Vec2, Vec2])[] => {
  const tip: Vec2 = [at[0] + gx * GRAIN_ARROW, at[1] + gy * GRAIN_ARROW];
  const barb = (s: number): Vec2 => [tip[0] - gx * 10 - gy * 5 * s, tip[1] - gy * 10 + gx * 5 * s];
  return [
    [at, tip],
    [tip, barb(1)],
    [tip, barb(-1)],
  ];
};

export const label = (p: FlatPattern): string => `${p.mark} ${p.name}`;
