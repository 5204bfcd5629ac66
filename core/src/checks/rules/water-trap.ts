import { underGround, type Vec2 } from '../../geometry';
import { freshId } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';
import { openingsTried } from '../openings-near';

export const waterTrap: Rule = {
  id: 'water-trap',
  why: 'Trapped water and rocks rust the plate and the frame.',
  find: (facts, words) =>
    facts.traps.flatMap((t): readonly Unsigned[] => {
      const p = facts.panels.find(f => f.panel.id === t.panel);
      const base = p?.facets[0];
      if (!p || !base) return [];
      const [u, v] = underGround(base.frame, t.at[0], t.at[1]);
      const n = p.panel.base.outline.length;
      const middle = p.panel.base.outline.reduce(([a, b], q) => [a + q[0] / n, b + q[1] / n] as const, [
        0, 0,
      ] as readonly [number, number]);
      const hole = {
        id: freshId('stones', p.panel.openings),
        kind: 'stones',
        shape: { circle: 12 },
      } as const;
      // from the low corner inward, as near to it as bends and bolts leave room
      const places = [30, 45, 60, 80, 110].map(
        (d): Vec2 => [u + Math.sign(middle[0] - u) * d, v + Math.sign(middle[1] - v) * d],
      );
      const [first, ...more] = openingsTried(facts.document, t.panel, hole, places);
      const remedy = `Add a ${words.fine(12)} drain hole at the low corner.`;
      return [
        {
          severity: 'fix',
          where: 'cover',
          about: [t.panel],
          text: `${plateName(facts, t.panel)} traps water: its low edge is turned up and has no drain hole.`,
          remedy,
          ...(first ? { mend: first } : {}),
          more: more.map(mend => ({ remedy, mend })),
        },
      ];
    }),
};
