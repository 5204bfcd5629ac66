import { callOf, changeJoints } from '../../plan';
import type { Rule } from '../finding';

export const galling: Rule = {
  id: 'galling',
  why: 'Dry stainless threads seize and shear.',
  find: facts =>
    facts.joints.flatMap(j =>
      j.joint.fastener.finish === 'stainless' && j.joint.lube === 'dry' && j.nut
        ? [
            {
              severity: 'fix' as const,
              where: 'bolt' as const,
              about: [j.id],
              text: `bolt ${j.id}: a dry stainless screw galls in its ${j.nut.name}.`,
              remedy: 'Use anti-seize; the torque is then lower.',
              mend: callOf(changeJoints, { joints: [{ joint: j.id, part: { lube: 'anti-seize' } }] }),
            },
          ]
        : [],
    ),
};
