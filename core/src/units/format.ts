import {
  KG_PER_LB,
  KM_PER_MILE,
  KN_PER_TON,
  L_PER_GALLON,
  MM_PER_INCH,
  MPA_PER_KSI,
  N_PER_LBF,
  N_PER_MM_PER_LB_PER_IN,
  NM_PER_LBF_FT,
} from './constants';
import { fixed, signed } from './number';
import type { UnitSystem } from './parse';

/** A figure apart from its unit, because the unit is set small behind it. */
export interface Figure {
  readonly value: string;
  readonly unit: string;
}

/** A figure in words: its value and its unit. */
export const figureText = (f: Figure): string => `${f.value} ${f.unit}`;

/** Length in mm as a figure: whole mm, or inches to hundredths. `fine` adds a digit. */
export function lengthFigure(mm: number, system: UnitSystem, fine = false, change = false): Figure {
  const show = change ? signed : fixed;
  return system === 'inch'
    ? { value: show(mm / MM_PER_INCH, fine ? 3 : 2), unit: 'in' }
    : { value: show(mm, fine ? 1 : 0), unit: 'mm' };
}

/** Mass in kg as a figure to a tenth of a kilogram or pound. */
export function massFigure(kg: number, system: UnitSystem, change = false, digits = 1): Figure {
  const show = change ? signed : fixed;
  return system === 'inch'
    ? { value: show(kg / KG_PER_LB, digits), unit: 'lb' }
    : { value: show(kg, digits), unit: 'kg' };
}

/** Torque in N·m as a figure: whole units from 10 up, tenths below, as wrench scales are read. */
export function torqueFigure(nm: number, system: UnitSystem): Figure {
  const value = system === 'inch' ? nm / NM_PER_LBF_FT : nm;
  return { value: fixed(value, value < 10 ? 1 : 0), unit: system === 'inch' ? 'ft\u00b7lb' : 'N\u00b7m' };
}

/** A load given in N as a figure: kN to a tenth, or pounds-force to the next ten; what hands hold, under 1 kN, to the whole N or lbf. */
export const loadFigure = (n: number, system: UnitSystem): Figure => {
  const small = Math.abs(n) < 1000;
  if (system === 'inch')
    return { value: fixed(small ? n / N_PER_LBF : Math.round(n / N_PER_LBF / 10) * 10, 0), unit: 'lbf' };
  return small ? { value: fixed(n, 0), unit: 'N' } : { value: fixed(n / 1000, 1), unit: 'kN' };
};

/** Stress in MPa as a figure: MPa, or ksi to a tenth. */
export const stressFigure = (mpa: number, system: UnitSystem): Figure =>
  system === 'inch'
    ? { value: fixed(mpa / MPA_PER_KSI, 1), unit: 'ksi' }
    : { value: fixed(mpa, 0), unit: 'MPa' };

/** A press's force, given in kN, as a figure: kN, or US tons to a tenth. */
export const forceFigure = (kn: number, system: UnitSystem): Figure =>
  system === 'inch' ? { value: fixed(kn / KN_PER_TON, 1), unit: 'ton' } : { value: fixed(kn, 0), unit: 'kN' };

export const formatForce = (kn: number, system: UnitSystem): string => figureText(forceFigure(kn, system));
export const formatLength = (mm: number, system: UnitSystem, fine = false): string =>
  figureText(lengthFigure(mm, system, fine));
export const formatMass = (kg: number, system: UnitSystem): string => figureText(massFigure(kg, system));
export const formatTorque = (nm: number, system: UnitSystem): string => figureText(torqueFigure(nm, system));
export const formatAngle = (deg: number): string => `${fixed(deg, 1)}\u00b0`;
export const formatPercent = (fraction: number): string => `${fixed(fraction * 100, 0)} %`;

/**
 * The trade fraction for a length, e.g. 4.7625 mm is `3/16` and 38.1 mm is `1 1/2`.
 * Undefined when no 64th of an inch lies within `tolerance` mm.
 */
