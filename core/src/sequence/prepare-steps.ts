import { drillName, needsNewNut, type ResolvedJoint, removals, shoppingList, toolRoll } from '../bolt';
import type { FactoryPart } from '../rig';
import { CAUTIONS } from './cautions';
import { count, guardsKind, type Job } from './job';
import type { Bag } from './step';

/** How the vehicle is raised, as a step says it. */
export const RAISE = {
  ground: 'Raise it on stands',
  ramps: 'Drive it up the ramps',
  'two-post': 'Raise it on the lift',
} as const;

/** Components that rest on a crossmember and come down with it. */
const ON_MEMBER = new Set(['engine', 'transmission', 'transfer-case']);

/** Where the fasteners of a factory part go, each kind in its own labelled bag. */
export function bagsOf(f: FactoryPart): readonly Bag[] {
  return removals(f).map((r, i) => ({
    label: `${f.name}: ${r.count} × ${[r.head, r.thread].filter(Boolean).join(' ')}`,
    fate: !r.reusable ? 'discard' : f.reuseFasteners ? 'reuse' : 'keep',
    count: f.fasteners[i]?.count ?? r.count,
  }));
}

/** A step that marks, or follows the plate to, a new hole. */
export function drillStep(job: Job, j: ResolvedJoint, needs: readonly string[]): string {
  const behind = j.mount?.behind;
  const what = behind && job.rig.components.find(c => c.id === behind.component);
  return job.add(
    {
      id: `drill-${j.id}`,
      stage: 'drill',
      title: `Drill ${j.id}: ${j.drill.map(drillName).join(', ')}`,
      why: what
        ? `Behind it: ${what.name}. Set a stop on the drill and go no deeper than the metal.`
        : job.doc.plan.method.drilling === 'template'
          ? 'The plate is the template; its neighbours are in, so the hole cannot wander.'
          : 'Marked through the plate, taken down, punched, piloted, drilled.',
      joints: [j.id],
      needs,
      tools: ['centre punch', ...j.drill.map(d => `drill ${drillName(d)}`)],
      cautions: [CAUTIONS.eyes, ...(what?.kind === 'fuel-tank' ? [CAUTIONS.fuel] : [])],
    },
    j.drill.length,
  );
}

/** What of the steps before the plates the steps of the plates wait for. */
export interface Prepared {
  readonly kit: string;
  readonly inspect: string;
  /** steps that a plate waits for, by plate */
  readonly byPanel: ReadonlyMap<string, readonly string[]>;
}

