import type { Vec2 } from '@plate-fold/core/geometry';
import type { Panel, PlanDocument } from '@plate-fold/core/plan';

/** The same plan with its set repeated along an ever longer vehicle: parts, holes and joints go with the plates. */
export function repeated(doc: PlanDocument, times: number): PlanDocument {
  const shift = 4000;
  const each = <T>(of: (k: number, at: (id: string) => string) => readonly T[]): T[] =>
    Array.from({ length: times }, (_, k) => of(k, id => (k === 0 ? id : `${id}-${k}`))).flat();
  const { rig, plan } = doc;
  const along = (o: readonly Vec2[], k: number): Vec2[] => o.map(([x, y]): Vec2 => [x + k * shift, y]);
  const panels = each((k, id) =>
    plan.panels.map(
      (p): Panel => ({
        ...p,
        id: id(p.id),
        guards: p.guards.map(id),
        openings: p.openings.map(o => ({ ...o, serves: o.serves && id(o.serves) })),
        base: { ...p.base, origin: [p.base.origin[0] + k * shift, p.base.origin[1], p.base.origin[2]] },
      }),
    ),
  );
  return {
    ...doc,
    rig: {
      ...rig,
      wheelbase: rig.wheelbase + (times - 1) * shift,
      components: each((k, id) =>
        rig.components.map(c => ({ ...c, id: id(c.id), footprint: along(c.footprint, k) })),
      ),
      members: each((k, id) =>
        rig.members.map(m => ({ ...m, id: id(m.id), footprint: along(m.footprint, k) })),
      ),
      mounts: each((k, id) =>
        rig.mounts.map(m => ({
          ...m,
          id: id(m.id),
          member: id(m.member),
          at: [m.at[0] + k * shift, m.at[1], m.at[2]] as const,
          behind: m.behind && { ...m.behind, component: id(m.behind.component) },
        })),
      ),
      servicePoints: each((k, id) =>
        rig.servicePoints.map(s => ({
          ...s,
          id: id(s.id),
          component: id(s.component),
          at: [s.at[0] + k * shift, s.at[1], s.at[2]] as const,
        })),
      ),
    },
    plan: {
      ...plan,
      panels,
      joints: each((_, id) =>
        plan.joints.map(j => ({
          ...j,
          id: id(j.id),
          mount: j.mount && id(j.mount),
          panels: j.panels.map(id),
        })),
      ),
      seams: each((_, id) =>
        plan.seams.map(s => ({ ...s, front: id(s.front), rear: id(s.rear), outside: id(s.outside) })),
      ),
      builds: plan.builds.map(b => ({
        ...b,
        sheets: Object.fromEntries(
          each((_, id) => Object.entries(b.sheets).map(([p, s]) => [id(p), s] as const)),
        ),
      })),
    },
  };
}
