import type { Facts } from '../../derive';
import { centroid, type Vec2 } from '../../geometry';
import { callOf, type Opening, openingFault, type Panel, removeOpening } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';
import { openingsTried } from '../openings-near';

/** The opening moved toward the middle of its plate, no further than it must; or left out. */
function movedIn(facts: Facts, p: Panel, o: Opening): Pick<Unsigned, 'remedy' | 'mend' | 'more'> {
  const middle = centroid(p.base.outline);
  const places = Array.from({ length: 20 }, (_, i): Vec2 => {
    const k = (i + 1) / 20;
    return [o.at[0] + (middle[0] - o.at[0]) * k, o.at[1] + (middle[1] - o.at[1]) * k];
  });
  const [first, ...more] = openingsTried(facts.document, p.id, o, places, 4);
  const out = { remedy: 'Delete the opening.', mend: callOf(removeOpening, { panel: p.id, opening: o.id }) };
  const move = 'Move the opening in.';
  return first
    ? { remedy: move, mend: first, more: [...more.map(mend => ({ remedy: move, mend })), out] }
    : out;
}

export const openingOutside: Rule = {
  id: 'opening-outside',
  why: 'An opening that runs into an edge tears out.',
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
                ...movedIn(facts, p, o),
              },
            ]
          : [];
      }),
    ),
};
