import { holding } from '../../bolt';
import { longestSpan } from '../../cover';
import { facetInSpace } from '../../fold';
import { boxOf, toRadians } from '../../geometry';
import { plateName, type Rule, type Unsigned } from '../finding';

export const span: Rule = {
  id: 'span',
  why: 'A long span between bolts flexes too much.',
  find: (facts, words) =>
    facts.plates.flatMap((p): readonly Unsigned[] => {
      const xs = holding(p.panel.id, facts.joints, facts.seats, facts.panels)
        .map(j => j.at[0])
        .sort((a, b) => a - b);
      const gap = Math.max(0, ...xs.slice(1).map((x, i) => x - (xs[i] as number)));
      const box = boxOf(p.panel.base.outline);
      const outline = p.panel.base.outline;
      const sides = p.panel.flanges.flatMap(f => {
        if (f.edge === 'far' || f.angle < 45 || f.length < 25) return [];
        const [a, b] = [outline[f.edge], outline[(f.edge + 1) % outline.length]];
        const along = a && b && Math.abs(b[0] - a[0]) > Math.abs(b[1] - a[1]);
        return along ? [f.length * Math.sin(toRadians(f.angle))] : [];
      });
      const bears = longestSpan(p.sheet, facts.rig.rig, box.max[1] - box.min[1], sides);
      const ends = p.facets.flatMap(f => facetInSpace(f).map(q => q[0]));
      const over =
        xs.length > 0
          ? Math.max((xs[0] as number) - Math.min(...ends), Math.max(...ends) - (xs.at(-1) as number))
          : 0;
      // what stands out past its last bolts is a cantilever: P = M/L where both ends held bear 8·M/L
      const overhang = bears / 8;
      const short: readonly Unsigned[] =
        gap > bears
          ? [
              {
                severity: 'fix',
                where: 'cover',
                about: [p.panel.id],
                text: `${plateName(facts, p.panel.id)} spans ${words.length(gap)} between bolts; the limit for this sheet is ${words.length(bears)} (estimate).`,
                remedy: 'Turn its sides up, bolt it in between, add a crossbar, or choose thicker sheet.',
              },
            ]
          : [];
      return over > overhang
        ? [
            ...short,
            {
              severity: 'fix',
              where: 'cover',
              about: [p.panel.id, 'overhang'],
              text: `${plateName(facts, p.panel.id)} reaches ${words.tape(over)} past its last bolts; the limit for this sheet is ${words.tape(overhang)} (estimate).`,
              remedy: 'Bolt it nearer to its end, shorten it, turn its sides up, or choose thicker sheet.',
            },
          ]
        : short;
    }),
};
