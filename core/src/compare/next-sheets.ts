import type { MaterialId } from '../sheet';
import type { StrikeAnswer } from '../strike';

/** A sheet that may be struck for a plate. */
export interface Sheet {
  readonly panel: string;
  readonly material: MaterialId;
  readonly thickness: number;
}

/** A sheet that leaves less than this has hit what it guards hard, mm: nobody takes it, or a thinner one. */
export const HIT = -5;

/** Whether a sheet would hit hard, by how the gap closed from the two thicker ones of its kind: deflection as a power of thickness. */
function wouldHit<T extends Sheet>(
  t: T,
  near: T | undefined,
  next: T | undefined,
  answerOf: (t: T) => StrikeAnswer | undefined,
): boolean {
  const [b, a] = [near && answerOf(near), next && answerOf(next)];
  if (!near || !next || b?.gapMm === undefined || !a || a.deflectionMm <= 0) return false;
  const n = Math.log(b.deflectionMm / a.deflectionMm) / Math.log(next.thickness / near.thickness);
  const gives = b.deflectionMm * (near.thickness / t.thickness) ** n;
  return b.gapMm - (gives - b.deflectionMm) < HIT;
}

/**
 * What of a ladder is to be struck next: what is not struck yet, thick to thin, materials and plates in turn; and apart from that (`later`)
 * the sheets that are thinner than one of their kind that gives way or hits, or that would hit by its thicker neighbors: they take longest
 * and nobody would take them. `tried` tells what has an answer, be it that there is none.
 */
export function nextSheets<T extends Sheet>(
  list: readonly T[],
  answerOf: (t: T) => StrikeAnswer | undefined,
  tried: (t: T) => boolean,
): { readonly now: readonly T[]; readonly later: readonly T[] } {
  const kindOf = (t: T): string => `${t.panel} ${t.material}`;
  const ranked = [...new Set(list.map(kindOf))].flatMap(kind => {
    const thick = list.filter(t => kindOf(t) === kind).sort((a, b) => b.thickness - a.thickness);
    const end = thick.findIndex((t, i) => {
      const s = answerOf(t);
      return s ? s.reached < 1 || (s.gapMm ?? 0) < HIT : wouldHit(t, thick[i - 1], thick[i - 2], answerOf);
    });
    return thick.map((t, rank) => ({ t, rank, later: end >= 0 && rank >= end }));
  });
  const open = ranked.filter(({ t }) => !tried(t)).sort((a, b) => a.rank - b.rank);
  return { now: open.filter(o => !o.later).map(o => o.t), later: open.filter(o => o.later).map(o => o.t) };
}