export function tradeFraction(mm: number, tolerance = 0.02): string | undefined {
  const sixtyFourths = Math.round((Math.abs(mm) / MM_PER_INCH) * 64);
  if (sixtyFourths === 0 || Math.abs((sixtyFourths / 64) * MM_PER_INCH - Math.abs(mm)) > tolerance)
    return undefined;
  let above = sixtyFourths % 64;
  let below = 64;
  const whole = (sixtyFourths - above) / 64;
  while (above > 0 && above % 2 === 0) {
    above /= 2;
    below /= 2;
  }
  const sign = mm < 0 ? '\u2212' : '';
  if (above === 0) return `${sign}${whole}`;
  return `${sign}${whole > 0 ? `${whole} ` : ''}${above}/${below}`;
}

/** A temperature in °C as a reader has it, to the whole degree: `420 °C`, `790 °F` (to ten degrees, as estimates of heat are). */
export const formatTemperature = (c: number, system: UnitSystem): string =>
  system === 'inch' ? `${Math.round((c * 1.8 + 32) / 10) * 10} \u00b0F` : `${fixed(c, 0)} \u00b0C`;

/** A spring's rate, given in N/mm: N/mm to a tenth, or lb/in to the whole pound. */
export const springFigure = (nPerMm: number, system: UnitSystem): Figure =>
  system === 'inch'
    ? { value: fixed(nPerMm / N_PER_MM_PER_LB_PER_IN, 0), unit: 'lb/in' }
    : { value: fixed(nPerMm, 1), unit: 'N/mm' };

/** A distance driven, to the whole mile or kilometer. */
export const formatDistance = (km: number, system: UnitSystem): string =>
  system === 'inch' ? `${fixed(km / KM_PER_MILE, 0)} mi` : `${fixed(km, 0)} km`;

/** Below this a tape is no use and a caliper reads, mm (half an inch). */
export const TAPE_FROM = MM_PER_INCH / 2;

/** How an inch tape is divided: into eighths, sixteenths or thirty-seconds, or into tenths and hundredths. */
export const TAPES = ['8', '16', '32', 'decimal'] as const;
export type Tape = (typeof TAPES)[number];

let tape: Tape = '16';
/** The tape that the reader has, for every length that is shown from now on: a matter of taste like the units, but of one reader only. */
export const takeTape = (taken: Tape): void => {
  tape = taken;
};
/** The tape in hand. */
export const tapeTaken = (): Tape => tape;

/** A length as it is measured: inches to the tape's division (`1 5/16 in`) or, under half an inch, in hundredths; mm to a half. */
export function tapeLength(mm: number, system: UnitSystem): string {
  if (system === 'metric') return `${fixed(mm, Math.abs(mm) < 20 ? 1 : 0)} mm`;
  if (Math.abs(mm) < TAPE_FROM || tape === 'decimal') return formatLength(mm, system);
  const parts = Number(tape);
  const nearest = (Math.round((mm / MM_PER_INCH) * parts) / parts) * MM_PER_INCH;
  return `${tradeFraction(nearest)} in`;
}

/** Lengths in mm that stand within a name someone gave, as `lowered 12 mm`: in inches as a tape has them for who reads inches. */
export const nameIn = (name: string, system: UnitSystem): string =>
  system === 'metric'
    ? name
    : name.replace(/(\d+(?:\.\d+)?)\s?mm\b/g, (_, mm: string) => {
        const nearest = (Math.round((Number(mm) / MM_PER_INCH) * 16) / 16) * MM_PER_INCH;
        return `${tradeFraction(nearest) ?? '0'} in`;
      });

/** A volume of fuel or oil: liters, or US gallons; what is less than two gallons in quarts. */
export function formatVolume(liters: number, system: UnitSystem): string {
  if (system === 'metric') return `${fixed(liters, liters < 20 ? 1 : 0)} l`;
  const gallons = liters / L_PER_GALLON;
  return gallons < 2 ? `${fixed(gallons * 4, 1)} qt` : `${fixed(gallons, 1)} gal`;
}

/** What has no name of its own as it is called: a code or an id without the hyphens, which stand for blanks. */
export const spoken = (id: string): string => id.replaceAll('-', ' ');

/** A text as the beginning of a sentence: its first letter a capital. */
export const sentence = (text: string): string => text.replace(/^\p{Ll}/u, c => c.toUpperCase());

/** Words as a sentence lists them: `A, B and C`. */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
