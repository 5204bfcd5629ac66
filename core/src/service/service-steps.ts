import { HAND_TOOLS } from '../bolt';
import { panelWord } from '../plan';
import type { PresentRig } from '../rig';
import {
  addTools,
  CAUTIONS,
  groupSteps,
  holdTank,
  inOrder,
  isHeavy,
  type Job,
  jobOf,
  lifted,
  propOf,
  raise,
  type Sequence,
  settingsOf,
  spotOf,
  startOrder,
  type TankHold,
  tankHold,
  tiedGroups,
  tighteningOrder,
  toolsOf,
  withStops,
  withTips,
} from '../sequence';
import type { UnitSystem } from '../units';
import type { Hung, ServiceAccess } from './access';
import { doneWith, serviceJob } from './service-job';

/** Brings the plates of a service down, the outermost first; gives the last steps. */
function dropSteps(
  job: Job,
  { drop, remove }: ServiceAccess,
  tanks: ReadonlyMap<string, TankHold>,
  needs: readonly string[],
): readonly string[] {
  const { add, joints, doc } = job;
  let last = needs;
  for (const id of drop) {
    const own = job.panels.find(x => x.panel.id === id);
    if (!own) continue;
    const p = lifted(job, own);
    // a bolt shared with a plate that came down before is out already
    const mine = joints.filter(
      j => remove.includes(j.id) && drop.find(d => j.joint.panels.includes(d)) === id,
    );
    const shared = joints.some(
      j => j.joint.panels.includes(id) && remove.includes(j.id) && !mine.includes(j),
    );
    const hold = tanks.get(id);
    const heavy = isHeavy(job, p);
    const prop = propOf(doc.plan.method.lift);
    const propped = `${prop.name(panelWord(p.panel))} coming down`;
    if (hold) last = [holdTank(job, hold, last)];
    const held = add({
      id: `service-hold-${id}`,
      stage: 'support',
      title: `${prop.put(panelWord(p.panel))}, before its last bolts come out`,
      why: 'Then its weight does not hang on the last bolt.',
      hows: prop.hows,
      panels: [id],
      needs: last,
      puts: [propped],
      tools: prop.tools,
      cautions: heavy ? [CAUTIONS.heavy] : [],
    });
    last = [
      add(
        {
          id: `service-drop-${id}`,
          stage: 'remove',
          title: `Take ${panelWord(p.panel)}, ${p.panel.name}, down`,
          why: shared
            ? 'Its bolts in the overlap came out with the plate outside it. Lay bolts out in their order.'
            : 'In reverse order: the last two bolts carry it until you have its weight. Lay bolts out in their order: some are longer.',
          panels: [id],
          joints: [...startOrder(mine.map(spotOf), doc.plan.method.start)].reverse(),
          needs: [held],
          takes: [propped],
          tools: addTools(toolsOf(mine, HAND_TOOLS)),
          people: heavy ? 2 : 1,
        },
        mine.length,
      ),
    ];
  }
  return last;
}

/**
 * The steps of a service as a whole job: raised, down to the point, the work from its kind, all of it closed up again and let down, sorted
 * so that everything a step needs comes before it. Plates that came down go up again in the order of an installation, loosened bolts are
 * brought back to their torque. What is done with it (the filter with the oil) is reached in the same job: `access` must be for both, as
 * `serviceAccess(point, hung, doneWith(point, rig))` makes it.
 */
