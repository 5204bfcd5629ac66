import type { ResolvedJoint } from '../bolt';
import type { Step } from './step';

/** Stages in which a plate is neither down nor fast. */
const BETWEEN = new Set<Step['stage']>(['support', 'hang', 'start', 'home']);

/** Work that is over in minutes: nobody stops for the night right after it. */
const SHORT = new Set<Step['stage']>(['kit', 'safety', 'check', 'finish']);

/** What is put in place and does not keep the vehicle from being let down for the night; or is no more than a connection. */
const HARMLESS = /^(stands|wheel chocks|ramps|lift|mats|straps to two anchors|battery disconnected)$/;

/**
 * Marks after which steps nothing hangs loose and nothing is propped, so that the vehicle can be let down and driven, and which of those
 * are good places to stop for the night: where the next step is of another kind of work. A plate is fast once the last round has gone over
 * every bolt that passes it.
 */
export function withStops(steps: readonly Step[], joints: readonly ResolvedJoint[]): readonly Step[] {
  const platesOf = new Map(joints.map(j => [j.id, j.joint.panels]));
  const touched = (s: Step): readonly string[] => [
    ...new Set([...s.panels, ...s.joints.flatMap(id => platesOf.get(id) ?? [])]),
  ];
  const lastTight = new Map<string, number>();
  steps.forEach((s, i) => {
    if (s.stage === 'tighten') for (const p of touched(s)) lastTight.set(p, i);
  });
  const open = new Set<string>();
  const put = new Set<string>();
  const benched = new Set<string>();
  /** a wing, whose bolts were tight on the bench, is as fast as what carries it */
  const carried = (p: string): boolean => {
    const mine = joints.filter(j => j.joint.panels.includes(p));
    return mine.length > 0 && mine.every(j => benched.has(j.id));
  };
  return steps.map((s, i) => {
    if (s.stage === 'bench' && s.torqueNm !== undefined) for (const id of s.joints) benched.add(id);
    if (BETWEEN.has(s.stage) && !s.takes) for (const p of s.panels) if (!carried(p)) open.add(p);
    for (const [p, at] of lastTight) if (at === i) open.delete(p);
    for (const x of s.puts ?? []) if (!HARMLESS.test(x)) put.add(x);
    for (const x of s.takes ?? []) put.delete(x);
    // taken down again after it was only marked
    if (s.stage === 'remove') for (const p of s.panels) open.delete(p);
    const drivable = open.size === 0 && put.size === 0;
    const next = steps[i + 1];
    return {
      ...s,
      drivable,
      night: drivable && !SHORT.has(s.stage) && next !== undefined && next.stage !== s.stage,
    };
  });
}
