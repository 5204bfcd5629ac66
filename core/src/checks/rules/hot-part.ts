import type { Facts } from '../../derive';
import type { FoldedPanel } from '../../fold';
import { boxOf, underGround } from '../../geometry';
import { freshId } from '../../plan';
import type { Component } from '../../rig';
import { partName, plateName, type Rule, type Unsigned } from '../finding';
import { openingsTried, placesAbout } from '../openings-near';
import { heatNear } from './heat-near';

/** Surface temperature from which a shielded part wants air: common practice, no source. */
const HOT = 200;

/** Louvers under the middle of a part, or where beside it there is room, smaller where there is little. */
function louvered(facts: Facts, p: FoldedPanel, part: Component): Pick<Unsigned, 'remedy' | 'mend' | 'more'> {
  const remedy = 'Add louvers under it.';
  const base = p.facets[0];
  if (!base) return { remedy };
  const { min, max } = boxOf(part.footprint);
  const at = underGround(base.frame, (min[0] + max[0]) / 2, (min[1] + max[1]) / 2);
  const tried = [
    [120, 60],
    [60, 60],
    [40, 40],
  ].flatMap(([w, h]) =>
    openingsTried(
      facts.document,
      p.panel.id,
      {
        id: freshId('louvers', p.panel.openings),
        kind: 'louvers',
        shape: { rect: [w as number, h as number] },
        openFraction: 0.3,
      },
      placesAbout(at, 60, 30),
      3,
    ),
  );
  const [first, ...more] = tried;
  return { remedy, ...(first ? { mend: first } : {}), more: more.map(mend => ({ remedy, mend })) };
}

export const hotPart: Rule = {
  id: 'hot-part',
  why: 'Trapped heat cooks everything near it; aluminum softens and plastic sags near a hot part.',
  find: (facts, words) => [
    ...heatNear(facts, words),
    ...facts.gaps.flatMap((g): readonly Unsigned[] => {
      const part = facts.rig.components.find(c => c.id === g.component);
      const plate = facts.panels.find(p => p.panel.id === g.panel);
      const surface = part?.surfaceC ?? 0;
      if (!part || !plate || g.gapMm > 150) return [];
      const airy = plate.panel.openings.some(o => o.kind === 'louvers');
      if (surface < HOT || airy || !plate.panel.guards.includes(part.id)) return [];
      return [
        {
          severity: 'fix',
          where: 'cover',
          about: [g.panel, g.component],
          text: `${plateName(facts, g.panel)} encloses ${partName(facts, g.component)} (${words.temperature(surface)}) without louvers.`,
          ...louvered(facts, plate, part),
        },
      ];
    }),
  ],
};
