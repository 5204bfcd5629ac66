import { type ResolvedJoint, toolsFor } from '../bolt';
import type { FoldedPanel } from '../fold';
import { stackedIn, tiesWing } from '../plan';
import type { Component, FactoryPart } from '../rig';
import { CAUTIONS } from './cautions';
import { drillStep, holeWork, mendHole, setNutStep, setOnBench } from './hole-work';
import { isFastFirst, type Job } from './job';
import { benchOf, kitSteps } from './kit-steps';
import { markSteps } from './mark-steps';
import { type Raised, raise } from './raise';
import { drivetrain, holdCarried, inspectStep, removeStep } from './strip-steps';
import { holdTank, shieldsTank, type TankHold, tankHold } from './tank';
import { wingSteps } from './wing-steps';

interface Carried {
  readonly part: FactoryPart;
  readonly what: Component;
}

/** What of the steps before the plates the steps of the plates wait for. */
export interface Prepared {
  /** the last step that all plates wait for */
  readonly inspect: string;
  /** steps that a plate waits for, by plate */
  readonly byPanel: ReadonlyMap<string, readonly string[]>;
  /** how the tank over a plate is held meanwhile, by plate */
  readonly tanks: ReadonlyMap<string, TankHold>;
  readonly raised: Raised;
  /** factory parts that carry something, which hangs on a jack or straps meanwhile */
  readonly carried: readonly Carried[];
}

