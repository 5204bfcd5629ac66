// What comes out of the printer: the file's own lines and curves read back (ISO 32000-1, 8.5), in millimeters of paper.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { dot3, sub3, toSpace, type Vec2 } from '../geometry';
import { PAPERS, templatePdf } from './index';

const folder = dirname(
  createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json'),
);
const woff = (weight: number): Uint8Array =>
  readFileSync(join(folder, `files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`));
const fonts = { plain: woff(400), bold: woff(700) };
const PT = 72 / 25.4;

interface Page {
  readonly size: Vec2;
  readonly circles: readonly { readonly at: Vec2; readonly width: number }[];
  readonly lines: readonly (readonly [Vec2, Vec2])[];
}
/** Every page's circles (four curves from one point back to it) and lines, mm from its top left. */
function pagesOf(pdf: Uint8Array): readonly Page[] {
  const file = Buffer.from(pdf);
  const text = file.toString('latin1');
  return [...text.matchAll(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)].map((m, page): Page => {
    const [w, h] = [Number(m[1]), Number(m[2])];
    // streams stand in the order of the pages
    const starts = [...text.matchAll(/\nstream\n|>>\nstream\n/g)].map(x => (x.index ?? 0) + x[0].length);
    const body = file.subarray(starts[page], text.indexOf('endstream', starts[page]));
    const ops = inflateSync(body).toString('latin1').split('\n');
    const point = (x: string | undefined, y: string | undefined): Vec2 => [
      Number(x) / PT,
      (h - Number(y)) / PT,
    ];
    const circles: { at: Vec2; width: number }[] = [];
    const lines: [Vec2, Vec2][] = [];
    let from: Vec2 = [0, 0];
    let curve: Vec2[] = [];
    for (const op of ops) {
      const a = op.trim().split(/\s+/);
      const kind = a.at(-1);
      if (kind === 'm') {
        from = point(a[0], a[1]);
        curve = [from];
      } else if (kind === 'l') {
        const to = point(a[0], a[1]);
        lines.push([from, to]);
        from = to;
      } else if (kind === 'c') {
        curve.push(point(a[4], a[5]));
        if (curve.length === 5) {
          const xs = curve.map(p => p[0]);
          const ys = curve.map(p => p[1]);
          const width = Math.max(...xs) - Math.min(...xs);
          circles.push({ at: [Math.min(...xs) + width / 2, (Math.min(...ys) + Math.max(...ys)) / 2], width });
        }
      }
    }
    return { size: [w / PT, h / PT], circles, lines };
  });
}

describe('a paper template', () => {
  const facts = gatherFacts(demo('pebble'));
  it.each(['letter', 'a4'] as const)(
    'on %s has every hole at full size within 0.1 mm, and a bar of 100 mm',
    paper => {
      const plate = facts.panels.find(p => p.panel.id === 'skirt-right')!;
      const pages = pagesOf(templatePdf(facts, { panels: ['skirt-right'], paper, fonts }));
      expect(pages.length).toBeGreaterThan(1);
      const [short, long] = PAPERS[paper];
      for (const p of pages) {
        expect([...p.size].sort((a, b) => a - b)[0]).toBeCloseTo(short, 1);
        expect([...p.size].sort((a, b) => a - b)[1]).toBeCloseTo(long, 1);
        const lengths = p.lines.map(([a, b]) => Math.hypot(b[0] - a[0], b[1] - a[1]));
        expect(lengths.some(l => Math.abs(l - 100) < 0.05)).toBe(true);
        expect(lengths.some(l => Math.abs(l - 101.6) < 0.05)).toBe(true);
      }
      // every page draws all holes, most of them beyond its edge: between any two they stand as on the plate
      const holes = plate.holes.filter(h => 'circle' in h.final);
      expect(holes.length).toBeGreaterThan(3);
      const base = plate.facets[0]!.frame;
      const flat = holes.map((h): Vec2 => {
        const d = sub3(toSpace(plate.facets.find(f => f.id === h.facet)!.frame, h.at), base.origin);
        return [dot3(d, base.u), dot3(d, base.v)];
      });
      for (const page of pages) {
        const drawn = page.circles;
        expect(drawn).toHaveLength(holes.length);
        drawn.forEach((c, i) => {
          const { final } = holes[i]!;
          expect(Math.abs(c.width - ('circle' in final ? final.circle : 0))).toBeLessThan(0.1);
          const off = [c.at[0] - drawn[0]!.at[0], c.at[1] - drawn[0]!.at[1]];
          // rearward is to the right, the vehicle's right side down: as it is seen from below
          expect(Math.abs(off[0]! - (flat[i]![0] - flat[0]![0]))).toBeLessThan(0.1);
          expect(Math.abs(off[1]! - (flat[i]![1] - flat[0]![1]))).toBeLessThan(0.1);
        });
      }
      // laid cross on cross, sheet after sheet covers the plate
      const places = pages.map(p => p.circles[0]!.at);
      expect(new Set(places.map(p => p.map(v => v.toFixed(2)).join())).size).toBe(pages.length);
    },
  );
  it('of several plates is one, and what cannot be drawn is told', () => {
    const several = pagesOf(
      templatePdf(facts, { panels: ['skirt-left', 'skirt-right'], paper: 'a4', fonts }),
    );
    expect(several[0]!.circles.length).toBeGreaterThan(8);
    expect(() => templatePdf(facts, { panels: ['none'], paper: 'a4', fonts })).toThrow(
      'there is no plate none',
    );
  });
});
