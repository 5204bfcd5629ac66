import { type FoldedPanel, foldPanel } from '../fold';
import { type SheetChoice, withSheet } from '../plan';
import { MATERIAL_IDS, type MaterialId, type Stock, stockThicknesses } from '../sheet';
import type { StrikeAnswer } from '../strike';
import { panelCost } from '../weigh';
import type { Facts } from './facts';
import type { Unsigned, Words } from './finding';
import { bend } from './rules/bend';
import { blank } from './rules/blank';
import { brake } from './rules/brake';
import { hotPart } from './rules/hot-part';
import { HEARD_BELOW } from './struck/ring';

/** One sheet a plate could be made of, and what comes of it; strike figures come in later. */
export interface Rung {
  /** material and thickness in one word, for lists and keys */
  readonly id: string;
  readonly material: MaterialId;
  readonly thickness: number;
  readonly gauge: string;
  readonly folded: FoldedPanel;
  readonly massKg: number;
  /** of making it, dollars */
  readonly cost: number;
  /** why it cannot be made or must not be used, in sentences; none where it can */
  readonly against: readonly string[];
}

/** The rules that a sheet alone can break, whatever a strike finds. */
const SHEET_RULES = [bend, brake, blank, hotPart];

/** Every sheet of the catalogue in one kind of stock, by material, thin to thick. */
export function ladderSheets(
  stock: Stock,
): readonly { material: MaterialId; thickness: number; gauge: string }[] {
  return MATERIAL_IDS.flatMap(material => stockThicknesses(material, stock).map(s => ({ material, ...s })));
}

/** One rung of a plate's ladder: the plate in that sheet, its finish kept. */
export function rungOf(
  facts: Facts,
  panel: string,
  of: { readonly material: MaterialId; readonly thickness: number; readonly gauge: string },
  words: Words,
): Rung {
  const document = withSheet(facts.document, facts.build.id, panel, of);
  const build = document.plan.builds.find(b => b.id === facts.build.id) ?? facts.build;
  const folded = foldPanel(
    document.plan.panels.find(p => p.id === panel) as (typeof document.plan.panels)[number],
    build.sheets[panel] as SheetChoice,
    document.plan.shop?.kFactors,
  );
  // only what the rules look at is of the changed plate: the rest of the build has no say in its sheet
  const alone: Facts = { ...plain(facts), document, build, panels: [folded] };
  const against = SHEET_RULES.flatMap(r => r.find(alone, words))
    .filter((f: Unsigned) => f.severity !== 'note' && f.about.includes(panel))
    .map(f => f.text);
  return {
    id: `${of.material} ${of.thickness.toFixed(3)}`,
    ...of,
    folded,
    massKg: folded.massKg,
    cost: panelCost(folded, facts.weight.rates).total,
    against,
  };
}

/** Facts without what is worked out when asked for: a copy must not ask. */
const plain = (facts: Facts): Facts => {
  const { sequence: _, ...rest } = Object.getOwnPropertyDescriptors(facts);
  return Object.defineProperties({}, rest) as Facts;
};

/** What a sheet must keep to be taken. Lengths in mm, masses in kg. */
export interface SheetLimits {
  /** dent that may stay under the strike */
  readonly mostDentMm?: number;
  /** a plate heavier than this is not for one person */
  readonly mostKg?: number;
  /** it must not drum */
  readonly quiet: boolean;
}

/** A rung that has been struck. */
export interface StruckRung extends Rung {
  readonly struck: StrikeAnswer;
}

/** Why a struck rung breaks the limits, in the order they matter; none where it keeps them all. */
export function breaks(facts: Facts, r: StruckRung, limits: SheetLimits): readonly string[] {
  const out: string[] = [];
  if (r.against.length > 0) out.push('cannot be made or used');
  if (r.struck.reached < 1) out.push('gives way');
  const tight = r.struck.gaps.find(g => {
    const part = facts.rig.components.find(c => c.id === g.component);
    return part && g.gapMm < part.keepOut - 0.05;
  });
  if (tight) out.push('gap');
  if (limits.mostDentMm !== undefined && (r.struck.dentMm ?? Infinity) > limits.mostDentMm) out.push('dent');
  if (limits.quiet && r.struck.ringHz < HEARD_BELOW) out.push('ring');
  if (limits.mostKg !== undefined && r.massKg > limits.mostKg) out.push('lift');
  return out;
}

