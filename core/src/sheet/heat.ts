import type { Material, MaterialId } from './material';

/**
 * Yield strength while hot, as a share of that at room temperature, by °C: typical values of Aluminum Standards and Data (The Aluminum
 * Association), table of tensile properties at temperature; from memory. Steel and stainless keep theirs up to their own limits here.
 */
const WHILE_HOT: Partial<
  Readonly<Record<MaterialId, readonly (readonly [celsius: number, share: number])[]>>
> = {
  'al-5052-h32': [
    [25, 1],
    [100, 1],
    [149, 0.96],
    [204, 0.54],
    [260, 0.27],
    [316, 0.18],
  ],
  'al-6061-t6': [
    [25, 1],
    [100, 0.95],
    [149, 0.78],
    [204, 0.38],
    [260, 0.13],
    [316, 0.07],
  ],
};

/** Share of its yield strength that a sheet keeps while it is at so many °C; 1 where nothing is known to be lost, nought over what a plastic bears. */
export function yieldKept({ id, family, maxServiceC }: Material, celsius: number): number {
  if (family === 'plastic') return celsius > maxServiceC ? 0 : 1;
  const rows = WHILE_HOT[id];
  if (!rows) return 1;
  for (let i = 1; i < rows.length; i++) {
    const [c0, s0] = rows[i - 1] as readonly [number, number];
    const [c1, s1] = rows[i] as readonly [number, number];
    if (celsius <= c1) return s0 + ((s1 - s0) * Math.max(0, celsius - c0)) / (c1 - c0);
  }
  return rows.at(-1)?.[1] ?? 1;
}

/** Air under a vehicle that stands after a climb, °C, and what it takes from each face, W/(m²·K): guesses. */
const AIR_C: number = 40;
const AIR_TAKES = 10;
/** Emissivity of rusty pipe, of coated sheet and of bare aluminum that has been driven with: guesses between published values. */
const EMISSIVITY = { pipe: 0.8, coated: 0.9, bareAluminum: 0.3 } as const;
/** Heat conducted, W/(m·K): steel and stainless ASM, 5052 (6061 more), UHMW typical; from memory. */
const CONDUCTS: Readonly<Record<Material['family'], number>> = {
  steel: 50,
  stainless: 16,
  aluminum: 138,
  plastic: 0.45,
};
/** What a warm sheet gives off from both faces in all, W/(m²·K), as far as it is asked how far heat spreads in it: a guess. */
const GIVES_OFF = 36;
const STEFAN_BOLTZMANN = 5.670374e-8;
const KELVIN = 273.15;

/** A sheet beside a hot surface. */
export interface Shone {
  readonly material: Pick<Material, 'family'>;
  /** mm */
  readonly thickness: number;
  /** painted, powder-coated or plated */
  readonly coated: boolean;
}

/**
 * Temperature of a sheet where it comes nearest to a hot surface, °C: an estimate. It is shone on by a rectangle of half-sides `a` and `b` mm
 * square to it at `apart` mm (view factor of each strip, x/√(x² + d²); Siegel and Howell), conducts that sideways over the length of a
 * fin, √(k·t/h) (Incropera), and gives it off from both faces by radiation and to still air.
 */
export function besideHot(surfaceC: number, apart: number, a: number, b: number, sheet: Shone): number {
  if (surfaceC <= AIR_C) return AIR_C;
  const { family } = sheet.material;
  const takes = family === 'aluminum' && !sheet.coated ? EMISSIVITY.bareAluminum : EMISSIVITY.coated;
  const seen = (x: number): number => x / Math.hypot(x, Math.max(apart, 1));
  const view = seen(a) * seen(b);
  const fin = 1000 * Math.sqrt((CONDUCTS[family] * sheet.thickness) / 1000 / GIVES_OFF);
  const spread = (1 + fin / a) * (1 + fin / b);
  const e4 = (c: number): number => STEFAN_BOLTZMANN * (c + KELVIN) ** 4;
  const air = e4(AIR_C);
  const gains = (c: number): number =>
    view * EMISSIVITY.pipe * takes * (e4(surfaceC) - e4(c)) -
    spread * ((2 - view / spread) * takes * (e4(c) - air) + 2 * AIR_TAKES * (c - AIR_C));
  let [low, high] = [AIR_C, surfaceC];
  for (let i = 0; i < 50; i++) {
    const mid = (low + high) / 2;
    if (gains(mid) > 0) low = mid;
    else high = mid;
  }
  return low;
}
