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
