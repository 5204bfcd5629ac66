import { type StackFault, stackFaults } from '../../bolt';
import { callOf, changeJoints, type Joint, type JointChange } from '../../plan';
import type { Rule } from '../finding';

type Mend = (j: Joint) => Pick<JointChange, 'part' | 'fastener'>;
/** What mends a stack that cannot be; the others have rules of their own. */
const MENDS: Readonly<
  Partial<Record<StackFault['kind'], { readonly remedy: string; readonly mend?: Mend }>>
> = {
  'nut-on-thread': { remedy: 'Leave the nut out.', mend: () => ({ part: { nut: 'none' } }) },
  'sunk-too-deep': {
    remedy: 'Use a button head, or a smaller screw.',
    mend: () => ({ fastener: { head: 'button' } }),
  },
  'washer-under-sunk': {
    remedy: 'Leave the washer out, or use a cup washer.',
    mend: j => ({
      part: { washers: j.washers.filter(w => w !== 'flat' && w !== 'fender' && w !== 'tapered') },
    }),
  },
  'foot-shallow': {
    remedy: 'Lower the plate there: the foot of the clamp between it and its tube is too low for a thread.',
  },
  'post-shallow': { remedy: 'Use a loose spacer there.', mend: () => ({ part: { nut: 'none' } }) },
  'reaches-behind': { remedy: 'Use a shorter bolt, a lower nut, or another hole.' },
};

export const stack: Rule = {
  id: 'stack',
  why: 'These parts cannot be assembled.',
  find: (facts, words) =>
    facts.joints.flatMap(j =>
      stackFaults(j, words.units).flatMap(f => {
        const known = MENDS[f.kind];
        if (!known) return [];
        const { remedy, mend } = known;
        return [
          {
            severity: f.kind === 'sunk-too-deep' ? ('fix' as const) : ('stop' as const),
            where: 'bolt' as const,
            about: [j.id],
            text: `bolt ${j.id}: ${f.said}.`,
            remedy,
            ...(mend ? { mend: callOf(changeJoints, { joints: [{ joint: j.id, ...mend(j.joint) }] }) } : {}),
          },
        ];
      }),
    ),
};
