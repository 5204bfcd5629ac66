// What a reader of the book reads: its text taken out of the file again (ISO 32000-1, 9.10.3: by each font's ToUnicode map), held
// against the plan.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { demo } from '@plate-fold/demo';
import { beforeAll, describe, expect, it } from 'vitest';
import { drillingCard, hardwareList, holeRows, lengthName, toolList, toolName } from '../bolt';
import { phaseReports } from '../compare';
import { type Facts, gatherFacts } from '../derive';
import { buildName, panelWord } from '../plan';
import { installationOf } from '../sequence';
import { serviceList } from '../service';
import { fixed, formatLength, formatMass, sentence, torqueFigure, type UnitSystem } from '../units';
import { buildBook } from './index';

const folder = dirname(
  createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json'),
);
const woff = (weight: number): Uint8Array =>
  readFileSync(join(folder, `files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`));
const fonts = { plain: woff(400), bold: woff(700) };

/** The body of an object of a file, its stream unpacked. */
function objectOf(file: Buffer, n: string): { readonly head: string; readonly stream: string } {
  const start = file.indexOf(`\n${n} 0 obj`);
  const end = file.indexOf('endobj', start);
  const body = file.subarray(start, end);
  const at = body.indexOf('stream\n');
  if (at < 0) return { head: body.toString('latin1'), stream: '' };
  const packed = body.subarray(at + 7, body.lastIndexOf('endstream'));
  let stream: string;
  try {
    stream = inflateSync(packed).toString('latin1');
  } catch {
    stream = packed.toString('latin1');
  }
  return { head: body.subarray(0, at).toString('latin1'), stream };
}

