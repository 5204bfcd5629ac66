import { threadNamed } from '../../bolt';
import { withJoint } from '../../plan';
import type { Rule } from '../finding';

export const threadIntoAir: Rule = {
  id: 'thread-into-air',
  why: 'A bolt needs a thread of its own size to hold on to.',
  find: facts =>
    facts.joints.flatMap(j => {
      const own = j.mount?.hole.thread;
      const hole = own === undefined ? undefined : threadNamed(own);
      const uses =
        j.joint.nut === 'none' &&
        (j.nut?.kind === 'captive nut' || j.nut?.kind === 'threaded hole' || j.nut?.kind === 'stud');
      if (uses && hole?.ok && hole.value.designation !== j.thread.designation)
        return [
          {
            severity: 'stop' as const,
            where: 'bolt' as const,
            about: [j.id],
            text: `${j.id}: a ${j.thread.designation} bolt does not fit the ${hole.value.designation} thread there.`,
            remedy: `Use ${hole.value.designation}.`,
            mend: doc =>
              withJoint(doc, j.id, x => ({
                ...x,
                fastener: { ...x.fastener, thread: hole.value.designation },
              })),
          },
        ];
      const holds =
        j.nut !== undefined || ['thread-cutting', 'self-drilling'].includes(j.joint.fastener.head);
      return holds
        ? []
        : [
            {
              severity: 'stop' as const,
              where: 'bolt' as const,
              about: [j.id],
              text: `${j.id}: the bolt goes through a plain hole and has no nut.`,
              remedy: 'Add a serrated flange nut.',
              mend: doc => withJoint(doc, j.id, x => ({ ...x, nut: 'flange-serrated' })),
            },
          ];
    }),
};
