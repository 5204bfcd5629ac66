import { drillingCard, needsNewNut, type ResolvedJoint, removals, shoppingList, toolRoll } from '../bolt';
import type { FoldedPanel } from '../fold';
import { type FactoryPart, memberName } from '../rig';
import { CAUTIONS } from './cautions';
import { laps } from './hang-order';
import { drillStep, holeWork, isReady, mendHole, setNutStep } from './hole-work';
import { addTools, count, isHeavy, isTorque, type Job, spotOf, toolsOf } from './job';
import { startOrder } from './order';
import { type Raised, raise } from './raise';
import type { Bag } from './step';
import { holdTank, shieldsTank, type TankHold, tankHold } from './tank';

/** Components that rest on a crossmember and come down with it. */
const ON_MEMBER = new Set(['engine', 'transmission', 'transfer-case']);

/** Where the fasteners of a factory part go, each kind in its own labelled bag. */
export function bagsOf(f: FactoryPart): readonly Bag[] {
  return removals(f).map((r, i) => ({
    label: `${f.name}: ${r.count} \u00d7 ${[r.head, r.thread].filter(Boolean).join(' ')}`,
    fate: !r.reusable ? 'discard' : f.reuseFasteners ? 'reuse' : 'keep',
    count: f.fasteners[i]?.count ?? r.count,
  }));
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
}

/** Everything before the first plate goes up, the part that needs no raised vehicle first. `hung`: the plates that bolts hold. */
export function prepareSteps(job: Job, hung: readonly FoldedPanel[]): Prepared {
  const { rig, panels, joints, add } = job;
  const kit = kitSteps(job, hung);
  const before = add({
    id: 'fenders',
    stage: 'kit',
    title: 'Measure all four fenders above their wheel centers',
    why: 'On level ground, tires at pressure, and note the fuel: what the plates take off the ride height is known only against this.',
    needs: [kit],
    tools: ['tape measure'],
    asks: ['fenders', 'fuel', 'odometer'],
  });
  const tanks = new Map<string, TankHold>();
  for (const p of hung) {
    const hold = tankHold(job, p);
    if (hold && ![...tanks.values()].some(t => t.tank.id === hold.tank.id)) tanks.set(p.panel.id, hold);
  }
  const works = new Map(joints.map(j => [j.id, holeWork(job, j)]));
  const drilling = [...works.values()].some(w => w.drilled);
  const raised = raise(job, [kit, before], {
    battery: tanks.size > 0 || drilling || rig.components.some(c => c.kind === 'lines'),
    fuel: tanks.size > 0,
  });
  const shielded = [...tanks.values()].filter(t => rig.factoryParts.some(f => shieldsTank(f, t.tank)));
  const late = (f: FactoryPart): TankHold | undefined => shielded.find(t => shieldsTank(f, t.tank));
  const removed = rig.factoryParts
    .filter(f => !late(f))
    .map(f => removeStep(job, f, raised.under, undefined));
  // what lies under a tank's shield is seen last, so that the tank is propped for as short as can be
  const underTank = (j: ResolvedJoint): TankHold | undefined =>
    shielded.find(t => j.joint.panels.some(p => tanks.get(p)?.tank.id === t.tank.id));
  const there = joints.filter(j => j.mount && j.mount.hole.kind !== 'drill');
  const inspect = inspectStep(
    job,
    'inspect',
    there.filter(j => !underTank(j)),
    [...raised.under, ...removed],
  );

  /** the bench steps of plates that are hung at all */
  const benchOf = (ids: readonly string[]): readonly string[] =>
    ids.flatMap(id => (hung.some(p => p.panel.id === id) ? [`bench-${id}`] : []));
  const byPanel = new Map<string, string[]>();
  const prepare = (j: ResolvedJoint, ids: readonly string[]): void => {
    for (const p of j.joint.panels) byPanel.set(p, [...(byPanel.get(p) ?? []), ...ids]);
  };
  const done = new Map<string, readonly string[]>();
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
    const mine = joints.filter(j => works.get(j.id)?.marked && j.joint.panels.at(-1) === p.panel.id);
    if (mine.length === 0) return;
    const down = markSteps(job, p, mine, [
      ...benchOf([p.panel.id]),
      seen,
      ...joints.flatMap(j => (j.joint.panels.includes(p.panel.id) ? (done.get(j.id) ?? []) : [])),
    ]);
    for (const j of mine) done.set(j.id, setNutStep(job, j, [drillStep(job, j, [down], false)]));
  };
  const early = panels.filter(p => !shielded.some(t => tanks.get(p.panel.id)?.tank.id === t.tank.id));
  for (const j of joints) if (!underTank(j)) mendThere(j, inspect);
  for (const p of early) markThrough(p, inspect);
  let seen = inspect;
  for (const t of tanks.values()) {
    const held = holdTank(job, t, [seen]);
    if (!shielded.includes(t)) {
      seen = held;
      continue;
    }
    const off = rig.factoryParts.filter(f => late(f) === t).map(f => removeStep(job, f, [held], t));
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
    const work = works.get(j.id);
    if (!j.mount && work?.setsNut) done.set(j.id, setNutStep(job, j, benchOf(j.joint.panels)));
    let ends = (done.get(j.id) ?? []).filter(id => !id.startsWith('inspect'));
    if (j.joint.tightenBefore === 'hang')
      ends = [
        add({
          id: `before-${j.id}`,
          stage: 'bench',
          title: `Tighten ${j.id} before the plate goes up`,
          why: 'Nothing reaches it afterwards.',
          joints: [j.id],
          torqueNm: j.torqueNm,
          torques: { [j.id]: j.torqueNm },
          pass: 1,
          passes: 1,
          share: 1,
          needs: [seen, ...ends],
          tools: [...j.tools],
          cautions: [CAUTIONS.maker],
          impact: 'never',
        }),
      ];
    prepare(j, ends);
  }
  return { inspect: seen, byPanel, tanks, raised };
}

