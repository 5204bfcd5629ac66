import { holding } from '../../bolt';
import { type FoldedPanel, facetInSpace } from '../../fold';
import { contains, type Vec2 } from '../../geometry';
import { jointAdded, type PlanDocument } from '../../plan';
import type { Facts } from '../facts';
import { plateName, type Rule, type Unsigned } from '../finding';

/** Three well spread carry a plate at the least; four is the rule: common practice, no source. */
const LEAST = 3;
const SPREAD = 60;

/** Holes over a plate that it does not use yet. */
const freeHoles = (facts: Facts, p: FoldedPanel): readonly string[] => {
  const flats = p.facets.map(f => facetInSpace(f).map((q): Vec2 => [q[0], q[1]]));
  const used = new Set(facts.joints.filter(j => j.joint.panels.includes(p.panel.id)).map(j => j.mount?.id));
  return facts.rig.mounts
    .filter(m => !used.has(m.id) && m.condition !== 'blocked')
    .filter(m => flats.some(f => contains(f, [m.at[0], m.at[1]])))
    .map(m => m.id);
};

export const fewBolts: Rule = {
  id: 'few-bolts',
  why: 'A plate on two bolts turns about them and lets go.',
  find: facts =>
    facts.panels.flatMap((p): readonly Unsigned[] => {
      const at = holding(p.panel.id, facts.joints, facts.seats, facts.panels).map(j => j.at);
      const wide = (k: 0 | 1): number => Math.max(...at.map(a => a[k])) - Math.min(...at.map(a => a[k]));
      if (at.length >= LEAST && wide(0) > SPREAD && wide(1) > SPREAD) return [];
      const free = freeHoles(facts, p);
      return [
        {
          severity: 'stop',
          where: 'cover',
          about: [p.panel.id],
          text: `${plateName(facts, p.panel.id)} is held by ${at.length} bolt${at.length === 1 ? '' : 's'}${at.length >= LEAST ? ' in one line' : ''}.`,
          remedy:
            free.length > 0
              ? `Bolt it to the ${free.length} hole${free.length === 1 ? '' : 's'} over it.`
              : 'Reach it out to a member with holes, or drill new ones.',
          mend:
            free.length > 0
              ? (doc: PlanDocument) =>
                  free.reduce((d, m) => {
                    const r = jointAdded(d, m, p.panel.id);
                    return r.ok ? r.value : d;
                  }, doc)
              : undefined,
        },
      ];
    }),
};
