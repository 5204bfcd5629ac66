import { respaced } from '../../bolt';
import type { Facts } from '../../derive';
import { inPlan, type PlanDocument } from '../../plan';
import { hangingOrder } from '../../sequence';
import { plateWord, type Rule } from '../finding';

/** Every bolt and every seam told by how the plates really lie over one another. */
function agreed(facts: Facts, doc: PlanDocument): PlanDocument {
  const next = respaced(
    doc,
    doc.plan.panels.map(p => p.id),
  );
  return inPlan(next, {
    seams: next.plan.seams.map(s => {
      const shared = next.plan.joints.find(j => j.panels.includes(s.front) && j.panels.includes(s.rear));
      const under = (id: string): number =>
        Math.min(...(facts.panels.find(p => p.panel.id === id)?.facets ?? []).map(f => f.frame.origin[2]));
      const first = shared?.panels.find(p => p === s.front || p === s.rear);
      return { ...s, outside: first ?? (under(s.front) <= under(s.rear) ? s.front : s.rear) };
    }),
  });
}

export const waitingSteps: Rule = {
  id: 'waiting-steps',
  why: 'Plates that wait for each other cannot be hung in any order.',
  find: facts => {
    const { stuck } = hangingOrder(facts.document, facts.panels);
    if (stuck.length === 0) return [];
    const names = stuck.map(p => plateWord(facts, p.panel.id));
    const said = `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
    return [
      {
        severity: 'stop',
        where: 'run',
        about: stuck.map(p => p.panel.id),
        text: `Each of ${said} lies outside another at one bolt or seam and inside it at the next: none can be hung first.`,
        remedy: 'Set which plate lies outside by how they hang now.',
        mend: doc => agreed(facts, doc),
      },
    ];
  },
};
