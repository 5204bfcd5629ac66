import { liftLimitKg, overheadLimitKg } from '../../sequence';
import { listed } from '../../units';
import type { Rule, Unsigned } from '../finding';

export const tooHeavy: Rule = {
  id: 'too-heavy',
  why: 'One person cannot hold it and start a bolt (NIOSH lifting equation; overhead allows far less than in front of you).',
  find: (facts, words) => {
    const { method } = facts.document.plan;
    const most = liftLimitKg(facts.document) * method.people;
    const over = facts.panels.filter(p => p.massKg > most);
    const overhead = overheadLimitKg(method.lift) * method.people;
    const held = facts.panels.filter(p => p.massKg > overhead && p.massKg <= most);
    const marks = held.map(p => p.panel.mark);
    return [
      ...over.map(
        (p): Unsigned => ({
          severity: 'fix',
          where: 'weigh',
          about: [p.panel.id],
          text: `Plate ${p.panel.mark} weighs ${words.mass(p.massKg)}; ${method.people === 1 ? 'one person lifts' : 'two people lift'} ${words.mass(most)} at most.`,
          remedy: 'Use a jack with a wooden block, a helper, or a lighter sheet.',
        }),
      ),
      ...(held.length === 0
        ? []
        : [
            {
              severity: 'note' as const,
              where: 'run' as const,
              about: held.map(p => p.panel.id),
              text: `${marks.length === 1 ? `Plate ${marks[0]} is` : `Plates ${listed(marks)} are`} over ${words.mass(overhead)}: too heavy for ${method.people === 1 ? 'one person' : 'two people'} to hold overhead (NIOSH lifting equation).`,
              remedy: 'The run puts a jack under each until two bolts are in.',
            },
          ]),
    ];
  },
};
