import { holeOutline, openingOutline } from '../../fold';
import { areaOf, boxesMeet, boxOf, intersection, regionOf } from '../../geometry';
import { callOf, removeOpening } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';

export const holeInOpening: Rule = {
  id: 'hole-in-opening',
  why: 'A hole that runs into an opening leaves no sheet for the bolt to hold.',
  find: facts =>
    facts.panels.flatMap(p =>
      p.holes
        .filter(h => h.facet === p.facets[0]?.id)
        .flatMap(h =>
          p.panel.openings.flatMap((o): readonly Unsigned[] => {
            const [hole, opening] = [holeOutline(h.final, h.at), openingOutline(o)];
            if (!boxesMeet(boxOf(hole), boxOf(opening))) return [];
            const over = areaOf(intersection(regionOf(hole), regionOf(opening)));
            if (over < 0.5) return [];
            return [
              {
                severity: o.kind === 'louvers' ? 'fix' : 'stop',
                where: 'cover',
                about: [p.panel.id, h.joint, o.id],
                text: `${plateName(facts, p.panel.id)}: the hole of bolt ${h.joint} runs into its ${o.kind} opening.`,
                remedy: 'Move the opening; or leave it out.',
                mend: callOf(removeOpening, { panel: p.panel.id, opening: o.id }),
              },
            ];
          }),
        ),
    ),
};
