import { attached, boltToHoles, drawnPanels, heldAt, holding } from '../../bolt';
import type { Facts } from '../../derive';
import type { FoldedPanel } from '../../fold';
import { toSpace, type Vec3 } from '../../geometry';
import { callOf, wingsOf } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';

/** Three well spread carry a plate at the least; four is the rule: common practice, no source. */
const LEAST = 3;
const SPREAD = 60;

/** A spacer longer than this is no remedy, mm. */
const LONGEST = 30;

/** Free holes that are over a flat of a plate, and that it can be bolted to all together, on spacers where it hangs short. */
function freeHoles(facts: Facts, panel: string): readonly string[] {
  const used = new Set(facts.joints.filter(j => j.joint.panels.includes(panel)).map(j => j.mount?.id));
  const panels = drawnPanels(facts.document);
  let doc = facts.document;
  return facts.rig.mounts
    .filter(m => !used.has(m.id) && m.condition !== 'blocked')
    .flatMap(m => {
      const r = attached(doc, facts.rig, panels, m.id, panel);
      const made = r.ok ? r.value.plan.joints.find(j => j.mount === m.id) : undefined;
      if (!r.ok || !made || made.spacer > LONGEST) return [];
      doc = r.value;
      return [m.id];
    });
}

/**
 * Whether a wing lies along one row of bolts: none of it reaches further off the row than bolts have to lie apart, so that the plate it is
 * bolted to keeps it from turning about them.
 */
function liesAlong({ document }: Facts, p: FoldedPanel, at: readonly Vec3[]): boolean {
  if (!wingsOf(document.plan).has(p.panel.id) || at.length < LEAST) return false;
  const far = (k: 0 | 1): Vec3 => at.reduce((a, b) => (b[k] > a[k] ? b : a));
  const near = (k: 0 | 1): Vec3 => at.reduce((a, b) => (b[k] < a[k] ? b : a));
  const long = far(0)[0] - near(0)[0] > far(1)[1] - near(1)[1] ? 0 : 1;
  const [a, b] = [near(long), far(long)];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const length = Math.hypot(dx, dy);
  return (
    length > SPREAD &&
    p.facets.every(f =>
      f.outline.every(q => {
        const [x, y] = toSpace(f.frame, q);
        return Math.abs((x - a[0]) * dy - (y - a[1]) * dx) / length <= SPREAD;
      }),
    )
  );
}

export const fewBolts: Rule = {
  id: 'few-bolts',
  why: 'A plate on two bolts pivots on them and lets go.',
  find: facts =>
    facts.plates.flatMap((p): readonly Unsigned[] => {
      const bolts = holding(p.panel.id, facts.joints, facts.seats, facts.panels);
      const at = bolts.flatMap(heldAt);
      const wide = (k: 0 | 1): number => Math.max(...at.map(a => a[k])) - Math.min(...at.map(a => a[k]));
      if (at.length >= LEAST && wide(0) > SPREAD && wide(1) > SPREAD) return [];
      if (liesAlong(facts, p, at)) return [];
      const free = freeHoles(facts, p.panel.id);
      return [
        {
          severity: 'stop',
          where: 'cover',
          about: [p.panel.id],
          text: `${plateName(facts, p.panel.id)} is held by ${bolts.length} bolt${bolts.length === 1 ? '' : 's'}${at.length >= LEAST ? ' in one line' : ''}.`,
          remedy:
            free.length > 0
              ? `Bolt it to the ${free.length} hole${free.length === 1 ? '' : 's'} above it.`
              : 'Extend it to a crossmember with holes, or drill new ones.',
          ...(free.length > 0 ? { mend: callOf(boltToHoles, { panel: p.panel.id, holes: free }) } : {}),
        },
      ];
    }),
};
