import type { Facts } from '../derive';
import { breaks, type Rung, roomLeft, type SheetLimits, type StruckRung } from './ladder';

/** What the best build is best at. */
export const GOALS = ['mass', 'cost', 'gap', 'stiff'] as const;
export type Goal = (typeof GOALS)[number];

export interface BestBuild<T> {
  /** one rung a plate, in the order the plates were given */
  readonly rungs: readonly T[];
  readonly massKg: number;
  readonly cost: number;
}

/**
 * The choice of one rung for every plate that is lightest (or cheapest, or leaves the most gap in all) and keeps what ties the
 * plates together: a budget in dollars, what they may weigh together and how many different sheets may be bought. Searched exactly by branch and bound: plates
 * in turn, their rungs from the best, a branch left as soon as the best that the others could add cannot beat what is known.
 * Undefined where nothing keeps the ties. Rungs that must not be taken are to be left out before.
 */
export function bestBuild<T extends Pick<Rung, 'id' | 'massKg' | 'cost'>>(
  plates: readonly (readonly T[])[],
  value: (r: T) => number,
  ties: { readonly budget?: number; readonly mostSheets?: number; readonly mostKg?: number } = {},
): BestBuild<T> | undefined {
  const { budget = Infinity, mostSheets = Infinity, mostKg = Infinity } = ties;
  if (plates.some(p => p.length === 0)) return undefined;
  const sorted = plates.map(p => [...p].sort((a, b) => value(a) - value(b) || a.cost - b.cost));
  // least value, cost and mass that the plates from here on must add
  const leastValue = new Array<number>(plates.length + 1).fill(0);
  const leastCost = new Array<number>(plates.length + 1).fill(0);
  const leastKg = new Array<number>(plates.length + 1).fill(0);
  for (let i = plates.length - 1; i >= 0; i--) {
    const rungs = sorted[i] as readonly T[];
    leastValue[i] = (leastValue[i + 1] as number) + Math.min(...rungs.map(value));
    leastCost[i] = (leastCost[i + 1] as number) + Math.min(...rungs.map(r => r.cost));
    leastKg[i] = (leastKg[i + 1] as number) + Math.min(...rungs.map(r => r.massKg));
  }
  let best: { value: number; cost: number; rungs: readonly T[] } | undefined;
  const chosen: T[] = [];
  const sheets = new Map<string, number>();
  const go = (i: number, sum: number, cost: number, kg: number): void => {
    if (i === plates.length) {
      if (!best || sum < best.value - 1e-9 || (sum < best.value + 1e-9 && cost < best.cost))
        best = { value: sum, cost, rungs: [...chosen] };
      return;
    }
    for (const r of sorted[i] as readonly T[]) {
      const bound = sum + value(r) + (leastValue[i + 1] as number);
      if (best && bound > best.value + 1e-9) break;
      if (cost + r.cost + (leastCost[i + 1] as number) > budget + 1e-9) continue;
      if (kg + r.massKg + (leastKg[i + 1] as number) > mostKg + 1e-9) continue;
      const used = sheets.get(r.id) ?? 0;
      if (used === 0 && sheets.size >= mostSheets) continue;
      sheets.set(r.id, used + 1);
      chosen.push(r);
      go(i + 1, sum + value(r), cost + r.cost, kg + r.massKg);
      chosen.pop();
      if (used === 0) sheets.delete(r.id);
      else sheets.set(r.id, used);
    }
  };
  go(0, 0, 0, 0);
  return (
    best && {
      rungs: best.rungs,
      massKg: best.rungs.reduce((s, r) => s + r.massKg, 0),
      cost: best.cost,
    }
  );
}

/** Gap beyond which more is no better, mm: nothing reaches so far. */
const PLENTY = 200;

/** Value of a rung for a goal: less is better. */
export const valueFor =
  (goal: Goal) =>
  (r: StruckRung): number =>
    ({
      mass: r.massKg,
      cost: r.cost,
      gap: -Math.min(PLENTY, r.struck.gapMm ?? PLENTY),
      stiff: r.struck.deflectionMm,
    })[goal];

/**
 * The rungs of a plate that break no limit; where there are none the one that breaks the fewest, and of those leaves the most gap (or,
 * with nothing above, gives least).
 */
export function nearest(
  facts: Facts,
  rungs: readonly StruckRung[],
  limits: SheetLimits,
): { readonly rungs: readonly StruckRung[]; readonly broken: number } {
  const counted = rungs.map(r => ({ r, n: breaks(facts, r, limits).length }));
  const [first] = [...counted].sort((a, b) => a.n - b.n || roomLeft(b.r) - roomLeft(a.r));
  if (!first) return { rungs: [], broken: 0 };
  return first.n > 0
    ? { rungs: [first.r], broken: first.n }
    : { rungs: counted.filter(c => c.n === 0).map(c => c.r), broken: 0 };
}

/** A sheet beside the best one for its plate, and what it would mean. */
export interface Beside {
  readonly panel: string;
  readonly rung: StruckRung;
  /** limits it breaks; none where only what ties the plates together keeps it out */
  readonly breaks: readonly string[];
}

/**
 * What stops the best build from being better at its goal: for every plate the sheet next better at it, with the limits that it breaks.
 * Plates whose best sheet is the first of all are left out.
 */
export const stops = (
  facts: Facts,
  ladders: readonly (readonly StruckRung[])[],
  best: readonly StruckRung[],
  value: (r: StruckRung) => number,
  limits: SheetLimits,
): readonly Beside[] => beside(facts, ladders, best, value, limits, 'better');

/**
 * One step cheaper, plate by plate: the next cheaper sheet that can be made, whatever limits it breaks; what it costs in gap is told
 * by both rungs' strikes.
 */
export const cheaper = (
  facts: Facts,
  ladders: readonly (readonly StruckRung[])[],
  best: readonly StruckRung[],
  limits: SheetLimits,
): readonly Beside[] => beside(facts, ladders, best, r => r.cost, limits, 'made');

function beside(
  facts: Facts,
  ladders: readonly (readonly StruckRung[])[],
  best: readonly StruckRung[],
  value: (r: StruckRung) => number,
  limits: SheetLimits,
  of: 'better' | 'made',
): readonly Beside[] {
  return facts.plates.flatMap((p, i) => {
    const own = best[i];
    if (!own) return [];
    const [next] = (ladders[i] ?? [])
      .filter(r => value(r) < value(own) - 1e-9 && (of === 'better' || r.against.length === 0))
      .sort((a, b) => value(b) - value(a));
    return next ? [{ panel: p.panel.id, rung: next, breaks: breaks(facts, next, limits) }] : [];
  });
}
