import type { ResolvedJoint } from '../bolt';
import { type FoldedPanel, holePerimeter } from '../fold';
import { distance2, signedArea, vertex } from '../geometry';
import type { Money } from '../plan';
import { RATES, type Rates } from './rates';

export interface PanelCost {
  readonly sheet: number;
  readonly cutting: number;
  readonly bending: number;
  readonly finish: number;
  readonly total: number;
}

/** Length of all cuts of a blank, m: outer edges of the flats, all openings and bolt holes. */
export function cutLength(p: FoldedPanel): number {
  const around = (o: readonly (readonly [number, number])[]): number =>
    o.reduce((sum, a, i) => sum + distance2(a, vertex(o, i + 1)), 0);
  // every flange adds its two sides; its free edge replaces the piece of edge it hangs on
  const base = around(p.facets[0]?.outline ?? []);
  const sides = p.facets.slice(1).reduce((sum, f) => sum + 2 * (f.flange?.length ?? 0), 0);
  const openings = p.panel.openings.reduce((sum, { shape }) => {
    if ('circle' in shape) return sum + Math.PI * shape.circle;
    if ('rect' in shape) return sum + 2 * (shape.rect[0] + shape.rect[1]);
    return sum + (Math.abs(signedArea(shape.polygon)) > 0 ? around(shape.polygon) : 0);
  }, 0);
  const holes = p.holes.reduce((sum, h) => sum + (h.cut ? holePerimeter(h.cut) : 0), 0);
  return (base + sides + openings + holes) / 1000;
}

/** What making a panel costs, dollars; at the default rates unless others are given. */
export function panelCost(p: FoldedPanel, rates: Rates = RATES): PanelCost {
  const sheet = p.massKg * rates.sheetPerKg[p.sheet.material];
  const cutting = cutLength(p) * p.sheet.thickness * rates.cutPerMeterMm;
  const bending = p.bends.filter(b => b.angle !== 0).length * rates.perBend;
  const finish = (p.blank.areaMm2 / 1e6) * rates.finishPerM2[p.sheet.finish];
  return { sheet, cutting, bending, finish, total: sheet + cutting + bending + finish };
}

/** Bolts, nuts, washers and spacers of some joints, dollars. */
export const hardwareCost = (joints: readonly ResolvedJoint[], rates: Rates = RATES): number =>
  joints.reduce((sum, j) => sum + j.massKg * rates.perFastenerKg + j.parts.length * rates.perFastener, 0);

/** What a build costs, part by part, dollars. */
export interface BuildCost {
  readonly sheet: number;
  readonly cutting: number;
  readonly bending: number;
  readonly finish: number;
  readonly crossbars: number;
  readonly hardware: number;
  /** the plates as made, or as offered where an offer was entered */
  readonly plates: number;
  readonly shipping: number;
  readonly tax: number;
  /** all of it: what the owner pays */
  readonly total: number;
}

/**
 * Adds up a build. An offer for the plates (a shop's price, a sale) stands in for what they would cost to make; hardware and crossbars
 * come on top. Tax is on the goods and not on the shipping: local rules differ.
 */
export function buildCost(
  panels: readonly PanelCost[],
  hardware: number,
  crossbars: number,
  { shipping = 0, taxPercent = 0 }: Money = {},
  offer?: number,
): BuildCost {
  const sum = (of: keyof PanelCost): number => panels.reduce((s, p) => s + p[of], 0);
  const plates = offer ?? sum('total');
  const tax = (plates + hardware + crossbars) * (taxPercent / 100);
  return {
    sheet: sum('sheet'),
    cutting: sum('cutting'),
    bending: sum('bending'),
    finish: sum('finish'),
    crossbars,
    hardware,
    plates,
    shipping,
    tax,
    total: plates + hardware + crossbars + shipping + tax,
  };
}

/** What is left of a budget for making the plates, dollars, after hardware, crossbars, shipping and tax. */
export const leftForPlates = (
  budget: number,
  cost: Pick<BuildCost, 'hardware' | 'crossbars' | 'shipping'>,
  { taxPercent = 0 }: Money = {},
): number => (budget - cost.shipping) / (1 + taxPercent / 100) - cost.hardware - cost.crossbars;

/** A build's cost beside what one hit would cost without it; what a prevented repair is worth is left to the owner. */
export interface AgainstRepair {
  readonly what: 'the repair' | 'the deductible';
  readonly cost: number;
  /** the build's cost in such repairs */
  readonly times: number;
}
export function againstRepair(total: number, { repair, deductible }: Money = {}): readonly AgainstRepair[] {
  const of = (what: AgainstRepair['what'], cost: number | undefined): readonly AgainstRepair[] =>
    cost === undefined ? [] : [{ what, cost, times: total / cost }];
  return [...of('the repair', repair), ...of('the deductible', deductible)];
}
