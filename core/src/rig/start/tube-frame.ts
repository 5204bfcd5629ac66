import { type Layout, part } from './layout';
import type { Measures } from './measures';

/** Tube frame, engine behind the seats. */
export function tubeFrame(m: Measures): Layout {
  const w = m.railOutside;
  const y = (f: number): number => Math.round(f * w);
  return {
    components: [
      part(
        'front-diff',
        'front-differential',
        'front differential',
        [-120, 130],
        [y(-0.2), y(0.2)],
        [m.crossHeight + 24, m.crossHeight + 190],
      ),
      part(
        'battery',
        'battery',
        'battery',
        [m.tankFront - 40, m.tankFront + 200],
        [y(-0.42), y(-0.14)],
        [m.tankHeight + 10, m.tankHeight + 190],
        { keepOut: 15 },
      ),
      part(
        'tank',
        'fuel-tank',
        'fuel tank',
        [m.tankFront, m.tankRear],
        [y(0.1), y(0.44)],
        [m.tankHeight, m.tankHeight + 260],
      ),
      part(
        'pan',
        'engine',
        'engine sump',
        [m.panFront, m.panRear],
        [y(-0.3), y(0.3)],
        [m.panHeight, m.panHeight + 380],
      ),
      part(
        'gearbox',
        'transmission',
        'gearbox',
        [m.panRear + 10, m.gearboxRear],
        [y(-0.3), y(0.24)],
        [m.gearboxHeight, m.gearboxHeight + 240],
      ),
      part(
        'muffler',
        'exhaust',
        'muffler',
        [m.converterFront, m.converterRear],
        [y(-0.3), y(0.3)],
        [m.converterHeight, m.converterHeight + 160],
        { protect: false, surfaceC: 350, keepOut: 60 },
      ),
      part(
        'shaft-front',
        'drive-shaft',
        'front drive shaft',
        [140, m.panFront - 5],
        [y(-0.06), y(0.06)],
        [m.crossHeight + 30, m.crossHeight + 130],
        { protect: false, moves: true, keepOut: 10 },
      ),
    ],
    servicePoints: [
      {
        id: 'oil-drain',
        kind: 'oil-drain',
        name: 'engine oil drain',
        at: [(m.panFront + m.panRear) / 2, 0, m.panHeight],
        opening: 50,
        component: 'pan',
        everyKm: 1600,
      },
      {
        id: 'gear-drain',
        kind: 'transmission-drain',
        name: 'gearbox drain',
        at: [(m.panRear + m.gearboxRear) / 2, 0, m.gearboxHeight],
        opening: 45,
        component: 'gearbox',
        everyKm: 4000,
      },
      {
        id: 'diff-drain',
        kind: 'differential-drain',
        name: 'front differential drain',
        at: [0, 0, m.crossHeight + 24],
        opening: 40,
        component: 'front-diff',
        everyKm: 4000,
      },
    ],
    factoryParts: [
      {
        id: 'stock-skid',
        name: 'thin plastic skid, front',
        massKg: 1.6,
        at: [200, 0, m.crossHeight - 4],
        fasteners: [{ count: 14, head: 'button', thread: 'M6x1' }],
        reuseFasteners: false,
      },
      {
        id: 'stock-skid-rear',
        name: 'thin plastic skid, rear',
        massKg: 1.9,
        at: [m.panRear, 0, m.crossHeight - 4],
        fasteners: [{ count: 16, head: 'button', thread: 'M6x1' }],
        reuseFasteners: false,
      },
    ],
    options: [
      {
        id: 'seats',
        name: 'Seats',
        choices: [
          { id: 'two', name: 'two' },
          { id: 'four', name: 'four' },
        ],
      },
    ],
    selected: { seats: 'two' },
    crossings: [
      [m.crossFrontX, 0],
      [190, 0],
      [m.tankFront - 80, 0],
      [m.tankRear + 45, 0],
      [m.panFront - 30, 0],
      [m.panRear + 5, 0],
      [m.gearboxRear + 40, 0],
    ],
    holes: { kind: 'clip-nut', outer: 'M8x1.25', inner: 'M6x1', nutReach: 'none', side: 'drill' },
  };
}
