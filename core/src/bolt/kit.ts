import { HEAD_NAMES } from './heads';
import type { ResolvedJoint } from './joint';
import type { ShoppingLine, ToolLine } from './lists';
import { THREADS } from './thread';

/** A torque wrench of the owner's, N·m. */
export interface OwnWrench {
  readonly name: string;
  readonly low: number;
  readonly high: number;
}

/** Parts in a pack as dealers sell them: a guess, common practice, no source. */
export const PACKS: Readonly<Record<ShoppingLine['kind'], number>> = {
  bolt: 10,
  washer: 25,
  nut: 10,
  spacer: 1,
};

/** One line of what to buy. */
export interface BuyLine extends ShoppingLine {
  /** how many lie on the shelf */
  readonly have: number;
  readonly missing: number;
  readonly pack: number;
  /** packs to buy for what is missing */
  readonly packs: number;
}

/** The bag list against the shelf: what is missing and in how many packs it comes. */
export const toBuy = (
  lines: readonly ShoppingLine[],
  shelf: Readonly<Record<string, number>>,
): readonly BuyLine[] =>
  lines.map(l => {
    const have = shelf[l.part] ?? 0;
    const missing = Math.max(0, l.count - have);
    const pack = PACKS[l.kind];
    return { ...l, have, missing, pack, packs: Math.ceil(missing / pack) };
  });

/** How far the kit has been gone through: parts counted, tools tried on their fastener, and why it is begun without. */
export interface KitState {
  readonly counted: Readonly<Record<string, number>>;
  readonly tried: readonly string[];
}
export const EMPTY_KIT: KitState = { counted: {}, tried: [] };

/** What was done to a kit: pieces found or put back, parts counted through, tools tried or not. */
export interface KitChange {
  readonly add?: Readonly<Record<string, number>>;
  readonly set?: Readonly<Record<string, number>>;
  readonly tried?: Readonly<Record<string, boolean>>;
}

/** Pieces of one part at most. */
export const MOST_PIECES = 100_000;

/** A kit after a change. Pieces add up, so that two who count at once both count. */
export function changedKit(kit: KitState, { add = {}, set = {}, tried = {} }: KitChange): KitState {
  const counted = new Map([...Object.entries(kit.counted), ...Object.entries(set)]);
  for (const [part, n] of Object.entries(add))
    counted.set(part, Math.max(0, Math.min(MOST_PIECES, (counted.get(part) ?? 0) + n)));
  const on = new Set(kit.tried);
  for (const [tool, yes] of Object.entries(tried))
    if (yes) on.add(tool);
    else on.delete(tool);
  return { counted: Object.fromEntries(counted), tried: [...on] };
}

/** What is not there yet, in the words of the lists. */
export interface KitGaps {
  readonly parts: readonly { readonly part: string; readonly missing: number }[];
  readonly tools: readonly string[];
}

/** What of a kit is missing or untried. An older count of a part that is no longer needed does no harm. */
export function kitGaps(
  lines: readonly ShoppingLine[],
  tools: readonly ToolLine[],
  { counted, tried }: KitState,
): KitGaps {
  return {
    parts: lines
      .map(l => ({ part: l.part, missing: l.count - (counted[l.part] ?? 0) }))
      .filter(l => l.missing > 0),
    tools: tools.map(t => t.tool).filter(t => !tried.includes(t)),
  };
}
export const kitComplete = ({ parts, tools }: KitGaps): boolean => parts.length === 0 && tools.length === 0;

/** Joints whose torque no wrench of the owner's reaches; a wrench is not trusted in the top twentieth of its range. */
export const uncoveredTorques = (
  joints: readonly ResolvedJoint[],
  wrenches: readonly OwnWrench[],
): readonly ResolvedJoint[] =>
  joints.filter(j => !wrenches.some(w => j.torqueNm >= w.low && j.torqueNm <= w.high * 0.95));

/** What a part's name begins with where it is a bolt or a screw. */
const BOLT_NAMES = Object.values(HEAD_NAMES);
/** Bolts and screws on the shelf by their thread, as `chooseHardware` prefers them. */
export function threadsOnShelf(shelf: Readonly<Record<string, number>>): Readonly<Record<string, number>> {
  const out: Record<string, number> = {};
  for (const [part, count] of Object.entries(shelf)) {
    if (!BOLT_NAMES.some(name => part.startsWith(`${name} `))) continue;
    // with the blank behind it: 1/4-20 also ends other words
    const t = THREADS.find(x => part.includes(`${x.designation} `));
    if (t) out[t.designation] = (out[t.designation] ?? 0) + count;
  }
  return out;
}
