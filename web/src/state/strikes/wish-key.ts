import type { StrikeWish } from '@plate-fold/core/strike';

/** A 53-bit hash of a text (cyrb53), as hexadecimal digits. */
export function hashOf(text: string): string {
  let [a, b] = [0xdeadbeef, 0x41c6ce57];
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (4294967296 * (2097151 & b) + (a >>> 0)).toString(16);
}

/** Parts of a question that stay the same objects from one to the next are read once. */
const read = new WeakMap<object, string>();
function textOf(part: object, make: () => unknown): string {
  const known = read.get(part);
  if (known !== undefined) return known;
  const text = hashOf(JSON.stringify(make()));
  read.set(part, text);
  return text;
}

const jointText = (j: StrikeWish['joints'][number]): unknown => [
  j.id,
  j.at,
  j.joint,
  j.preloadN,
  j.layers,
  j.gripMm,
  j.lengthMm,
  j.thread,
  j.nut?.kind,
  j.bearsN,
  j.mount,
  j.member,
];

const foldedText = (f: StrikeWish['folded']): unknown => [
  f.panel,
  f.sheet,
  f.material,
  f.facets.map(x => [x.frame, x.outline]),
];

/** The hash of all that an answer depends on. */
export function wishKey(w: StrikeWish): string {
  const { folded } = w;
  return hashOf(
    JSON.stringify([
      textOf(folded, () => foldedText(folded)),
      w.joints.map(j => textOf(j, () => jointText(j))),
      (w.brackets ?? []).map(b => [
        textOf(b.folded, () => foldedText(b.folded)),
        b.joints.map(j => textOf(j, () => jointText(j))),
      ]),
      (w.screens ?? []).map(f => textOf(f, () => [f.polygon, f.holes])),
      textOf(w.components, () => w.components.map(c => [c.id, c.footprint, c.zBottom, c.zTop])),
      w.backing?.crossbars ?? [],
      w.backing ? textOf(w.backing.members, () => w.backing?.members) : '',
      Math.round(w.force),
      w.at?.map(v => Math.round(v)) ?? 'worst',
      w.hold ?? 'joints',
      w.fallMm ?? 'set down',
      w.drag ?? 0,
    ]),
  );
}
