import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import type { PlanDocument } from '../plan';
import type { PresentRig } from '../rig';
import { CAUTIONS } from './cautions';
import { hangingOrder, tiedGroups } from './hang-order';
import { groupSteps } from './hang-steps';
import { jobOf } from './job';
import { prepareSteps } from './prepare-steps';
import { inOrder, type Sequence, type Step } from './step';

/** Stages in which a plate is neither down nor fast. */
const BETWEEN = new Set<Step['stage']>(['support', 'hang', 'start', 'home']);

/** Work that is over in minutes: nobody stops for the night right after it. */
const SHORT = new Set<Step['stage']>(['kit', 'safety', 'check', 'finish']);

/**
 * Marks after which steps nothing hangs loose, so that the vehicle can be let down and driven, and which of those are good places to stop
 * for the night: where the next step is of another kind of work.
 */
export function withStops(steps: readonly Step[]): readonly Step[] {
  const lastTight = new Map<string, number>();
  steps.forEach((s, i) => {
    if (s.stage === 'tighten') for (const p of s.panels) lastTight.set(p, i);
  });
  const open = new Set<string>();
  return steps.map((s, i) => {
    if (BETWEEN.has(s.stage)) for (const p of s.panels) open.add(p);
    for (const p of s.panels) if (lastTight.get(p) === i) open.delete(p);
    const drivable = open.size === 0;
    const next = steps[i + 1];
    return {
      ...s,
      drivable,
      night: drivable && !SHORT.has(s.stage) && next !== undefined && next.stage !== s.stage,
    };
  });
}

/**
 * The whole job as steps with reasons, sorted so that everything a step needs comes before it. Joints shared by
 * plates are started and tightened with the outermost plate. Plates that are tied to one another go up as a group and are made fast before
 * the next group begins, so that the vehicle can be driven in between.
 */
export function installation(
  doc: PlanDocument,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
): Sequence {
  const job = jobOf(doc, rig, panels, joints);
  const { add } = job;
  const prepared = prepareSteps(job);
  const loose = joints.filter(j => j.joint.tightenBefore !== 'hang');
  const own = new Map(panels.map(p => [p.panel.id, loose.filter(j => j.joint.panels[0] === p.panel.id)]));

  const { order, stuck } = hangingOrder(doc, panels);
  const hung = [...order, ...stuck];
  const place = (p: FoldedPanel): number => hung.indexOf(p);
  const groups = tiedGroups(doc, panels)
    .map(g => [...g].sort((a, b) => place(a) - place(b)))
    .sort((a, b) => place(a[0] as FoldedPanel) - place(b[0] as FoldedPanel));
  let before: readonly string[] = [prepared.inspect];
  for (const [g, group] of groups.entries())
    before = groupSteps(job, group, `${g + 1}`, {
      own,
      waits: id => [`bench-${id}`, ...(prepared.byPanel.get(id) ?? [])],
      before,
    });

  const hot = rig.components.some(
    c => (c.surfaceC ?? 0) > 80 && panels.some(p => p.panel.guards.includes(c.id)),
  );
  const check = add({
    id: 'check',
    stage: 'check',
    title: 'Push it, knock on it, turn the wheels lock to lock',
    why: 'No rattle, nothing touches a shaft, a line or the exhaust; every drain and filter can be reached.',
    panels: panels.map(p => p.panel.id),
    needs: [...before],
    cautions: hot ? [CAUTIONS.hot] : [],
  });
  const paint = add({
    id: 'paint',
    stage: 'finish',
    title: 'Touch up the paint: bolt heads, drilled holes, scratches',
    why: 'Bare steel at a hole rusts first, and under the plate where nobody looks.',
    needs: [check],
    tools: ['cold zinc or paint'],
  });
  const height = add({
    id: 'ride-height',
    stage: 'finish',
    title: 'Let it down, roll it, measure the fenders again',
    why: 'Against the first measure: what the plates weigh shows here. Enter both in the log.',
    needs: [paint],
    tools: ['tape measure'],
  });
  add({
    id: 'finish',
    stage: 'finish',
    title: 'Note the first re-torque in the log',
    why: 'Bolts settle: go round once more with the wrench after the first hard trip.',
    needs: [height],
    cautions: [CAUTIONS.estimate],
  });
  const { steps, cycle } = inOrder(job.steps);
  return { steps: withStops(steps), cycle };
}
