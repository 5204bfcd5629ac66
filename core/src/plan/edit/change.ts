import type { Joint, Panel, Plan, PlanDocument, SheetChoice } from '../plan';

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

/** Marks given anew from front to rear, by where each base begins. */
export function remarked(doc: PlanDocument): PlanDocument {
  const front = (p: Panel): number => p.base.origin[0] + Math.min(...p.base.outline.map(q => q[0]));
  const order = [...doc.plan.panels].sort((a, b) => front(a) - front(b) || (a.id < b.id ? -1 : 1));
  const mark = new Map(order.map((p, i) => [p.id, markAt(i)]));
  return inPlan(doc, { panels: doc.plan.panels.map(p => ({ ...p, mark: mark.get(p.id) ?? p.mark })) });
}

/** A plate of one build in another sheet, its finish kept. */
export const withSheet = (
  doc: PlanDocument,
  build: string,
  panel: string,
  { material, thickness, gauge }: Pick<SheetChoice, 'material' | 'thickness' | 'gauge'>,
): PlanDocument =>
  inPlan(doc, {
    builds: doc.plan.builds.map(b => {
      const old = b.sheets[panel];
      if (b.id !== build || !old) return b;
      const { gauge: _, ...kept } = old;
      const sheet = { ...kept, material, thickness, ...(gauge === undefined ? {} : { gauge }) };
      return { ...b, sheets: { ...b.sheets, [panel]: sheet } };
    }),
  });
