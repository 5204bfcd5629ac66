import { addNote, type Call, callOf, changeEntry, lockJoint, type PlanDocument, takeFenders } from '../plan';
import { boltFaults } from './faults';
import type { Tick } from './tick';

/** What a plan could learn from a run. */
export interface Offer {
  readonly tick: string;
  /** what was reported or measured, and where */
  readonly off: string;
  /** what would be done to the plan */
  readonly said: string;
  readonly change: Call;
}

const THREAD_GONE = new Set(['stripped', 'cross-threaded', 'sheared']);
const WHEELS = ['frontLeft', 'frontRight', 'rearLeft', 'rearRight'] as const;

type Corners = readonly [number, number, number, number];
/** The heights of the fenders that a step was given last, with its tick. */
function heights(
  ticks: readonly Tick[],
  step: string,
): { readonly tick: Tick; readonly of: Corners } | undefined {
  const tick = ticks
    .filter(t => t.stepId === step && t.kind === 'done' && t.values)
    .sort((a, b) => b.at - a.at)[0];
  const of = WHEELS.map(w => tick?.values?.[w]);
  return tick && of.every(v => v !== undefined) ? { tick, of: of as unknown as Corners } : undefined;
}

/** Fenders measured before and after go to Weigh, which takes the wheel rates from them. */
function fenderOffer(doc: PlanDocument, ticks: readonly Tick[]): readonly Offer[] {
  const [before, after] = [heights(ticks, 'fenders'), heights(ticks, 'ride-height')];
  if (!before || !after) return [];
  const mean = (a: number, b: number): number => Math.round((a + b) * 5) / 10;
  const fenders = {
    front: { before: mean(before.of[0], before.of[1]), after: mean(after.of[0], after.of[1]) },
    rear: { before: mean(before.of[2], before.of[3]), after: mean(after.of[2], after.of[3]) },
  };
  if (JSON.stringify(doc.plan.fenders) === JSON.stringify(fenders)) return [];
  return [
    {
      tick: after.tick.id,
      off: 'All four fenders were measured before and after.',
      said: 'Take the heights into Weigh',
      change: callOf(takeFenders, { fenders }),
    },
  ];
}

/**
 * What of a run the plan can take in: a thread that is gone becomes the condition of its hole, a bolt that was changed is locked as it is,
 * fender heights go to Weigh, the rest stands in the plan's notes. Left out is what the plan knows already, what was mended, what stood in an
 * earlier run, and what was dismissed.
 */
export function offersFrom(doc: PlanDocument, ticks: readonly Tick[], day: string): readonly Offer[] {
  const gone = new Set(ticks.filter(t => t.kind === 'dismissed').map(t => t.note));
  const faults = boltFaults(ticks);
  const reported = ticks
    .filter(t => t.kind === 'deviation' && t.note && t.device !== 'earlier run')
    .flatMap((t): readonly Offer[] => {
      const note = t.note ?? '';
      // a step about one bolt bears its name
      const joint =
        doc.plan.joints.find(j => j.id === t.jointId) ??
        doc.plan.joints.find(j => t.jointId === null && t.stepId.endsWith(`-${j.id}`));
      const where = joint ? `${joint.id}: ` : '';
      const mount = joint?.mount === undefined ? undefined : doc.rig.mounts.find(m => m.id === joint.mount);
      const mended = joint !== undefined && faults.get(joint.id)?.state === 'mended';
      if (mount && t.fault && THREAD_GONE.has(t.fault) && !mended) {
        if (mount.condition === 'stripped') return [];
        return [
          {
            tick: t.id,
            off: `${where}${note}`,
            said: `Set hole ${mount.id} to stripped, so that Bolt offers its repairs`,
            change: callOf(changeEntry, { list: 'mounts', id: mount.id, part: { condition: 'stripped' } }),
          },
        ];
      }
      if (joint && t.fault === 'other-bolt') {
        if (joint.lock) return [];
        return [
          {
            tick: t.id,
            off: `${where}${note}`,
            said: 'Lock the joint, to be entered in Bolt as it was made',
            change: callOf(lockJoint, { joint: joint.id, on: true }),
          },
        ];
      }
      const line = `${day}, ${where}${note}${mended ? ', repaired' : ''}`;
      if (doc.plan.notes?.includes(line)) return [];
      return [
        {
          tick: t.id,
          off: `${where}${note}${mended ? ', repaired' : ''}`,
          said: 'Write it into the plan’s notes',
          change: callOf(addNote, { line }),
        },
      ];
    });
  return [...fenderOffer(doc, ticks), ...reported].filter(o => !gone.has(o.tick));
}
