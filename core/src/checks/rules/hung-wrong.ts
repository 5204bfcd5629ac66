import { wrongWays } from '../../bolt';
import { callOf, etchWay } from '../../plan';
import { plateName, type Rule } from '../finding';

export const hungWrong: Rule = {
  id: 'hung-wrong',
  why: 'What starts on every bolt the wrong way round is noticed when all of it is tight.',
  find: facts =>
    facts.panels.flatMap(p => {
      if (p.panel.wayUp) return [];
      const [way, ...more] = wrongWays(p, facts.joints, facts.seats);
      if (!way) return [];
      return [
        {
          severity: 'note' as const,
          where: 'cover' as const,
          about: [p.panel.id],
          text: `${plateName(facts, p.panel.id)} fits ${way} too${more.length > 0 ? `, and ${more.join(', or ')}` : ''}: all of its bolts would start.`,
          remedy: 'Etch on it which end is the front and which face is up.',
          mend: callOf(etchWay, { panel: p.panel.id }),
        },
      ];
    }),
};
