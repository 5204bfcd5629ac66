import type { Component, RigOption, When } from '../rig';
import { type Extra, type Layout, part, raised } from './layout';
import type { Measures } from './measures';

const FOUR: When = { drivetrain: ['4wd'] };
const SIX: When = { engine: ['six'] };
const FOUR_CYLINDERS: When = { engine: ['four'] };
const NO_SLIDERS: When = { sliders: ['none'] };
const ENGINE: RigOption = {
  id: 'engine',
  name: 'Engine',
  choices: [
    { id: 'six', name: '6 cylinder' },
    { id: 'four', name: '4 cylinder' },
  ],
};
const SLIDERS: RigOption = {
  id: 'sliders',
  name: 'Sliders',
  choices: [
    { id: 'none', name: 'none' },
    { id: 'bolted', name: 'bolted to the frame' },
  ],
};
const DRIVE: RigOption = {
  id: 'drivetrain',
  name: 'Drive',
  choices: [
    { id: '2wd', name: 'two-wheel drive' },
    { id: '4wd', name: 'four-wheel drive' },
  ],
};

/** Ladder frame, engine ahead, gearbox and transfer case behind it in line. */
export function ladderFrame(m: Measures, tank: 'left' | 'center', lowered: boolean): Layout {
  const w = m.railOutside;
  const y = (f: number): number => Math.round(f * w);
  const gearFront = m.panRear + 10;
  const diffZ = m.tyreRadius - 75;
  const tankY: readonly [number, number] = tank === 'left' ? [y(-0.6), y(-0.18)] : [y(-0.3), y(0.3)];
  const still: Extra = { protect: false };
  const lowerChoice: When = { differential: ['lowered'] };
  const diffBox = (drop: number, id: string, when: When): Component =>
    part(
      id,
      'front-differential',
      'front differential',
      [-140, 160],
      [y(0.08), y(0.38)],
      [diffZ - drop, diffZ + 180],
      {
        keepOut: 15,
        when,
      },
    );
  return {
    components: [
      part(
        'pan',
        'engine',
        'oil pan',
        [m.panFront, m.panRear],
        [y(-0.24), y(0.05)],
        [m.panHeight, m.panHeight + 225],
        { when: SIX },
      ),
      part(
        'engine-front',
        'engine',
        'engine front',
        [m.panFront - 180, m.panFront - 5],
        [y(-0.24), y(0.24)],
        [m.panHeight + 65, m.panHeight + 560],
        { when: SIX },
      ),
      part(
        'pan-four',
        'engine',
        'oil pan',
        [m.panFront + 50, m.panRear],
        [y(-0.21), y(0.05)],
        [m.panHeight + 10, m.panHeight + 225],
        { when: FOUR_CYLINDERS },
      ),
      part(
        'engine-front-four',
        'engine',
        'engine front',
        [m.panFront - 120, m.panFront + 45],
        [y(-0.21), y(0.21)],
        [m.panHeight + 70, m.panHeight + 520],
        { when: FOUR_CYLINDERS },
      ),
      ...(lowered
        ? [
            diffBox(0, 'front-diff', { ...FOUR, differential: ['standard'] }),
            diffBox(12, 'front-diff-lowered', { ...FOUR, ...lowerChoice }),
          ]
        : [diffBox(0, 'front-diff', FOUR)]),
      part(
        'gearbox',
        'transmission',
        'transmission',
        [gearFront, m.gearboxRear],
        [y(-0.2), y(0.2)],
        [m.gearboxHeight, m.gearboxHeight + 270],
      ),
      part(
        'transfer',
        'transfer-case',
        'transfer case',
        [m.gearboxRear + 5, m.transferRear],
        [y(-0.35), y(0.21)],
        [m.transferHeight, m.transferHeight + 255],
        { when: FOUR },
      ),
      part(
        'converter',
        'catalytic-converter',
        'converter',
        [m.converterFront, m.converterRear],
        [y(0.27), y(0.415)],
        [m.converterHeight, m.converterHeight + 105],
        { surfaceC: 450 },
      ),
      part(
        'exhaust',
        'exhaust',
        'exhaust pipe',
        [m.converterRear + 5, m.wheelbase + 350],
        [y(0.31), y(0.4)],
        [m.exhaustHeight, m.exhaustHeight + 90],
        { ...still, surfaceC: 250, keepOut: 15 },
      ),
      part('tank', 'fuel-tank', 'fuel tank', [m.tankFront, m.tankRear], tankY, [
        m.tankHeight,
        m.tankHeight + 255,
      ]),
      part(
        'shaft-rear',
        'drive-shaft',
        'rear drive shaft',
        [m.transferRear + 5, m.wheelbase],
        tank === 'left' ? [-70, 70] : [y(-0.48), y(-0.34)],
        raised(Math.max(m.tyreRadius - 5, m.tankHeight + 25), 190),
        { ...still, moves: true, keepOut: 10 },
      ),
      part(
        'shaft-front',
        'drive-shaft',
        'front drive shaft',
        [170, m.gearboxRear],
        [y(-0.36), y(-0.25)],
        raised(Math.max(m.tyreRadius - 45, m.crossHeight + 25), 140),
        { ...still, moves: true, keepOut: 10, when: FOUR },
      ),
      part(
        'sway-bar',
        'sway-bar',
        'sway bar',
        [m.crossFrontX - 190, m.crossFrontX - 60],
        [y(-0.64), y(0.64)],
        [m.tyreRadius - 15, m.tyreRadius + 150],
        { ...still, moves: true, keepOut: 10 },
      ),
    ],
    servicePoints: [
      {
        id: 'oil-drain',
        kind: 'oil-drain',
        name: 'engine oil drain',
        at: [m.panRear - 170, y(-0.1), m.panHeight],
        opening: 50,
        component: 'pan',
        everyKm: 10000,
      },
      {
        id: 'oil-filter',
        kind: 'oil-filter',
        name: 'engine oil filter',
        at: [m.panFront + 100, y(-0.14), m.panHeight],
        opening: 100,
        component: 'pan',
        everyKm: 10000,
      },
      {
        id: 'gear-drain',
        kind: 'transmission-drain',
        name: 'transmission drain',
        at: [(gearFront + m.gearboxRear) / 2, 0, m.gearboxHeight],
        opening: 45,
        component: 'gearbox',
        everyKm: 60000,
      },
      {
        id: 'transfer-drain',
        kind: 'transfer-drain',
        name: 'transfer case drain',
        at: [(m.gearboxRear + m.transferRear) / 2, y(-0.07), m.transferHeight],
        opening: 45,
        component: 'transfer',
        everyKm: 60000,
        when: FOUR,
      },
      {
        id: 'tank-straps',
        kind: 'fuel-tank-straps',
        name: 'fuel tank straps',
        at: [(m.tankFront + m.tankRear) / 2, (tankY[0] + tankY[1]) / 2, m.tankHeight],
        opening: 150,
        component: 'tank',
      },
      {
        id: 'converter-view',
        kind: 'converter-view',
        name: 'converter inspection',
        at: [(m.converterFront + m.converterRear) / 2, y(0.342), m.converterHeight],
        opening: 60,
        component: 'converter',
        everyKm: 20000,
      },
    ],
    factoryParts: [
      {
        id: 'splash-shield',
        name: 'front splash shield, plastic',
        massKg: 2.1,
        at: [m.panFront + 50, 0, m.crossHeight - 20],
        fasteners: [
          { count: 6, head: 'hex', thread: 'M6x1' },
          { count: 3, head: 'push pin', thread: '' },
        ],
        reuseFasteners: false,
      },
      {
        id: 'stamped-skid',
        name: 'stamped engine skid',
        massKg: 4.3,
        at: [m.panFront + 140, 0, m.crossHeight - 30],
        fasteners: [{ count: 4, head: 'flange', thread: 'M8x1.25' }],
        reuseFasteners: false,
        when: FOUR,
      },
      {
        id: 'tank-skid',
        name: 'plastic tank shield',
        massKg: 2.6,
        at: [(m.tankFront + m.tankRear) / 2, (tankY[0] + tankY[1]) / 2, m.tankHeight - 10],
        fasteners: [{ count: 6, head: 'flange', thread: 'M8x1.25' }],
        reuseFasteners: false,
      },
    ],
    options: [
      ENGINE,
      DRIVE,
      SLIDERS,
      ...(lowered
        ? [
            {
              id: 'differential',
              name: 'Front differential',
              choices: [
                { id: 'standard', name: 'where it was' },
                { id: 'lowered', name: 'lowered 12 mm' },
              ],
            },
          ]
        : []),
    ],
    selected: {
      engine: 'six',
      drivetrain: '4wd',
      sliders: 'none',
      ...(lowered ? { differential: 'standard' } : {}),
    },
    crossings: [
      [m.crossFrontX, 75],
      [m.panRear + 30, 0],
      [m.gearboxRear + 40, 0],
      [Math.min(m.transferRear + 90, m.tankFront - 40), 0],
      ...(m.tankFront - 40 - (m.transferRear + 90) > 350 ? ([[m.tankFront - 40, 0]] as const) : []),
      [m.tankRear + 50, 0],
    ],
    holes: {
      kind: 'captive-nut',
      outer: 'M10x1.5',
      inner: 'M8x1.25',
      nutReach: 'none',
      side: 'through',
      taken: NO_SLIDERS,
    },
  };
}
