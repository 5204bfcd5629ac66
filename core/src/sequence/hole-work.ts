import {
  cutOf,
  drillingCard,
  drillName,
  goesRound,
  marksFirst,
  needsNewNut,
  nutSetting,
  type ResolvedJoint,
  setsNut,
  toolCode,
  toolName,
} from '../bolt';
import { formatLength, listed } from '../units';
import { CAUTIONS } from './cautions';
import { addTools, isFastFirst, type Job } from './job';
import type { Made } from './step';

/** What the vehicle needs at a joint before a bolt can be started there. */
export interface HoleWork {
  /** the hole is not there yet */
  readonly fresh: boolean;
  /** it is drilled through the plate that hangs before it */
  readonly inPlace: boolean;
  /** it is marked through the plate, which comes down again before it is drilled */
  readonly marked: boolean;
  /** a nut that turns, or a torn thread, has to come out */
  readonly oldNut: boolean;
  readonly drilled: boolean;
  /** a nut has to sit in it first */
  readonly setsNut: boolean;
  readonly chased: boolean;
  /** the vehicle's hole is there and sound, the plate's is drilled where that one marks it */
  readonly toFit: boolean;
}

/** A hole that an earlier phase made ready. */
const READY: HoleWork = {
  fresh: false,
  inPlace: false,
  marked: false,
  oldNut: false,
  drilled: false,
  setsNut: false,
  chased: false,
  toFit: false,
};

/**
 * What a joint's hole in the vehicle needs. Drilled in place is only what stays plain or cuts its own thread: a nut that is set from the
 * plate's side wants the plate down again. Common practice, no source.
 */
export function holeWork(
  job: Pick<Job, 'doc' | 'units'> & Partial<Pick<Job, 'fitted'>>,
  j: ResolvedJoint,
): HoleWork {
  if (job.fitted?.has(j.id)) return READY;
  const m = j.mount;
  const fresh = m?.hole.kind === 'drill' && !goesRound(j.joint);
  const inPlace =
    fresh &&
    !marksFirst(j) &&
    job.doc.plan.method.drilling === 'template' &&
    !isFastFirst(job.doc, j) &&
    j.joint.panels.length > 0;
  return {
    fresh,
    inPlace,
    marked: fresh && !inPlace,
    oldNut: !fresh && needsNewNut(m),
    drilled: j.drill.length > 0,
    setsNut: setsNut(j),
    chased: !fresh && m?.condition === 'rusted',
    toFit: m !== undefined && !fresh && j.joint.panels.length > 0 && cutOf(j, job.doc.plan.method) !== 'full',
  };
}

/** True where a bolt can be started as the vehicle stands: nothing is drilled, mended or set there. */
export const isReady = (w: HoleWork): boolean => !w.fresh && !w.oldNut && !w.setsNut && !w.toFit;

/** The moves of drilling alone, as the card has them, without marking. */
function drillMoves(job: Job, j: ResolvedJoint, inPlace: boolean, old: boolean): readonly string[] {
  const card = drillingCard(j, job.joints, job.doc.plan.method);
  const stop =
    card?.stopMm === undefined
      ? []
      : [`Set the stop on the drill to ${formatLength(card.stopMm, job.units, true)}.`];
  const bits = (card?.moves ?? []).filter(m => m.drills === 'member');
  return [
    ...(inPlace
      ? [
          'Snug the bolts on either side so that nothing shifts, and punch the middle through the plate\u2019s hole.',
        ]
      : // an old hole leads the drill by itself
        old
        ? []
        : ['Punch the middle of the mark.']),
    ...stop,
    ...bits.map(m => `${m.what}: ${toolName(m.tool ?? '', job.units)}.`),
    ...(inPlace
      ? ['Loosen the bolts until the plate hangs a finger low; blow the chips out from between.']
      : []),
    'Take the burr off both faces.',
    'Brush paint or cold zinc on the bare edge and let it touch-dry.',
  ];
}

/** Drills the hole of a joint; gives the id of the step. In place: the hanging plate is the template. */
export function drillStep(job: Job, j: ResolvedJoint, needs: readonly string[], inPlace: boolean): string {
  const behind = j.mount?.behind;
  const what = behind && job.rig.components.find(c => c.id === behind.component);
  const final = j.drill.at(-1) as number;
  const old = !inPlace && j.mount?.hole.kind !== 'drill';
  return job.add(
    {
      id: `drill-${j.id}`,
      stage: 'drill',
      title: old
        ? `Drill the hole at ${j.id} out to ${drillName(final, job.units)}`
        : `Drill ${j.id} to ${drillName(final, job.units)}`,
      why: what
        ? `Behind it: ${what.name}. Set a stop on the drill and go no deeper than the metal.`
        : inPlace
          ? 'The plate is the template; its neighbors are in, so the hole cannot wander.'
          : old
            ? 'The old hole leads the drill.'
            : 'At the mark, with the plate down and out of the way of the bit.',
      hows: drillMoves(job, j, inPlace, old),
      makes: ['hole', 'deburred', 'painted'],
      joints: [j.id],
      needs,
      tools: addTools(
        old ? [] : ['center punch'],
        j.drill.map(d => toolCode('drill', d)),
        ['deburring tool', 'cold zinc or paint'],
        behind ? ['drill stop'] : [],
      ),
      cautions: [CAUTIONS.eyes, ...(what?.kind === 'fuel-tank' ? [CAUTIONS.fuel] : [])],
    },
    j.drill.length,
  );
}

