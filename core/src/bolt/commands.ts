import { type FoldedPanel, foldPanel } from '../fold';
import { contains, distance2, type Vec2 } from '../geometry';
import {
  type Command,
  command,
  counted,
  holeDrilled,
  inPlan,
  newHole,
  type PlanDocument,
  panelsMerged,
  plateNamed,
  presentOf,
  sheetOf,
} from '../plan';
import { err, ok, type Result } from '../units';
import { attached, respaced } from './attach';

/** The plates as they are drawn: folded in the sheets of the first build. */
export function drawnPanels({ plan }: PlanDocument): readonly FoldedPanel[] {
  const [first] = plan.builds;
  return first ? plan.panels.map(p => foldPanel(p, sheetOf(first, p), plan.shop?.kFactors)) : [];
}

/** A plate bolted to holes over it, one after the other, on whatever spacers that leaves; refused where one of them cannot be. */
export const boltToHoles = command<{ readonly panel: string; readonly holes: readonly string[] }>({
  id: 'bolt.add',
  label: (doc, { panel, holes }) => `bolt ${plateNamed(doc, panel)} to ${counted(holes, 'hole')}`,
  run: (doc, { panel, holes }) => {
    const [rig, panels] = [presentOf(doc), drawnPanels(doc)];
    return holes.reduce<Result<PlanDocument>>(
      (so, hole) => (so.ok ? attached(so.value, rig, panels, hole, panel) : so),
      ok(doc),
    );
  },
});

/** A plate bolted at a place on the ground plane, mm: to the hole within `reach` of it, or to a new one in the lowest member over it. */
export const boltAt = command<{ readonly panel: string; readonly at: Vec2; readonly reach: number }>({
  id: 'bolt.at',
  label: (doc, { panel }) => `bolt ${plateNamed(doc, panel)} there`,
  run: (doc, { panel, at, reach }) => {
    const [rig, panels] = [presentOf(doc), drawnPanels(doc)];
    const near = rig.mounts
      .map(m => ({ m, off: distance2([m.at[0], m.at[1]], at) }))
      .sort((a, b) => a.off - b.off)[0];
    if (near && near.off <= reach) return attached(doc, rig, panels, near.m.id, panel);
    const over = rig.members.filter(m => contains(m.footprint, at)).sort((a, b) => a.zBottom - b.zBottom)[0];
    if (!over) return err('there is no member and no crossbar over that place to drill');
    const hole = newHole(doc, over.id, [at[0], at[1], over.zBottom]);
    const next = holeDrilled(doc, hole);
    return attached(next, presentOf(next), panels, hole.id, panel);
  },
});

/** One plate of two, its bolts as it then stands. */
export const mergePlates = command<{ readonly panel: string; readonly other: string }>({
  id: 'plate.merge',
  label: (doc, { panel, other }) => `merge ${plateNamed(doc, panel)} and ${plateNamed(doc, other)}`,
  run: (doc, { panel, other }) => {
    const r = panelsMerged(doc, panel, other);
    return r.ok ? ok(respaced(r.value, [panel])) : r;
  },
});

/**
 * Every bolt and every seam told by how the plates really lie over one another. `under`: how low each plate lies, mm, for seams that share
 * no bolt.
 */
export const agreeLaps = command<{ readonly under: Readonly<Record<string, number>> }>({
  id: 'seam.agree',
  label: () => 'set which plates lie outside',
  run: (doc, { under }) => {
    const next = respaced(
      doc,
      doc.plan.panels.map(p => p.id),
    );
    return inPlan(next, {
      seams: next.plan.seams.map(s => {
        const shared = next.plan.joints.find(j => j.panels.includes(s.front) && j.panels.includes(s.rear));
        const first = shared?.panels.find(p => p === s.front || p === s.rear);
        const lower = (under[s.front] ?? 0) <= (under[s.rear] ?? 0) ? s.front : s.rear;
        return { ...s, outside: first ?? lower };
      }),
    });
  },
});

/** Changes that ask how plates are folded and where they lie. */
export const BOLT_COMMANDS: readonly Command[] = [boltToHoles, boltAt, mergePlates, agreeLaps];
