import type { PresentRig } from '../rig';
import {
  CAUTIONS,
  groupSteps,
  inOrder,
  jobOf,
  RAISE,
  type Sequence,
  spotOf,
  startOrder,
  tiedGroups,
  withStops,
} from '../sequence';
import { formatTorque } from '../units';
import type { Hung, ServiceAccess } from './access';

/** Points where hot oil or fuel runs. */
const FLUID = /drain|fill|filter/;

/**
 * The steps of a service: down to the point, the work itself, and all of it closed up again, sorted so that everything a step needs
 * comes before it. Plates that came down go up again in the order of an installation, loosened bolts are brought back to their torque.
 */
export function serviceSteps(access: ServiceAccess, hung: Hung, rig: PresentRig): Sequence {
  const { point, drop, remove, loosen, through } = access;
  const { doc, panels, joints } = hung;
  const job = jobOf(doc, rig, panels, joints);
  const { add } = job;
  const fuel = point.kind === 'fuel-tank-straps';
  const safety = add({
    id: 'service-safety',
    stage: 'safety',
    title: RAISE[doc.plan.method.lift],
    why: 'Level, so that all of the oil runs out. Push it from the side before you go under.',
    cautions: [CAUTIONS.stands, CAUTIONS.maker, CAUTIONS.hot, ...(fuel ? [CAUTIONS.fuel] : [])],
    tools: ['wheel chocks'],
  });
  let last = safety;
  if (loosen.length > 0)
    last = add(
      {
        id: 'service-loosen',
        stage: 'remove',
        title: `Loosen ${loosen.length} ${loosen.length === 1 ? 'bolt' : 'bolts'} by three turns`,
        why: 'They stay in: their plate only has to hang low enough to let its neighbour out.',
        joints: loosen,
        needs: [last],
        tools: [...new Set(joints.filter(j => loosen.includes(j.id)).flatMap(j => j.tools))].filter(
          t => !t.startsWith('torque wrench'),
        ),
      },
      loosen.length,
    );
  for (const id of drop) {
    const p = panels.find(x => x.panel.id === id);
    if (!p) continue;
    // a bolt shared with a plate that came down before is out already
    const mine = joints.filter(
      j => remove.includes(j.id) && drop.find(d => j.joint.panels.includes(d)) === id,
    );
    const shared = joints.some(
      j => j.joint.panels.includes(id) && remove.includes(j.id) && !mine.includes(j),
    );
    const held = add({
      id: `service-hold-${id}`,
      stage: 'support',
      title: `Hold plate ${p.panel.mark} up before its last bolts come out`,
      why: 'A jack with a block, a board and a strap, or a second pair of hands.',
      panels: [id],
      needs: [last],
      tools: ['jack with a wooden block'],
      cautions: [CAUTIONS.heavy],
    });
    last = add(
      {
        id: `service-drop-${id}`,
        stage: 'remove',
        title: `Take plate ${p.panel.mark}, ${p.panel.name}, down`,
        why: shared
          ? `Its bolts in the overlap came out with the plate outside it. Lay bolts out in their order.`
          : 'The other way round than they went in: the last two carry it until you have its weight. Lay bolts out in their order: some are longer.',
        panels: [id],
        joints: [...startOrder(mine.map(spotOf), doc.plan.method.start)].reverse(),
        needs: [held],
        tools: [...new Set(mine.flatMap(j => j.tools))].filter(t => !t.startsWith('torque wrench')),
        people: 2,
      },
      mine.length,
    );
  }
  const work = add({
    id: 'service-work',
    stage: 'check',
    title: point.name,
    at: point.at,
    why:
      through === 'opening'
        ? 'Through the opening below it; nothing comes down.'
        : 'Look at what the plate hid: dents, rubbing, leaks. It is seen only now.',
    needs: [last],
    cautions: [
      ...(FLUID.test(point.kind)
        ? [
            'Hot oil burns and is caught, not spilled: let it cool, gloves on, take it where oil is taken back.',
          ]
        : []),
      ...(fuel ? [CAUTIONS.fuel] : []),
      CAUTIONS.maker,
    ],
  });
  let before: readonly string[] = [work];
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
    before = groupSteps(job, group, `${g + 1}`, { own, waits: () => [], before, tag: '-again' });
  const settings = [
    ...new Set(joints.filter(j => loosen.includes(j.id)).map(j => Math.round(j.torqueNm * 10) / 10)),
  ];
  for (const nm of settings) {
    const same = joints.filter(j => loosen.includes(j.id) && Math.round(j.torqueNm * 10) / 10 === nm);
    before = [
      add(
        {
          id: `service-tighten-${nm}`,
          stage: 'tighten',
          title: `Bring the loosened bolts back to ${formatTorque(nm, 'metric')}`,
          why: 'What was only loosened holds nothing until it is tight again.',
          panels: [...new Set(same.flatMap(j => j.joint.panels))],
          joints: same.map(j => j.id),
          torqueNm: same[0]?.torqueNm ?? nm,
          pass: 1,
          passes: 1,
          share: 1,
          needs: before,
          tools: [...new Set(same.flatMap(j => j.tools))],
          cautions: [CAUTIONS.maker],
          impact: 'never',
        },
        same.length,
      ),
    ];
  }
  add({
    id: 'service-check',
    stage: 'check',
    title:
      through === 'opening'
        ? 'Close up, run it, look for drips'
        : 'Knock on the plates, run it, look for drips',
    why: 'A door left open catches the next rock; a drip on a plate is smelled before it is seen.',
    needs: before,
    cautions: [CAUTIONS.hot],
  });
  const { steps, cycle } = inOrder(job.steps);
  return { steps: withStops(steps), cycle };
}
