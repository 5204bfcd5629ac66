import type { FoldedPanel } from '../fold';
import { type PlanDocument, tiesWing } from '../plan';

/** Pairs (inner, outer): the inner plate has to hang before the outer one can lap over it; a wing goes up with its plate. */
export function laps(doc: PlanDocument): readonly (readonly [inner: string, outer: string])[] {
  return [
    ...doc.plan.seams.map(s => [s.outside === s.front ? s.rear : s.front, s.outside] as const),
    ...doc.plan.joints
      .filter(j => !tiesWing(doc.plan, j))
      .flatMap(j => j.panels.slice(1).map((inner, i) => [inner, j.panels[i] as string] as const)),
  ];
}

/** Plates tied by a shared bolt, seam or crossbar come up together: their groups. */
export function tiedGroups(
  doc: PlanDocument,
  panels: readonly FoldedPanel[],
): readonly (readonly FoldedPanel[])[] {
  const leader = new Map(panels.map(p => [p.panel.id, p.panel.id]));
  const find = (id: string): string => {
    const up = leader.get(id) ?? id;
    return up === id ? id : find(up);
  };
  const tie = (ids: readonly string[]): void => {
    for (const id of ids.slice(1)) leader.set(find(id), find(ids[0] as string));
  };
  for (const j of doc.plan.joints) tie(j.panels);
  for (const s of doc.plan.seams) tie([s.front, s.rear]);
  for (const c of doc.plan.crossbars)
    tie(
      doc.plan.joints.filter(j => j.mount !== undefined && c.mounts.includes(j.mount)).flatMap(j => j.panels),
    );
  const byLeader = new Map<string, FoldedPanel[]>();
  for (const p of panels) {
    const key = find(p.panel.id);
    byLeader.set(key, [...(byLeader.get(key) ?? []), p]);
  }
  return [...byLeader.values()];
}

/** Plates in the order in which they go up: inner before outer, then by the chosen school. */
export function hangingOrder(
  doc: PlanDocument,
  panels: readonly FoldedPanel[],
): { order: FoldedPanel[]; stuck: FoldedPanel[] } {
  const rearFirst = doc.plan.method.start !== 'front-to-rear';
  const left = [...panels].sort((a, b) => (a.centroid[0] - b.centroid[0]) * (rearFirst ? -1 : 1));
  const pairs = laps(doc);
  const order: FoldedPanel[] = [];
  while (left.length > 0) {
    const next = left.findIndex(
      p =>
        !pairs.some(
          ([inner, outer]) => outer === p.panel.id && left.some(q => q !== p && q.panel.id === inner),
        ),
    );
    if (next < 0) break;
    order.push(...left.splice(next, 1));
  }
  return { order, stuck: left };
}

/** True when plates lap in a ring, so that none can hang first: the one way in which steps come to wait for each other. */
export const plateRing = (doc: PlanDocument, panels: readonly FoldedPanel[]): boolean =>
  hangingOrder(doc, panels).stuck.length > 0;
