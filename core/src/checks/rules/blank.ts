import { baseCorners, blankClashes, canMitre, foldCollisions, holesNearBends } from '../../fold';
import { callOf, changeFlanges, removeOpening } from '../../plan';
import { spoken } from '../../units';
import { plateName, type Rule, type Unsigned } from '../finding';

const called = (id: string): string => (id === 'base' ? 'the base' : spoken(id));

export const blank: Rule = {
  id: 'blank',
  why: 'Flanges that overlap in the flat blank cannot be cut from one sheet, flanges that meet cannot be bent, and a hole near a bend is pulled out of shape.',
  find: (facts, words) =>
    facts.panels.flatMap((p): readonly Unsigned[] => {
      const { id } = p.panel;
      const plate = plateName(facts, id);
      return [
        ...blankClashes(p).map(
          (c): Unsigned => ({
            severity: 'stop',
            where: 'fold',
            about: [id, ...c.between],
            text: `${plate}: ${c.between.map(called).join(' and ')} overlap in the flat blank.`,
            remedy: 'Shorten one of the flanges, or trim its end by an inset.',
          }),
        ),
        ...foldCollisions(p).map((c): Unsigned => {
          const [a, b] = c.between;
          const mitre = baseCorners(p.panel).some(
            k => canMitre(k) && k.ends.every(e => e?.flange.id === a || e?.flange.id === b),
          );
          return {
            severity: 'stop',
            where: 'fold',
            about: [id, a, b],
            text: `${plate}: folded, ${called(a)} and ${called(b)} overlap by ${words.length(c.depthMm)}.`,
            remedy: mitre ? 'Mitre the corner.' : 'Shorten one of them, or trim its end by an inset.',
            ...(mitre
              ? { mend: callOf(changeFlanges, { panel: id, flanges: [b], part: { mitre: true } }) }
              : {}),
          };
        }),
        ...holesNearBends(p).map(
          (h): Unsigned => ({
            severity: 'fix',
            where: 'fold',
            about: [id, h.opening, h.bend],
            text: `${plate}: opening ${spoken(h.opening)} is ${words.length(h.distanceMm)} from bend ${spoken(h.bend)}; ${words.length(h.wantedMm)} (2t + R) keeps its shape.`,
            remedy: 'Move it away from the bend, or take it out.',
            mend: callOf(removeOpening, { panel: id, opening: h.opening }),
          }),
        ),
      ];
    }),
};
