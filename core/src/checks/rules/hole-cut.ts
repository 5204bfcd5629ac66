import { CUTTERS, cutterOf, holeWidth, leastHole, shopOf } from '../../fold';
import { callOf, changeJoints } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';

export const holeCut: Rule = {
  id: 'hole-cut',
  why: 'A hole smaller than the cutter can make comes out tapered and rough.',
  find: (facts, words) => {
    const cutter = cutterOf(shopOf(facts.document.plan));
    return facts.panels.flatMap(p =>
      p.holes.flatMap((h): readonly Unsigned[] => {
        if (!h.cut) return [];
        const least = leastHole(cutter, p.sheet.thickness);
        const width = holeWidth(h.cut);
        if (width >= least - 0.01) return [];
        const pilot = h.kind === 'pilot';
        const full = pilot && holeWidth(h.final) >= least - 0.01;
        return [
          {
            severity: 'fix',
            where: 'fold',
            about: [p.panel.id, h.joint],
            text: `${plateName(facts, p.panel.id)}: the ${pilot ? 'pilot' : 'hole'} of bolt ${h.joint}, ${words.fine(width)}, is under the ${words.fine(least)} minimum for ${CUTTERS[cutter].name} in ${words.fine(p.sheet.thickness)} sheet.`,
            remedy: full ? 'Have it cut full size.' : 'Have it marked only, and drill it.',
            mend: callOf(changeJoints, {
              joints: [{ joint: h.joint, part: { cut: full ? 'full' : 'none' } }],
            }),
          },
        ];
      }),
    );
  },
};