/** Takes a factory part off; `under`: the tank it shields, which is held up by then. */
function removeStep(job: Job, f: FactoryPart, needs: readonly string[], under: TankHold | undefined): string {
  const bags = bagsOf(f);
  const ways = removals(f);
  return job.add(
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
      hows: [
        ...ways.map(w => `${w.count} \u00d7 ${[w.head, w.thread].filter(Boolean).join(' ')}: ${w.how}.`),
        ...(under
          ? [
              `If the ${under.tank.name} follows it down, stop: it hangs on these bolts. Leave one in at each end until the plate is ready.`,
            ]
          : []),
      ],
      needs,
      tools: [...new Set(ways.map(x => x.tool))],
      cautions: [
        ...(under ? [CAUTIONS.fuel] : []),
        ...(ways.some(w => w.tool.includes('drill')) ? [CAUTIONS.eyes] : []),
      ],
      bags,
      part: f.id,
      at: f.at,
    },
    bags.reduce((n, b) => n + b.count, 0),
  );
}

/** Looks at the holes that are there, and at what lies round them. */
function inspectStep(
  job: Job,
  id: string,
  there: readonly ResolvedJoint[],
  needs: readonly string[],
): string {
  return job.add(
    {
      id,
      stage: 'inspect',
      title: `Look at all ${count(there.length, 'hole')} that are used${id === 'inspect' ? '' : ' under the shield'}`,
      why: 'Rust, a torn thread or a loose nut is mended now, not with a plate on your chest.',
      hows: [
        'Run a bolt in by hand at each. What binds or turns through is reported here.',
        'A lip that was pushed up holds a plate off its holes: press or hammer it straight over a block. A crushed crossmember wants replacing, not hammering.',
        'Look at what hangs above for contact marks, leaks and loose straps.',
      ],
      joints: there.map(j => j.id),
      needs,
      tools: addTools(toolsOf(there, t => !isTorque(t) && t.startsWith('socket')).slice(0, 3), [
        'hammer and block',
        'lamp',
      ]),
    },
    there.length,
  );
}

/** What is done at the bench before the vehicle is raised; gives the step after which everything is laid out. */
function kitSteps(job: Job, hung: readonly FoldedPanel[]): string {
  const { doc, panels, joints, add } = job;
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
  for (const p of panels.filter(x => !hung.includes(x)))
    add({
      id: `leave-off-${p.panel.id}`,
      stage: 'kit',
      title: `Leave plate ${p.panel.mark} off: this plan has no bolt that holds it`,
      why: 'A plate that hangs on nothing is not raised. Give it bolts in Bolt first.',
      panels: [p.panel.id],
      needs: [kit],
    });
  const benches = hung.map(p => {
    const mine = joints.filter(j => j.joint.panels[0] === p.panel.id && j.joint.tightenBefore !== 'hang');
    const lubes = [...new Set(mine.filter(j => j.joint.lube !== 'dry').map(j => j.joint.lube))];
    return add(
      {
        id: `bench-${p.panel.id}`,
        stage: 'bench',
        title: `Make plate ${p.panel.mark} ready on the bench`,
        why: 'Hole by hole, in the order of the list: nothing is found by feel later.',
        hows: [
          'Take the burr off every hole and edge, and touch up bare edges.',
          'Mark FRONT and the driver\u2019s side on its underside.',
          ...(mine.length > 0
            ? ['Lay its bolts out hole by hole, with washers and spacers in their order.']
            : []),
          ...(lubes.length > 0
            ? [`${lubes.join(' and ')} on the threads that the list names, a film, no more.`]
            : []),
        ],
        panels: [p.panel.id],
        joints: mine.map(j => j.id),
        makes: ['deburred', 'painted'],
        needs: [kit],
        tools: addTools(['deburring tool', 'marker'], lubes),
      },
      mine.length,
    );
  });
  return benches.at(-1) ?? kit;
}

