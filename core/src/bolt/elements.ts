import type { NutKind, WasherKind } from '../plan';
import type { HoleKind } from '../rig';
import { MM_PER_INCH } from '../units';
import { nutFlats, sizeName } from './heads';
import { SPACER } from './spacer';
import type { Thread } from './thread';

type BySize = Readonly<Record<string, number>>;
const inch = (rows: BySize): BySize =>
  Object.fromEntries(Object.entries(rows).map(([k, v]) => [k, v * MM_PER_INCH]));

/** ISO 4032 style 1; ASME B18.2.2 basic */
const HEX_NUT: BySize = {
  M5: 4.7,
  M6: 5.2,
  M8: 6.8,
  M10: 8.4,
  M12: 10.8,
  M14: 12.8,
  ...inch({ '1/4': 0.2188, '5/16': 0.2656, '3/8': 0.3281, '7/16': 0.375, '1/2': 0.4375 }),
};
/** ISO 7040 (M14 and inch from memory) */
const NYLON: BySize = {
  M5: 6.8,
  M6: 8,
  M8: 9.5,
  M10: 11.9,
  M12: 14.9,
  M14: 17,
  ...inch({ '1/4': 0.328, '5/16': 0.359, '3/8': 0.468, '7/16': 0.468, '1/2': 0.609 }),
};
/** ISO 7042 (from memory; inch as ISO 7042 by diameter) */
const ALL_METAL: BySize = { M5: 5.1, M6: 6, M8: 8, M10: 10, M12: 12, M14: 14 };
/** ISO 4161; inch IFI-107 from memory */
const FLANGE_NUT: BySize = {
  M5: 5,
  M6: 6,
  M8: 8,
  M10: 10,
  M12: 12,
  M14: 14,
  ...inch({ '1/4': 0.236, '5/16': 0.283, '3/8': 0.347, '7/16': 0.395, '1/2': 0.458 }),
};

/** What a bolt screws into. Whether it came with the hole or is set for the joint is told beside it (`own`). */
export type NutElement = 'captive-nut' | 'threaded' | 'stud' | Exclude<NutKind, 'none'>;

interface Traits {
  /** the thread begins in the sheet of the member itself, not beyond it */
  readonly inWall?: true;
  /** it sits fast in the member: nothing turns it */
  readonly fast?: true;
  /** an impact wrench strips it before that is noticed: common practice, no source */
  readonly soft?: true;
  /** it has to sit in its sheet before a bolt can be started in it */
  readonly setFirst?: true;
  /** it stands between member and plate with the thread in it, as high as the joint's spacer */
  readonly foot?: true;
}
/** The tool that rivet nuts are set with, as the tool list calls it. */
export const SETTING_TOOL = 'rivet nut setting tool';

/** Everything that bears a thread, in one place. */
export const ELEMENTS: Readonly<Record<NutElement, Traits>> = {
  'captive-nut': { fast: true },
  threaded: { inWall: true, fast: true },
  stud: {},
  hex: {},
  'nylon-lock': {},
  'all-metal-lock': {},
  'flange-serrated': {},
  'rivet-nut': { inWall: true, fast: true, soft: true, setFirst: true },
  clip: { fast: true, soft: true, setFirst: true },
  spring: { soft: true, setFirst: true },
  clinch: { fast: true, soft: true, setFirst: true },
  'weld-tab': { fast: true, soft: true, setFirst: true },
  'nut-plate': { fast: true },
  'nut-strip': { fast: true },
  post: { fast: true, setFirst: true, foot: true },
  'tube-clamp': { fast: true, setFirst: true, foot: true },
  'axle-strap': {},
};

/** Whether what has the thread stands between member and plate, as high as the joint's spacer. */
export const hasFoot = (kind: NutElement | undefined): boolean =>
  kind !== undefined && ELEMENTS[kind].foot === true;

