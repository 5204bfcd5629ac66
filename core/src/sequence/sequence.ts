import { drillName, needsNewNut, type ResolvedJoint, removals } from '../bolt';
import type { FoldedPanel } from '../fold';
import type { PlanDocument } from '../plan';
import type { PresentRig } from '../rig';
import { CAUTIONS } from './cautions';
import { hangingOrder, laps, tiedGroups } from './hang-order';
import { type Spot, startOrder, tighteningOrder } from './order';
import { inOrder, type Sequence, type Step } from './step';

/** NIOSH load constant, the lift limit when the plan sets none, kg (Pub. 94-110). */
export const LIFT_LIMIT_KG = 23;

/** Shares of the full torque in the rounds of tightening, the last one until nothing turns (ASME PCC-1). */
export const PASS_SHARES = [0.3, 0.6, 1, 1] as const;

const spot = (j: ResolvedJoint): Spot => ({ id: j.id, x: j.at[0], y: j.at[1] });
const tools = (joints: readonly ResolvedJoint[], keep: (tool: string) => boolean): string[] => [
  ...new Set(joints.flatMap(j => j.tools).filter(keep)),
];
const isTorque = (t: string): boolean => t.startsWith('torque wrench');
const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;
const marks = (panels: readonly FoldedPanel[]): string => panels.map(p => p.panel.mark).join(', ');

/**
 * The whole job as steps with reasons, sorted so that everything a step needs comes before it. Joints shared by
 * plates are started and tightened with the outermost plate. Rounds of tightening go over all plates of a group
 * before the next round begins.
 */
