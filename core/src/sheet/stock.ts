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
const COMMON: Readonly<Record<MaterialFamily, { gauges: readonly number[]; inches: readonly number[] }>> = {
  steel: { gauges: [16, 14, 12, 10, 7], inches: [3 / 16, 1 / 4, 5 / 16] },
  stainless: { gauges: [16, 14, 12, 11, 10], inches: [3 / 16, 1 / 4] },
  aluminium: { gauges: [], inches: [1 / 8, 0.16, 3 / 16, 1 / 4, 3 / 8, 1 / 2] },
  plastic: { gauges: [], inches: [1 / 4, 3 / 8, 1 / 2] },
};

/** Thicknesses to choose from for a material, thin to thick. */
export function stockThicknesses(id: MaterialId): readonly StockThickness[] {
  const { family } = MATERIALS[id];
  const { gauges, inches } = COMMON[family];
  const byGauge = gauges.map(g => gaugeThickness(family, g) ?? 0);
  return [...byGauge, ...inches.map(inch)]
    .filter(t => t > 0)
    .sort((a, b) => a - b)
    .map(thickness => ({ thickness, gauge: tradeName(family, thickness) }));
}
