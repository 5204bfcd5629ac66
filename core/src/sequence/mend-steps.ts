import { HAND_TOOLS, type ResolvedJoint, repairOptions, toolsFor } from '../bolt';
import type { FoldedPanel } from '../fold';
import type { PresentRig } from '../rig';
import { CAUTIONS } from './cautions';
import { faultName } from './fault-kinds';
import { type BoltFault, mendedId } from './faults';
import type { Step } from './step';

/** What a repair is made for. */
export interface Mended {
  readonly rig: PresentRig;
  readonly panels: readonly FoldedPanel[];
  readonly joints: readonly ResolvedJoint[];
}

const MINUTES = 10;

/** What a repair is of each fault, move by move; common practice, no source. */
function moves(
  j: ResolvedJoint,
  fault: BoltFault['fault'],
  of: Mended,
): readonly Pick<Step, 'title' | 'why' | 'hows' | 'tools' | 'cautions'>[] {
  const soft = j.nut?.kind === 'rivet-nut';
  const out = {
    title: `Take the bolt out at ${j.id}`,
    why: 'Its neighbors stay in; where the nut sits behind the plate, this end comes away a hand\u2019s width.',
    hows: [
      'Hold the plate at this end: a jack with a block under it, or a helper.',
      'Back the bolt out by hand tools. If the nut turns with it: hold its flange with locking pliers through the gap, or cut the head off.',
      'Loosen the bolts next to it until the plate hangs clear of the hole.',
    ],
    tools: [...toolsFor(j, HAND_TOOLS), 'jack with a wooden block', 'locking pliers'],
    cautions: [CAUTIONS.eyes],
  };
  const newBolt = {
    title: `Put a new bolt in at ${j.id}`,
    why: 'Throw away a bolt that was stretched or cross-threaded.',
    hows: [
      `Same size and length: ${j.parts.find(p => p.kind === 'bolt')?.name ?? j.thread.designation}.`,
      'Look at the thread: was it oiled where it should be dry? Oil lowers the friction and stretches the next one too.',
      'Run it in by hand for five turns. If it binds, chase the thread first; if it then turns through, report it as stripped.',
    ],
    tools: [`thread chaser ${j.thread.designation}`],
    cautions: [],
  };
  if (fault === 'skipped') return [];
  if (fault === 'stretched') return [{ ...out, hows: out.hows.slice(1, 2) }, newBolt];
  if (fault === 'cross-threaded')
    return [
      { ...out, hows: ['Back it out slowly by hand; oil helps. Look at both threads.'] },
      {
        title: `Clean the thread at ${j.id}, ${j.thread.designation}`,
        why: 'The first turns are crushed; below them the thread may be sound.',
        hows: [
          'Run a chaser in by hand, square to the plate, half a turn back for every turn.',
          'If it does not catch, report it as stripped.',
        ],
        tools: [`thread chaser ${j.thread.designation}`],
        cautions: [],
      },
      newBolt,
    ];
  const sheared =
    fault === 'sheared'
      ? [
          {
            title: `Get the sheared bolt out at ${j.id}`,
            why: 'What is left in the thread holds nothing.',
            hows: [
              'If it stands out: oil, time, locking pliers. A nut welded on is for a shop.',
              'If not: center punch, left-hand drill, extractor; never past the metal behind.',
              'If the thread is gone with it, it is repaired as a stripped one: below.',
            ],
            tools: ['center punch', 'left-hand drill and extractor'],
            cautions: [CAUTIONS.eyes],
          },
        ]
      : [out];
  if (soft)
    return [
      ...sheared,
      {
        title: `Drill the rivet nut out at ${j.id}`,
        why: 'It spins or its thread is gone. The hole must stay round for the next one.',
        hows: [
          'Hold its flange with locking pliers. Drill just the flange off with a bit of the body\u2019s size, slowly.',
          'Push the body through; fish it out of the member, or it rattles there.',
          'Deburr both faces, look at the hole: round and of its size, or it takes the next size up.',
        ],
        tools: ['drill', 'locking pliers', 'deburring tool'],
        cautions: [CAUTIONS.eyes],
      },
      {
        title: `Set a new rivet nut at ${j.id}, the next size up where the hole is worn, or a nut plate`,
        why: 'The same size only in a hole that is still tight for it.',
        hows: [
          'Grip range read on its packet, held square, flange flush, pulled until it firms up, then stop.',
          'Bare metal painted first.',
          'Test it: its bolt in by hand for five turns, snugged; the nut must not turn.',
        ],
        tools: ['rivet nut setting tool', 'cold zinc or paint'],
        cautions: [],
      },
    ];
  const stripped: PresentRig = {
    ...of.rig,
    mounts: of.rig.mounts.map(m => (m.id === j.mount?.id ? { ...m, condition: 'stripped' } : m)),
  };
  const mount = j.mount && { ...j.mount, condition: 'stripped' as const };
  const best = mount && repairOptions({ ...j, mount }, stripped, of.panels).find(o => o.id !== 'weld-tab');
  return [
    ...sheared,
    {
      title: best ? `${best.name} at ${j.id}` : `Give the bolt at ${j.id} a thread that holds`,
      why: best
        ? `It has ${Math.round(best.ofOriginal * 100)} % of the strength of a sound hole (estimate).`
        : 'A new nut behind, the next size up, or a thread insert.',
      hows: [
        best?.how ?? 'Whatever is set: square, flush, deburred, painted.',
        'Test it: a bolt in by hand for five turns, snugged; nothing may turn with it.',
      ],
      tools: best?.adds ?? [],
      cautions: [CAUTIONS.eyes, ...(best?.caution ? [best.caution] : [])],
    },
  ];
}

/**
 * The repair of a bolt that is not sound, as steps; the last one brings it to where the others stand and makes it sound again. `where`: the
 * step in which it was reported. Common practice, no source.
 */
export function mendSteps(fault: BoltFault, where: Step, of: Mended): readonly Step[] {
  const j = of.joints.find(x => x.id === fault.joint);
  if (!j) return [];
  const nm = where.torques?.[j.id];
  const base = {
    stage: 'repair',
    panels: where.panels,
    joints: [j.id],
    people: 1,
    minutes: MINUTES,
    mends: j.id,
  } as const;
  const made = moves(j, fault.fault, of).map(
    (m, i): Step => ({
      ...base,
      ...m,
      id: `mend-${j.id}-${fault.n}-${i + 1}`,
      needs: i === 0 ? [] : [`mend-${j.id}-${fault.n}-${i}`],
    }),
  );
  const last: Step = {
    ...base,
    id: mendedId(j.id, fault.n),
    title:
      nm === undefined
        ? `Start ${j.id} by hand again`
        : `Start ${j.id} by hand and bring it to the torque of the others`,
    why: `It was reported: ${faultName(fault.fault).toLowerCase()}. Once done here, it counts as sound again.`,
    needs: made.slice(-1).map(s => s.id),
    tools: toolsFor(j, [...HAND_TOOLS, 'torque']),
    cautions: [CAUTIONS.hand, CAUTIONS.maker],
    takes: [],
    ...(nm === undefined
      ? {}
      : {
          torqueNm: nm,
          torques: { [j.id]: nm },
          pass: where.pass,
          passes: where.passes,
          share: where.share,
        }),
  };
  return [...made, last];
}
