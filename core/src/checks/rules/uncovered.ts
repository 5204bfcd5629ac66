import { MARGIN, roughPlate } from '../../cover';
import type { Facts } from '../../derive';
import { openingArea } from '../../fold';
import { boxOf, contains } from '../../geometry';
import { addPlates, callOf } from '../../plan';
import type { Component } from '../../rig';
import { formatPercent } from '../../units';
import { partName, type Rule } from '../finding';

/** Share of a part that openings for service points on it leave bare. */
const servedShare = (facts: Facts, component: string, areaMm2: number): number => {
  const part = facts.rig.components.find(c => c.id === component);
  const points = new Set(
    facts.rig.servicePoints.flatMap(s =>
      s.component === component || (part && contains(part.footprint, [s.at[0], s.at[1]])) ? [s.id] : [],
    ),
  );
  const open = facts.plates
    .flatMap(p => p.panel.openings)
    .filter(o => o.serves !== undefined && points.has(o.serves));
  return areaMm2 > 0 ? open.reduce((s, o) => s + openingArea(o), 0) / areaMm2 : 0;
};

/** A rough plate under a part, with a margin round it. */
function under(facts: Facts, part: Component) {
  const { min, max } = boxOf(part.footprint);
  const [x0, y0, x1, y1] = [min[0] - MARGIN, min[1] - MARGIN, max[0] + MARGIN, max[1] + MARGIN];
  const outline = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ] as const;
  return roughPlate(facts.rig, outline, part.name, facts.lowestBare.z);
}

export const uncovered: Rule = {
  id: 'uncovered',
  why: 'A bare pan or tank can be holed.',
  find: facts =>
    facts.coverage.components
      .filter(c => c.fraction < 0.95)
      .map(c => {
        const part = facts.rig.components.find(x => x.id === c.id);
        // an opening that serves one of its own points is open on purpose
        const meant = c.fraction + servedShare(facts, c.id, c.areaMm2);
        const whole = c.fraction < 0.05 && part;
        return {
          severity:
            c.fraction < 0.05 ? ('stop' as const) : meant < 0.85 ? ('fix' as const) : ('note' as const),
          where: 'cover' as const,
          about: [c.id],
          text: `${partName(facts, c.id)}: ${formatPercent(1 - c.fraction)} is bare from below.`,
          remedy: whole ? 'Add a plate under it.' : 'Widen a plate under it or add one.',
          ...(whole ? { mend: callOf(addPlates, { panels: [under(facts, part)] }) } : {}),
        };
      }),
};
