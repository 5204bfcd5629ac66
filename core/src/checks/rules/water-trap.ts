import { underGround } from '../../geometry';
import { freshId, withPanel } from '../../plan';
import { plateName, type Rule } from '../finding';

export const waterTrap: Rule = {
  id: 'water-trap',
  why: 'Water and stones that stay rust the plate and the frame from inside.',
  find: facts =>
    facts.traps.map(t => ({
      severity: 'fix',
      where: 'cover',
      about: [t.panel],
      text: `${plateName(facts, t.panel)} holds water: its low edge is turned up all along and has no hole.`,
      remedy: 'Add a 12 mm drain hole at the low corner.',
      mend: doc =>
        withPanel(doc, t.panel, p => {
          const base = facts.panels.find(f => f.panel.id === t.panel)?.facets[0];
          if (!base) return p;
          const [u, v] = underGround(base.frame, t.at[0], t.at[1]);
          const n = p.base.outline.length;
          const middle = p.base.outline.reduce(([a, b], q) => [a + q[0] / n, b + q[1] / n] as const, [
            0, 0,
          ] as readonly [number, number]);
          const inward = (from: number, to: number): number => from + Math.sign(to - from) * 30;
          const hole = {
            id: freshId('stones', p.openings),
            kind: 'stones',
            at: [inward(u, middle[0]), inward(v, middle[1])],
            shape: { circle: 12 },
          } as const;
          return { ...p, openings: [...p.openings, hole] };
        }),
    })),
};
