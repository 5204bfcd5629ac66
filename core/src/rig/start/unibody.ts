import { type Layout, part, raised } from './layout';
import type { Measures } from './measures';

/** Unibody, engine and gearbox side by side across the front. */
export function unibody(m: Measures): Layout {
  const w = m.railOutside;
  const y = (f: number): number => Math.round(f * w);
  const pipe: readonly [number, number] = [y(-0.08), y(0.08)];
  return {
    components: [
      part(
        'pan',
        'engine',
        'oil pan',
        [m.panFront, m.panRear],
        [y(-0.02), y(0.34)],
        [m.panHeight, m.panHeight + 260],
        { keepOut: 15 },
      ),
      part(
        'gearbox',
        'transmission',
        'transmission',
        [m.panFront + 30, m.gearboxRear],
        [y(-0.38), y(-0.05)],
        [m.gearboxHeight, m.gearboxHeight + 260],
        { keepOut: 15 },
      ),
      part(
        'turbo-pipe',
        'lines',
        'turbo pipe',
        [m.panFront - 110, m.panFront - 25],
        [y(0.05), y(0.3)],
        [m.panHeight + 5, m.panHeight + 80],
        { keepOut: 15, when: { turbo: ['pipe'] } },
      ),
      part(
        'converter',
        'catalytic-converter',
        'converter',
        [m.converterFront, m.converterRear],
        [y(-0.1), y(0.1)],
        [m.converterHeight, m.converterHeight + 90],
        { surfaceC: 420, keepOut: 15 },
      ),
      part(
        'exhaust',
        'exhaust',
        'exhaust pipe',
        [m.converterRear + 5, m.tankFront - 10],
        pipe,
        [m.exhaustHeight, m.exhaustHeight + 60],
        { protect: false, surfaceC: 220, keepOut: 15 },
      ),
      part(
        'tank',
        'fuel-tank',
        'fuel tank',
        [m.tankFront, m.tankRear],
        [y(-0.42), y(0.42)],
        [m.tankHeight, m.tankHeight + 200],
        { keepOut: 15 },
      ),
      part(
        'drive-shafts',
        'drive-shaft',
        'drive shafts, swept',
        [-60, 60],
        [y(-0.62), y(-0.4)],
        [m.tyreRadius - 80, m.tyreRadius + 80],
        { protect: false, moves: true, keepOut: 10 },
      ),
      part(
        'sway-bar',
        'sway-bar',
        'sway bar',
        [m.panRear + 110, m.panRear + 170],
        [y(-0.55), y(0.55)],
        raised(Math.max(m.panHeight + 70, m.tyreRadius - 20), 110),
        { protect: false, moves: true, keepOut: 10 },
      ),
    ],
    servicePoints: [
      {
        id: 'oil-drain',
        kind: 'oil-drain',
        name: 'engine oil drain',
        at: [m.panRear - 70, y(0.2), m.panHeight],
        opening: 50,
        component: 'pan',
        everyKm: 15000,
      },
      {
        id: 'oil-filter',
        kind: 'oil-filter',
        name: 'engine oil filter',
        at: [m.panFront + 80, y(0.12), m.panHeight],
        opening: 95,
        component: 'pan',
        everyKm: 15000,
      },
      {
        id: 'gear-drain',
        kind: 'transmission-drain',
        name: 'transmission drain',
        at: [(m.panFront + m.gearboxRear) / 2, y(-0.22), m.gearboxHeight],
        opening: 45,
        component: 'gearbox',
        everyKm: 80000,
      },
      {
        id: 'converter-view',
        kind: 'converter-view',
        name: 'converter inspection',
        at: [(m.converterFront + m.converterRear) / 2, 0, m.converterHeight],
        opening: 60,
        component: 'converter',
        everyKm: 30000,
      },
    ],
    factoryParts: [
      {
        id: 'under-tray',
        name: 'felt under-tray',
        massKg: 2.4,
        at: [m.panFront + 150, 0, m.crossHeight - 5],
        fasteners: [
          { count: 8, head: 'hex', thread: 'M6x1' },
          { count: 5, head: 'push pin', thread: '' },
        ],
        reuseFasteners: true,
      },
      {
        id: 'floor-covers',
        name: 'plastic floor covers, two',
        massKg: 1.9,
        at: [m.wheelbase / 2, 0, m.railHeight - 10],
        fasteners: [{ count: 10, head: 'hex', thread: 'M6x1' }],
        reuseFasteners: false,
        when: { skirts: ['with'] },
      },
    ],
    options: [
      {
        id: 'turbo',
        name: 'Turbo pipe',
        choices: [
          { id: 'none', name: 'none' },
          { id: 'pipe', name: 'low, ahead of the pan' },
        ],
      },
      {
        id: 'skirts',
        name: 'Side skirts',
        choices: [
          { id: 'with', name: 'with floor covers' },
          { id: 'without', name: 'without' },
        ],
      },
    ],
    selected: { turbo: 'none', skirts: 'with' },
    crossings: [
      [m.crossFrontX, 22],
      [Math.max(m.panRear, m.gearboxRear) + 60, 0],
      [m.converterFront - 50, 8],
      [m.converterRear + 60, 8],
      [m.tankFront - 50, 8],
      [m.tankRear + 50, 8],
    ],
    holes: { kind: 'captive-nut', outer: 'M8x1.25', inner: 'M6x1', nutReach: 'none', side: 'drill' },
  };
}