/** The text of every page, a line for every piece that was set, in the order it was drawn. */
function pagesOf(pdf: Uint8Array): readonly string[] {
  const file = Buffer.from(pdf);
  const all = file.toString('latin1');
  const resources = objectOf(file, '2').head;
  const maps = new Map<string, Map<string, string>>();
  for (const [, name, ref] of resources.matchAll(/\/(F\d+) (\d+) 0 R/g)) {
    const [, map] = /\/ToUnicode (\d+) 0 R/.exec(objectOf(file, ref!).head) ?? [];
    if (!map) continue;
    maps.set(
      name!,
      new Map(
        [...objectOf(file, map).stream.matchAll(/<([0-9a-f]{4})><([0-9a-f]{4})>/g)].map(([, glyph, code]) => [
          glyph!,
          String.fromCharCode(Number.parseInt(code!, 16)),
        ]),
      ),
    );
  }
  return [...all.matchAll(/\/Type \/Page\n[\s\S]*?\/Contents (\d+) 0 R/g)].map(([, n]) => {
    const said: string[] = [];
    let font: Map<string, string> | undefined;
    for (const [, name, hex] of objectOf(file, n!).stream.matchAll(
      /\/(F\d+) [\d.]+ Tf|<([0-9a-f]*)> (?:Tj|')/g,
    )) {
      if (name) font = maps.get(name);
      else said.push((hex!.match(/.{4}/g) ?? []).map(g => font?.get(g) ?? '\uFFFD').join(''));
    }
    return said.join('\n');
  });
}
/** Without breaks: a cell's words may stand on several lines. */
const flat = (text: string): string => text.replace(/\s+/g, '');

interface Book {
  readonly facts: Facts;
  readonly pages: readonly string[];
  readonly all: string;
}
const bookOf = (name: string, units: UnitSystem): Book => {
  const facts = gatherFacts(demo(name));
  const pages = pagesOf(buildBook(facts, { fonts, units, side: 'head-front', at: Date.UTC(2026, 10, 26) }));
  return { facts, pages, all: flat(pages.join('\n')) };
};

describe.each([
  ['bramble', 'inch'],
  ['heron', 'metric'],
  ['wren', 'inch'],
] as const)('the book of %s in %s', (name, units) => {
  let book: Book;
  beforeAll(() => {
    book = bookOf(name, units);
  });
  const has = (text: string, where = book.all): void => expect(where, text).toContain(flat(text));
  /** The pages on which a plate's blank, bends and holes stand. */
  const pageOf = (title: string): string => flat(book.pages.find(p => p.startsWith(title)) ?? '');

  it('is set in glyphs that all have their letters', () => {
    expect(book.all).not.toContain('\uFFFD');
    expect(book.all.length).toBeGreaterThan(5000);
  });

  it('opens with the plan, what it weighs, and the caution', () => {
    const cover = flat(book.pages[0]!);
    const { document, weight, build, lowest } = book.facts;
    for (const text of [
      document.plan.name,
      document.rig.name,
      buildName(build),
      formatMass(weight.addedKg, units),
      formatMass(weight.netKg, units),
      formatLength(lowest.z, units),
      'estimates, not certificates',
      'Never work under a vehicle on a jack alone',
    ])
      has(text, cover);
  });

  it('tells what is fitted when and what is bought for it, where there are phases', () => {
    const reports = phaseReports(book.facts, units);
    const page = pageOf('In phases');
    expect(page === '').toBe(reports.length < 2);
    for (const [i, r] of reports.entries()) {
      has(`${i + 1}. ${r.phase.name}`, page);
      has(r.fitted.join(', '), page);
      has(`${fixed(r.dollars, 0)} $`, page);
      for (const l of hardwareList(r.bought)) has(l.part, page);
      for (const b of r.replaced) has(`${b.joint}: ${b.from} comes out, ${b.to} goes in`, page);
    }
  });

  it('has every plate with its weight and every bend that a shop sets', () => {
    for (const p of book.facts.panels) {
      const page = pageOf(sentence(panelWord(p.panel)));
      has(formatMass(p.massKg, units), page);
      for (const b of p.bends.filter(x => x.angle !== 0)) {
        has(`${fixed(Math.abs(b.angle), 1)}°`, page);
        has(formatLength(b.insideRadius, units, true), page);
        has(fixed(b.kFactor, 3), page);
      }
    }
  });

  it('has every hole of every blank, by its bolt and its place from the corner', () => {
    // joint, thread and place stand in one row, cell after cell
    for (const p of book.facts.panels)
      for (const r of holeRows(p, book.facts.joints))
        has(`${r.joint}${r.thread}${formatLength(r.x, units, true)}${formatLength(r.y, units, true)}`);
  });

  it('has every joint’s bolt with its length and torque, in one row', () => {
    for (const j of book.facts.joints.filter(x => x.joint.panels.length > 0)) {
      has(`${j.id}${j.thread.designation} × ${lengthName(j.lengthMm, j.thread)}`);
      has(torqueFigure(j.torqueNm, units).value);
    }
  });

  it('has the bag, the tools, the drilling and the service, each whole', () => {
    const { joints, panels, rig, document } = book.facts;
    for (const l of hardwareList(joints)) has(`${l.count}${l.part}`);
    for (const t of toolList(joints, { panels, rig })) has(toolName(t.tool, units));
    for (const j of joints) {
      const card = drillingCard(j, joints, document.plan.method);
      for (const m of card?.moves ?? []) has(m.what);
    }
    for (const l of serviceList({ doc: document, panels, joints }, rig)) has(l.point.name);
  });

  it('has every step of the work in order, with its reason and its cautions', () => {
    let from = book.all.indexOf(flat('The work, step by step'));
    expect(from).toBeGreaterThan(0);
    for (const step of installationOf(book.facts, units).steps) {
      const at = book.all.indexOf(flat(step.title), from);
      expect(at, step.title).toBeGreaterThanOrEqual(from);
      from = at;
      has(step.why);
      for (const c of step.cautions) has(c);
    }
  });

  it('numbers its pages', () => {
    book.pages.forEach((p, i) => has(`${i + 1}`, flat(p.slice(-80))));
  });
});
