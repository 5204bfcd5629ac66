import { type StackFault, stackFaults } from '../../bolt';
import { type PlanDocument, withJoint } from '../../plan';
import type { Rule } from '../finding';

/** What mends a stack that cannot be; the others have rules of their own. */
const MENDS: Readonly<
  Partial<
    Record<
      StackFault['kind'],
      { readonly remedy: string; readonly mend?: (d: PlanDocument, id: string) => PlanDocument }
    >
  >
> = {
  'nut-on-thread': {
    remedy: 'Leave the nut out.',
    mend: (d, id) => withJoint(d, id, j => ({ ...j, nut: 'none' })),
  },
  'sunk-too-deep': {
    remedy: 'Use a button head, or a smaller screw.',
    mend: (d, id) => withJoint(d, id, j => ({ ...j, fastener: { ...j.fastener, head: 'button' } })),
  },
  'washer-under-sunk': {
    remedy: 'Leave the washer out; a cup washer takes such a head.',
    mend: (d, id) =>
      withJoint(d, id, j => ({
        ...j,
        washers: j.washers.filter(w => w !== 'flat' && w !== 'fender' && w !== 'tapered'),
      })),
  },
  'reaches-behind': { remedy: 'Use a shorter bolt, a lower nut, or another hole.' },
};

export const stack: Rule = {
  id: 'stack',
  why: 'A stack that cannot be put together is found out on your back.',
  find: facts =>
    facts.joints.flatMap(j =>
      stackFaults(j).flatMap(f => {
        const known = MENDS[f.kind];
        if (!known) return [];
        const { remedy, mend } = known;
        return [
          {
            severity: f.kind === 'sunk-too-deep' ? ('fix' as const) : ('stop' as const),
            where: 'bolt' as const,
            about: [j.id],
            text: `${j.id}: ${f.said}.`,
            remedy,
            ...(mend ? { mend: (doc: PlanDocument) => mend(doc, j.id) } : {}),
          },
        ];
      }),
    ),
};
