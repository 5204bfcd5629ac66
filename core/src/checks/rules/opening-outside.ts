import { openingFault, openingRemoved } from '../../plan';
import { plateName, type Rule } from '../finding';

export const openingOutside: Rule = {
  id: 'opening-outside',
  why: 'An opening that runs into an edge tears out from there.',
  find: facts =>
    facts.document.plan.panels.flatMap(p =>
      p.openings.flatMap(o => {
        const fault = openingFault(p.base.outline, o);
        return fault
          ? [
              {
                severity: 'fix' as const,
                where: 'cover' as const,
                about: [p.id, o.id],
                text: `${plateName(facts, p.id)}, ${o.kind} opening ${o.id}: ${fault}.`,
                remedy: 'Take the opening out.',
                mend: (doc: typeof facts.document) => openingRemoved(doc, p.id, o.id),
              },
            ]
          : [];
      }),
    ),
};
