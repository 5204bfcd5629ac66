import type { Nest, NestedSheet } from '../fold';
import { MATERIALS } from '../sheet';
import type { Rates } from './rates';

/** Mass of a whole stock sheet, kg. */
export const sheetMass = ({
  size,
  thickness,
  material,
}: Pick<NestedSheet, 'size' | 'thickness' | 'material'>): number =>
  size[0] * size[1] * thickness * MATERIALS[material].density * 1e-9;

/** What laying blanks out comes to. */
export interface NestTotals {
  /** of the whole sheets bought, kg */
  readonly massKg: number;
  /** of the sheets, dollars */
  readonly cost: number;
  /** share of the sheets' area that becomes blanks */
  readonly used: number;
}

/** Mass, price and yield of all stock sheets that a nest takes. */
export function nestTotals({ sheets }: Nest, { sheetPerKg }: Pick<Rates, 'sheetPerKg'>): NestTotals {
  let [massKg, cost, whole, used] = [0, 0, 0, 0];
  for (const s of sheets) {
    const mass = sheetMass(s);
    massKg += mass;
    cost += mass * sheetPerKg[s.material];
    whole += s.size[0] * s.size[1];
    used += s.yield * s.size[0] * s.size[1];
  }
  return { massKg, cost, used: whole > 0 ? used / whole : 0 };
}
