import { lengthName, stockLength } from '../../bolt';
import { callOf, changeJoints } from '../../plan';
import type { Rule } from '../finding';

export const boltLength: Rule = {
  id: 'bolt-length',
  why: 'Too short strips; too long bottoms out or hits what is behind it. Plates that share a hole need a longer bolt.',
  find: (facts, words) =>
    facts.joints.flatMap(j => {
      if (j.joint.fastener.length === 'auto') return [];
      const right = stockLength(j.neededMm, j.thread);
      const short = j.lengthMm < j.neededMm - 0.5;
      const long = j.lengthMm > right + 2 * j.thread.d;
      if (!short && !long) return [];
      const shared = j.joint.panels.length > 1 ? ', for plates that share the hole' : '';
      return [
        {
          severity: short ? ('stop' as const) : ('note' as const),
          where: 'bolt' as const,
          about: [j.id],
          text: `bolt ${j.id}: ${words.length(j.lengthMm)} is too ${short ? 'short' : 'long'}${shared}: the stack needs ${words.length(j.neededMm)}.`,
          remedy: `Use ${lengthName(right, j.thread)}.`,
          mend: callOf(changeJoints, { joints: [{ joint: j.id, fastener: { length: right } }] }),
        },
      ];
    }),
};
