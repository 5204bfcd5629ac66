import { needsNewNut, type ResolvedJoint, removals } from '../bolt';
import { type Component, type FactoryPart, memberName } from '../rig';
import { CAUTIONS } from './cautions';
import { addTools, count, type Job, toolsOf } from './job';
import type { Bag } from './step';
import type { TankHold } from './tank';

/** Components that rest on a crossmember and come down with it. */
const ON_MEMBER = new Set(['engine', 'transmission', 'transfer-case']);

/** Where the fasteners of a factory part go, each kind in its own labeled bag. */
export function bagsOf(f: FactoryPart): readonly Bag[] {
  return removals(f).map((r, i) => ({
    label: `${f.name}: ${r.count} \u00d7 ${[r.head, r.thread].filter(Boolean).join(' ')}`,
    fate: !r.reusable ? 'discard' : f.reuseFasteners ? 'reuse' : 'keep',
    count: f.fasteners[i]?.count ?? r.count,
  }));
}

/** Takes a factory part off; `under`: the tank it shields, which is held up by then. */
export function removeStep(
  job: Job,
  f: FactoryPart,
  needs: readonly string[],
  under: TankHold | undefined,
): string {
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
        : 'Its holes are needed. Bag the fasteners in case it goes back on.',
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
      cautions: [...(under ? [CAUTIONS.fuel] : []), ...(ways.some(w => w.drilled) ? [CAUTIONS.eyes] : [])],
      bags,
      part: f.id,
      at: f.at,
    },
    bags.reduce((n, b) => n + b.count, 0),
  );
}

/** Holds up what hangs or rests on a factory part, before that comes off; gives the id of the step. */
export function holdCarried(job: Job, f: FactoryPart, what: Component, needs: readonly string[]): string {
  const fuel = what.kind === 'fuel-tank';
  return job.add({
    id: `support-part-${f.id}`,
    stage: 'support',
    title: `Hold up the ${what.name} before the ${f.name} comes off`,
    why: `The ${f.name} carries it. Mounts, hoses, lines and shafts are not made to.`,
    hows: fuel
      ? [
          'Two ratchet straps round it, rail to rail, a third of its length from each end; clear of hoses and wires.',
          'Snug, not crushing.',
        ]
      : [
          'A jack with a wide board under its case or pan where its maker lifts it: no filter, sensor or seam on the board.',
          'Raise it until the mount just lifts, and no further.',
          'A stand beside the jack, close under the board: a jack alone sinks.',
        ],
    needs,
    puts: [heldBy(what)],
    tools: fuel ? ['two ratchet straps'] : ['jack with a wide board', 'stand'],
    cautions: [CAUTIONS.stands, CAUTIONS.maker, ...(fuel ? [CAUTIONS.fuel] : [])],
    at: f.at,
  });
}
const heldBy = (what: Component): string =>
  what.kind === 'fuel-tank' ? `straps under the ${what.name}` : `jack under the ${what.name}`;

/** Lets down what was held, onto what took the place of the factory part; with nothing there the part goes back first. */
export function releaseCarried(
  job: Job,
  f: FactoryPart,
  what: Component,
  onto: string | undefined,
  needs: readonly string[],
): string {
  return job.add({
    id: `release-part-${f.id}`,
    stage: 'support',
    title: onto
      ? `Let the ${what.name} down onto the ${onto}`
      : `Bolt the ${f.name} back under the ${what.name}, then let it down`,
    why: onto
      ? `The ${onto} carries it from now on.`
      : `Nothing in this plan carries the ${what.name} in its place.`,
    hows: [
      'Start the bolts of its mounts by hand while it still hangs; then let it down a finger’s width at a time.',
      'Mounts to the vehicle maker’s torque, with its weight on them.',
    ],
    needs,
    takes: [heldBy(what)],
    tools: ['torque wrench'],
    cautions: [CAUTIONS.maker],
    at: f.at,
  });
}

/** Looks at the holes that are there, and at what lies round them. */
export function inspectStep(
  job: Job,
  id: string,
  there: readonly ResolvedJoint[],
  needs: readonly string[],
): string {
  return job.add(
    {
      id,
      stage: 'inspect',
      title: `Inspect all ${count(there.length, 'hole')} used${id === 'inspect' ? '' : ' under the shield'}`,
      why: 'Fix rust, bad threads and loose nuts before a plate goes up.',
      hows: [
        'Run a bolt in by hand at each. Report what binds or keeps turning.',
        'A lip that was pushed up holds a plate off its holes: press or hammer it straight over a block. Replace a crushed crossmember.',
        'Check above for contact marks, leaks and loose straps.',
      ],
      joints: there.map(j => j.id),
      needs,
      tools: addTools(toolsOf(there, ['head']).slice(0, 3), ['hammer and block', 'lamp']),
    },
    there.length,
  );
}

/** Only where a crossmember comes down for its nut: what rests on it is held up first. */
export function drivetrain(job: Job, j: ResolvedJoint, needs: readonly string[]): readonly string[] {
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
