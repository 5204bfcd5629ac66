import type { Flange, PlanDocument } from '../plan';
import { freshId, withPanel } from './change';

const replaced = (
  list: readonly Flange[],
  id: string,
  change: (f: Flange) => readonly Flange[],
): readonly Flange[] =>
  list.flatMap(f =>
    f.id === id ? change(f) : [f.flanges ? { ...f, flanges: replaced(f.flanges, id, change) } : f],
  );

const flangeIds = (list: readonly Flange[]): { id: string }[] =>
  list.flatMap(f => [{ id: f.id }, ...flangeIds(f.flanges ?? [])]);

/** A flange on a base edge, or on the free edge of another flange (`on`). */
export function flangeAdded(
  doc: PlanDocument,
  panel: string,
  where: { readonly edge: number } | { readonly on: string },
  length = 40,
  angle = 30,
): PlanDocument {
  return withPanel(doc, panel, p => {
    const id = freshId('flange', flangeIds(p.flanges));
    if ('edge' in where) return { ...p, flanges: [...p.flanges, { id, edge: where.edge, length, angle }] };
    const lip: Flange = { id, edge: 'far', length, angle };
    return {
      ...p,
      flanges: replaced(p.flanges, where.on, f => [{ ...f, flanges: [...(f.flanges ?? []), lip] }]),
    };
  });
}

export const flangeChanged = (
  doc: PlanDocument,
  panel: string,
  id: string,
  part: Partial<Pick<Flange, 'length' | 'angle' | 'insideRadius' | 'inset' | 'mitre'>>,
): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, flanges: replaced(p.flanges, id, f => [{ ...f, ...part }]) }));

export const flangeRemoved = (doc: PlanDocument, panel: string, id: string): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, flanges: replaced(p.flanges, id, () => []) }));
