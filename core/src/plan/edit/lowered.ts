import { type PlanDocument, stackedIn } from '../plan';
import { inPlan, withPanel } from './change';

/** The plates that a plate is tied to by shared bolts, itself among them. */
export function tiedTo({ plan }: Pick<PlanDocument, 'plan'>, panel: string): readonly string[] {
  const tied = new Set([panel]);
  for (let size = 0; size !== tied.size; ) {
    size = tied.size;
    for (const j of plan.joints) {
      const stack = stackedIn(j);
      if (stack.some(p => tied.has(p))) for (const p of stack) tied.add(p);
    }
  }
  return plan.panels.filter(p => tied.has(p.id)).map(p => p.id);
}

/** Plates lowered together, mm: the spacers of their bolts grow by as much, so that every stack still closes. */
export function lowered(doc: PlanDocument, panels: readonly string[], by: number): PlanDocument {
  const down = panels.reduce(
    (d, id) =>
      withPanel(d, id, p => {
        const [x, y, z] = p.base.origin;
        return { ...p, base: { ...p.base, origin: [x, y, z - by] } };
      }),
    doc,
  );
  return inPlan(down, {
    joints: down.plan.joints.map(j =>
      j.mount !== undefined && panels.includes(stackedIn(j).at(-1) ?? '')
        ? { ...j, spacer: Math.max(0, Math.round((j.spacer + by) * 1000) / 1000) }
        : j.mount === undefined && j.at && j.panels.length > 0 && j.panels.every(p => panels.includes(p))
          ? // a bolt between plates goes down with them
            { ...j, at: [j.at[0], j.at[1], j.at[2] - by] as const }
          : j,
    ),
  });
}
