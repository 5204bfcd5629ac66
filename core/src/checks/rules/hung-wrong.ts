import { saidWay, takenForAnother, wrongWays } from '../../bolt';
import { callOf, etchWay } from '../../plan';
import { plateName, plateWord, type Rule } from '../finding';

export const hungWrong: Rule = {
  id: 'hung-wrong',
  why: 'Hung the wrong way round it leaves bare what it is for, and all of it comes down again.',
  find: facts => [
    ...facts.panels.flatMap(p => {
      if (p.panel.wayUp) return [];
      const ways = wrongWays(p, facts.joints, facts.seats).map(saidWay);
      if (ways.length === 0) return [];
      return [
        {
          severity: 'note' as const,
          where: 'cover' as const,
          about: [p.panel.id],
          text: `${plateName(facts, p.panel.id)} also fits ${[...new Set(ways)].join(' or ')}: all of its bolts would start.`,
          remedy: 'Etch on it which end is the front and which face is up.',
          mend: callOf(etchWay, { panel: p.panel.id }),
        },
      ];
    }),
    ...takenForAnother(facts.panels, facts.joints, facts.seats).flatMap(([a, b]) => {
      const bare = [a, b].find(p => !p.panel.wayUp);
      if (!bare) return [];
      return [
        {
          severity: 'note' as const,
          where: 'cover' as const,
          about: [a.panel.id, b.panel.id],
          text: `${plateName(facts, a.panel.id)} also fits where ${plateWord(facts, b.panel.id)} belongs: all of its bolts would start.`,
          remedy: 'Etch on both which end is the front; their marks tell them apart.',
          mend: callOf(etchWay, { panel: bare.panel.id }),
        },
      ];
    }),
  ],
};