export interface NutSize {
  readonly name: string;
  /** engaged height beyond the grip, mm */
  readonly height: number;
  readonly diameter: number;
  /** wrench that holds or turns it; empty when it cannot turn */
  /** across flats as engraved, `16 mm`: what a wrench holds or a socket turns; empty where it takes neither */
  readonly flats: string;
  /** torque at which it is expected to strip or spin, N·m dry (K = 0.2); undefined: as strong as the bolt */
  readonly stripTorque?: number;
  readonly source: string;
}

/** Torque of a weak nut element, scaled from one shop figure with the cube of the diameter: a guess. */
const scaled = (nm: number, at: number, d: number): number => nm * (d / at) ** 3;

const SCALED = 'common practice at one size, scaled with d\u00b3 (a guess)';

/** Dimensions and strength of the thing the bolt screws into. */
export function nutSize(kind: NutElement, t: Thread): NutSize {
  const flats = nutFlats(t);
  const engraved = sizeName(flats, t);
  switch (kind) {
    case 'hex':
      return {
        name: 'hex nut',
        height: HEX_NUT[t.size] ?? 0.85 * t.d,
        diameter: flats,
        flats: engraved,
        source: 'ISO 4032 / ASME B18.2.2',
      };
    case 'nylon-lock':
      return {
        name: 'nylon lock nut',
        height: NYLON[t.size] ?? 1.2 * t.d,
        diameter: flats,
        flats: engraved,
        source: 'ISO 7040',
      };
    case 'all-metal-lock':
      return {
        name: 'all-metal lock nut',
        height: ALL_METAL[t.size] ?? t.d,
        diameter: flats,
        flats: engraved,
        source: 'ISO 7042',
      };
    case 'flange-serrated':
      return {
        name: 'serrated flange nut',
        height: FLANGE_NUT[t.size] ?? t.d,
        diameter: 2.2 * t.d,
        flats: engraved,
        source: 'ISO 4161',
      };
    case 'captive-nut':
      return {
        name: 'captive nut',
        height: HEX_NUT[t.size] ?? 0.85 * t.d,
        diameter: flats,
        flats: '',
        source: 'as ISO 4032 (a guess: measure)',
      };
    case 'weld-tab':
    case 'nut-plate':
      return {
        name: kind === 'weld-tab' ? 'tab with welded nut' : 'nut plate',
        height: 0.9 * t.d,
        diameter: 2.5 * t.d,
        flats: '',
        source: 'common practice, no source',
      };
    case 'nut-strip':
      return {
        name: 'nut strip in the channel',
        height: 0.9 * t.d,
        diameter: 2.5 * t.d,
        flats: '',
        source: 'common practice, no source',
      };
    case 'post':
      return {
        name: 'threaded post',
        height: t.d,
        diameter: SPACER.outer * t.d,
        flats: '',
        source: 'engagement 1 d in steel (Machinery\u2019s Handbook); the post by common practice, no source',
      };
    case 'tube-clamp':
      return {
        name: 'tube clamp',
        height: t.d,
        diameter: SPACER.outer * t.d,
        flats: '',
        source: 'common practice, no source',
      };
    case 'axle-strap':
      return {
        name: 'strap over the axle tube, two nuts',
        height: FLANGE_NUT[t.size] ?? t.d,
        diameter: 2.2 * t.d,
        flats: engraved,
        source: 'ISO 4161 nuts; the strap by common practice, no source',
      };
    case 'clinch':
      return {
        name: 'clinch nut',
        height: t.d,
        diameter: 1.8 * t.d,
        flats: '',
        stripTorque: scaled(35, 10, t.d),
        source: SCALED,
      };
    case 'rivet-nut':
      return {
        name: 'rivet nut',
        height: 1.2 * t.d,
        diameter: 1.5 * t.d,
        flats: '',
        stripTorque: scaled(40.7, 10, t.d),
        source: `30 lbf\u00b7ft at M10; ${SCALED}`,
      };
    case 'clip':
      return {
        name: 'clip nut',
        height: 0.6 * t.d,
        diameter: 2.4 * t.d,
        flats: '',
        stripTorque: scaled(9.5, 6, t.d),
        source: `7 lbf\u00b7ft at M6; ${SCALED}`,
      };
    case 'spring':
      return {
        name: 'spring nut',
        height: 0.3 * t.d,
        diameter: 2.4 * t.d,
        flats: '',
        stripTorque: scaled(3, 6, t.d),
        source: `snug only; ${SCALED}`,
      };
    case 'threaded':
      return {
        name: 'threaded hole',
        height: t.d,
        diameter: 0,
        flats: '',
        source: 'engagement 1 d in steel (Machinery\u2019s Handbook)',
      };
    case 'stud':
      return {
        name: 'nut on factory stud',
        height: FLANGE_NUT[t.size] ?? t.d,
        diameter: 2.2 * t.d,
        flats: engraved,
        source: 'ISO 4161',
      };
  }
}

