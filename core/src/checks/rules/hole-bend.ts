import { bendDistance } from '../../fold';
import { spoken } from '../../units';
import { plateName, type Rule, type Unsigned } from '../finding';

export const holeBend: Rule = {
  id: 'hole-bend',
  why: 'A hole near a bend is pulled out of round, and a head there sits on the curve.',
  find: (facts, words) =>
    facts.panels.flatMap(p =>
      p.holes.flatMap((h): readonly Unsigned[] => {
        const j = facts.joints.find(x => x.id === h.joint);
        if (!j) return [];
        const washer = j.layers[1]?.kind === 'washer' ? j.layers[1].diameter : 0;
        const near = bendDistance(p, h, Math.max(j.head.bearing, washer));
        if (!near || near.distanceMm >= near.wantedMm - 0.05) return [];
        return [
          {
            severity: 'fix',
            where: 'fold',
            about: [p.panel.id, j.id, near.bend],
            text: `${plateName(facts, p.panel.id)}: bolt ${j.id} is ${words.tape(near.distanceMm)} from bend ${spoken(near.bend)}; it needs ${words.tape(near.wantedMm)}.`,
            remedy: 'Move the bend away from the bolt, or use another hole.',
          },
        ];
      }),
    ),
};
