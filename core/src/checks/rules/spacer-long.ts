import { LONGEST_SPACER } from '../../bolt';
import type { Rule, Unsigned } from '../finding';

export const spacerLong: Rule = {
  id: 'spacer-long',
  why: 'A bolt on a long spacer bends when the plate is pushed sideways.',
  find: (facts, words) =>
    facts.joints.flatMap((j): readonly Unsigned[] =>
      j.joint.spacer > LONGEST_SPACER + 0.5
        ? [
            {
              severity: 'fix',
              where: 'bolt',
              about: [j.id],
              text: `${j.id}: a spacer of ${words.tape(j.joint.spacer)} is a post; up to ${words.tape(LONGEST_SPACER)} is a spacer.`,
              remedy:
                'Fold the plate up to its member, bolt it to one that hangs lower, or put a crossbar or a hanger between.',
            },
          ]
        : [],
    ),
};
