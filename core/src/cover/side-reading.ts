import { type FoldedPanel, facetInSpace } from '../fold';
import { boxOf, type Vec2 } from '../geometry';
import type { PresentRig } from '../rig';
import { undersideAt } from './gaps';

/** What a look at the side view reads at one place along the vehicle. Heights above ground and gaps, mm. */
export interface SideReading {
  /** underside and top of the lowest plate there */
  readonly plate: number;
  readonly top: number;
  /** to the lowest part over it, and which; undefined where nothing is over it */
  readonly gap?: number;
  readonly part?: string;
}

/** Lines along the vehicle on which a plate is looked for, beside the one through its middle, mm right of the middle. */
const LINES = [-200, 0, 200, 320];
/** A part this far beside the line that was looked at still counts as over it, mm. */
const BESIDE = 150;

/** The lowest plate at a place along the vehicle, and the lowest part over it; undefined where there is no plate. */
export function sideReading(
  { components }: Pick<PresentRig, 'components'>,
  panels: readonly FoldedPanel[],
  x: number,
): SideReading | undefined {
  let best: { plate: number; top: number; y: number } | undefined;
  for (const p of panels) {
    const { min, max } = boxOf(p.facets.flatMap(f => facetInSpace(f).map((q): Vec2 => [q[0], q[2]])));
    if (x < min[0] || x > max[0]) continue;
    for (const y of [p.centroid[1], ...LINES]) {
      const z = undersideAt(p, x, y);
      if (z !== undefined && (!best || z < best.plate)) best = { plate: z, top: z + p.sheet.thickness, y };
    }
  }
  if (!best) return undefined;
  const { y, plate, top } = best;
  const [above] = components
    .filter(c => {
      const { min, max } = boxOf(c.footprint);
      return x >= min[0] && x <= max[0] && y >= min[1] - BESIDE && y <= max[1] + BESIDE && c.zBottom > plate;
    })
    .sort((a, b) => a.zBottom - b.zBottom);
  return { plate, top, ...(above ? { gap: above.zBottom - top, part: above.name } : {}) };
}

/** The plate that lies lowest under a place on the ground plane; undefined where there is none. */
export function plateUnder(panels: readonly FoldedPanel[], [x, y]: Vec2): string | undefined {
  const under = panels.flatMap(p => {
    const z = undersideAt(p, x, y);
    return z === undefined ? [] : [{ id: p.panel.id, z }];
  });
  return under.sort((a, b) => a.z - b.z)[0]?.id;
}
