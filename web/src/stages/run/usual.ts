import { type PlanDocument, type Tick, withJoint } from '@plate-fold/core';

/** What usually does not go by the plan, each in a tap. */
export const USUAL = [
  'Part missing',
  'Hole does not line up',
  'Hole drilled off its mark',
  'Cross-threaded',
  'Turns without getting tighter',
  'Other bolt used',
  'Touches something above',
] as const;

/** What a plan could learn from something that was off in a run. */
export interface Offer {
  readonly tick: string;
  /** what was off, and where */
  readonly off: string;
  /** what would be done to the plan */
  readonly said: string;
  readonly change: (doc: PlanDocument) => PlanDocument;
}

const THREAD_GONE = /^Cross-threaded|^Turns without|stripping|cross-threaded/i;

const noted = (doc: PlanDocument, line: string): PlanDocument => ({
  ...doc,
  plan: { ...doc.plan, notes: [doc.plan.notes, line].filter(Boolean).join('\n') },
});

/**
 * What of a run's deviations the plan can take in: a torn thread becomes the condition of its hole, a bolt that was changed is locked as
 * it is, the rest stands in the plan's notes. Those the plan knows already are left out.
 */
export function offersFrom(doc: PlanDocument, ticks: readonly Tick[], day: string): readonly Offer[] {
  return ticks
    .filter(t => t.kind === 'deviation' && t.note)
    .flatMap((t): readonly Offer[] => {
      const note = t.note ?? '';
      // a step about one bolt bears its name
      const joint =
        doc.plan.joints.find(j => j.id === t.jointId) ??
        doc.plan.joints.find(j => t.jointId === null && t.stepId.endsWith(`-${j.id}`));
      const where = joint ? `${joint.id}: ` : '';
      const mount = joint?.mount === undefined ? undefined : doc.rig.mounts.find(m => m.id === joint.mount);
      if (mount && THREAD_GONE.test(note)) {
        if (mount.condition === 'stripped') return [];
        return [
          {
            tick: t.id,
            off: `${where}${note}`,
            said: `Set hole ${mount.id} to stripped, so that Bolt offers its repairs`,
            change: d => ({
              ...d,
              rig: {
                ...d.rig,
                mounts: d.rig.mounts.map(m => (m.id === mount.id ? { ...m, condition: 'stripped' } : m)),
              },
            }),
          },
        ];
      }
      if (joint && note === 'Other bolt used') {
        if (joint.lock) return [];
        return [
          {
            tick: t.id,
            off: `${where}${note}`,
            said: 'Lock the joint, to be entered in Bolt as it was made',
            change: d => withJoint(d, joint.id, j => ({ ...j, lock: true })),
          },
        ];
      }
      const line = `${day}, ${where}${note}`;
      if (doc.plan.notes?.includes(line)) return [];
      return [
        {
          tick: t.id,
          off: `${where}${note}`,
          said: 'Write it into the plan’s notes',
          change: d => noted(d, line),
        },
      ];
    });
}