export function serviceSteps(
  access: ServiceAccess,
  hung: Hung,
  rig: PresentRig,
  units: UnitSystem = 'metric',
): Sequence {
  const { point, drop, remove, loosen, through } = access;
  const { doc, panels, joints } = hung;
  const job = jobOf(doc, rig, panels, joints, units);
  const { add } = job;
  const fuel = point.kind === 'fuel-tank-straps';
  const work = serviceJob(point, doneWith(point, rig), units);
  const tools = add({
    id: 'service-kit',
    stage: 'kit',
    title: `Lay out what ${point.name} takes`,
    why: 'The vehicle maker\u2019s instructions come first: fluids, amounts, torques, intervals.',
    tools: addTools(...work.open.map(s => s.tools ?? []), ...work.after.map(s => s.tools ?? [])),
    cautions: [CAUTIONS.maker],
    asks: ['odometer'],
  });
  const raised = raise(job, [tools], { fuel, tag: 'service-' });
  let last = raised.under;
  if (loosen.length > 0)
    last = [
      add(
        {
          id: 'service-loosen',
          stage: 'remove',
          title: `Loosen ${loosen.length} ${loosen.length === 1 ? 'bolt' : 'bolts'} by three turns`,
          why: 'They stay in: the plate only has to drop enough to free its neighbor.',
          joints: loosen,
          needs: last,
          tools: toolsOf(
            joints.filter(j => loosen.includes(j.id)),
            HAND_TOOLS,
          ),
        },
        loosen.length,
      ),
    ];
  const tanks = new Map(
    drop.flatMap(id => {
      const p = panels.find(x => x.panel.id === id);
      const hold = p && tankHold(job, p);
      return hold?.carried.some(j => remove.includes(j)) ? [[id, hold] as const] : [];
    }),
  );
  last = dropSteps(job, access, tanks, last);
  if (through === 'opening' && access.openingId !== undefined)
    last = [
      add({
        id: 'service-open',
        stage: 'remove',
        title: 'Open what lies below it',
        why: 'Reach it through the opening in the plate: take the door off, or clear the mud from a plain hole.',
        at: point.at,
        needs: last,
        tools: ['key for the door'],
      }),
    ];
  for (const [i, s] of work.open.entries())
    last = [
      add({
        ...s,
        stage: 'check',
        needs: last,
        why:
          i === 0 && through === 'drop'
            ? `${s.why} Also check what the plate hid: dents, rubbing, leaks.`
            : s.why,
      }),
    ];

  let before: readonly string[] = last;
  if (through === 'opening' && access.openingId !== undefined)
    before = [
      add({
        id: 'service-close',
        stage: 'check',
        title: 'Close the door below it',
        why: 'A door left open catches the next rock. Its screws by hand, then snug; lock nuts or threadlocker as they had.',
        at: point.at,
        needs: before,
        tools: ['key for the door'],
      }),
    ];
  const down = new Set(drop);
  const own = new Map(
    drop.map(id => [
      id,
      joints.filter(j => j.joint.panels.find(x => down.has(x)) === id && remove.includes(j.id)),
    ]),
  );
  // the reverse of coming down: inner plates first
  const up = [...drop].reverse();
  const groups = tiedGroups(doc, panels)
    .map(g =>
      g.filter(p => down.has(p.panel.id)).sort((a, b) => up.indexOf(a.panel.id) - up.indexOf(b.panel.id)),
    )
    .filter(g => g.length > 0);
  for (const [g, group] of groups.entries())
    before = groupSteps(job, group, `${g + 1}`, {
      own,
      waits: () => [],
      before,
      tanks,
      tag: '-again',
      holesThere: true,
    });
  const again = joints.filter(j => loosen.includes(j.id));
  if (again.length > 0) {
    const settings = settingsOf(again);
    before = [
      add(
        {
          id: 'service-tighten',
          stage: 'tighten',
          title: 'Bring the loosened bolts back to their torque',
          why: 'A loosened bolt holds nothing until it is tight again.',
          panels: [...new Set(again.flatMap(j => j.joint.panels))],
          joints: tighteningOrder(again.map(spotOf)),
          torqueNm: Math.min(...settings.values()),
          torques: Object.fromEntries(settings),
          pass: 1,
          passes: 1,
          share: 1,
          needs: before,
          tools: addTools(toolsOf(again, [...HAND_TOOLS, 'torque'])),
          cautions: [CAUTIONS.maker],
          impact: 'never',
        },
        again.length,
      ),
    ];
  }
  if (drop.length > 0)
    before = [
      add({
        id: 'service-check',
        stage: 'check',
        title: 'Knock on the plates, look along their edges',
        why: 'A rattle is a loose bolt or a touch.',
        panels: [...drop],
        needs: before,
      }),
    ];
  let ends: readonly string[] = [raised.lower(before)];
  for (const s of work.after) ends = [add({ ...s, stage: 'finish', needs: ends })];
  const { steps, cycle } = inOrder(job.steps);
  return { steps: withStops(withTips(steps, job), joints), cycle };
}
