import type { Component } from '../rig';
import { CAUTIONS } from './cautions';
import type { Job } from './job';

/** How a vehicle is raised and let down again, and what stands under it meanwhile. */
interface Raising {
  readonly up: string;
  readonly why: string;
  readonly ups: readonly string[];
  readonly down: string;
  readonly downs: readonly string[];
  readonly puts: readonly string[];
  readonly tools: readonly string[];
  readonly cautions: readonly string[];
  /** its wheels hang free: the steering can be turned without scrubbing them */
  readonly wheelsFree: boolean;
}

/** By `method.lift`. Common practice, no source; lifting points and jacking order are the vehicle maker's. */
export const RAISING: Readonly<Record<Job['doc']['plan']['method']['lift'], Raising>> = {
  ground: {
    up: 'Raise it on stands',
    why: 'Level, hard ground. Everything after this is done under it.',
    ups: [
      'In park or in gear, parking brake on, the wheels that stay on the ground chocked on both sides.',
      'Jack one end under the point its maker names, stands in pairs under theirs, and lower it onto them. Then the other end.',
      'Push it hard from the side. If it moves, set it again.',
    ],
    down: 'Take the stands away and let it down',
    downs: [
      'Check that nobody and nothing is under it.',
      'Jack one end, remove its stands, let it down slowly. Then the other end.',
      'Take the chocks away.',
    ],
    puts: ['stands', 'wheel chocks'],
    tools: ['jack', 'stands in pairs', 'wheel chocks'],
    cautions: [CAUTIONS.stands],
    wheelsFree: true,
  },
  ramps: {
    up: 'Drive it up the ramps',
    why: 'The wheels stay loaded, as it drives. Level ground, the ramps straight before the wheels.',
    ups: [
      'Drive up slowly with a helper who watches the wheels, and stop on the flat.',
      'In park or in gear, parking brake on, the wheels on the ground chocked on both sides.',
      'Push it from the side before you go under.',
    ],
    down: 'Drive it down off the ramps',
    downs: ['Check that nobody and nothing is under it.', 'Take the chocks away, and roll it down slowly.'],
    puts: ['ramps', 'wheel chocks'],
    tools: ['ramps', 'wheel chocks'],
    cautions: [CAUTIONS.ramps],
    wheelsFree: false,
  },
  'two-post': {
    up: 'Raise it on the lift',
    why: 'Work standing up; a transmission jack goes under the plates.',
    ups: [
      'Swing the arms under the points its maker names, pads turned up to touch, arm locks in.',
      'Raise it a hand\u2019s breadth, and shake it at both bumpers. If it moves, let it down and set it again.',
      'Raise it, and lower it onto the locks. All of them must have dropped in.',
    ],
    down: 'Let it down off the lift',
    downs: [
      'Check that nobody and nothing is under it.',
      'Raise it off the locks, release them, let it down, swing the arms out.',
    ],
    puts: ['lift'],
    tools: ['two-post lift'],
    cautions: [CAUTIONS.lift],
    wheelsFree: true,
  },
  side: {
    up: 'Tip it onto its side',
    why: 'The underside is in front of you at chest height. Only for a side-by-side whose maker does not forbid it.',
    ups: [
      'Tank nearly empty, cap shut, its vent closed or raised. Everything loose out of the bed.',
      'Old tires or mats on the side it comes down on, mirror and lamps clear of the ground.',
      'Tip it with helpers or a winch, slowly, and tie it to two anchors so that it can fall neither way.',
    ],
    down: 'Set it back on its wheels',
    downs: [
      'Nobody stands on either side of it. Let it down on straps or a winch, slowly.',
      'Let it stand a quarter of an hour, so that the oil runs back; check its level, the air box and the brake fluid.',
    ],
    puts: ['straps to two anchors', 'mats'],
    tools: ['straps or winch', 'mats or old tires'],
    cautions: [CAUTIONS.side, CAUTIONS.sideFluids],
    wheelsFree: false,
  },
};

const HOT = 80;
/** Room a hand with a ratchet takes beside a tire, mm: a guess. */
const ROOM = 60;
const TIRE_WIDTH = 260;
const CORNERS = [
  ['front left', 0, -1],
  ['front right', 0, 1],
  ['rear left', 1, -1],
  ['rear right', 1, 1],
] as const;

/** Parts hot enough to burn that a plate of the set guards. */
export const hotParts = (job: Pick<Job, 'rig' | 'panels'>): readonly Component[] =>
  job.rig.components.filter(
    c => (c.surfaceC ?? 0) > HOT && job.panels.some(p => p.panel.guards.includes(c.id)),
  );

/** Wheels that stand in the way of a bolt, by the corner they are at. */
function wheelsOff(job: Job): readonly { readonly corner: string; readonly joints: readonly string[] }[] {
  const { wheelbase, trackWidth, tyreRadius } = job.rig.rig;
  if (!RAISING[job.doc.plan.method.lift].wheelsFree) return [];
  return CORNERS.flatMap(([corner, axle, side]) => {
    const near = job.joints.filter(
      ({ at: [x, y] }) =>
        Math.abs(x - axle * wheelbase) < tyreRadius + ROOM &&
        Math.abs(y - (side * trackWidth) / 2) < TIRE_WIDTH / 2 + ROOM,
    );
    return near.length > 0 ? [{ corner, joints: near.map(j => j.id) }] : [];
  });
}

