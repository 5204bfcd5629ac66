import type { PresentRig, ServiceKind, ServicePoint } from '../rig';
import { CAUTIONS, type Step } from '../sequence';
import { formatVolume, type UnitSystem } from '../units';

/** One step of a service itself: without its place in the order. */
export type ServiceStep = Pick<Step, 'id' | 'title' | 'why'> &
  Partial<Pick<Step, 'hows' | 'tools' | 'cautions' | 'at' | 'asks'>>;

/** What a service is from its kind: done with the way open, and once the vehicle stands on the ground again. */
export interface ServiceJob {
  readonly open: readonly ServiceStep[];
  readonly after: readonly ServiceStep[];
}

const FILLS: Readonly<Partial<Record<ServiceKind, ServiceKind>>> = {
  'transmission-drain': 'transmission-fill',
  'transfer-drain': 'transfer-fill',
  'differential-drain': 'differential-fill',
};

/**
 * Points that belong to the same job: the filter with the oil where its interval is no longer than the oil\u2019s or is not known, the fill
 * plug with a drain. The nearest of their kind where there are several.
 */
export function doneWith(
  point: ServicePoint,
  rig: Pick<PresentRig, 'servicePoints'>,
): readonly ServicePoint[] {
  const near = (kind: ServiceKind): ServicePoint | undefined =>
    rig.servicePoints
      .filter(p => p.kind === kind)
      .sort(
        (a, b) =>
          Math.hypot(a.at[0] - point.at[0], a.at[1] - point.at[1]) -
          Math.hypot(b.at[0] - point.at[0], b.at[1] - point.at[1]),
      )[0];
  const fill = FILLS[point.kind];
  if (fill) return [near(fill)].filter(p => p !== undefined);
  if (point.kind !== 'oil-drain') return [];
  const filter = near('oil-filter');
  if (!filter) return [];
  const due =
    filter.everyKm === undefined || point.everyKm === undefined || filter.everyKm <= point.everyKm * 1.01;
  return due ? [filter] : [];
}

const CATCH = ['drain pan', 'gloves', 'rags'] as const;

/** What is filled in, in words: the amount entered, else what the manual says. */
const amount = (points: readonly (ServicePoint | undefined)[], units: UnitSystem): string => {
  const litres = points.find(p => p?.litres !== undefined)?.litres;
  return litres === undefined
    ? 'the amount in the vehicle\u2019s manual (enter it at the service point and it stands here)'
    : `${formatVolume(litres, units)}, as entered at the service point`;
};

function oil(point: ServicePoint, filter: ServicePoint | undefined, units: UnitSystem): ServiceJob {
  return {
    open: [
      {
        id: 'service-work',
        title: `${point.name}: drain the oil`,
        why: 'Warm oil drains better; do not scald your hands.',
        hows: [
          'Drain pan under the plug, the filler cap off.',
          'Crack the plug loose with its socket, turn it out by hand, pressed in until it is free.',
          'Let it run until it drips. Wipe the plug and its seat and look at both: chips, or a thread that comes out with it.',
          'New washer on the plug. In by hand, then to the torque in the vehicle\u2019s manual.',
        ],
        tools: [...CATCH, 'socket for the drain plug', 'new drain plug washer'],
        cautions: [CAUTIONS.hotOil, CAUTIONS.maker],
        at: point.at,
      },
      ...(filter
        ? [
            {
              id: 'service-filter',
              title: `${filter.name}: new filter`,
              why: 'It is due with the oil.',
              hows: [
                'Drain pan under it. Off with the filter wrench; see that its old ring came with it.',
                'Oil on the new ring, on by hand, then as far as it says on the filter. Its new rings where it is a cartridge.',
              ],
              tools: [...CATCH, 'filter wrench', 'new oil filter'],
              cautions: [CAUTIONS.hotOil],
              at: filter.at,
            },
          ]
        : []),
      {
        id: 'service-fill',
        title: 'Fill in new oil',
        why: `${amount([point, filter], units)}.`.replace(/^t/, 'T'),
        hows: [
          'Pour in nine tenths of it, wait, read the dipstick, and bring it up to between the marks.',
          'Cap on.',
        ],
        tools: ['engine oil of the grade in the manual', 'funnel'],
        cautions: [CAUTIONS.maker],
      },
      leaks('Start it, let the oil light go out, and run it for a minute.', point),
    ],
    after: [
      {
        id: 'service-level',
        title: 'Read the level again on level ground',
        why: 'Five minutes after it was stopped: the new filter has taken its share.',
        hows: [
          'Set the reminder for the next change. Take the old oil and the filter where they are taken back.',
        ],
        tools: ['rags'],
      },
    ],
  };
}

const leaks = (how: string, point: ServicePoint): ServiceStep => ({
  id: 'service-leaks',
  title: 'Look for leaks before anything is closed',
  why: 'A leak is easy to see now; later the plate hides it.',
  hows: [how, 'Look at every plug and seal that was touched, dry, with a lamp.'],
  tools: ['lamp'],
  cautions: [CAUTIONS.hot],
  at: point.at,
});