/** Everything before the first plate goes up, the part that needs no raised vehicle first. `hung`: the plates that bolts hold. */
export function prepareSteps(job: Job, hung: readonly FoldedPanel[]): Prepared {
  const { rig, panels, joints, add } = job;
  const kit = kitSteps(job, hung);
  const tanks = new Map<string, TankHold>();
  for (const p of hung) {
    const hold = tankHold(job, p);
    if (hold && ![...tanks.values()].some(t => t.tank.id === hold.tank.id)) tanks.set(p.panel.id, hold);
  }
  const works = new Map(joints.map(j => [j.id, holeWork(job, j)]));
  const done = new Map<string, readonly string[]>();
  // a nut between plates and brackets is set where they lie on the bench
  for (const [id, step] of setOnBench(
    job,
    joints.filter(j => !j.mount),
    j => benchOf(hung, j.joint.panels),
  ))
    done.set(id, [step]);
  const before = add({
    id: 'fenders',
    stage: 'kit',
    title: 'Measure all four fenders above their wheel centers',
    why: 'On level ground, tires at pressure, and note the fuel: this is the baseline for the ride height.',
    needs: [kit],
    tools: ['tape measure'],
    asks: ['fenders', 'fuel', 'odometer'],
  });
  const wings = wingSteps(job, works);
  const drilling = [...works.values()].some(w => w.drilled);
  const raised = raise(job, [kit, before], {
    battery: tanks.size > 0 || drilling || rig.components.some(c => c.kind === 'lines'),
    fuel: tanks.size > 0,
  });
  const shielded = [...tanks.values()].filter(t => rig.factoryParts.some(f => shieldsTank(f, t.tank)));
  const late = (f: FactoryPart): TankHold | undefined => shielded.find(t => shieldsTank(f, t.tank));
  const carried: Carried[] = [];
  /** what is to be done before a part comes off: what it carries is held up, unless a tank's own straps do */
  const held = (f: FactoryPart, needs: readonly string[]): readonly string[] => {
    const what = rig.components.find(c => c.id === f.carries);
    if (!what || [...tanks.values()].some(t => t.tank.id === what.id)) return needs;
    carried.push({ part: f, what });
    return [holdCarried(job, f, what, needs)];
  };
  const removed = rig.factoryParts
    .filter(f => !late(f))
    .map(f => removeStep(job, f, held(f, raised.under), undefined));
  // what lies under a tank's shield is seen last, so that the tank is propped for as short as can be
  const underTank = (j: ResolvedJoint): TankHold | undefined =>
    shielded.find(
      t => j.mount?.carries === t.tank.id || j.joint.panels.some(p => tanks.get(p)?.tank.id === t.tank.id),
    );
  const there = joints.filter(j => j.mount && j.mount.hole.kind !== 'drill');
  const inspect = inspectStep(
    job,
    'inspect',
    there.filter(j => !underTank(j)),
    [...raised.under, ...removed],
  );

  const byPanel = new Map<string, string[]>();
  const prepare = (j: ResolvedJoint, ids: readonly string[]): void => {
    for (const p of j.joint.panels) byPanel.set(p, [...(byPanel.get(p) ?? []), ...ids]);
  };
  // what is there already is mended first, so that a plate can hang on it while the new holes are marked
  const mendThere = (j: ResolvedJoint, seen: string): void => {
    const work = works.get(j.id) as ReturnType<typeof holeWork>;
    if (work.fresh || !j.mount || j.joint.panels.length === 0) return;
    const from = work.oldNut ? drivetrain(job, j, [seen]) : [seen];
    const mended = mendHole(job, j, work, from);
    const drilled = work.drilled ? [drillStep(job, j, mended, false)] : mended;
    done.set(j.id, setNutStep(job, j, drilled));
  };
  const markThrough = (p: FoldedPanel, seen: string): void => {
    const mine = joints.filter(j => works.get(j.id)?.marked && stackedIn(j.joint).at(-1) === p.panel.id);
    const back = joints.filter(j => works.get(j.id)?.toFit && j.joint.panels.includes(p.panel.id));
    if (mine.length === 0 && back.length === 0) return;
    const down = markSteps(
      job,
      p,
      mine,
      [
        ...benchOf(hung, [p.panel.id]),
        seen,
        ...joints.flatMap(j => (j.joint.panels.includes(p.panel.id) ? (done.get(j.id) ?? []) : [])),
      ],
      back,
    );
    for (const j of back) done.set(j.id, [...(done.get(j.id) ?? []), down]);
    for (const j of mine) done.set(j.id, setNutStep(job, j, [drillStep(job, j, [down], false)]));
  };
  const early = panels.filter(p => !shielded.some(t => tanks.get(p.panel.id)?.tank.id === t.tank.id));
  for (const j of joints) if (!underTank(j)) mendThere(j, inspect);
  for (const p of early) markThrough(p, inspect);
  let seen = inspect;
  for (const t of tanks.values()) {
    const up = holdTank(job, t, [seen]);
    if (!shielded.includes(t)) {
      seen = up;
      continue;
    }
    const off = rig.factoryParts.filter(f => late(f) === t).map(f => removeStep(job, f, held(f, [up]), t));
    seen = inspectStep(
      job,
      `inspect-under-${t.tank.id}`,
      there.filter(j => underTank(j) === t),
      off,
    );
    for (const j of joints) if (underTank(j) === t) mendThere(j, seen);
    for (const p of panels) if (!early.includes(p) && tanks.get(p.panel.id) === t) markThrough(p, seen);
  }
  for (const j of joints) {
    let ends = (done.get(j.id) ?? []).filter(id => !id.startsWith('inspect'));
    if (isFastFirst(job.doc, j) && !tiesWing(job.doc.plan, j.joint))
      ends = [
        add({
          id: `before-${j.id}`,
          stage: 'bench',
          title: `Tighten ${j.id} before the plate goes up`,
          why: 'It cannot be reached afterwards.',
          joints: [j.id],
          torqueNm: j.torqueNm,
          torques: { [j.id]: j.torqueNm },
          pass: 1,
          passes: 1,
          share: 1,
          needs: [seen, ...ends],
          tools: toolsFor(j),
          cautions: [CAUTIONS.maker],
          impact: 'never',
        }),
      ];
    prepare(j, ends);
  }
  wings.late((wing, host) => [
    ...benchOf(hung, [wing, host]),
    ...joints.flatMap(j => (tiesWing(job.doc.plan, j.joint) ? (done.get(j.id) ?? []) : [])),
    ...(byPanel.get(host) ?? []),
  ]);
  for (const [id, steps] of wings.carriedBy) byPanel.set(id, [...(byPanel.get(id) ?? []), ...steps]);
  return { inspect: seen, byPanel, tanks, raised, carried };
}
