import type { Body } from '../rig';

export const MEASURE_IDS = [
  'wheelbase',
  'tyreRadius',
  'trackWidth',
  'frontOverhang',
  'rearOverhang',
  'frontAxleKg',
  'rearAxleKg',
  'railHeight',
  'railOutside',
  'crossHeight',
  'crossFrontX',
  'panFront',
  'panRear',
  'panHeight',
  'gearboxRear',
  'gearboxHeight',
  'transferRear',
  'transferHeight',
  'tankFront',
  'tankRear',
  'tankHeight',
  'converterFront',
  'converterRear',
  'converterHeight',
  'exhaustHeight',
] as const;
export type MeasureId = (typeof MEASURE_IDS)[number];
/** What was taken with a tape, mm (kg for the axles), by measure. */
export type Measures = Readonly<Record<MeasureId, number>>;

/** Typical value and the range that is still plausible. */
export type Spread = readonly [typical: number, least: number, most: number];

export interface Measure {
  readonly id: MeasureId;
  readonly name: string;
  /** where the tape goes */
  readonly how: string;
  /** what changes with it */
  readonly drives: string;
  readonly unit: 'mm' | 'kg';
  readonly view: 'side' | 'below' | 'scales';
  /** by body; a body that has no such part has no such measure */
  readonly of: Partial<Readonly<Record<Body, Spread>>>;
}

/** Twelve numbers that are enough for a first set of plates; the others may wait. Common practice, no source. */
export const FIRST_MEASURES: ReadonlySet<MeasureId> = new Set([
  'wheelbase',
  'tyreRadius',
  'railHeight',
  'railOutside',
  'crossHeight',
  'crossFrontX',
  'panFront',
  'panRear',
  'panHeight',
  'gearboxRear',
  'gearboxHeight',
  'tankHeight',
]);

const axle = 'back from the front axle center; negative if ahead of it';
const ground = 'straight up from the floor';

