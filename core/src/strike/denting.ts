import type { Kept } from './balance';
import type { StrikeAnswer } from './strike-wish';

/** Dents came out within this share of those of a mesh three times as fine, on all demo plates (docs/method.md). */
export const DENT_ERROR = 0.08;

/** The dent that counts as one, mm: an owner sees it, and a straightedge finds it. Common practice, no source. */
export const DENT_LIMIT = 2;
/** Balances from which the load is taken off in the search, at most; a dent this near to the limit ends it, mm. */
const MOST_TRIED = 2;
const NEAR = 0.15;
/** Less than this is none, mm. */
const NONE = 0.05;
/** A dent grows about as this power of what is over the load that leaves none: where the search looks first. */
const GROWS = 1.5;

/** Force at a plate's struck place that leaves `DENT_LIMIT`, N: told, or at least the whole force; undefined where its dent was not found. */
export function dentingForce(
  v: Pick<StrikeAnswer, 'dentMm' | 'dentingN' | 'forceN'>,
): { readonly force: number; readonly atLeast: boolean } | undefined {
  if (v.dentingN !== undefined) return { force: v.dentingN, atLeast: false };
  return v.dentMm !== undefined && v.dentMm <= DENT_LIMIT ? { force: v.forceN, atLeast: true } : undefined;
}

/** A balance on the way up. */
export interface Place {
  readonly share: number;
  readonly kept: Kept;
}

/**
 * Share of the load at which a dent of `limit` mm stays, from the balances of the way up: the load is taken off again from those between
 * which it lies, `dentFrom` (undefined where that fails), and what lies between two of them is taken as a power of the load. Undefined where the
 * whole load leaves less.
 */
export function shareThatDents(
  places: readonly Place[],
  whole: Known,
  limit: number,
  dentFrom: (p: Place) => number | undefined,
): number | undefined {
  if (!(whole.dent > limit)) return undefined;
  // where the structure gave way and went on, only what it bore for the first time
  const way = places.filter((p, i) => places.slice(0, i).every(q => q.share < p.share));
  let low = { share: 0, dent: 0, i: -1 };
  let high = { ...whole, i: way.length - 1 };
  for (let tried = 0; tried < MOST_TRIED && high.i - low.i > 1; tried++) {
    // where the first look found none, the dent begins late: halfway then
    const wanted = low.i >= 0 && low.dent < NONE ? (low.share + high.share) / 2 : between(low, high, limit);
    const inner = way.slice(low.i + 1, high.i);
    const off = inner.map(p => Math.abs(p.share - wanted));
    const i = low.i + 1 + off.indexOf(Math.min(...off));
    const place = way[i] as Place;
    const dent = dentFrom(place);
    if (dent === undefined) break;
    if (dent < limit) low = { share: place.share, dent, i };
    else high = { share: place.share, dent, i };
    if (Math.abs(dent - limit) < NEAR) break;
  }
  return between(low, high, limit);
}

interface Known {
  readonly share: number;
  readonly dent: number;
}

/** Where between two shares a dent lies that grows as a power of the load; from none it grows as `GROWS` says. */
function between(low: Known, high: Known, limit: number): number {
  if (low.dent < NONE) return low.share + (high.share - low.share) * (limit / high.dent) ** (1 / GROWS);
  const power = Math.log(high.dent / low.dent) / Math.log(high.share / low.share);
  return low.share * (limit / low.dent) ** (1 / power);
}
