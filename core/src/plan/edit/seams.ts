import type { PlanDocument, Seam } from '../plan';
import { inPlan } from './change';

/** Lays a seam between two plates, or takes it away when `seam` is undefined; shared bolts follow who lies outside. */
export function seamSet(
  doc: PlanDocument,
  front: string,
  rear: string,
  seam: Seam | undefined,
): PlanDocument {
  const seams = doc.plan.seams.filter(s => !(s.front === front && s.rear === rear));
  if (!seam) return inPlan(doc, { seams });
  const inner = seam.outside === front ? rear : front;
  const outerFirst = (ids: readonly string[]): readonly string[] =>
    ids.includes(front) && ids.includes(rear)
      ? [...ids.filter(id => id !== inner && id !== seam.outside), seam.outside, inner]
      : ids;
  return inPlan(doc, {
    seams: [...seams, seam],
    joints: doc.plan.joints.map(j => ({ ...j, panels: outerFirst(j.panels) })),
  });
}