function gearOil(point: ServicePoint, fill: ServicePoint | undefined, units: UnitSystem): ServiceJob {
  const automatic = point.kind === 'transmission-drain';
  return {
    open: [
      {
        id: 'service-fill-plug',
        title: `Open ${fill ? fill.name : 'the fill plug'} first`,
        why: 'If it does not open, nothing is drained: what was let out could not be filled in again.',
        tools: ['socket or key for the fill plug', 'new washer'],
        ...(fill ? { at: fill.at } : {}),
      },
      {
        id: 'service-work',
        title: `${point.name}: drain it`,
        why: 'Measure what runs out: as much goes in again, unless the level was low.',
        hows: [
          'Drain pan with a scale under the plug; the plug out.',
          'Look at the magnet: a gray paste is wear, pieces are damage.',
          'New washer, plug in by hand, then to the torque in the vehicle\u2019s manual.',
        ],
        tools: [...CATCH, 'socket or key for the drain plug', 'new washer'],
        cautions: [CAUTIONS.hotOil, CAUTIONS.maker],
        at: point.at,
      },
      {
        id: 'service-fill',
        title: 'Fill it again',
        why: `${amount([point, fill], units)}.`.replace(/^t/, 'T'),
        hows: automatic
          ? [
              'Fill in what ran out. Engine on, brake held, once through all gears.',
              'The level is read at the oil temperature and in the way its maker names; filled up until it runs just over or stands at the mark.',
            ]
          : ['With a pump, until it runs over at the fill plug, the vehicle level.'],
        tools: ['fluid that the manual names', 'pump with a hose', ...(automatic ? ['thermometer'] : [])],
        cautions: [CAUTIONS.maker],
        ...(fill ? { at: fill.at } : {}),
      },
      leaks(
        automatic
          ? 'Run it warm, and through all gears once more.'
          : 'Turn the wheels or drive it in gear on the lift for a minute, if its maker allows it.',
        point,
      ),
    ],
    after: [],
  };
}

/** The work of a service from its kind, as a whole job; what the vehicle\u2019s maker says comes first. `also`: what is done with it. */
export function serviceJob(
  point: ServicePoint,
  also: readonly ServicePoint[],
  units: UnitSystem,
): ServiceJob {
  const maker = [CAUTIONS.maker];
  switch (point.kind) {
    case 'oil-drain':
      return oil(
        point,
        also.find(p => p.kind === 'oil-filter'),
        units,
      );
    case 'oil-filter':
      return {
        open: [
          {
            id: 'service-work',
            title: `${point.name}: new filter`,
            why: 'Some oil runs out with it: it is filled up afterwards.',
            hows: [
              'Drain pan under it. Off with the filter wrench; see that its old ring came with it.',
              'Oil on the new ring, on by hand, then as far as it says on the filter.',
            ],
            tools: [...CATCH, 'filter wrench', 'new oil filter'],
            cautions: [CAUTIONS.hotOil, ...maker],
            at: point.at,
          },
          {
            id: 'service-fill',
            title: 'Fill the oil up',
            why: 'What the old filter held is missing.',
            hows: ['Read the dipstick and bring it up to between the marks.'],
            tools: ['engine oil of the grade in the manual', 'funnel'],
          },
          leaks('Start it, let the oil light go out, and run it for a minute.', point),
        ],
        after: [],
      };
    case 'transmission-drain':
    case 'transfer-drain':
    case 'differential-drain':
      return gearOil(point, also[0], units);
    case 'transmission-fill':
    case 'transfer-fill':
    case 'differential-fill':
      return {
        open: [
          {
            id: 'service-work',
            title: `${point.name}: look at the level`,
            why: 'Level, and warm or cold as its maker names.',
            hows: [
              'Wipe round the plug, open it. A finger bent in finds the oil at the lower edge of the hole.',
              `Low: find where it went, then fill up; ${amount([point], units)} is the whole of it.`,
              'New washer, plug in by hand, then to the torque in the vehicle\u2019s manual.',
            ],
            tools: [
              'socket or key for the fill plug',
              'new washer',
              'fluid that the manual names',
              'pump with a hose',
              'rags',
            ],
            cautions: maker,
            at: point.at,
          },
          leaks('Drive a few yards, or run it in gear where its maker allows it.', point),
        ],
        after: [],
      };
    case 'fuel-tank-straps':
      return {
        open: [
          {
            id: 'service-work',
            title: `${point.name}: look at straps and bolts`,
            why: 'Mud between strap and tank holds water: the strap rusts from inside.',
            hows: [
              'Hold the tank before a strap bolt is touched: a jack with a wide board, or straps to the frame.',
              'Wash out what lies on the straps. Rust that flakes, or a strap thinner than it was: a new strap.',
              'Strap bolts to the torque in the vehicle\u2019s manual; what held the tank away, the tank watched.',
            ],
            tools: ['jack with a wide board or straps', 'water hose', 'torque wrench', 'lamp'],
            cautions: [CAUTIONS.fuel, ...maker],
            at: point.at,
          },
          leaks('Sniff, and look along every hose and seam of the tank.', point),
        ],
        after: [],
      };
    case 'converter-view':
      return {
        open: [
          {
            id: 'service-work',
            title: `${point.name}: look at the converter`,
            why: 'Its number is what an inspector wants to read, and what is written down before it is stolen.',
            hows: [
              'Number legible, welds whole, heat shields fast, no soot at a joint.',
              'Take a photo of the number for the log.',
            ],
            tools: ['lamp'],
            cautions: [CAUTIONS.hot, ...maker],
            at: point.at,
          },
        ],
        after: [],
      };
    case 'grease':
      return {
        open: [
          {
            id: 'service-work',
            title: `${point.name}: grease it`,
            why: 'Old grease out, new grease in; water goes with the old.',
            hows: [
              'Wipe the fitting clean, or sand goes in with the grease.',
              'Pump until clean grease shows at the seal; where it has a boot, until that just swells.',
              'Wipe off what stands over.',
            ],
            tools: ['grease gun', 'grease that the manual names', 'rags'],
            cautions: maker,
            at: point.at,
          },
        ],
        after: [],
      };
  }
}