/** What a bolt screws into: the joint's own nut, or else what the hole offers; undefined: nothing at all. */
export function nutElement(nut: NutKind, hole: HoleKind | undefined): NutElement | undefined {
  if (nut !== 'none') return nut;
  switch (hole) {
    case 'captive-nut':
      return 'captive-nut';
    case 'threaded':
      return 'threaded';
    case 'rivet-nut':
      return 'rivet-nut';
    case 'clip-nut':
      return 'clip';
    case 'stud':
      return 'stud';
    default:
      return undefined;
  }
}

export interface WasherSize {
  readonly name: string;
  readonly inner: number;
  readonly outer: number;
  readonly thickness: number;
}

/** outer, thickness: ISO 7089; ASME B18.21.1 narrow */
const FLAT: Readonly<Record<string, readonly [number, number]>> = {
  M5: [10, 1],
  M6: [12, 1.6],
  M8: [16, 1.6],
  M10: [20, 2],
  M12: [24, 2.5],
  M14: [28, 2.5],
  '1/4': [15.88, 1.651],
  '5/16': [17.48, 1.651],
  '3/8': [20.62, 1.651],
  '7/16': [23.42, 1.651],
  '1/2': [26.97, 2.413],
};
/** outer, thickness: ISO 7093-1; ASME B18.21.1 wide */
const FENDER: Readonly<Record<string, readonly [number, number]>> = {
  M5: [15, 1.2],
  M6: [18, 1.6],
  M8: [24, 2],
  M10: [30, 2.5],
  M12: [37, 3],
  M14: [44, 3],
  '1/4': [18.64, 1.651],
  '5/16': [22.22, 2.108],
  '3/8': [25.4, 2.108],
  '7/16': [31.75, 2.108],
  '1/2': [34.92, 2.769],
};
const WASHER_NAMES: Readonly<Record<WasherKind, string>> = {
  flat: 'flat washer',
  lock: 'lock washer',
  fender: 'fender washer',
  cup: 'cup washer',
  tapered: 'tapered washer',
  'half-moon': 'half-moon washer',
};

/** Dimensions of a washer; lock, cup, tapered and half-moon washers by common practice, no source. */
export function washerSize(kind: WasherKind, t: Thread): WasherSize {
  const inner = t.d * 1.05;
  const name = WASHER_NAMES[kind];
  const [outer, thickness] = (kind === 'fender' ? FENDER : FLAT)[t.size] ?? [2 * t.d, 0.2 * t.d];
  if (kind === 'lock') return { name, inner, outer: 1.75 * t.d, thickness: 0.22 * t.d };
  if (kind === 'cup' || kind === 'half-moon') return { name, inner, outer: 2.2 * t.d, thickness: 0.3 * t.d };
  if (kind === 'tapered') return { name, inner, outer: 2 * t.d, thickness: 0.35 * t.d };
  return { name, inner, outer, thickness };
}
