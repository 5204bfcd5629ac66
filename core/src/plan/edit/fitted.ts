import type { PlanDocument } from '../plan';
import { inPlan } from './change';

/** Takes joints out of holes that are no longer there, so that a changed rig leaves no plan that names them. */
export function fitted(doc: PlanDocument): PlanDocument {
  const bodies = new Set([...doc.rig.members.map(m => m.id), ...doc.plan.crossbars.map(c => c.id)]);
  const own = doc.plan.holes?.filter(h => bodies.has(h.member));
  const holes = new Set([...doc.rig.mounts, ...(own ?? [])].map(m => m.id));
  const parts = new Set(doc.rig.components.map(c => c.id));
  const points = new Set(doc.rig.servicePoints.map(s => s.id));
  return inPlan(doc, {
    ...(own ? { holes: own } : {}),
    joints: doc.plan.joints.filter(j => j.mount === undefined || holes.has(j.mount)),
    panels: doc.plan.panels.map(p =>
      p.guards.every(g => parts.has(g)) &&
      p.openings.every(o => o.serves === undefined || points.has(o.serves))
        ? p
        : {
            ...p,
            guards: p.guards.filter(g => parts.has(g)),
            openings: p.openings.map(o =>
              o.serves === undefined || points.has(o.serves) ? o : { ...o, serves: undefined },
            ),
          },
    ),
    crossbars: doc.plan.crossbars.map(c => ({ ...c, mounts: c.mounts.filter(m => holes.has(m)) })),
  });
}