/** Everything before the first plate goes up, the part that needs no raised vehicle first. */
export function prepareSteps(job: Job): Prepared {
  const { doc, rig, panels, joints, add } = job;
  const { method } = doc.plan;
  const fuel = panels.some(p => guardsKind(job, p, 'fuel-tank'));
  const hot = rig.components.some(
    c => (c.surfaceC ?? 0) > 80 && panels.some(p => p.panel.guards.includes(c.id)),
  );
  const battery = rig.components.some(c => c.kind === 'battery');
  const byPanel = new Map<string, string[]>();
  const prepare = (j: ResolvedJoint, id: string): void => {
    for (const p of j.joint.panels) byPanel.set(p, [...(byPanel.get(p) ?? []), id]);
  };

  const options = doc.rig.options.flatMap(o => {
    const choice = o.choices.find(c => c.id === doc.rig.selected[o.id]);
    return choice ? [`${o.name}: ${choice.name}`] : [];
  });
  const first =
    options.length > 0
      ? [
          add({
            id: 'options',
            stage: 'kit',
            title: 'See that the vehicle is the one planned for',
            why: `${options.join('; ')}. Other options bring other brackets, spacers and bolts.`,
          }),
        ]
      : [];
  const kit = add(
    {
      id: 'kit',
      stage: 'kit',
      title: 'Count the kit and try every bit',
      why: 'A missing bolt or the wrong bit is cheap on the bench and dear in the air.',
      needs: first,
    },
    shoppingList(joints).length + toolRoll(joints).length,
  );
  for (const p of panels) {
    const mine = joints.filter(j => j.joint.panels[0] === p.panel.id && j.joint.tightenBefore !== 'hang');
    add(
      {
        id: `bench-${p.panel.id}`,
        stage: 'bench',
        title: `Make plate ${p.panel.mark} ready on the bench`,
        why: 'Deburr the holes, lay out its bolts and washers, grease what needs it: nothing is found by feel later.',
        panels: [p.panel.id],
        joints: mine.map(j => j.id),
        needs: [kit],
        tools: [...new Set(mine.filter(j => j.joint.lube !== 'dry').map(j => j.joint.lube))],
      },
      mine.length,
    );
  }
  const fenders = add({
    id: 'fenders',
    stage: 'kit',
    title: 'Measure all four fenders above their wheel centres',
    why: 'On level ground, tyres at pressure: what the plates take off the ride height is known only against this.',
    needs: [kit],
    tools: ['tape measure'],
  });
  const lift = RAISE[method.lift];
  const safety = add({
    id: 'safety',
    stage: 'safety',
    title: `${lift}, chock the wheels, battery off`,
    why: 'Everything after this is done under the vehicle. Push it from the side before you go under.',
    needs: [kit, fenders],
    tools: method.lift === 'ground' ? ['jack', 'stands in pairs', 'wheel chocks'] : ['wheel chocks'],
    cautions: [
      CAUTIONS.stands,
      CAUTIONS.maker,
      ...(fuel ? [CAUTIONS.fuel] : []),
      ...(hot ? [CAUTIONS.hot] : []),
      ...(battery ? [CAUTIONS.voltage] : []),
    ],
  });
  const removed = rig.factoryParts.map(f => {
    const bags = bagsOf(f);
    return add(
      {
        id: `remove-${f.id}`,
        stage: 'remove',
        title: `Take off: ${f.name}`,
        why: f.reuseFasteners
          ? `Keep its ${count(
              f.fasteners.reduce((n, x) => n + x.count, 0),
              'fastener',
            )} in a marked bag: they are used again.`
          : 'Its holes are needed. Bag the fasteners in case it ever goes back on.',
        needs: [safety],
        tools: [...new Set(removals(f).map(x => x.tool))],
        bags,
        at: f.at,
      },
      bags.reduce((n, b) => n + b.count, 0),
    );
  });
  const holes = joints.filter(j => j.mount);
  const inspect = add(
    {
      id: 'inspect',
      stage: 'inspect',
      title: `Look at all ${count(holes.length, 'hole')}`,
      why: 'Run a bolt in by hand at each. Rust, a torn thread or a loose nut is mended now, not with a plate on your chest.',
      joints: holes.map(j => j.id),
      needs: [safety, ...removed],
    },
    holes.length,
  );
  const straighten = add({
    id: 'straighten',
    stage: 'inspect',
    title: 'Press straight what is bent where plates will lie',
    why: 'A pushed-up lip holds a plate off its holes. Press or hammer it over a block; a crushed crossmember wants replacing, not hammering.',
    needs: [inspect],
    tools: ['hammer and block'],
  });

  for (const j of joints) {
    const m = j.mount;
    if (!m || m.condition === 'good' || m.condition === 'blocked') continue;
    const newNut = needsNewNut(m);
    const rests = newNut
      ? rig.components.filter(c => {
          if (!ON_MEMBER.has(c.kind) || !j.member || j.member.kind === 'rail') return false;
          const xs = j.member.footprint.map(q => q[0]);
          const cs = c.footprint.map(q => q[0]);
          return Math.min(...xs) <= Math.max(...cs) && Math.max(...xs) >= Math.min(...cs);
        })
      : [];
    const held =
      rests.length > 0
        ? [
            add({
              id: `support-drivetrain-${j.id}`,
              stage: 'support',
              title: `Only if ${j.member?.kind ?? 'the member'} ${j.member?.id ?? ''} must come down: hold up the ${rests.map(c => c.name).join(' and ')}`,
              why: 'It may rest there. A jack with a wide board under it first; lower no further than mounts, lines and shafts allow. Leave it to a shop when unsure.',
              joints: [j.id],
              needs: [inspect],
              tools: ['jack with a wide board'],
              cautions: [CAUTIONS.stands, CAUTIONS.maker],
            }),
          ]
        : [];
    prepare(
      j,
      add(
        {
          id: `repair-${j.id}`,
          stage: 'repair',
          title: newNut
            ? `Replace the nut at ${j.id} with a ${j.nut?.name ?? 'nut'} ${j.thread.size}`
            : `Clean the thread at ${j.id}, ${j.thread.designation}`,
          why: newNut
            ? 'The captive nut turns or is gone: a bolt in it can be neither tightened nor taken out.'
            : 'A rusted thread takes the torque that should stretch the bolt.',
          joints: [j.id],
          needs: [inspect, ...held],
          tools: newNut
            ? [...j.tools.filter(t => t.includes('rivet nut')), ...j.drill.map(d => `drill ${drillName(d)}`)]
            : [`thread chaser ${j.thread.designation}`],
          cautions: newNut && j.drill.length > 0 ? [CAUTIONS.eyes] : [],
        },
        newNut ? 3 : 0.5,
      ),
    );
  }
  if (method.drilling === 'mark-and-remove')
    for (const j of joints)
      if (j.mount?.hole.kind === 'drill' && j.drill.length > 0) prepare(j, drillStep(job, j, [inspect]));

  for (const j of joints.filter(x => x.joint.tightenBefore === 'hang'))
    prepare(
      j,
      add({
        id: `before-${j.id}`,
        stage: 'bench',
        title: `Tighten ${j.id} before the plate goes up`,
        why: 'Nothing reaches it afterwards.',
        joints: [j.id],
        torqueNm: j.torqueNm,
        pass: 1,
        passes: 1,
        share: 1,
        needs: [inspect],
        tools: [...j.tools],
        cautions: [CAUTIONS.maker],
        impact: 'never',
      }),
    );
  return { kit, inspect: straighten, byPanel };
}
