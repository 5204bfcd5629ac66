import { partName, plateName, type Rule } from '../finding';

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
          remedy: `Lower the plate by ${words.length(part.keepOut - g.gapMm)}, or choose a thinner sheet.`,
        },
      ];
    }),
};
