import { unzlibSync } from 'fflate';

/**
 * The TrueType or OpenType font in a WOFF file (W3C WOFF 1.0): header and table directory written anew, tables unpacked where they are
 * packed. Throws where the bytes are no WOFF.
 */
export function sfntFromWoff(woff: Uint8Array): Uint8Array {
  const from = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  if (woff.byteLength < 44 || from.getUint32(0) !== 0x774f4646) throw new Error('not a WOFF font');
  const count = from.getUint16(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i;
    const [tag, offset, packed, length, sum] = [0, 4, 8, 12, 16].map(k => from.getUint32(at + k)) as [
      number,
      number,
      number,
      number,
      number,
    ];
    const raw = woff.subarray(offset, offset + packed);
    return { tag, sum, length, bytes: packed < length ? unzlibSync(raw) : raw };
  });
  const padded = (n: number): number => (n + 3) & ~3;
  const out = new Uint8Array(12 + 16 * count + tables.reduce((s, t) => s + padded(t.length), 0));
  const to = new DataView(out.buffer);
  const power = 2 ** Math.floor(Math.log2(count));
  to.setUint32(0, from.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, power * 16);
  to.setUint16(8, Math.log2(power));
  to.setUint16(10, count * 16 - power * 16);
  let at = 12 + 16 * count;
  tables.forEach((t, i) => {
    const entry = 12 + 16 * i;
    to.setUint32(entry, t.tag);
    to.setUint32(entry + 4, t.sum);
    to.setUint32(entry + 8, at);
    to.setUint32(entry + 12, t.length);
    out.set(t.bytes, at);
    at += padded(t.length);
  });
  return out;
}

/** Bytes as base64, in pieces that no call's argument list is too long for. */
export function base64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}
