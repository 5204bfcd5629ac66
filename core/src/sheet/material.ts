/** Binding material ids of the plan file. */
export const MATERIAL_IDS = [
  'steel-hr36',
  'steel-hsla50',
  'steel-ar400',
  'stainless-304',
  'al-5052-h32',
  'al-6061-t6',
  'uhmw-pe',
] as const;
export type MaterialId = (typeof MATERIAL_IDS)[number];

export type MaterialFamily = 'steel' | 'stainless' | 'aluminum' | 'plastic';

export interface Material {
  readonly id: MaterialId;
  readonly name: string;
  readonly short: string;
  readonly family: MaterialFamily;
  /** kg/m³ */
  readonly density: number;
  /** Young's modulus, MPa */
  readonly E: number;
  readonly nu: number;
  /** minimum (or, where none is guaranteed, typical) yield strength, MPa */
  readonly yield: number;
  readonly ultimate: number;
  /** shear strength for threads tapped into it, MPa */
  readonly shear: number;
  /** minimum inside bend radius in thicknesses by thickness up to (mm); undefined: not folded cold */
  readonly minRadius?: readonly (readonly [upToMm: number, timesT: number])[];
  /** what the least radius is multiplied by where the bend runs along the rolling direction */
  readonly alongGrain?: number;
  /** growth with heat, 1/K */
  readonly expansion: number;
  /** highest steady surface temperature, °C */
  readonly maxServiceC: number;
  /** anodic index, V: engineering practice, the index itself is in no standard */
  readonly anodicIndex?: number;
  /** K-factor when the bend's own R/t gives none */
  readonly source: string;
  readonly radiusSource: string;
  /** true where a figure is typical, not guaranteed */
  readonly typical?: boolean;
}

/** Temperature from which temper or coating is expected to suffer: common practice, no source. */
const HOT = { steel: 400, stainless: 800, aluminum: 150 } as const;

export const MATERIALS: Readonly<Record<MaterialId, Material>> = {
  'steel-hr36': {
    id: 'steel-hr36',
    name: 'Hot-rolled steel, grade 36',
    short: 'steel',
    family: 'steel',
    density: 7850,
    E: 200_000,
    nu: 0.3,
    yield: 250,
    ultimate: 365,
    shear: 211,
    expansion: 12e-6,
    minRadius: [[Infinity, 1.5]],
    alongGrain: 4 / 3,
    maxServiceC: HOT.steel,
    anodicIndex: 0.85,
    source: 'ASTM A1011 SS grade 36 type 1 (minimum); E, nu, density AISC; shear 0.577 × ultimate',
    radiusSource: 'ASTM A1011 suggested minimum inside radius, 1.5 t (from memory)',
  },
  'steel-hsla50': {
    id: 'steel-hsla50',
    name: 'High-strength steel, grade 50',
    short: 'steel 50',
    family: 'steel',
    density: 7850,
    E: 200_000,
    nu: 0.3,
    yield: 340,
    ultimate: 450,
    shear: 260,
    expansion: 12e-6,
    minRadius: [[Infinity, 2]],
    alongGrain: 1.5,
    maxServiceC: HOT.steel,
    anodicIndex: 0.85,
    source: 'ASTM A1011 HSLAS grade 50 class 1 (minimum); shear 0.577 × ultimate',
    radiusSource: 'ASTM A1011 suggested minimum inside radius, 2 t (from memory, unsure)',
  },
  'steel-ar400': {
    id: 'steel-ar400',
    name: 'Abrasion-resistant steel, 400 HB',
    short: 'AR 400',
    family: 'steel',
    density: 7850,
    E: 200_000,
    nu: 0.3,
    yield: 1000,
    ultimate: 1250,
    shear: 721,
    expansion: 12e-6,
    minRadius: [[Infinity, 3]],
    alongGrain: 4 / 3,
    maxServiceC: 200,
    anodicIndex: 0.85,
    source: 'typical producer data, not guaranteed: the grade is specified by hardness only',
    radiusSource: 'typical producer guidance across the grain, 2.5 to 3 t (from memory)',
    typical: true,
  },
  'stainless-304': {
    id: 'stainless-304',
    name: 'Stainless steel 304, annealed',
    short: 'stainless',
    family: 'stainless',
    density: 8000,
    E: 193_000,
    nu: 0.29,
    yield: 205,
    ultimate: 515,
    shear: 297,
    expansion: 17e-6,
    minRadius: [[Infinity, 1]],
    alongGrain: 1,
    maxServiceC: HOT.stainless,
    anodicIndex: 0.5,
    source: 'ASTM A240 type 304 (minimum); E, nu, density ASM; shear 0.577 × ultimate',
    radiusSource: 'press-brake practice for annealed 300 series, 1 t (from memory)',
  },
  'al-5052-h32': {
    id: 'al-5052-h32',
    name: 'Aluminum 5052-H32',
    short: '5052',
    family: 'aluminum',
    density: 2680,
    E: 70_300,
    nu: 0.33,
    yield: 160,
    ultimate: 215,
    shear: 138,
    expansion: 24e-6,
    minRadius: [
      [1, 0],
      [2.4, 1],
      [10, 1.5],
      [Infinity, 2],
    ],
    alongGrain: 1.25,
    maxServiceC: HOT.aluminum,
    anodicIndex: 0.9,
    source: 'ASTM B209 (minimum yield, ultimate); Aluminum Association, Aluminum Standards and Data',
    radiusSource: 'Aluminum Association recommended minimum bend radii, 90° cold (from memory)',
  },
  'al-6061-t6': {
    id: 'al-6061-t6',
    name: 'Aluminum 6061-T6',
    short: '6061',
    family: 'aluminum',
    density: 2700,
    E: 68_900,
    nu: 0.33,
    yield: 240,
    ultimate: 290,
    shear: 207,
    expansion: 24e-6,
    minRadius: [
      [1.6, 1.5],
      [3.2, 2.5],
      [5, 3],
      [6.4, 3.5],
      [Infinity, 4.5],
    ],
    alongGrain: 1.5,
    maxServiceC: HOT.aluminum,
    anodicIndex: 0.9,
    source: 'ASTM B209 (minimum yield, ultimate); Aluminum Association, Aluminum Standards and Data',
    radiusSource: 'Aluminum Association recommended minimum bend radii, 90° cold; 3/16 interpolated',
  },
  'uhmw-pe': {
    id: 'uhmw-pe',
    name: 'UHMW polyethylene',
    short: 'UHMW',
    family: 'plastic',
    density: 935,
    E: 690,
    nu: 0.46,
    yield: 21,
    ultimate: 40,
    shear: 12,
    expansion: 160e-6,
    maxServiceC: 80,
    source: 'typical published values (ASTM D4020 resin, ASTM D638), from memory',
    radiusSource: 'not folded cold: machined or heat-formed (common practice)',
    typical: true,
  },
};

/**
 * Least inside radius along the grain from that across it, mm. The factors are a guess: producers of 400 HB plate give 3 t
 * across and 4 t along (from memory), for the others it is common practice that along needs more, no source.
 */
export const alongGrainRadius = (material: Material, across: number): number =>
  across * (material.alongGrain ?? 1);

/** Minimum inside bend radius, mm, for a thickness in mm; undefined when the sheet is not folded cold. */
export function minimumRadius(material: Material, thickness: number): number | undefined {
  const row = material.minRadius?.find(([upTo]) => thickness <= upTo);
  return row ? row[1] * thickness : undefined;
}
