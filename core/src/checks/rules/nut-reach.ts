import type { Facts } from '../../derive';
import { callOf, changeJoints } from '../../plan';
import { hangingOrder, nutReaches } from '../../sequence';
import type { Rule, Unsigned } from '../finding';

const SEPARATE = new Set(['hex', 'nylon-lock', 'all-metal-lock', 'flange-serrated']);

/** Nuts that a plate which hangs earlier has already closed off. */
function tooLate({ document, panels, joints }: Facts): Unsigned[] {
  const { order } = hangingOrder(document, panels);
  const place = (id: string): number => order.findIndex(p => p.panel.id === id);
  const reaches = nutReaches(document, panels, joints);
  return joints.flatMap(j => {
    const until = reaches.get(j.id)?.until;
    if (typeof until !== 'object' || j.joint.tightenBefore === 'hang') return [];
    const outermost = j.joint.panels[0];
    if (outermost === undefined || place(until.panel) >= place(outermost)) return [];
    const closer = panels.find(p => p.panel.id === until.panel)?.panel.mark ?? until.panel;
    return [
      {
        severity: 'fix' as const,
        where: 'bolt' as const,
        about: [j.id],
        text: `bolt ${j.id}: its nut cannot be reached once its plate goes up; plate ${closer} covers it.`,
        remedy: 'Use a rivet nut, or add an access opening at the nut.',
        mend: callOf(changeJoints, { joints: [{ joint: j.id, part: { nut: 'rivet-nut' } }] }),
      },
    ];
  });
}

export const nutReach: Rule = {
  id: 'nut-reach',
  why: 'A nut out of reach cannot be started or held once the plate is up.',
  find: facts => [
    ...tooLate(facts),
    ...facts.joints.flatMap(j =>
      j.mount && j.mount.nutReach === 'none' && SEPARATE.has(j.joint.nut) && j.joint.tightenBefore !== 'hang'
        ? [
            {
              severity: 'stop' as const,
              where: 'bolt' as const,
              about: [j.id],
              text: `bolt ${j.id}: no wrench reaches the ${j.nut?.name ?? 'nut'} behind this hole once the plate is up.`,
              remedy: 'Use a rivet nut.',
              mend: callOf(changeJoints, { joints: [{ joint: j.id, part: { nut: 'rivet-nut' } }] }),
            },
          ]
        : [],
    ),
  ],
};