/** The measuring sheet. Typical values and ranges are common practice, no source: a tape knows better. */
export const MEASURES: readonly Measure[] = [
  {
    id: 'wheelbase',
    name: 'Wheelbase',
    how: 'front axle center to rear axle center, along the floor',
    drives: 'axle loads, breakover angle, all lengths',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [3220, 2600, 4300],
      suv: [2790, 2300, 3300],
      car: [2640, 2300, 3100],
      'side-by-side': [2260, 1800, 3200],
    },
  },
  {
    id: 'tyreRadius',
    name: 'Axle height',
    how: 'floor to the axle’s center, tires at their pressure, vehicle standing',
    drives: 'approach, breakover and departure angles',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [375, 310, 480],
      suv: [395, 310, 480],
      car: [305, 270, 360],
      'side-by-side': [345, 270, 430],
    },
  },
  {
    id: 'trackWidth',
    name: 'Track',
    how: 'middle of the left front tire to middle of the right one',
    drives: 'side to side balance, the map',
    unit: 'mm',
    view: 'below',
    of: {
      truck: [1600, 1350, 1850],
      suv: [1610, 1350, 1850],
      car: [1540, 1350, 1700],
      'side-by-side': [1390, 1100, 1700],
    },
  },
  {
    id: 'frontOverhang',
    name: 'Front overhang',
    how: 'front axle’s center to the foremost low point',
    drives: 'approach angle',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [900, 600, 1200],
      suv: [860, 600, 1150],
      car: [880, 650, 1100],
      'side-by-side': [430, 200, 700],
    },
  },
  {
    id: 'rearOverhang',
    name: 'Rear overhang',
    how: 'rear axle’s center to the rearmost low point',
    drives: 'departure angle',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [1150, 700, 1600],
      suv: [1000, 650, 1400],
      car: [950, 650, 1200],
      'side-by-side': [420, 200, 800],
    },
  },
  {
    id: 'frontAxleKg',
    name: 'Front axle load',
    how: 'both front wheels on scales, or from the papers',
    drives: 'axle loads, the load a plate is struck with',
    unit: 'kg',
    view: 'scales',
    of: {
      truck: [1120, 700, 2000],
      suv: [1180, 700, 1900],
      car: [830, 500, 1300],
      'side-by-side': [300, 150, 700],
    },
  },
  {
    id: 'rearAxleKg',
    name: 'Rear axle load',
    how: 'both rear wheels on scales, or from the papers',
    drives: 'axle loads, the load a plate is struck with',
    unit: 'kg',
    view: 'scales',
    of: {
      truck: [860, 550, 1800],
      suv: [1020, 600, 1700],
      car: [560, 400, 1100],
      'side-by-side': [410, 200, 900],
    },
  },
  {
    id: 'railHeight',
    name: 'Rail underside',
    how: `${ground} to the underside of the frame rail, sill or side tube, mid-wheelbase`,
    drives: 'where side bolts are',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [430, 300, 620],
      suv: [470, 300, 640],
      car: [190, 140, 280],
      'side-by-side': [330, 220, 480],
    },
  },
  {
    id: 'railOutside',
    name: 'Across the rails',
    how: 'outer face to outer face, mid-wheelbase',
    drives: 'widths of plates, side holes',
    unit: 'mm',
    view: 'below',
    of: {
      truck: [940, 780, 1100],
      suv: [960, 800, 1120],
      car: [1040, 880, 1240],
      'side-by-side': [620, 460, 860],
    },
  },
  {
    id: 'crossHeight',
    name: 'Crossmember underside',
    how: `${ground} to the underside of the crossmember behind the engine`,
    drives: 'how low plates hang, spacers',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [319, 240, 480],
      suv: [352, 250, 500],
      car: [176, 130, 260],
      'side-by-side': [300, 200, 440],
    },
  },
  {
    id: 'crossFrontX',
    name: 'Front crossmember',
    how: `its middle, ${axle}`,
    drives: 'where the first plate begins',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [-460, -700, -300],
      suv: [-450, -700, -300],
      car: [-480, -700, -300],
      'side-by-side': [-280, -450, -150],
    },
  },
  {
    id: 'panFront',
    name: 'Oil pan begins',
    how: axle,
    drives: 'engine plate',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [-200, -320, 0],
      suv: [-190, -320, 0],
      car: [-330, -450, -150],
      'side-by-side': [1150, 900, 1500],
    },
  },
  {
    id: 'panRear',
    name: 'Oil pan ends',
    how: axle,
    drives: 'engine plate',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [300, 150, 500],
      suv: [290, 150, 480],
      car: [60, -40, 220],
      'side-by-side': [1560, 1300, 1900],
    },
  },
  {
    id: 'panHeight',
    name: 'Oil pan underside',
    how: `${ground} to the lowest point of the pan`,
    drives: 'gap over the engine plate',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [335, 250, 520],
      suv: [368, 260, 540],
      car: [196, 145, 280],
      'side-by-side': [325, 220, 470],
    },
  },
  {
    id: 'gearboxRear',
    name: 'Gearbox ends',
    how: axle,
    drives: 'transmission plate, the next crossmember',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [1090, 800, 1400],
      suv: [1000, 760, 1300],
      car: [40, -60, 200],
      'side-by-side': [2000, 1700, 2500],
    },
  },
  {
    id: 'gearboxHeight',
    name: 'Gearbox underside',
    how: `${ground} to the lowest point of its pan`,
    drives: 'gap over the transmission plate',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [350, 260, 540],
      suv: [385, 270, 560],
      car: [202, 150, 285],
      'side-by-side': [330, 220, 480],
    },
  },
  {
    id: 'transferRear',
    name: 'Transfer case ends',
    how: axle,
    drives: 'transfer case plate',
    unit: 'mm',
    view: 'side',
    of: { truck: [1480, 1150, 1900], suv: [1390, 1100, 1750] },
  },
  {
    id: 'transferHeight',
    name: 'Transfer case underside',
    how: `${ground} to its lowest point`,
    drives: 'gap over the transfer case plate',
    unit: 'mm',
    view: 'side',
    of: { truck: [345, 260, 540], suv: [380, 270, 560] },
  },
  {
    id: 'tankFront',
    name: 'Fuel tank begins',
    how: axle,
    drives: 'tank plate, the crossmember ahead of it',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [1700, 1400, 2600],
      suv: [1900, 1500, 2700],
      car: [1900, 1600, 2400],
      'side-by-side': [700, 500, 1000],
    },
  },
  {
    id: 'tankRear',
    name: 'Fuel tank ends',
    how: axle,
    drives: 'tank plate, the crossmember behind it',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [2620, 2000, 3700],
      suv: [2560, 2000, 3400],
      car: [2480, 2100, 2950],
      'side-by-side': [1050, 800, 1400],
    },
  },
  {
    id: 'tankHeight',
    name: 'Fuel tank underside',
    how: `${ground} to its lowest point`,
    drives: 'gap over the tank plate',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [345, 260, 540],
      suv: [380, 270, 560],
      car: [205, 150, 300],
      'side-by-side': [330, 220, 480],
    },
  },
  {
    id: 'converterFront',
    name: 'Converter begins',
    how: `the foremost converter or muffler, ${axle}`,
    drives: 'converter shield, louvers',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [420, 250, 700],
      suv: [400, 250, 700],
      car: [420, 300, 800],
      'side-by-side': [2050, 1750, 2600],
    },
  },
  {
    id: 'converterRear',
    name: 'Converter ends',
    how: `the rearmost converter or muffler, ${axle}`,
    drives: 'converter shield, louvers',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [760, 550, 1100],
      suv: [740, 550, 1050],
      car: [780, 550, 1200],
      'side-by-side': [2350, 2000, 2950],
    },
  },
  {
    id: 'converterHeight',
    name: 'Converter underside',
    how: `${ground} to its lowest point`,
    drives: 'gap over the shield',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [365, 280, 560],
      suv: [398, 290, 580],
      car: [215, 160, 300],
      'side-by-side': [420, 260, 600],
    },
  },
  {
    id: 'exhaustHeight',
    name: 'Exhaust underside',
    how: `${ground} to the pipe behind the converter`,
    drives: 'heat, where plates may not go',
    unit: 'mm',
    view: 'side',
    of: {
      truck: [380, 290, 600],
      suv: [410, 300, 620],
      car: [215, 160, 320],
    },
  },
];
