import { bendingForce, dieFor, type FoldedPanel, flatPattern, leastFlange, patternArea } from '../fold';
import type { SheetFinish, Shop } from '../plan';
import { MATERIALS, type MaterialId, minimumRadius } from '../sheet';
import { formatForce, formatLength, spoken, type UnitSystem } from '../units';
import { cutLength } from './cost';
import { RATES } from './rates';

/** What a fabricator is asked to make of one plate. Lengths in mm, area in mm². */
export interface QuoteBlank {
  readonly mark: string;
  readonly name: string;
  readonly material: MaterialId;
  readonly thickness: number;
  readonly finish: SheetFinish;
  readonly size: readonly [number, number];
  readonly areaMm2: number;
  readonly cutMm: number;
  readonly bends: readonly {
    readonly id: string;
    readonly angle: number;
    readonly insideRadius: number;
    readonly width: number;
    readonly flange: number;
  }[];
}
export interface QuoteRequest {
  readonly blanks: readonly QuoteBlank[];
  readonly shop: Shop;
  /** of the reader; metric unless told */
  readonly units?: UnitSystem;
}
export type QuoteAnswer =
  | {
      readonly ok: true;
      readonly price: number;
      readonly days: number;
      readonly lines: readonly { readonly mark: string; readonly price: number }[];
    }
  | { readonly ok: false; readonly reasons: readonly string[] };

/** The blanks of a build as a fabricator wants them. */
export const quoteBlanks = (panels: readonly FoldedPanel[]): readonly QuoteBlank[] =>
  panels.map(p => {
    const pattern = flatPattern(p);
    return {
      mark: p.panel.mark,
      name: p.panel.name,
      material: p.sheet.material,
      thickness: p.sheet.thickness,
      finish: p.sheet.finish,
      size: pattern.size,
      areaMm2: patternArea(pattern),
      cutMm: cutLength(p) * 1000,
      bends: p.bends
        .filter(b => b.angle !== 0)
        .map(b => {
          const facet = p.facets.find(f => f.id === b.id);
          return {
            id: b.id,
            angle: b.angle,
            insideRadius: b.insideRadius,
            width: facet?.hinge?.width ?? 0,
            flange: facet?.flange?.length ?? 0,
          };
        }),
    };
  });

/** Setting up for a job and for each kind of sheet, in dollars: invented defaults. */
const SETUP = { job: 45, kind: 18 } as const;

/** Why a shop cannot make a blank; a sentence each. */
function refusals(b: QuoteBlank, shop: Shop, units: UnitSystem): string[] {
  const length = (mm: number): string => formatLength(mm, units);
  const fine = (mm: number): string => formatLength(mm, units, true);
  const out: string[] = [];
  const material = MATERIALS[b.material];
  const [long, wide] = [Math.max(...b.size), Math.min(...b.size)];
  if (!shop.sheets.some(([l, w]) => long <= l && wide <= w))
    out.push(`Plate ${b.mark}: the ${length(long)} × ${length(wide)} blank is larger than our sheets.`);
  const least = minimumRadius(material, b.thickness);
  const die = dieFor(b.thickness, shop.dies);
  for (const bend of b.bends) {
    const where = `Plate ${b.mark}, bend ${spoken(bend.id)}`;
    if (least === undefined) out.push(`${where}: ${material.name} cannot be bent cold.`);
    else if (bend.insideRadius < least - 1e-6)
      out.push(
        `${where}: inside radius ${fine(bend.insideRadius)} would crack; ${fine(least)} is the least.`,
      );
    if (bend.width > shop.brake.length)
      out.push(`${where}: ${length(bend.width)} is longer than our brake (${length(shop.brake.length)}).`);
    if (die === undefined) out.push(`${where}: we have no die for it.`);
    else {
      if (bend.flange < leastFlange(die))
        out.push(`${where}: a ${length(bend.flange)} flange falls into our ${length(die)} die.`);
      const force = bendingForce(material.ultimate, b.thickness, bend.width, die);
      if (force > shop.brake.force)
        out.push(
          `${where}: it takes ${formatForce(force, units)}; our brake gives ${formatForce(shop.brake.force, units)}.`,
        );
    }
  }
  return out;
}

/**
 * A fabricator's answer by an open price model: sheet by mass, cutting by length and thickness, bends each, finish by
 * area, setting up by job and kind of sheet, all at invented default rates; or why it cannot be made.
 */
export function quote({ blanks, shop, units = 'metric' }: QuoteRequest): QuoteAnswer {
  const reasons = blanks.flatMap(b => refusals(b, shop, units));
  if (reasons.length > 0) return { ok: false, reasons };
  const lines = blanks.map(b => {
    const kg = b.areaMm2 * b.thickness * MATERIALS[b.material].density * 1e-9;
    const price =
      kg * RATES.sheetPerKg[b.material] +
      (b.cutMm / 1000) * b.thickness * RATES.cutPerMeterMm +
      b.bends.length * RATES.perBend +
      (b.areaMm2 / 1e6) * RATES.finishPerM2[b.finish];
    return { mark: b.mark, price: Math.round(price * 100) / 100 };
  });
  const kinds = new Set(blanks.map(b => `${b.material} ${b.thickness}`)).size;
  const sum = lines.reduce((s, l) => s + l.price, 0) + SETUP.job + kinds * SETUP.kind;
  const bends = blanks.reduce((n, b) => n + b.bends.length, 0);
  const finished = blanks.some(b => b.finish !== 'raw');
  return {
    ok: true,
    price: Math.round(sum * 100) / 100,
    days: 3 + Math.ceil(bends / 12) + (finished ? 4 : 0),
    lines,
  };
}
