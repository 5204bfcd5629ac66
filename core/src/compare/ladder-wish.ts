import type { Facts } from '../derive';
import type { FoldedPanel } from '../fold';
import type { Vec2 } from '../geometry';
import { type StrikeWish, wishOf } from '../strike';

/** Elements coarser than one plate by itself is struck with, and given up sooner, mm: a ladder is looked at as a whole. */
const GIVES_WAY = 60;
const COARSE = 1.4;
const PLACE = 2;

/** The question where a plate as it is has its worst place: looked for by itself, so coarse as it may be. `force` in N. */
export const placeWish = (facts: Facts, folded: FoldedPanel, force: number): StrikeWish => ({
  ...wishOf(facts, folded, force),
  size: PLACE,
  placeOnly: true,
  noDent: true,
});

/** How a plate in a sheet of its ladder is struck: where the plate as it is has its worst place. `force` in N. */
export const rungWish = (facts: Facts, folded: FoldedPanel, force: number, at: Vec2): StrikeWish => ({
  ...wishOf(facts, folded, force, { at }),
  size: COARSE,
  givesWayAt: GIVES_WAY,
});
