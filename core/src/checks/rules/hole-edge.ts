import { holeMargin, holeWidth } from '../../fold';

import { plateName, type Rule, type Unsigned } from '../finding';

/** Center of a hole to the edge of the sheet, in bolt diameters: AISC 360-16 Table J3.4 at 1/2 in, its smallest row, for all sizes. */
export const EDGE_DIAMETERS = 1.5;

export const holeEdge: Rule = {
  id: 'hole-edge',
  why: 'A hole too close to an edge tears out.',
  find: (facts, words) =>
    facts.panels.flatMap(p =>
      p.holes.flatMap((h): readonly Unsigned[] => {
        const j = facts.joints.find(x => x.id === h.joint);
        if (!j) return [];
        const clear = holeMargin(p, h);
        // a hole over the edge is told by its bolt, which holds nothing
        if (clear <= 0) return [];
        const half = holeWidth(h.final) / 2;
        const wanted = EDGE_DIAMETERS * j.thread.d - half;
        if (clear >= wanted - 0.05) return [];
        return [
          {
            severity: 'fix',
            where: 'cover',
            about: [p.panel.id, j.id],
            text: `${plateName(facts, p.panel.id)}: the hole of bolt ${j.id} is ${words.tape(clear + half)} from the edge; ${words.tape(wanted + half)} is the least for ${j.thread.size}.`,
            remedy: 'Move the edge out, or the opening away; or use a smaller bolt or another hole.',
          },
        ];
      }),
    ),
};
