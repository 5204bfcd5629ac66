import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import { CAUTIONS } from './cautions';
import { laps } from './hang-order';
import { supportOf } from './jack';
import { count, guardsKind, isHeavy, isTorque, type Job, marksOf, spotOf, toolsOf } from './job';
import { startOrder, tighteningOrder } from './order';
import { drillStep } from './prepare-steps';

/** Shares of the full torque in the rounds of tightening, the last one until nothing turns (ASME PCC-1). */
export const PASS_SHARES = [0.3, 0.6, 1, 1] as const;

/** Nut elements that an impact wrench strips before it is noticed: common practice, no source. */
const SOFT = new Set(['rivet nut', 'rivet-nut', 'clip', 'clip nut', 'spring', 'clinch', 'weld-tab']);
/** An assembly wider than this, mm, or of more than one plate is pulled askew from one corner: common practice, no source. */
const WIDE = 900;

export const isSoft = (j: ResolvedJoint): boolean => j.nut !== undefined && SOFT.has(j.nut.kind);

/** What the plates of a group have in common while they go up. */
export interface GroupAsked {
  /** joints that are started and tightened with each plate, by plate */
  readonly own: ReadonlyMap<string, readonly ResolvedJoint[]>;
  /** steps a plate waits for besides those of its group, by plate */
  readonly waits: (panelId: string) => readonly string[];
  /** what the first plate of the group waits for */
  readonly before: readonly string[];
  /** a suffix to every id, so that a group can go up more than once in a list */
  readonly tag?: string;
}

function why(job: Job): string {
  return {
    'front-rear-centre': 'Front, then rear, then the middle: so it does not bind.',
    'rear-centre-first': 'The rear centre bolt first carries the plate while the rest find their holes.',
    'front-to-rear': 'From the front back, with the rear on the jack.',
    'rear-to-front': 'From the rear forward, with the front on the jack.',
  }[job.doc.plan.method.start];
}

/** Density of petrol, kg a litre (EN 228, 720 to 775 kg/m³; from memory). */
export const PETROL = [0.72, 0.775] as const;

/** What fuel in a tank weighs, in words; what jack and straps hold beside the tank itself. */
export function fuelWords(litres: number | undefined): string {
  if (litres === undefined)
    return 'Run it nearly empty first: a litre of fuel weighs some three quarters of a kilogram.';
  const [low, high] = PETROL.map(d => Math.round(d * litres));
  const tenth = Math.round((PETROL[1] * litres) / 10);
  return `Full, its ${litres} l weigh ${low} to ${high} kg; run down to a tenth, ${tenth} kg and the tank itself, which jack and straps share.`;
}

/** A tank that hangs by its straps is held before one of them is touched. */
function tankStep(job: Job, p: FoldedPanel, needs: readonly string[], tag: string): readonly string[] {
  const tank = job.rig.components.find(c => c.kind === 'fuel-tank' && p.panel.guards.includes(c.id));
  const straps = job.rig.servicePoints.some(s => s.kind === 'fuel-tank-straps' && s.component === tank?.id);
  if (!tank || !straps) return needs;
  return [
    job.add({
      id: `support-tank-${p.panel.id}${tag}`,
      stage: 'support',
      title: `Hold up the ${tank.name} before any of its bolts is touched`,
      why: `${fuelWords(tank.litres)} A jack with a wide board under its middle and a ratchet strap at each end; then one bolt at a time, the new one in before the next comes out.`,
      panels: [p.panel.id],
      needs,
      tools: ['jack with a wide board', 'ratchet strap'],
      cautions: [CAUTIONS.fuel, CAUTIONS.stands],
    }),
  ];
}

/**
 * The steps that bring a group of tied plates up and make it fast: each plate supported, raised and started, all of them slid home, then
 * tightened in rounds that go over every plate of the group before the next begins. `group` is in the order of hanging. Gives back the
 * ids of the last round.
 */
