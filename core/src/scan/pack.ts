import { unzlibSync, zlibSync } from 'fflate';
import type { RigScan } from '../rig';
import { err, ok, type Result } from '../units';
import type { Heights } from './heights';

const f32 = new Float32Array(1);
const u32 = new Uint32Array(f32.buffer);
/** No height, as a half. */
const NONE = 0x7e00;

/** A number as IEEE 754 binary16, rounded to the nearest; too large becomes infinity, NaN stays. */
export function toHalf(v: number): number {
  f32[0] = v;
  const bits = u32[0] as number;
  const sign = (bits >>> 16) & 0x8000;
  const size = bits & 0x7fffffff;
  if (size > 0x7f800000) return sign | NONE;
  if (size >= 0x47800000) return sign | 0x7c00;
  if (size < 0x38800000) {
    // below the least normal half: counted in steps of 2⁻²⁴
    return sign | Math.round(Math.abs(f32[0] as number) * 2 ** 24);
  }
  const rounded = size + 0xfff + ((size >>> 13) & 1);
  return sign | ((rounded - 0x38000000) >>> 13);
}
/** A number from its IEEE 754 binary16. */
export function fromHalf(h: number): number {
  const sign = h & 0x8000 ? -1 : 1;
  const power = (h >>> 10) & 31;
  const part = h & 1023;
  if (power === 31) return part ? Number.NaN : sign * Number.POSITIVE_INFINITY;
  return power === 0 ? sign * part * 2 ** -24 : sign * (1 + part / 1024) * 2 ** (power - 15);
}

/** The heights of a grid as they are kept: halves, least byte first, row after row, packed by zlib. */
export function packedHeights({ z }: Pick<Heights, 'z'>): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(2 * z.length);
  const view = new DataView(bytes.buffer);
  z.forEach((v, i) => {
    view.setUint16(2 * i, toHalf(v), true);
  });
  return new Uint8Array(zlibSync(bytes, { level: 6 }));
}

/** A scan's heights from what was kept; a fault where that is torn or of another size. */
export function heightsFrom(
  scan: Pick<RigScan, 'from' | 'step' | 'width' | 'height'>,
  packed: Uint8Array,
): Result<Heights> {
  let bytes: Uint8Array;
  const want = 2 * scan.width * scan.height;
  try {
    bytes = unzlibSync(packed, { out: new Uint8Array(want) });
  } catch {
    return err('the heights of the scan are torn');
  }
  if (bytes.length !== want)
    return err(`the heights of the scan are ${bytes.length / 2}, not ${scan.width} by ${scan.height}`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const z = new Float32Array(scan.width * scan.height);
  for (let i = 0; i < z.length; i++) z[i] = fromHalf(view.getUint16(2 * i, true));
  return ok({
    from: [scan.from[0], scan.from[1]],
    step: scan.step,
    width: scan.width,
    height: scan.height,
    z,
  });
}
