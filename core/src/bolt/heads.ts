import type { Head } from '../plan';
import { MM_PER_INCH, tradeFraction } from '../units';
import type { Thread } from './thread';

/** A head as it bears on the plate. mm. */
export interface HeadSize {
  /** what bears: flange, washer face or head diameter */
  readonly bearing: number;
  readonly height: number;
  /** what turns it, as it is called in the tool roll; empty when nothing does */
  readonly tool: string;
  /** across flats of a hexagon, for the drawing; undefined for round heads */
  readonly flats?: number;
  readonly source: string;
}

export const HEAD_NAMES: Readonly<Record<Head, string>> = {
  hex: 'hex bolt',
  flange: 'flange bolt',
  button: 'button head screw',
  countersunk: 'countersunk screw',
  socket: 'socket cap screw',
  carriage: 'carriage bolt',
  't-bolt': 'T-bolt',
  'thread-cutting': 'thread-cutting screw',
  'self-drilling': 'self-drilling screw',
  'tamper-5': 'tamper-resistant screw, five-lobe with pin',
  'tamper-6': 'tamper-resistant screw, six-lobe with pin',
};

type Sizes = Readonly<Record<string, readonly number[]>>;
const inches = (rows: Sizes): Sizes =>
  Object.fromEntries(Object.entries(rows).map(([k, v]) => [k, v.map(x => x * MM_PER_INCH)]));

/** across flats, head height */
const HEX: Sizes = {
  M5: [8, 3.5],
  M6: [10, 4],
  M8: [13, 5.3],
  M10: [16, 6.4],
  M12: [18, 7.5],
  M14: [21, 8.8],
  ...inches({
    '1/4': [0.4375, 0.1562],
    '5/16': [0.5, 0.2031],
    '3/8': [0.5625, 0.2344],
    '7/16': [0.625, 0.2812],
    '1/2': [0.75, 0.3125],
  }),
};
/** across flats, flange diameter, height. Inch heights are taken as the hex head's and a third. */
const FLANGE: Sizes = {
  M5: [8, 11.8, 5.4],
  M6: [10, 14.2, 6.6],
  M8: [13, 18, 8.1],
  M10: [16, 22.3, 9.2],
  M12: [18, 26.6, 11.5],
  M14: [21, 30.5, 12.8],
  ...inches({
    '1/4': [0.375, 0.56, 0.21],
    '5/16': [0.5, 0.68, 0.27],
    '3/8': [0.5625, 0.81, 0.31],
    '7/16': [0.625, 0.93, 0.37],
    '1/2': [0.75, 1.07, 0.42],
  }),
};
/** head diameter, height, hex key */
const BUTTON: Sizes = {
  M5: [9.5, 2.75, 3],
  M6: [10.5, 3.3, 4],
  M8: [14, 4.4, 5],
  M10: [17.5, 5.5, 6],
  M12: [21, 6.6, 8],
  M14: [24.5, 7.7, 10],
  ...inches({
    '1/4': [0.437, 0.132, 0.15625],
    '5/16': [0.547, 0.166, 0.1875],
    '3/8': [0.656, 0.199, 0.21875],
    '7/16': [0.766, 0.232, 0.25],
    '1/2': [0.875, 0.265, 0.3125],
  }),
};
const COUNTERSUNK: Sizes = {
  M5: [11.2, 3.1, 3],
  M6: [13.44, 3.72, 4],
  M8: [17.92, 4.96, 5],
  M10: [22.4, 6.2, 6],
  M12: [26.88, 7.44, 8],
  M14: [30.8, 8.4, 10],
  ...inches({
    '1/4': [0.531, 0.161, 0.15625],
    '5/16': [0.656, 0.198, 0.1875],
    '3/8': [0.781, 0.234, 0.21875],
    '7/16': [0.844, 0.234, 0.25],
    '1/2': [0.938, 0.251, 0.3125],
  }),
};
const SOCKET: Sizes = {
  M5: [8.5, 5, 4],
  M6: [10, 6, 5],
  M8: [13, 8, 6],
  M10: [16, 10, 8],
  M12: [18, 12, 10],
  M14: [21, 14, 12],
  ...inches({
    '1/4': [0.375, 0.25, 0.1875],
    '5/16': [0.469, 0.3125, 0.25],
    '3/8': [0.562, 0.375, 0.3125],
    '7/16': [0.656, 0.4375, 0.375],
    '1/2': [0.75, 0.5, 0.375],
  }),
};
/** head diameter, height */
const CARRIAGE: Sizes = {
  M5: [13.55, 3.3],
  M6: [16.55, 3.88],
  M8: [20.65, 4.88],
  M10: [24.65, 5.38],
  M12: [30.65, 6.95],
  M14: [34, 8],
  ...inches({
    '1/4': [0.594, 0.145],
    '5/16': [0.719, 0.176],
    '3/8': [0.844, 0.208],
    '7/16': [0.969, 0.239],
    '1/2': [1.094, 0.27],
  }),
};
/** six-lobe sizes of button heads: trade practice, M10 and up unsure */
const LOBE: Readonly<Record<string, string>> = {
  M5: '25',
  M6: '30',
  M8: '40',
  M10: '50',
  M12: '55',
  M14: '60',
  '1/4': '30',
  '5/16': '40',
  '3/8': '45',
  '7/16': '50',
  '1/2': '55',
};

