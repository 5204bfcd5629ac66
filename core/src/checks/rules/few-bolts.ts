import { attached, boltToHoles, drawnPanels, heldAt, holding } from '../../bolt';
import type { Facts } from '../../derive';
import { callOf } from '../../plan';
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

export const fewBolts: Rule = {
  id: 'few-bolts',
  why: 'A plate on two bolts pivots on them and lets go.',
  find: facts =>
    facts.plates.flatMap((p): readonly Unsigned[] => {
      const bolts = holding(p.panel.id, facts.joints, facts.seats, facts.panels);
      const at = bolts.flatMap(heldAt);
      const wide = (k: 0 | 1): number => Math.max(...at.map(a => a[k])) - Math.min(...at.map(a => a[k]));
      if (at.length >= LEAST && wide(0) > SPREAD && wide(1) > SPREAD) return [];
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
