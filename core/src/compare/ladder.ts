import { asAtRest, HEARD_BELOW, SHEET_RULES, type Unsigned, type Words } from '../checks';
import { assemble, type Facts } from '../derive';
import type { FoldedPanel } from '../fold';
import { type Limits, withSheet } from '../plan';
import { MATERIAL_IDS, type MaterialId, punchForce, type Stock, stockThicknesses } from '../sheet';
import type { StrikeAnswer } from '../strike';
import { panelCost } from '../weigh';

/** One sheet a plate could be made of, and what comes of it; strike figures come in later. */
export interface Rung {
  /** material and thickness in one word, for lists and keys */
  readonly id: string;
  readonly material: MaterialId;
  readonly thickness: number;
  readonly gauge: string;
  readonly folded: FoldedPanel;
  readonly massKg: number;
  /** the heaviest single plate, where a rung stands for more than one, kg */
  readonly heaviestKg?: number;
  /** of making it, dollars */
  readonly cost: number;
  /** why it cannot be made or must not be used, in sentences; none where it can */
  readonly against: readonly string[];
}

/** Every sheet of the catalog in one kind of stock, by material, thin to thick. */
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
  const { build, panels } = assemble(document, facts.build.id);
  const folded = panels.find(p => p.panel.id === panel) as FoldedPanel;
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

/** What a sheet must keep to be taken. */
export interface SheetLimits {
  /** dent that may stay under the strike, mm */
  readonly mostDentMm: number;
  /** a plate heavier than this is not for one person, kg */
  readonly mostKg?: number;
  /** gap to leave to every part, mm; each part's keep-out where there is none */
  readonly leastGapMm?: number;
  /** lowest tone it may ring at, Hz */
  readonly leastRingHz: number;
  readonly materials?: readonly MaterialId[];
}

/** Dent that is let pass where the owner has set none: a fraction of what plates stand off the parts they guard; a guess. */
export const DENT_UNLESS_SET = 10;

/** The limits of a plan that a single plate's sheet has to keep. */
export const sheetLimits = ({ maxDent, minGap, minRing, maxLiftKg, materials }: Limits): SheetLimits => ({
  mostDentMm: maxDent ?? DENT_UNLESS_SET,
  leastRingHz: minRing ?? HEARD_BELOW,
  ...(minGap === undefined ? {} : { leastGapMm: minGap }),
  ...(maxLiftKg === undefined ? {} : { mostKg: maxLiftKg }),
  ...(materials === undefined ? {} : { materials }),
});

/** A rung that has been struck. */
export interface StruckRung extends Rung {
  readonly struck: StrikeAnswer;
}

/** All plates in one sheet as one rung: masses and costs added up, the worst of every strike figure. */
export function together(rungs: readonly StruckRung[]): StruckRung | undefined {
  const [first] = rungs;
  if (!first) return undefined;
  const sum = (of: (r: StruckRung) => number): number => rungs.reduce((s, r) => s + of(r), 0);
  const gaps = rungs.flatMap(r => r.struck.gaps).sort((a, b) => a.gapMm - b.gapMm);
  const dents = rungs.map(r => r.struck.dentMm);
  const { gapMm: _, gapTo: __, dentMm: ___, ...struck } = first.struck;
  return {
    ...first,
    massKg: sum(r => r.massKg),
    heaviestKg: Math.max(...rungs.map(r => r.massKg)),
    cost: sum(r => r.cost),
    against: rungs.flatMap(r => r.against),
    struck: {
      ...struck,
      gaps,
      gapMm: gaps[0]?.gapMm,
      gapTo: gaps[0]?.component,
      // a dent that is not known for one of them is not known for all
      dentMm: dents.reduce(
        (most, d) => (most === undefined || d === undefined ? undefined : Math.max(most, d)),
        0,
      ),
      deflectionMm: Math.max(...rungs.map(r => r.struck.deflectionMm)),
      ringHz: Math.min(...rungs.map(r => r.struck.ringHz)),
      reached: Math.min(...rungs.map(r => r.struck.reached)),
    },
  };
}

/** Why a struck rung breaks the limits, in the order they matter; none where it keeps them all. */
export function breaks(facts: Facts, r: StruckRung, limits: SheetLimits): readonly string[] {
  const out: string[] = [];
  if (r.against.length > 0) out.push('cannot be made or used');
  if (r.struck.reached < 1) out.push('collapses');
  // the same force on a sharp nose goes through
  if (punchForce(r.folded.material, r.folded.sheet.thickness) < r.struck.forceN) out.push('sharp rock');
  const own = r.heaviestKg === undefined ? [r.folded.panel.id] : facts.plates.map(p => p.panel.id);
  const tight = r.struck.gaps.find(g => {
    const part = facts.rig.components.find(c => c.id === g.component);
    // what crowds at rest already is no fault of the sheet
    return (
      part && g.gapMm < (limits.leastGapMm ?? part.keepOut) - 0.05 && !own.some(p => asAtRest(facts, p, g))
    );
  });
  if (tight) out.push('gap');
  if ((r.struck.dentMm ?? Infinity) > limits.mostDentMm) out.push('dent');
  if (r.struck.ringHz < limits.leastRingHz) out.push('ring');
  if (limits.mostKg !== undefined && (r.heaviestKg ?? r.massKg) > limits.mostKg) out.push('lift');
  if (limits.materials && !limits.materials.includes(r.material)) out.push('material');
  return out;
}

/** Gap left under the strike, mm; with nothing above how little it gives, as a negative figure. */
export const roomLeft = ({
  struck,
}: {
  readonly struck: Pick<StrikeAnswer, 'gapMm' | 'deflectionMm'>;
}): number => struck.gapMm ?? -struck.deflectionMm;

/** The rungs that no other beats in both mass and gap left (or, with nothing above, in how little they give). */
export function paretoEdge<
  T extends { readonly massKg: number; readonly struck: Pick<StrikeAnswer, 'gapMm' | 'deflectionMm'> },
>(rungs: readonly T[]): readonly T[] {
  return [...rungs]
    .sort((a, b) => a.massKg - b.massKg || roomLeft(b) - roomLeft(a))
    .reduce<T[]>((edge, r) => {
      const last = edge.at(-1);
      if (!last || roomLeft(r) > roomLeft(last)) edge.push(r);
      return edge;
    }, []);
}