/** A tool size as engraved: `16 mm` or `9/16 in`. */
export const sizeName = (mm: number, t: Thread): string =>
  t.system === 'inch' ? `${tradeFraction(mm, 0.3) ?? mm.toFixed(2)} in` : `${Number(mm.toFixed(1))} mm`;

/** Dimensions of a head at a thread's size. */
export function headSize(head: Head, t: Thread): HeadSize {
  const row = (table: Sizes): readonly [number, number, number] => {
    const r = table[t.size] ?? [1.6 * t.d, 0.65 * t.d, 0.6 * t.d];
    return [r[0] ?? 0, r[1] ?? 0, r[2] ?? 0];
  };
  switch (head) {
    case 'hex': {
      const [flats, height] = row(HEX);
      return {
        bearing: flats,
        height,
        flats,
        tool: `socket ${sizeName(flats, t)}`,
        source: t.system === 'inch' ? 'ASME B18.2.1' : 'ISO 4014 / ISO 4017',
      };
    }
    case 'flange':
    case 'thread-cutting':
    case 'self-drilling': {
      const [flats, bearing, height] = row(FLANGE);
      const source =
        t.system === 'inch'
          ? 'IFI-111 (likely; heights a guess)'
          : 'EN 1665 / DIN 6921 (editions differ: measure the real part)';
      return { bearing, height, flats, tool: `socket ${sizeName(flats, t)}`, source };
    }
    case 'button': {
      const [bearing, height, key] = row(BUTTON);
      return {
        bearing,
        height,
        tool: `hex key ${sizeName(key, t)}`,
        source: t.system === 'inch' ? 'ASME B18.3' : 'ISO 7380-1',
      };
    }
    case 'countersunk': {
      const [bearing, height, key] = row(COUNTERSUNK);
      return {
        bearing,
        height,
        tool: `hex key ${sizeName(key, t)}`,
        source: t.system === 'inch' ? 'ASME B18.3, 82\u00b0' : 'ISO 10642, 90\u00b0',
      };
    }
    case 'socket': {
      const [bearing, height, key] = row(SOCKET);
      return {
        bearing,
        height,
        tool: `hex key ${sizeName(key, t)}`,
        source: t.system === 'inch' ? 'ASME B18.3' : 'ISO 4762',
      };
    }
    case 'carriage': {
      const [bearing, height] = row(CARRIAGE);
      return { bearing, height, tool: '', source: t.system === 'inch' ? 'ASME B18.5' : 'DIN 603' };
    }
    case 't-bolt':
      return { bearing: 2 * t.d, height: 0.7 * t.d, tool: '', source: 'common practice, no source' };
    case 'tamper-5':
    case 'tamper-6': {
      const [bearing, height] = row(BUTTON);
      const lobes = head === 'tamper-5' ? 'five-lobe' : 'six-lobe';
      return {
        bearing,
        height,
        tool: `${lobes} bit T${LOBE[t.size] ?? '?'} with pin hole`,
        source: 'ISO 7380-1 head; bit size by trade practice',
      };
    }
  }
}

/** Across flats of a hex nut, mm: as the head's, but 11/16 at 7/16 (ASME B18.2.2) and 7/16 at 1/4 in. */
export const nutFlats = (t: Thread): number =>
  t.size === '7/16' ? 0.6875 * MM_PER_INCH : (HEX[t.size]?.[0] ?? 1.6 * t.d);
