import type { Joint, Panel, Plan, PlanDocument, SheetChoice } from '../plan';
import { sheetsSet } from '../restack';
import { frontToRear, isBracket } from '../select';

/** The document with parts of its plan replaced. */
export const inPlan = (doc: PlanDocument, part: Partial<Plan>): PlanDocument => ({
  ...doc,
  plan: { ...doc.plan, ...part },
});

/** The document with one panel changed. */
export const withPanel = (doc: PlanDocument, id: string, change: (p: Panel) => Panel): PlanDocument =>
  inPlan(doc, { panels: doc.plan.panels.map(p => (p.id === id ? change(p) : p)) });

/** The document with one joint changed. */
export const withJoint = (doc: PlanDocument, id: string, change: (j: Joint) => Joint): PlanDocument =>
  inPlan(doc, { joints: doc.plan.joints.map(j => (j.id === id ? change(j) : j)) });

/** A joint in other hardware; its spacer stays as it is drawn, whatever the build that was looked at adds to it. */
export const withHardware = (doc: PlanDocument, id: string, hardware: Joint): PlanDocument =>
  withJoint(doc, id, j => ({ ...hardware, spacer: j.spacer }));

/** An id for something new that no list entry has yet: `hole-3`. */
export function freshId(prefix: string, taken: readonly { readonly id: string }[]): string {
  let n = taken.length + 1;
  while (taken.some(t => t.id === `${prefix}-${n}`)) n++;
  return `${prefix}-${n}`;
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** The n-th mark: A to Z, then A2, B2 ... */
export const markAt = (n: number): string =>
  `${LETTERS[n % 26]}${n >= 26 ? String(Math.floor(n / 26) + 1) : ''}`;

/** Which mark it is, the other way round; -1 for a bracket's and for a name of the owner's own. */
function rankOf(mark: string): number {
  const [, letter = '', turn] = /^([A-Z])(\d*)$/.exec(mark) ?? [];
  return letter === '' || turn === '1' ? -1 : LETTERS.indexOf(letter) + 26 * (turn ? Number(turn) - 1 : 0);
}

/** The mark of a plate that has none yet. */
export const UNMARKED = '?';

/**
 * Marks for the plates that have none, from front to rear; every other keeps the letter that is painted on it. Letters go on after the
 * last one in use: that of a plate which was deleted is on a drawing somewhere.
 */
export function marked(doc: PlanDocument): PlanDocument {
  const marks = doc.plan.panels.map(p => p.mark).filter(m => m !== UNMARKED);
  const fresh = frontToRear(doc.plan.panels).filter(p => p.mark === UNMARKED);
  const next = 1 + Math.max(-1, ...marks.map(rankOf));
  const nextBracket = 1 + Math.max(0, ...marks.map(m => Number(/^K(\d+)$/.exec(m)?.[1] ?? 0)));
  const given = new Map([
    ...fresh.filter(p => !isBracket(p)).map((p, i) => [p.id, markAt(next + i)] as const),
    // a plate's letters never get as far as K1: they go on with A2
    ...fresh.filter(isBracket).map((p, i) => [p.id, `K${nextBracket + i}`] as const),
  ]);
  if (given.size === 0) return doc;
  return inPlan(doc, { panels: doc.plan.panels.map(p => ({ ...p, mark: given.get(p.id) ?? p.mark })) });
}

/** Letters given to all plates anew, from front to rear. */
export const relettered = (doc: PlanDocument): PlanDocument =>
  marked(inPlan(doc, { panels: doc.plan.panels.map(p => (isBracket(p) ? p : { ...p, mark: UNMARKED })) }));

/** A sheet in other material or thickness, its finish kept. */
export function resheeted(
  { gauge: _, ...old }: SheetChoice,
  { material, thickness, gauge }: Pick<SheetChoice, 'material' | 'thickness' | 'gauge'>,
): SheetChoice {
  return { ...old, material, thickness, ...(gauge === undefined ? {} : { gauge }) };
}

/** A plate of one build in another sheet, its finish kept. */
export const withSheet = (
  doc: PlanDocument,
  build: string,
  panel: string,
  of: Pick<SheetChoice, 'material' | 'thickness' | 'gauge'>,
): PlanDocument => {
  const old = doc.plan.builds.find(b => b.id === build)?.sheets[panel];
  if (!old) return doc;
  return sheetsSet(doc, build, { [panel]: resheeted(old, of) });
};

/** Leaves out the holes drilled for this plan that no bolt and no crossbar uses any more. */
export function holesTidied(doc: PlanDocument): PlanDocument {
  const { holes } = doc.plan;
  if (!holes) return doc;
  const used = new Set([
    ...doc.plan.joints.flatMap(j => j.mount ?? []),
    ...doc.plan.crossbars.flatMap(c => c.mounts),
  ]);
  const left = holes.filter(h => used.has(h.id));
  if (left.length === holes.length) return doc;
  const { holes: _, ...plan } = doc.plan;
  return { ...doc, plan: left.length > 0 ? { ...plan, holes: left } : plan };
}
