import { holdFaults, type ResolvedJoint, STILL_HEADS, threadNamed } from '../../bolt';
import type { Facts } from '../../derive';
import { type Call, callOf, changeJoints, type Joint } from '../../plan';
import type { Rule, Unsigned } from '../finding';

/** Bolts whose thread stands in no table: nothing of them can be computed, so they would be missing from every list. */
const unknownThreads = ({ document }: Facts): readonly Unsigned[] =>
  document.plan.joints.flatMap(j => {
    const named = threadNamed(j.fastener.thread);
    if (named.ok) return [];
    return [
      {
        severity: 'stop',
        where: 'bolt',
        about: [j.id],
        text: `Bolt ${j.id}: ${named.fault}. It is not in any list and holds nothing.`,
        remedy: 'Choose a thread from the list.',
      },
    ];
  });

/** The bolt in the thread that is there, with a head that can be turned. */
const screwable = (j: ResolvedJoint, thread: string): Call =>
  callOf(changeJoints, {
    joints: [
      {
        joint: j.id,
        fastener: { thread, head: STILL_HEADS.has(j.joint.fastener.head) ? 'flange' : j.joint.fastener.head },
      },
    ],
  });
const nutted = (joint: string, nut: Joint['nut']): Call =>
  callOf(changeJoints, { joints: [{ joint, part: { nut } }] });

export const threadIntoAir: Rule = {
  id: 'thread-into-air',
  why: 'A bolt needs a matching thread.',
  find: (facts, words) => [
    ...unknownThreads(facts),
    ...facts.joints.flatMap(j =>
      holdFaults(j, undefined, []).flatMap((f): readonly Unsigned[] => {
        const at = { severity: 'stop', where: 'bolt', about: [j.id] } as const;
        const own = j.mount?.hole.thread;
        const hole = own === undefined ? undefined : threadNamed(own);
        switch (f.kind) {
          case 'other-thread': {
            const thread = hole?.ok ? hole.value.designation : (own ?? '');
            return [
              {
                ...at,
                text: `bolt ${j.id}: a ${j.thread.designation} bolt does not fit the ${thread} thread there.`,
                remedy: `Use ${thread}.`,
                mend: screwable(j, thread),
              },
            ];
          }
          case 'too-thick':
            return [
              {
                ...at,
                text: `bolt ${j.id}: a ${j.thread.size} bolt does not go through the ${words.fine(j.mount?.hole.diameter ?? 0)} hole there.`,
                remedy: 'Use a smaller bolt, or drill the hole larger.',
              },
            ];
          case 'no-thread':
            return [
              {
                ...at,
                text: `bolt ${j.id}: the bolt goes through a plain hole and has no nut.`,
                remedy: 'Add a serrated flange nut.',
                mend: nutted(j.id, 'flange-serrated'),
                more: [
                  {
                    remedy: 'Set a rivet nut.',
                    mend: nutted(j.id, 'rivet-nut'),
                  },
                ],
              },
            ];
          case 'post-no-thread':
            return [
              {
                ...at,
                text: `bolt ${j.id}: there is no sound thread for the stud of its post.`,
                remedy: 'Use a rivet nut and a loose spacer.',
                mend: nutted(j.id, 'rivet-nut'),
              },
            ];
          case 'not-through':
            return [
              {
                ...at,
                text: `bolt ${j.id}: its hole does not go through the member, so the bolt never comes to its top plate.`,
                remedy: 'Choose a hole that goes through, or a place to drill.',
              },
            ];
          case 'head-turns':
            return [
              {
                ...at,
                text: `bolt ${j.id}: neither its head nor its ${j.nut?.name ?? 'nut'} can be turned.`,
                remedy: 'Use a flange bolt.',
                mend: screwable(j, hole?.ok ? hole.value.designation : j.thread.designation),
              },
            ];
          default:
            return [];
        }
      }),
    ),
  ],
};
