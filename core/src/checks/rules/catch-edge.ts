import { withPanel } from '../../plan';
import { plateName, type Rule } from '../finding';

export const catchEdge: Rule = {
  id: 'catch-edge',
  why: 'A forward-facing edge below the plate ahead hangs the vehicle up on rock.',
  find: (facts, words) =>
    facts.catches.map(c => {
      const front = facts.panels.find(p => p.panel.id === c.behind);
      const lift = c.heightMm + (front?.sheet.thickness ?? 0);
      return {
        severity: 'fix',
        where: 'cover',
        about: [c.panel, c.behind],
        text: `${plateName(facts, c.panel)} catches: its front edge hangs ${words.length(c.heightMm)} below the rear of ${plateName(facts, c.behind)}.`,
        remedy: `Lay ${plateName(facts, c.behind)} outside.`,
        mend: doc => {
          const lifted = withPanel(doc, c.panel, p => {
            const [x, y, z] = p.base.origin;
            return { ...p, base: { ...p.base, origin: [x, y, z + lift] } };
          });
          const outer = (ids: readonly string[]): readonly string[] =>
            ids.includes(c.panel) && ids.includes(c.behind)
              ? [c.behind, ...ids.filter(id => id !== c.behind)]
              : ids;
          return {
            ...lifted,
            plan: {
              ...lifted.plan,
              seams: lifted.plan.seams.map(s =>
                s.front === c.behind && s.rear === c.panel ? { ...s, outside: c.behind } : s,
              ),
              joints: lifted.plan.joints.map(j => ({ ...j, panels: outer(j.panels) })),
            },
          };
        },
      };
    }),
};