/** The rungs that no other beats in both mass and gap left (or, with nothing above, in how little they give). */
export function paretoEdge<
  T extends { readonly massKg: number; readonly struck: Pick<StrikeAnswer, 'gapMm' | 'deflectionMm'> },
>(rungs: readonly T[]): readonly T[] {
  const room = (r: T): number => r.struck.gapMm ?? -r.struck.deflectionMm;
  return [...rungs]
    .sort((a, b) => a.massKg - b.massKg || room(b) - room(a))
    .reduce<T[]>((edge, r) => {
      const last = edge.at(-1);
      if (!last || room(r) > room(last)) edge.push(r);
      return edge;
    }, []);
}

/** What the best build is best at. */
export const GOALS = ['mass', 'cost', 'gap'] as const;
export type Goal = (typeof GOALS)[number];

export interface BestBuild<T> {
  /** one rung a plate, in the order the plates were given */
  readonly rungs: readonly T[];
  readonly massKg: number;
  readonly cost: number;
}

/**
 * The choice of one rung for every plate that is lightest (or cheapest, or leaves the most gap in all) and keeps what ties the
 * plates together: a budget in dollars and how many different sheets may be bought. Searched exactly by branch and bound: plates
 * in turn, their rungs from the best, a branch left as soon as the best that the others could add cannot beat what is known.
 * Undefined where nothing keeps the ties. Rungs that must not be taken are to be left out before.
 */
export function bestBuild<T extends Pick<Rung, 'id' | 'massKg' | 'cost'>>(
  plates: readonly (readonly T[])[],
  value: (r: T) => number,
  ties: { readonly budget?: number; readonly mostSheets?: number } = {},
): BestBuild<T> | undefined {
  const { budget = Infinity, mostSheets = Infinity } = ties;
  if (plates.some(p => p.length === 0)) return undefined;
  const sorted = plates.map(p => [...p].sort((a, b) => value(a) - value(b) || a.cost - b.cost));
  // least value and least cost that the plates from here on must add
  const leastValue = new Array<number>(plates.length + 1).fill(0);
  const leastCost = new Array<number>(plates.length + 1).fill(0);
  for (let i = plates.length - 1; i >= 0; i--) {
    const rungs = sorted[i] as readonly T[];
    leastValue[i] = (leastValue[i + 1] as number) + Math.min(...rungs.map(value));
    leastCost[i] = (leastCost[i + 1] as number) + Math.min(...rungs.map(r => r.cost));
  }
  let best: { value: number; cost: number; rungs: readonly T[] } | undefined;
  const chosen: T[] = [];
  const sheets = new Map<string, number>();
  const go = (i: number, sum: number, cost: number): void => {
    if (i === plates.length) {
      if (!best || sum < best.value - 1e-9 || (sum < best.value + 1e-9 && cost < best.cost))
        best = { value: sum, cost, rungs: [...chosen] };
      return;
    }
    for (const r of sorted[i] as readonly T[]) {
      const bound = sum + value(r) + (leastValue[i + 1] as number);
      if (best && bound > best.value + 1e-9) break;
      if (cost + r.cost + (leastCost[i + 1] as number) > budget + 1e-9) continue;
      const used = sheets.get(r.id) ?? 0;
      if (used === 0 && sheets.size >= mostSheets) continue;
      sheets.set(r.id, used + 1);
      chosen.push(r);
      go(i + 1, sum + value(r), cost + r.cost);
      chosen.pop();
      if (used === 0) sheets.delete(r.id);
      else sheets.set(r.id, used);
    }
  };
  go(0, 0, 0);
  return (
    best && {
      rungs: best.rungs,
      massKg: best.rungs.reduce((s, r) => s + r.massKg, 0),
      cost: best.cost,
    }
  );
}

/** Value of a rung for a goal: less is better. */
export const valueFor =
  (goal: Goal) =>
  (r: StruckRung): number =>
    goal === 'mass' ? r.massKg : goal === 'cost' ? r.cost : -Math.min(200, r.struck.gapMm ?? 200);