/** Only where a crossmember comes down for its nut: what rests on it is held up first. */
function drivetrain(job: Job, j: ResolvedJoint, needs: readonly string[]): readonly string[] {
  const { rig } = job;
  if (!needsNewNut(j.mount) || !j.member || j.member.kind === 'rail') return needs;
  const xs = j.member.footprint.map(q => q[0]);
  const rests = rig.components.filter(c => {
    if (!ON_MEMBER.has(c.kind)) return false;
    const cs = c.footprint.map(q => q[0]);
    return Math.min(...xs) <= Math.max(...cs) && Math.max(...xs) >= Math.min(...cs);
  });
  if (rests.length === 0) return needs;
  return [
    job.add({
      id: `support-drivetrain-${j.id}`,
      stage: 'inspect',
      title: `Leave the ${memberName(rig, j.member.id)} in: work through its hole`,
      why: `${rests.map(c => c.name).join(' and ')} may rest on it. Only if it must come down: a jack with a wide board under them first, lowered no further than mounts, lines and shafts allow. Leave it to a shop when unsure.`,
      joints: [j.id],
      needs,
      tools: ['jack with a wide board'],
      cautions: [CAUTIONS.stands, CAUTIONS.maker],
    }),
  ];
}

/** Hangs a plate on the holes that are there, marks the others through it and takes it down again; gives the last step. */
function markSteps(
  job: Job,
  p: FoldedPanel,
  mine: readonly ResolvedJoint[],
  needs: readonly string[],
): string {
  const { add, doc, joints } = job;
  const { id, mark } = p.panel;
  const heavy = isHeavy(job, p);
  const there = joints.filter(
    j =>
      j.joint.panels.includes(id) && j.mount && isReady(holeWork(job, j)) && j.joint.tightenBefore !== 'hang',
  );
  const card = drillingCard(mine[0] as ResolvedJoint, joints, doc.plan.method);
  const chosen = (card?.fitFirst ?? []).filter(x => there.some(j => j.id === x));
  const first = startOrder(
    there.filter(j => chosen.length === 0 || chosen.includes(j.id)).map(spotOf),
    doc.plan.method.start,
  );
  const under = laps(doc)
    .filter(([inner, outer]) => outer === id && inner !== id)
    .map(([inner]) => job.panels.find(x => x.panel.id === inner))
    .filter(x => x !== undefined);
  const jack = `jack under plate ${mark}`;
  const hang = add(
    {
      id: `mark-hang-${id}`,
      stage: 'hang',
      title:
        first.length > 0
          ? `Hang plate ${mark} on ${first.length === 1 ? 'its bolt' : `${first.length} of its bolts`}, to mark the new holes`
          : `Hold plate ${mark} up on the jack, to mark its holes`,
      why:
        first.length > 1
          ? 'The holes that are there put it in its place.'
          : 'Nothing puts it in its place by itself: measure from both sides and from the front, twice.',
      hows: [
        'Jack it up level, a board on the jack.',
        ...(under.length > 0
          ? [
              `Lay a strip as thick as plate ${under.map(x => x.panel.mark).join(' and ')} in the lap: that plate is not up yet.`,
            ]
          : []),
        ...(first.length > 0 ? ['Start the bolts by hand, slide it home, center it, snug them.'] : []),
      ],
      panels: [id],
      joints: first,
      needs,
      puts: [jack],
      tools: addTools(
        ['jack with a wooden block'],
        toolsOf(
          there.filter(j => first.includes(j.id)),
          t => !isTorque(t),
        ),
      ),
      cautions: heavy ? [CAUTIONS.heavy] : [],
      people: heavy || first.length < 2 ? 2 : 1,
    },
    first.length,
  );
  const marked = add(
    {
      id: `mark-${id}`,
      stage: 'drill',
      title: `Mark ${count(mine.length, 'hole')} through plate ${mark}`,
      why: 'Round the inside of the plate\u2019s own holes, with a thin marker or a transfer punch.',
      panels: [id],
      joints: mine.map(j => j.id),
      makes: ['marked'],
      needs: [hang],
      tools: ['marker', 'transfer punch'],
    },
    mine.length,
  );
  return add({
    id: `mark-down-${id}`,
    stage: 'remove',
    title: `Take plate ${mark} down again`,
    why: 'Drilled through it, the bit tears its finish, and chips stay between.',
    panels: [id],
    joints: [...first].reverse(),
    needs: [marked],
    takes: [jack],
    tools: toolsOf(
      there.filter(j => first.includes(j.id)),
      t => !isTorque(t),
    ),
    cautions: heavy ? [CAUTIONS.heavy] : [],
    people: heavy ? 2 : 1,
  });
}