export function groupSteps(
  job: Job,
  group: readonly FoldedPanel[],
  name: string,
  { own, waits, before, tag = '' }: GroupAsked,
): readonly string[] {
  const { add, doc, joints } = job;
  const { method } = doc.plan;
  const inGroup = (id: string): boolean => group.some(p => p.panel.id === id);
  let last = before;
  for (const p of group) {
    const { id, mark } = p.panel;
    const mine = own.get(id) ?? [];
    const heavy = isHeavy(job, p);
    const order = startOrder(mine.map(spotOf), method.start);
    const first = order
      .slice(0, 2)
      .flatMap(x => mine.filter(j => j.id === x))
      .map(spotOf);
    const held = tankStep(job, p, last, tag);
    const support = add({
      id: `support-${id}${tag}`,
      stage: 'support',
      title:
        heavy && method.people === 1
          ? `Jack under plate ${mark}, at its balance point`
          : `Bring plate ${mark} under the vehicle`,
      why: 'It balances where the map shows the jack.',
      panels: [id],
      needs: [...held, ...waits(id)],
      tools: heavy ? ['jack with a wooden block'] : [],
      cautions: [
        ...(heavy ? [CAUTIONS.heavy] : []),
        ...(guardsKind(job, p, 'fuel-tank') ? [CAUTIONS.fuel] : []),
      ],
      support: supportOf(p, first),
      people: heavy ? 2 : 1,
    });
    const under = laps(doc)
      .filter(([inner, outer]) => outer === id && inGroup(inner))
      .map(([inner]) => inner);
    const hang = add({
      id: `hang-${id}${tag}`,
      stage: 'hang',
      title: `Raise plate ${mark}, ${p.panel.name}, to its holes`,
      why:
        under.length > 0
          ? 'It laps over the outside of what already hangs: keep that edge above it.'
          : 'It goes up first here: the next plate laps over it.',
      panels: [id],
      needs: [support, ...under.map(u => `hang-${u}${tag}`)],
      cautions: heavy ? [CAUTIONS.heavy] : [],
      people: heavy ? 2 : 1,
    });
    last = [hang];
    if (mine.length === 0) continue;
    const start = add(
      {
        id: `start-${id}${tag}`,
        stage: 'start',
        title: `Start ${count(mine.length, 'bolt')} of plate ${mark} by hand, all loose`,
        why: why(job),
        panels: [id],
        joints: order,
        needs: [hang],
        tools: toolsOf(mine, t => !isTorque(t)),
        cautions: [CAUTIONS.hand],
        impact: 'never',
      },
      mine.length,
    );
    last = [start];
    if (tag === '' && method.drilling === 'template')
      for (const j of joints)
        if (j.mount?.hole.kind === 'drill' && j.drill.length > 0 && j.joint.panels[0] === id)
          last = [drillStep(job, j, last)];
  }

  const several = group.length > 1;
  const home = add({
    id: `home-${name}${tag}`,
    stage: 'home',
    title: `Slide ${several ? 'plates' : 'plate'} ${marksOf(group)} home and centre ${several ? 'them' : 'it'}`,
    why: 'All bolts still loose: push it tight to its neighbour, equal left and right, before anything is tightened.',
    panels: group.map(p => p.panel.id),
    needs: [
      ...last,
      ...group.map(p =>
        (own.get(p.panel.id) ?? []).length > 0 ? `start-${p.panel.id}${tag}` : `hang-${p.panel.id}${tag}`,
      ),
    ],
  });
  const all = group.flatMap(p => own.get(p.panel.id) ?? []);
  const ys = all.map(j => j.at[1]);
  const wide = several || Math.max(...ys) - Math.min(...ys) > WIDE;
  const rounds = PASS_SHARES.length;
  let previous: readonly string[] = [home];
  PASS_SHARES.forEach((share, i) => {
    const made: string[] = [];
    for (const p of group) {
      const mine = own.get(p.panel.id) ?? [];
      const settings = [...new Set(mine.map(j => Math.round(j.torqueNm * 10) / 10))].sort((a, b) => b - a);
      settings.forEach((nm, k) => {
        const same = mine.filter(j => Math.round(j.torqueNm * 10) / 10 === nm);
        const final = i === rounds - 1;
        const soft = same.some(isSoft);
        const never = method.drive === 'hand-only' || soft || wide || i > 0;
        made.push(
          add(
            {
              id: `tighten-${p.panel.id}-${i + 1}${settings.length > 1 ? `-${k + 1}` : ''}${tag}`,
              stage: 'tighten',
              title: final
                ? `Plate ${p.panel.mark}: round again until nothing turns`
                : `Plate ${p.panel.mark}: tighten to ${Math.round(share * 100)} %`,
              why: final
                ? 'Each bolt loosens its neighbours a little: go round at full torque until none moves.'
                : several
                  ? `From the middle out, side to side, and plates ${marksOf(group)} in turn: pulled up at one corner the other side goes off.`
                  : 'From the middle out, side to side, so that the plate comes up flat.',
              panels: [p.panel.id],
              joints: tighteningOrder(same.map(spotOf)),
              torqueNm: share * (same[0]?.torqueNm ?? nm),
              pass: i + 1,
              passes: rounds,
              share,
              needs: previous,
              tools: toolsOf(same, t => !isTorque(t)).concat(toolsOf(same, isTorque)),
              cautions: [
                CAUTIONS.maker,
                ...(soft ? ['Rivet nut: stop if it turns without getting tighter.'] : []),
                ...(method.drive === 'impact-then-hand' || soft ? [CAUTIONS.noImpact] : []),
              ],
              impact: never ? 'never' : 'run-in',
            },
            same.length,
          ),
        );
      });
    }
    if (made.length > 0) previous = made;
  });
  return previous;
}
