import { withJoint } from '../../plan';
import type { Rule } from '../finding';

const SEPARATE = new Set(['hex', 'nylon-lock', 'flange-serrated']);

export const nutReach: Rule = {
  id: 'nut-reach',
  why: 'A nut no hand reaches cannot be started or held once the plate is up.',
  find: facts =>
    facts.joints.flatMap(j =>
      j.mount && j.mount.nutReach === 'none' && SEPARATE.has(j.joint.nut) && j.joint.tightenBefore !== 'hang'
        ? [
            {
              severity: 'stop' as const,
              where: 'bolt' as const,
              about: [j.id],
              text: `${j.id}: no wrench reaches the ${j.nut?.name ?? 'nut'} behind this hole once the plate hangs.`,
              remedy: 'Set a rivet nut instead.',
              mend: doc => withJoint(doc, j.id, x => ({ ...x, nut: 'rivet-nut' })),
            },
          ]
        : [],
    ),
};
