import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { base64, buildBook, sfntFromWoff } from './index';

const folder = dirname(
  createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json'),
);
const woff = (weight: number): Uint8Array =>
  readFileSync(join(folder, `files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`));
const fonts = { plain: woff(400), bold: woff(700) };
const wish = { fonts, units: 'metric', side: 'head-front', at: Date.UTC(2026, 10, 26) } as const;

/** The drawing operators of every page, unpacked. */
function contents(pdf: Uint8Array): string[] {
  const file = Buffer.from(pdf);
  const out: string[] = [];
  for (let at = file.indexOf('stream\n'); at >= 0; at = file.indexOf('stream\n', at + 1)) {
    if (file.subarray(at - 3, at).toString() === 'end') continue;
    const end = file.indexOf('endstream', at);
    try {
      out.push(inflateSync(file.subarray(at + 7, end)).toString('latin1'));
    } catch {
      // a stream that is not packed is no page
    }
  }
  return out.filter(s => /(^|\n)BT\n/.test(s));
}
const count = (pdf: Uint8Array, what: RegExp): number =>
  (Buffer.from(pdf).toString('latin1').match(what) ?? []).length;

describe('the font', () => {
  it('is unpacked into tables that end on words and keep their bytes', () => {
    const ttf = sfntFromWoff(fonts.plain);
    const view = new DataView(ttf.buffer);
    const tables = view.getUint16(4);
    expect(tables).toBe(new DataView(fonts.plain.buffer, fonts.plain.byteOffset).getUint16(12));
    for (let i = 0; i < tables; i++) {
      const [offset, length] = [view.getUint32(12 + 16 * i + 8), view.getUint32(12 + 16 * i + 12)];
      expect(offset % 4).toBe(0);
      expect(offset + length).toBeLessThanOrEqual(ttf.length);
    }
    // the checksum of a table's words is the one its directory names (OpenType, font tables)
    const head = Array.from({ length: tables }, (_, i) => 12 + 16 * i).find(
      e => view.getUint32(e) === 0x6e616d65,
    )!;
    const [sum, offset, length] = [
      view.getUint32(head + 4),
      view.getUint32(head + 8),
      view.getUint32(head + 12),
    ];
    let made = 0;
    for (let k = 0; k < length; k += 4) made = (made + view.getUint32(offset + k)) >>> 0;
    expect(made).toBe(sum);
  });
  it('is refused where it is something else', () => {
    expect(() => sfntFromWoff(new Uint8Array(60))).toThrow('not a WOFF');
  });
  it('goes into text as base64 like the platform\u2019s own', () => {
    const bytes = Uint8Array.from({ length: 70_001 }, (_, i) => (i * 7) % 256);
    expect(base64(bytes)).toBe(Buffer.from(bytes).toString('base64'));
  });
});

describe('the build book', () => {
  const facts = gatherFacts(demo('bramble'));
  const pdf = buildBook(facts, wish);
  it('has a page for every plate and one for each list, drawn as lines and never as pictures', () => {
    expect(Buffer.from(pdf.subarray(0, 5)).toString()).toBe('%PDF-');
    expect(count(pdf, /\/Type \/Page\b/g)).toBeGreaterThanOrEqual(facts.panels.length + 6);
    expect(count(pdf, /\/Subtype \/Image/g)).toBe(0);
    expect(count(pdf, /\/FontFile2/g)).toBeGreaterThanOrEqual(2);
  });
  it('is black on white: no ink of any color', () => {
    const inks = contents(pdf).flatMap(page => page.match(/[\d.]+ [\d.]+ [\d.]+ (rg|RG)\b/g) ?? []);
    for (const ink of inks) {
      const [r, g, b] = ink.split(' ');
      expect([g, b]).toEqual([r, r]);
    }
    expect(contents(pdf).join('').length).toBeGreaterThan(10_000);
  });
  it('follows units and side of view', () => {
    const inch = buildBook(facts, { ...wish, units: 'inch' });
    const turned = buildBook(facts, { ...wish, side: 'head-rear' });
    expect(contents(inch).join()).not.toBe(contents(pdf).join());
    expect(contents(turned).join()).not.toBe(contents(pdf).join());
  });
  it('of a plan without plates is a cover that says so', () => {
    const doc = demo('bramble');
    const empty = gatherFacts({
      ...doc,
      plan: { ...doc.plan, panels: [], joints: [], seams: [], crossbars: [] },
    });
    const got = buildBook(empty, wish);
    expect(count(got, /\/Type \/Page\b/g)).toBe(1);
    expect(contents(got).length).toBe(1);
  });
  it.each(['heron', 'pebble', 'wren'])('of %s is made too', name => {
    expect(buildBook(gatherFacts(demo(name)), wish).length).toBeGreaterThan(30_000);
  });
});
