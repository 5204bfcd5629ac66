import { inPlan, panelMoved } from '../../plan';
import { partName, plateName, type Rule } from '../finding';

const lower = (keepOut: number, gap: number): number => Math.ceil(keepOut - gap);

export const tooNear: Rule = {
  id: 'too-near',
  why: 'Too tight rattles, and a dent reaches the pan.',
  find: (facts, words) =>
    facts.gaps.flatMap(g => {
      const part = facts.rig.components.find(c => c.id === g.component);
      if (!part || part.moves || g.gapMm >= part.keepOut - 0.05) return [];
      const plate = plateName(facts, g.panel);
      return [
        {
          severity: g.gapMm < 0 ? ('stop' as const) : ('fix' as const),
          where: 'cover',
          about: [g.panel, g.component],
          text:
            g.gapMm < 0
              ? `${plate} reaches into ${partName(facts, g.component)} by ${words.length(-g.gapMm)}.`
              : `${plate} leaves ${words.length(g.gapMm)} to ${partName(facts, g.component)}; ${words.length(part.keepOut)} is wanted, at rest.`,
          remedy: `Lower the plate by ${words.length(lower(part.keepOut, g.gapMm))}, with spacers.`,
          mend: (doc: typeof facts.document) => {
            const by = lower(part.keepOut, g.gapMm);
            const down = panelMoved(doc, g.panel, [0, 0, -by]);
            // what lies between the plate and its members grows by as much; a neighbour that shares the bolt stays
            return inPlan(down, {
              joints: down.plan.joints.map(j =>
                j.panels.length === 1 && j.panels[0] === g.panel ? { ...j, spacer: j.spacer + by } : j,
              ),
            });
          },
        },
      ];
    }),
};
