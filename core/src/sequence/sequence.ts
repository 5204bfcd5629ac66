import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import { isBracket, type PlanDocument, stackedIn } from '../plan';
import type { PresentRig } from '../rig';
import type { UnitSystem } from '../units';
import { barJoints, barSteps } from './bar-steps';
import { CAUTIONS } from './cautions';
import { hangingOrder, tiedGroups } from './hang-order';
import { groupSteps } from './hang-steps';
import { isFastFirst, jobOf, wingsOn } from './job';
import { benchOf } from './kit-steps';
import { prepareSteps } from './prepare-steps';
import { hotParts, RAISING } from './raise';
import { inOrder, type Sequence } from './step';
import { withStops } from './stops';
import { releaseCarried } from './strip-steps';
import { withTips } from './tips';

/**
 * The bolts that are fitted at all: what no chain of bolts holds to the vehicle is left off, and so is a bracket that has no bolt to the
 * vehicle of its own, what would hang on it, and a top plate's bolt that holds nothing else.
 */
export function jointsToFit(
  given: readonly ResolvedJoint[],
  panels: readonly FoldedPanel[],
): readonly ResolvedJoint[] {
  const bracket = new Set(panels.filter(p => isBracket(p.panel)).map(p => p.panel.id));
  let joints = given.filter(j => j.joint.panels.length === 0 || stackedIn(j.joint).length > 0);
  const held = new Set(joints.flatMap(j => (j.mount === undefined ? [] : j.joint.panels)));
  joints = joints.filter(j => !j.joint.panels.some(p => bracket.has(p) && !held.has(p)));
  for (let before = -1; before < held.size; ) {
    before = held.size;
    for (const { joint } of joints)
      if (joint.panels.some(p => held.has(p))) for (const p of joint.panels) held.add(p);
  }
  return joints.filter(j => j.joint.panels.every(p => held.has(p)));
}

/**
 * The whole job as steps with reasons, sorted so that everything a step needs comes before it. Joints shared by
 * plates are started and tightened with the outermost plate. Plates that are tied to one another go up as a group and are made fast before
 * the next group begins, so that the vehicle can be driven in between. A plate that no bolt holds is left off. What its sentences say of
 * masses, lengths and torques is in `units`; the figures beside them are not. Joints in `fitted` were bolted up in an earlier phase.
 */
export function installation(
  doc: PlanDocument,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
  given: readonly ResolvedJoint[],
  units: UnitSystem = 'metric',
  fitted: ReadonlySet<string> = new Set(),
): Sequence {
  const joints = jointsToFit(given, panels);
  const job = jobOf(doc, rig, panels, joints, units, fitted);
  const { add } = job;
  const loose = joints.filter(j => !isFastFirst(doc, j));
  const raised = panels.filter(p => loose.some(j => j.joint.panels.includes(p.panel.id)));
  // wings go up with the plates that carry them
  const bolted = panels.filter(p => raised.some(r => r === p || wingsOn(job, r.panel.id).includes(p)));
  const prepared = prepareSteps(job, bolted);
  const own = new Map(raised.map(p => [p.panel.id, loose.filter(j => j.joint.panels[0] === p.panel.id)]));

  const { order, stuck } = hangingOrder(doc, raised);
  const hung = [...order, ...stuck];
  const place = (p: FoldedPanel): number => hung.indexOf(p);
  const groups = tiedGroups(doc, raised)
    .map(g => [...g].sort((a, b) => place(a) - place(b)))
    .sort((a, b) => place(a[0] as FoldedPanel) - place(b[0] as FoldedPanel));
  let before: readonly string[] = barSteps(job, [prepared.inspect]);
  const takesPlace = (part: string) => doc.plan.crossbars.find(c => c.replaces === part);
  // a bar with bolts of its own is fast by now and bears before any plate is in the jack's way
  const bears = ({ part }: (typeof prepared.carried)[number]): boolean => {
    const bar = takesPlace(part.id);
    return bar !== undefined && barJoints(job, bar.mounts).length > 0;
  };
  for (const { part, what } of prepared.carried.filter(bears))
    before = [releaseCarried(job, part, what, takesPlace(part.id)?.name, before)];
  for (const [g, group] of groups.entries())
    before = groupSteps(job, group, `${g + 1}`, {
      own,
      waits: id => [...benchOf(hung, [id]), ...(prepared.byPanel.get(id) ?? [])],
      before,
      tanks: prepared.tanks,
    });

  for (const { part, what } of prepared.carried.filter(c => !bears(c)))
    before = [releaseCarried(job, part, what, takesPlace(part.id)?.name, before)];

  const { wheelsFree } = RAISING[doc.plan.method.lift];
  const turn = 'Turn the steering slowly lock to lock: no tire, shaft or line touches a plate.';
  const check = add({
    id: 'check',
    stage: 'check',
    title: 'Push it, knock on it, check every edge',
    why: 'No rattle, nothing touches a shaft, a line or the exhaust; every drain and filter can be reached.',
    hows: [
      'Press each plate up by hand and knock on it: a rattle is a loose bolt or a touch.',
      ...(wheelsFree ? [turn] : []),
      'Through each opening: the plug or filter below it can be reached with its socket.',
      'Touch up the paint on bolt heads and scratches.',
      'Everything loosened is back: straps, ground leads, line brackets, plugs.',
    ],
    panels: bolted.map(p => p.panel.id),
    needs: [...before],
    tools: ['lamp', 'cold zinc or paint'],
    cautions: hotParts(job).length > 0 ? [CAUTIONS.hot] : [],
  });
  const down = prepared.raised.lower([check]);
  add({
    id: 'ride-height',
    stage: 'finish',
    title: 'Roll it, bounce it, measure the fenders again',
    why: 'Compare with the first measurement. Bolts settle: the log reminds you to re-torque after the first hard trip.',
    hows: wheelsFree ? [] : [turn],
    needs: [down],
    tools: ['tape measure'],
    asks: ['fenders', 'fuel'],
    cautions: [
      CAUTIONS.estimate,
      ...(bolted.every(p => p.panel.meantFor?.includes('jack') && p.panel.meantFor.includes('recovery'))
        ? []
        : [CAUTIONS.notMeant]),
    ],
  });
  const { steps, cycle } = inOrder(job.steps);
  return { steps: withStops(withTips(steps, job), joints), cycle };
}

/** A build put together, as a list of steps is made for it. */
export interface Installed {
  readonly document: PlanDocument;
  readonly rig: PresentRig;
  readonly panels: readonly FoldedPanel[];
  readonly joints: readonly ResolvedJoint[];
}
const known = new WeakMap<Installed, Map<UnitSystem, Sequence>>();

/** The whole job of a build that was put together, in the reader's units; worked out once for each. */
export function installationOf(of: Installed, units: UnitSystem = 'metric'): Sequence {
  const all = known.get(of) ?? new Map<UnitSystem, Sequence>();
  known.set(of, all);
  const made = all.get(units) ?? installation(of.document, of.rig, of.panels, of.joints, units);
  all.set(units, made);
  return made;
}
