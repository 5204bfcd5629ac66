import type { Vec3 } from '../geometry';
import { err, ok, type Result } from '../units';
import { type LinearSolver, linearSolver } from './linear';
import { gapOver, onPlate } from './on-plate';
import { type Held, loose, meshPlate, modelFor, type PlateModel, up } from './plate-model';
import { reaching } from './screens';
import type { Flat3 } from './shell-mesh';
import type { StrikeWish } from './strike-wish';

/** Places tried across a plate's longer side in the search for the worst. */
const TRIED = 9;
/** So much of the rock bears on sheet at a place that counts, where there is one. */
const BEARS = 0.5;

/** A plate meshed as coarsely as serves, taken apart. */
export interface Coarse {
  readonly model: PlateModel;
  readonly solver: LinearSolver;
  readonly plateNodes: number;
}

/**
 * The place where the least gap is left (or, with nothing over the plate, where it gives most), by small deflections on a coarse
 * mesh, which is given with it: one elimination, then a solution for each place. Bolted places are passed over.
 */
export function worstPlace(
  wish: StrikeWish,
  flats: readonly Flat3[],
  held: readonly Held[],
): Result<{ readonly at: Vec3; readonly coarse: Coarse }> {
  const coarse = meshPlate(flats, held, 1, undefined, wish.backing);
  if (!coarse.ok) return coarse;
  const model = modelFor(wish, coarse.value, held);
  const solver = linearSolver(model);
  if ('mechanism' in solver) return err(loose(model, solver.node, solver.freedom));
  const all = flats.flatMap(f => f.polygon);
  const low = [0, 1].map(k => Math.min(...all.map(p => p[k as 0]))) as [number, number];
  const high = [0, 1].map(k => Math.max(...all.map(p => p[k as 0]))) as [number, number];
  const step = Math.max(high[0] - low[0], high[1] - low[1]) / TRIED;
  const places: { readonly at: Vec3; readonly share: number }[] = [];
  for (let x = low[0] + step / 2; x < high[0]; x += step)
    for (let y = low[1] + step / 2; y < high[1]; y += step) {
      const at = onPlate(flats, [x, y]);
      if (!at || held.some(h => Math.hypot(h.at[0] - x, h.at[1] - y) < h.radius + 15)) continue;
      // what lower plates take of the rock counts as little as what hangs over the edge
      const share = Math.min(up(model.load, model.mesh, at, wish.force), reaching(wish.screens, flats, at));
      places.push({ at, share });
    }
  // a strip narrower than the rock has no place where more of it bears
  const whole = Math.min(BEARS, 0.9 * Math.max(0, ...places.map(p => p.share)));
  let best: { at: Vec3; left: number } | undefined;
  for (const { at, share } of places) {
    if (share === 0 || share < whole) continue;
    up(model.load, model.mesh, at, wish.force);
    const w = (solver.work(model.load) / wish.force) * reaching(wish.screens, flats, at);
    const rest = wish.components.map(c => gapOver(c, at, model.thickness)).filter(g => g !== undefined);
    // what small theory gives is halved: that is about what stretching leaves of it
    const left = Math.min(400, ...rest) - w / 2;
    if (!best || left < best.left) best = { at, left };
  }
  return best
    ? ok({ at: best.at, coarse: { model, solver, plateNodes: coarse.value.mesh.coordinates.length / 3 } })
    : err('there is no place on it to be struck');
}
