import { MM_PER_INCH } from '../units';
import { gaugeThickness, tradeName } from './gauge';
import { MATERIALS, type MaterialFamily, type MaterialId } from './material';

export interface StockThickness {
  /** mm */
  readonly thickness: number;
  /** trade name as chosen, e.g. `7 ga`, `3/16 in` */
  readonly gauge: string;
}

const inch = (v: number): number => v * MM_PER_INCH;

/** Gauges, inch plate and metric plate a sheet dealer commonly stocks: common practice, no source. */
const COMMON: Readonly<
  Record<MaterialFamily, { gauges: readonly number[]; inches: readonly number[]; mm: readonly number[] }>
> = {
  steel: { gauges: [16, 14, 12, 10, 7], inches: [3 / 16, 1 / 4, 5 / 16], mm: [1.5, 2, 2.5, 3, 4, 5, 6, 8] },
  stainless: { gauges: [16, 14, 12, 11, 10], inches: [3 / 16, 1 / 4], mm: [1.5, 2, 2.5, 3, 4, 5, 6] },
  aluminum: { gauges: [], inches: [1 / 8, 0.16, 3 / 16, 1 / 4, 3 / 8, 1 / 2], mm: [3, 4, 5, 6, 8, 10, 12] },
  plastic: { gauges: [], inches: [1 / 4, 3 / 8, 1 / 2], mm: [6, 10, 12] },
};

/** By gauge and fraction of an inch, or in millimeters: dealers stock the one or the other. */
export type Stock = 'inch' | 'metric';

/** Thicknesses to choose from for a material in one kind of stock, thin to thick. */
export function stockThicknesses(id: MaterialId, stock: Stock): readonly StockThickness[] {
  const { family } = MATERIALS[id];
  const { gauges, inches, mm } = COMMON[family];
  if (stock === 'metric') return mm.map(thickness => ({ thickness, gauge: `${thickness} mm` }));
  const byGauge = gauges.map(g => gaugeThickness(family, g) ?? 0);
  return [...byGauge, ...inches.map(inch)]
    .filter(t => t > 0)
    .sort((a, b) => a - b)
    .map(thickness => ({ thickness, gauge: tradeName(family, thickness) }));
}

/** The kind of stock a thickness is from; gauge and inch where it is in neither. */
export const stockOf = (id: MaterialId, thickness: number): Stock =>
  stockThicknesses(id, 'metric').some(s => Math.abs(s.thickness - thickness) < 0.01) ? 'metric' : 'inch';
