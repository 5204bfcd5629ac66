import type { Vec2 } from '../geometry';
import { alongGrainRadius } from '../sheet';
import type { FoldedPanel } from './folded-panel';

/** A bend counts as running along the grain within this angle of it, degrees: common practice, no source. */
const ALONG = 30;

/**
 * The grain's direction in the blank: as the plate says, else across the greater length of its bends, where they crack
 * last, and along its longer side where it has none.
 */
export function grainOf({ panel, blank }: Pick<FoldedPanel, 'panel' | 'blank'>): Vec2 {
  const along = (g: Vec2): number =>
    blank.developed.reduce((sum, d) => {
      const bent = d.bend !== undefined && d.bend.angle !== 0;
      return sum + (bent ? Math.abs(d.v[0] * g[0] + d.v[1] * g[1]) * (d.facet.hinge?.width ?? 0) : 0);
    }, 0);
  const [u, v] = [along([1, 0]), along([0, 1])];
  const chosen =
    panel.grain ?? (Math.abs(u - v) > 1 ? (u < v ? 'u' : 'v') : blank.size[0] >= blank.size[1] ? 'u' : 'v');
  return chosen === 'u' ? [1, 0] : [0, 1];
}

/** True for a bend whose line runs along the grain, where the sheet cracks sooner. */
export function runsAlongGrain(f: FoldedPanel, bend: string): boolean {
  const d = f.blank.developed.find(x => x.facet.id === bend);
  const g = grainOf(f);
  return d !== undefined && Math.abs(d.v[0] * g[0] + d.v[1] * g[1]) > Math.cos((ALONG * Math.PI) / 180);
}

/** Least inside radius of a bend for the way it lies to the grain, mm; infinite for sheet that is not folded cold. */
export function leastRadius(f: FoldedPanel, bend: string): number {
  const least = f.bends.find(b => b.id === bend)?.minRadiusMm ?? Number.POSITIVE_INFINITY;
  return runsAlongGrain(f, bend) ? alongGrainRadius(f.material, least) : least;
}