export function installation(
  doc: PlanDocument,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
): Sequence {
  const { method, limits } = doc.plan;
  const maxLift = limits.maxLiftKg ?? LIFT_LIMIT_KG;
  const steps: Step[] = [];
  const add = (s: Partial<Step> & Pick<Step, 'id' | 'stage' | 'title' | 'why'>): string => {
    steps.push({ panels: [], joints: [], needs: [], tools: [], cautions: [], ...s });
    return s.id;
  };
  const guardsKind = (p: FoldedPanel, kind: string): boolean =>
    p.panel.guards.some(g => rig.components.some(c => c.id === g && c.kind === kind));
  const fuel = panels.some(p => guardsKind(p, 'fuel-tank'));
  const hot = rig.components.some(
    c => (c.surfaceC ?? 0) > 80 && panels.some(p => p.panel.guards.includes(c.id)),
  );
  const battery = rig.components.some(c => c.kind === 'battery');

  const kit = add({
    id: 'kit',
    stage: 'kit',
    title: 'Count the kit and try every bit',
    why: 'A missing bolt or the wrong bit is cheap on the bench and dear in the air.',
  });
  const lift = {
    ground: 'Raise it on stands',
    ramps: 'Drive it up the ramps',
    'two-post': 'Raise it on the lift',
  }[method.lift];
  const safety = add({
    id: 'safety',
    stage: 'safety',
    title: `${lift}, chock the wheels, battery off`,
    why: 'Everything after this is done under the vehicle.',
    needs: [kit],
    cautions: [
      CAUTIONS.stands,
      CAUTIONS.maker,
      ...(fuel ? [CAUTIONS.fuel] : []),
      ...(hot ? [CAUTIONS.hot] : []),
      ...(battery ? [CAUTIONS.voltage] : []),
    ],
  });
  const removed = rig.factoryParts.map(f =>
    add({
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
    }),
  );
  const inspect = add({
    id: 'inspect',
    stage: 'inspect',
    title: `Look at all ${count(joints.filter(j => j.mount).length, 'hole')}`,
    why: 'Run a bolt in by hand at each. Rust, a torn thread or a loose nut is mended now, not with a plate on your chest.',
    joints: joints.filter(j => j.mount).map(j => j.id),
    needs: [safety, ...removed],
  });

  const prepared = new Map<string, string[]>();
  const prepare = (j: ResolvedJoint, id: string): void => {
    for (const p of j.joint.panels) prepared.set(p, [...(prepared.get(p) ?? []), id]);
  };
  for (const j of joints) {
    const m = j.mount;
    if (!m || m.condition === 'good' || m.condition === 'blocked') continue;
    const newNut = needsNewNut(m);
    const title = newNut
      ? `Replace the nut at ${j.id} with a ${j.nut?.name ?? 'nut'} ${j.thread.size}`
      : `Clean the thread at ${j.id}, ${j.thread.designation}`;
    prepare(
      j,
      add({
        id: `repair-${j.id}`,
        stage: 'repair',
        title,
        why: newNut
          ? 'The captive nut turns or is gone: a bolt in it can be neither tightened nor taken out.'
          : 'A rusted thread takes the torque that should stretch the bolt.',
        joints: [j.id],
        needs: [inspect],
        tools: newNut
          ? [...j.tools.filter(t => t.includes('rivet nut')), ...j.drill.map(d => `drill ${drillName(d)}`)]
          : [`thread chaser ${j.thread.designation}`],
        cautions: newNut && j.drill.length > 0 ? [CAUTIONS.eyes] : [],
      }),
    );
  }
  const drillStep = (j: ResolvedJoint, needs: readonly string[]): string => {
    const behind = j.mount?.behind;
    const what = behind && rig.components.find(c => c.id === behind.component);
    return add({
      id: `drill-${j.id}`,
      stage: 'drill',
      title: `Drill ${j.id}: ${j.drill.map(drillName).join(', ')}`,
      why: what
        ? `Behind it: ${what.name}. Set a stop on the drill and go no deeper than the metal.`
        : method.drilling === 'template'
          ? 'The plate is the template; its neighbours are in, so the hole cannot wander.'
          : 'Marked through the plate, taken down, punched, piloted, drilled.',
      joints: [j.id],
      needs,
      tools: ['centre punch', ...j.drill.map(d => `drill ${drillName(d)}`)],
      cautions: [CAUTIONS.eyes, ...(what?.kind === 'fuel-tank' ? [CAUTIONS.fuel] : [])],
    });
  };
  const newHoles = joints.filter(j => j.mount?.hole.kind === 'drill' && j.drill.length > 0);
  if (method.drilling === 'mark-and-remove') for (const j of newHoles) prepare(j, drillStep(j, [inspect]));

  const early = joints.filter(j => j.joint.tightenBefore === 'hang');
  for (const j of early)
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
      }),
    );
  const loose = joints.filter(j => j.joint.tightenBefore !== 'hang');
  const own = new Map(panels.map(p => [p.panel.id, loose.filter(j => j.joint.panels[0] === p.panel.id)]));

  const { order, stuck } = hangingOrder(doc, panels);
  let before: string[] = [inspect];
  for (const p of [...order, ...stuck]) {
    const { id, mark, name } = p.panel;
    const mine = own.get(id) ?? [];
    const heavy = p.massKg > maxLift;
    const bench = add({
      id: `bench-${id}`,
      stage: 'bench',
      title: `Make plate ${mark} ready on the bench`,
      why: 'Deburr the holes, lay out its bolts and washers, grease what needs it: nothing is found by feel later.',
      panels: [id],
      joints: mine.map(j => j.id),
      needs: [kit],
      tools: [...new Set(mine.filter(j => j.joint.lube !== 'dry').map(j => j.joint.lube))],
    });
    const support = add({
      id: `support-${id}`,
      stage: 'support',
      title:
        heavy && method.people === 1
          ? `Jack under plate ${mark}, at its balance point`
          : `Bring plate ${mark} under the vehicle`,
      why: 'It balances where the map shows the jack.',
      panels: [id],
      needs: [bench, ...before, ...(prepared.get(id) ?? [])],
      tools: heavy ? ['jack with a wooden block'] : [],
      cautions: [...(heavy ? [CAUTIONS.heavy] : []), ...(guardsKind(p, 'fuel-tank') ? [CAUTIONS.fuel] : [])],
      jackAt: p.centroid,
    });
    const under = laps(doc)
      .filter(([, outer]) => outer === id)
      .map(([inner]) => inner);
    const hang = add({
      id: `hang-${id}`,
      stage: 'hang',
      title: `Raise plate ${mark}, ${name}, to its holes`,
      why:
        under.length > 0
          ? 'It laps over the outside of what already hangs: keep that edge above it.'
          : 'It goes up first here: the next plate laps over it.',
      panels: [id],
      needs: [support, ...under.map(u => `hang-${u}`)],
      cautions: heavy ? [CAUTIONS.heavy] : [],
    });
    if (mine.length === 0) {
      before = [hang];
      continue;
    }
    const start = add({
      id: `start-${id}`,
      stage: 'start',
      title: `Start ${count(mine.length, 'bolt')} of plate ${mark} by hand, all loose`,
      why: {
        'front-rear-centre': 'Front, then rear, then the middle: so it does not bind.',
        'rear-centre-first': 'The rear centre bolt first carries the plate while the rest find their holes.',
        'front-to-rear': 'From the front back, with the rear on the jack.',
        'rear-to-front': 'From the rear forward, with the front on the jack.',
      }[method.start],
      panels: [id],
      joints: startOrder(mine.map(spot), method.start),
      needs: [hang],
      tools: tools(mine, t => !isTorque(t)),
      cautions: [CAUTIONS.hand],
    });
    before = [start];
    if (method.drilling === 'template')
      for (const j of newHoles.filter(x => x.joint.panels[0] === id)) before = [drillStep(j, before)];
  }

  const rounds = PASS_SHARES.length;
  const last: string[] = [];
  for (const [g, group] of tiedGroups(doc, panels).entries()) {
    const ids = group.map(p => p.panel.id);
    const home = add({
      id: `home-${g + 1}`,
      stage: 'home',
      title: `Slide ${group.length > 1 ? 'plates' : 'plate'} ${marks(group)} home and centre ${group.length > 1 ? 'them' : 'it'}`,
      why: 'All bolts still loose: push it tight to its neighbour, equal left and right, before anything is tightened.',
      panels: ids,
      needs: [...before, ...ids.map(id => ((own.get(id) ?? []).length > 0 ? `start-${id}` : `hang-${id}`))],
    });
    let previous = [home];
    PASS_SHARES.forEach((share, i) => {
      const made: string[] = [];
      for (const p of group) {
        const mine = own.get(p.panel.id) ?? [];
        const settings = [...new Set(mine.map(j => Math.round(j.torqueNm * 10) / 10))].sort((a, b) => b - a);
        settings.forEach((nm, k) => {
          const same = mine.filter(j => Math.round(j.torqueNm * 10) / 10 === nm);
          const final = i === rounds - 1;
          const soft = same.some(j => j.nut?.kind === 'rivet nut' || j.nut?.kind === 'rivet-nut');
          made.push(
            add({
              id: `tighten-${p.panel.id}-${i + 1}${settings.length > 1 ? `-${k + 1}` : ''}`,
              stage: 'tighten',
              title: final
                ? `Plate ${p.panel.mark}: round again until nothing turns`
                : `Plate ${p.panel.mark}: tighten to ${Math.round(share * 100)} %`,
              why: final
                ? 'Each bolt loosens its neighbours a little: go round at full torque until none moves.'
                : 'From the middle out, side to side, so that the plate comes up flat.',
              panels: [p.panel.id],
              joints: tighteningOrder(same.map(spot)),
              torqueNm: share * (same[0]?.torqueNm ?? nm),
              pass: i + 1,
              passes: rounds,
              share,
              needs: [...previous],
              tools: tools(same, t => !isTorque(t)).concat(tools(same, isTorque)),
              cautions: [
                CAUTIONS.maker,
                ...(soft ? ['Rivet nut: stop if it turns without getting tighter.'] : []),
                ...(method.drive === 'impact-then-hand' || soft ? [CAUTIONS.noImpact] : []),
              ],
            }),
          );
        });
      }
      if (made.length > 0) previous = made;
    });
    last.push(...previous);
  }
  const check = add({
    id: 'check',
    stage: 'check',
    title: 'Push it, knock on it, turn the wheels lock to lock',
    why: 'No rattle, nothing touches a shaft, a line or the exhaust; every drain and filter can be reached.',
    panels: panels.map(p => p.panel.id),
    needs: last,
    cautions: hot ? [CAUTIONS.hot] : [],
  });
  add({
    id: 'finish',
    stage: 'finish',
    title: 'Touch up the paint, measure the fenders, note the first re-torque',
    why: 'Bolts settle: go round once more with the wrench after the first hard trip.',
    needs: [check],
    cautions: [CAUTIONS.estimate],
  });
  return inOrder(steps);
}
