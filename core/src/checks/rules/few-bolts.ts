import { attached, holding } from '../../bolt';
import type { Facts } from '../../derive';
import type { PlanDocument } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';

/** Three well spread carry a plate at the least; four is the rule: common practice, no source. */
const LEAST = 3;
const SPREAD = 60;

/** A spacer longer than this is no remedy, mm. */
const LONGEST = 30;

/** The plate bolted to every free hole that is over a flat of it, on spacers where it hangs short; with how many. */
function bolted(facts: Facts, panel: string): { readonly doc: PlanDocument; readonly count: number } {
  const used = new Set(facts.joints.filter(j => j.joint.panels.includes(panel)).map(j => j.mount?.id));
  return facts.rig.mounts
    .filter(m => !used.has(m.id) && m.condition !== 'blocked')
    .reduce(
      (so, m) => {
        const r = attached(so.doc, facts.rig, facts.panels, m.id, panel);
        const made = r.ok ? r.value.plan.joints.find(j => j.mount === m.id) : undefined;
        return r.ok && made && made.spacer <= LONGEST ? { doc: r.value, count: so.count + 1 } : so;
      },
      { doc: facts.document, count: 0 },
    );
}

export const fewBolts: Rule = {
  id: 'few-bolts',
  why: 'A plate on two bolts turns about them and lets go.',
  find: facts =>
    facts.panels.flatMap((p): readonly Unsigned[] => {
      const at = holding(p.panel.id, facts.joints, facts.seats, facts.panels).map(j => j.at);
      const wide = (k: 0 | 1): number => Math.max(...at.map(a => a[k])) - Math.min(...at.map(a => a[k]));
      if (at.length >= LEAST && wide(0) > SPREAD && wide(1) > SPREAD) return [];
      const free = bolted(facts, p.panel.id);
      return [
        {
          severity: 'stop',
          where: 'cover',
          about: [p.panel.id],
          text: `${plateName(facts, p.panel.id)} is held by ${at.length} bolt${at.length === 1 ? '' : 's'}${at.length >= LEAST ? ' in one line' : ''}.`,
          remedy:
            free.count > 0
              ? `Bolt it to the ${free.count} hole${free.count === 1 ? '' : 's'} over it.`
              : 'Reach it out to a member with holes, or drill new ones.',
          ...(free.count > 0 ? { mend: () => free.doc } : {}),
        },
      ];
    }),
};