/** How much is undone again at the end, and after which step the work under the vehicle may begin. */
export interface Raised {
  /** what the work under the vehicle waits for */
  readonly under: readonly string[];
  /** brings everything back, in its order, after the steps given; gives the id of the last one */
  readonly lower: (needs: readonly string[]) => string;
}

/**
 * Makes the vehicle safe to work under: battery, raising, exhaust, wheels. What is put in place here is taken away again by `lower`.
 * `battery`: it is disconnected, since there is drilling, fuel or wiring in the work.
 */
export function raise(
  job: Job,
  needs: readonly string[],
  {
    battery = false,
    fuel = false,
    tag = '',
  }: { readonly battery?: boolean; readonly fuel?: boolean; readonly tag?: string } = {},
): Raised {
  const { add, rig, doc } = job;
  const way = RAISING[doc.plan.method.lift];
  const volts = rig.components.filter(c => c.highVoltage === true);
  const hot = hotParts(job);
  const lying = doc.plan.method.lift === 'side';
  // a battery spills when it is tipped: out before, back after
  const unplugged = battery || lying;
  const unplug = (after: readonly string[]): string =>
    add({
      id: `${tag}battery-off`,
      stage: 'safety',
      title: lying ? 'Take the battery out, negative first' : 'Disconnect the battery, negative first',
      why: lying
        ? 'Its acid runs out when it is tipped; and nobody starts it.'
        : 'A drill or a wrench that touches a live wire then makes no spark, and nobody starts it while you are under it.',
      needs: after,
      puts: ['battery disconnected'],
      tools: ['wrench for the battery terminal'],
    });
  const cool = (after: readonly string[]): string =>
    add({
      id: `${tag}cool`,
      stage: 'safety',
      title: 'Let the exhaust cool',
      why: `Your hands go past ${[...new Set(hot.map(c => c.name))].join(', ')}. After a drive that takes an hour.`,
      needs: after,
      cautions: [CAUTIONS.hot],
    });
  const up = (after: readonly string[]): string =>
    add({
      id: `${tag}safety`,
      stage: 'safety',
      title: way.up,
      why: way.why,
      hows: way.ups,
      needs: after,
      puts: way.puts,
      tools: way.tools,
      cautions: [
        ...way.cautions,
        CAUTIONS.maker,
        ...(fuel ? [CAUTIONS.fuel] : []),
        ...(volts.length > 0 ? [CAUTIONS.voltage] : []),
      ],
    });
  const order = [...(unplugged ? [unplug] : []), ...(hot.length > 0 ? [cool] : [])];
  let last = '';
  let after = needs;
  for (const step of lying ? [...order, up] : [up, ...order]) {
    last = step(after);
    after = [last];
  }
  const wheels = wheelsOff(job);
  for (const { corner, joints } of wheels)
    last = add({
      id: `${tag}wheel-off-${corner.replace(' ', '-')}`,
      whole: true,
      stage: 'safety',
      title: `Take the ${corner} wheel off`,
      why: 'It is in the way of the bolts on the map.',
      hows: [
        'Crack the lug nuts loose while the tire still touches the ground.',
        'Lay the wheel flat under the sill: a backup if it falls.',
      ],
      joints,
      needs: [last],
      puts: [`${corner} wheel off`],
      tools: ['socket for the lug nuts'],
    });
  return {
    under: [last],
    lower: after => {
      let here: readonly string[] = after;
      for (const { corner } of [...wheels].reverse())
        here = [
          add({
            id: `${tag}wheel-on-${corner.replace(' ', '-')}`,
            whole: true,
            stage: 'finish',
            title: `Put the ${corner} wheel back on`,
            why: `Lug nuts by hand first, then crosswise; the last of it on the ground, to the torque in the vehicle\u2019s manual. Again after ${job.units === 'inch' ? '30 miles' : '50 km'}.`,
            needs: here,
            takes: [`${corner} wheel off`],
            tools: ['socket for the lug nuts', 'torque wrench'],
            cautions: [CAUTIONS.maker],
          }),
        ];
      const plug = (needed: readonly string[]): string =>
        add({
          id: `${tag}battery-on`,
          stage: 'finish',
          title: lying ? 'Put the battery back, negative last' : 'Connect the battery again, negative last',
          why: 'Ground leads, plugs and line brackets that were loosened are back as well.',
          needs: needed,
          takes: ['battery disconnected'],
          tools: ['wrench for the battery terminal'],
        });
      if (unplugged && !lying) here = [plug(here)];
      const down = add({
        id: `${tag}let-down`,
        whole: true,
        stage: 'finish',
        title: way.down,
        why: 'Look once along it with a lamp: no tool, no rag is left.',
        hows: way.downs,
        needs: here,
        takes: way.puts,
        tools: way.tools.filter(t => t === 'jack'),
        cautions: way.cautions.slice(0, 1),
      });
      return unplugged && lying ? plug([down]) : down;
    },
  };
}