/** A step that sets the nuts of joints which are set alike, and proves each with its bolt. */
function nutsSet(
  job: Job,
  [j, ...more]: readonly [ResolvedJoint, ...ResolvedJoint[]],
  card: NonNullable<ReturnType<typeof nutSetting>>,
  needs: readonly string[],
): string {
  const all = [j, ...more].map(x => x.id);
  const what = `${card.kind}${more.length > 0 ? 's' : ''} ${j.thread.size} at ${listed(all)}`;
  return job.add(
    {
      id: `set-${j.id}`,
      stage: needsNewNut(j.mount) ? 'repair' : j.mount ? 'drill' : 'bench',
      title: `Set the ${what} and test ${more.length > 0 ? 'each' : 'it'}`,
      why:
        card.kind === 'threaded post' || card.kind === 'tube clamp'
          ? 'It stands there before its plate goes up: no loose spacer has to be held over its hole.'
          : 'It is tested now, by its own bolt: once the plate hangs, a nut that spins cannot be held.',
      hows: card.moves,
      makes: ['nut', 'proved'],
      joints: all,
      needs,
      tools: addTools(card.tools, j.head.tool ? [j.head.tool] : []),
      cautions: card.kind === 'welded tab' ? [CAUTIONS.weld] : [],
    },
    2 * all.length,
  );
}

/** Sets the nut of a joint and proves it with a bolt; the needs themselves where nothing is set. */
export function setNutStep(job: Job, j: ResolvedJoint, needs: readonly string[]): readonly string[] {
  const card = nutSetting(j, job.units);
  return card ? [nutsSet(job, [j], card, needs)] : needs;
}

/** Sets the nuts that lie between plates and brackets, those that are set alike in one go; gives the step by joint, of those that have one. */
export function setOnBench(
  job: Job,
  joints: readonly ResolvedJoint[],
  needs: (j: ResolvedJoint) => readonly string[],
): ReadonlyMap<string, string> {
  const alike = new Map<string, [ResolvedJoint, ...ResolvedJoint[]]>();
  for (const j of joints) {
    const card = nutSetting(j, job.units);
    if (!card) continue;
    const key = JSON.stringify([card, j.thread.size, j.head.tool]);
    const before = alike.get(key);
    if (before) before.push(j);
    else alike.set(key, [j]);
  }
  const out = new Map<string, string>();
  for (const group of alike.values()) {
    const card = nutSetting(group[0], job.units);
    if (!card) continue;
    const id = nutsSet(job, group, card, [...new Set(group.flatMap(needs))]);
    for (const j of group) out.set(j.id, id);
  }
  return out;
}

/** What a joint with a bad hole needs before anything is drilled: the old nut out, or the thread cleaned; the needs where it is sound. */
export function mendHole(
  job: Job,
  j: ResolvedJoint,
  work: HoleWork,
  needs: readonly string[],
): readonly string[] {
  if (!work.oldNut && !work.chased) return needs;
  const nut = j.nut?.name ?? 'nut';
  const makes: readonly Made[] = work.oldNut ? [] : ['proved'];
  const captive = j.mount?.hole.kind === 'captive-nut' || j.mount?.hole.kind === 'rivet-nut';
  return [
    job.add(
      {
        id: `repair-${j.id}`,
        stage: 'repair',
        title: work.oldNut
          ? `Take the broken nut out at ${j.id}`
          : `Clean the thread at ${j.id}, ${j.thread.designation}`,
        why: work.oldNut
          ? `It turns or its thread is gone: a bolt in it can be neither tightened nor taken out. A ${nut} ${j.thread.size} takes its place.`
          : 'On a rusted thread the torque goes into friction and the bolt is not stretched.',
        hows: work.oldNut
          ? [
              captive
                ? 'A nut that still holds a bolt: cut or drill the head off. Then chisel the nut loose or drill it out; catch what falls inside.'
                : 'Drill out what is left of the thread.',
              ...(work.setsNut
                ? []
                : [`See that the ${nut} can be held from behind, and that its face lies flat.`]),
              'Deburr and paint the bare metal.',
            ]
          : [
              'Wire brush, penetrating oil, and time.',
              `Run the chaser in by hand, half a turn back for every turn; no power tool.`,
              `Blow it out, then run the bolt in by hand for its whole length. If it binds, the thread counts as stripped: report it.`,
            ],
        makes: work.oldNut ? ['deburred', 'painted'] : makes,
        joints: [j.id],
        needs,
        tools: work.oldNut ? ['hammer and chisel'] : [`thread chaser ${j.thread.designation}`, 'wire brush'],
        cautions: work.oldNut ? [CAUTIONS.eyes] : [],
      },
      work.oldNut ? 2 : 0.5,
    ),
  ];
}
