import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import { distance2, signedArea, vertex } from '../geometry';
import type { SheetFinish } from '../plan';
import type { MaterialId } from '../sheet';

/** Every price here is an invented default, in dollars: shown as such, meant to be replaced by a shop's own. */
export const RATES = {
  note: 'invented defaults',
  /** per kg of blank */
  sheetPerKg: {
    'steel-hr36': 2.2,
    'steel-hsla50': 2.53,
    'steel-ar400': 4.4,
    'stainless-304': 6.6,
    'al-5052-h32': 5.7,
    'al-6061-t6': 6.4,
    'uhmw-pe': 4.8,
  } satisfies Record<MaterialId, number>,
  /** per metre of cut and mm of thickness */
  cutPerMetreMm: 0.35,
  perBend: 6,
  /** per m², both faces once */
  finishPerM2: { raw: 0, powder: 38, paint: 14, zinc: 30 } satisfies Record<SheetFinish, number>,
  perFastenerKg: 9,
  perFastener: 0.35,
} as const;

export interface PanelCost {
  readonly sheet: number;
  readonly cutting: number;
  readonly bending: number;
  readonly finish: number;
  readonly total: number;
}

/** Length of all cuts of a blank, m: outer edges of the flats and all openings. */
export function cutLength(p: FoldedPanel): number {
  const around = (o: readonly (readonly [number, number])[]): number =>
    o.reduce((sum, a, i) => sum + distance2(a, vertex(o, i + 1)), 0);
  // every flange adds its two sides; its free edge replaces the piece of edge it hangs on
  const base = around(p.facets[0]?.outline ?? []);
  const sides = p.facets.slice(1).reduce((sum, f) => sum + 2 * (f.flange?.length ?? 0), 0);
  const holes = p.panel.openings.reduce((sum, { shape }) => {
    if ('circle' in shape) return sum + Math.PI * shape.circle;
    if ('rect' in shape) return sum + 2 * (shape.rect[0] + shape.rect[1]);
    return sum + (Math.abs(signedArea(shape.polygon)) > 0 ? around(shape.polygon) : 0);
  }, 0);
  return (base + sides + holes) / 1000;
}

/** Price of a panel at the default rates. */
export function panelCost(p: FoldedPanel): PanelCost {
  const sheet = p.massKg * RATES.sheetPerKg[p.sheet.material];
  const cutting = cutLength(p) * p.sheet.thickness * RATES.cutPerMetreMm;
  const bending = p.bends.filter(b => b.angle !== 0).length * RATES.perBend;
  const finish = (p.blank.areaMm2 / 1e6) * RATES.finishPerM2[p.sheet.finish];
  return { sheet, cutting, bending, finish, total: sheet + cutting + bending + finish };
}

export const hardwareCost = (joints: readonly ResolvedJoint[]): number =>
  joints.reduce((sum, j) => sum + j.massKg * RATES.perFastenerKg + j.parts.length * RATES.perFastener, 0);
