import { blankClashes, holesNearBends } from '../../fold';
import { openingRemoved } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';

export const blank: Rule = {
  id: 'blank',
  why: 'What overlaps in the flat cannot be cut from one sheet; a hole in a bend is drawn out of shape.',
  find: (facts, words) =>
    facts.panels.flatMap((p): readonly Unsigned[] => [
      ...blankClashes(p).map(
        (c): Unsigned => ({
          severity: 'stop',
          where: 'fold',
          about: [p.panel.id, ...c.between],
          text: `${plateName(facts, p.panel.id)}: ${c.between.join(' and ')} overlap in the flat blank.`,
          remedy: 'Shorten one of the flanges, or trim its end by an inset.',
        }),
      ),
      ...holesNearBends(p).map(
        (h): Unsigned => ({
          severity: 'fix',
          where: 'fold',
          about: [p.panel.id, h.opening, h.bend],
          text: `${plateName(facts, p.panel.id)}: opening ${h.opening} is ${words.length(h.distanceMm)} from bend ${h.bend}; ${words.length(h.wantedMm)} (2t + R) keeps its shape.`,
          remedy: 'Move it away from the bend, or take it out.',
          mend: doc => openingRemoved(doc, p.panel.id, h.opening),
        }),
      ),
    ]),
};
