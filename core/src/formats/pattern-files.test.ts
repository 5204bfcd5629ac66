import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type FoldedPanel, flatPattern, fold, foldedSolid, patternArea } from '../fold';
import { areaOf, difference, type Region, signedArea } from '../geometry';
import { buildOf, readDocument, sheetOf } from '../plan';
import { bendTableCsv, patternDxf, patternSvg, readDxf, stl } from './index';

const demo = (): readonly FoldedPanel[] => {
  const r = readDocument(
    readFileSync(new URL('../../../demo/bramble.platefold.json', import.meta.url), 'utf8'),
  );
  if (!r.ok) throw new Error(r.faults[0]?.fault);
  const { plan } = r.document;
  return plan.panels.map(p => fold(p, sheetOf(buildOf(plan), p)));
};
const plates = demo();

describe('a flat pattern as DXF', () => {
  it.each(plates.flatMap(f => (['metric', 'inch'] as const).map(s => [f.panel.mark, s, f] as const)))(
    'plate %s (%s) comes back within 0.01 mm',
    (_, system, f) => {
      const p = flatPattern(f);
      const read = readDxf(patternDxf(p, system));
      if (!read.ok) throw new Error(read.fault);
      const [back] = read.value.plates;
      const outer = p.outline.filter(o => signedArea(o) > 0) as Region;
      const apart =
        areaOf(difference(outer, [back?.outline ?? []])) + areaOf(difference([back?.outline ?? []], outer));
      const around = outer.flat().length * 1000;
      expect(apart).toBeLessThan(0.01 * around);
      (back?.outline ?? []).forEach(q => {
        const near = Math.min(...outer.flat().map(r => Math.hypot(q[0] - r[0], q[1] - r[1])));
        expect(near).toBeLessThan(0.01);
      });
      expect(back?.holes).toHaveLength(p.cutouts.length);
      const circles = p.cutouts.flatMap(c => ('circle' in c ? [c.circle] : []));
      const read2 = (back?.holes ?? []).flatMap(h => ('circle' in h ? [h.circle] : []));
      read2
        .sort((a, b) => a - b)
        .forEach((d, i) => expect(Math.abs(d - (circles.sort((a, b) => a - b)[i] ?? 0))).toBeLessThan(0.01));
    },
  );

  it('keeps cutting, bends up and down, and etching on layers of their own, and says its unit', () => {
    const [a] = plates;
    const text = patternDxf(flatPattern(a as FoldedPanel), 'metric');
    for (const layer of ['CUT', 'BEND_UP', 'BEND_DOWN', 'ETCH']) expect(text).toContain(layer);
    expect(text).toMatch(/\$INSUNITS\s+70\s+4/);
    expect(patternDxf(flatPattern(a as FoldedPanel), 'inch')).toMatch(/\$INSUNITS\s+70\s+1/);
    expect(text).toContain('A engine');
  });
});

describe('the other files of a plate', () => {
  const [a] = plates as [FoldedPanel];
  it('SVG is to scale: as many millimetres as the page says', () => {
    const p = flatPattern(a);
    const svg = patternSvg(p);
    const [, w, h] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg) ?? [];
    expect(Number(w)).toBeCloseTo(p.size[0] + 20, 2);
    expect(Number(h)).toBeCloseTo(p.size[1] + 20, 2);
    expect(svg.match(/class="bend-(up|down)"/g)).toHaveLength(p.bends.length);
    expect(patternArea(p)).toBeGreaterThan(0);
  });
  it('STL has one facet a triangle, normals of length one', () => {
    const triangles = foldedSolid(a);
    const text = stl('plate A', triangles);
    expect(text.match(/facet normal/g)).toHaveLength(triangles.length);
    for (const m of [...text.matchAll(/facet normal (\S+) (\S+) (\S+)/g)].slice(0, 60))
      expect(Math.hypot(Number(m[1]), Number(m[2]), Number(m[3]))).toBeCloseTo(1, 3);
  });
  it('the bend table names every bend with the angle to bend to', () => {
    const rows = bendTableCsv(plates).trim().split('\r\n');
    expect(rows).toHaveLength(1 + plates.flatMap(p => p.bends.filter(b => b.angle !== 0)).length);
    const [mark, bend, , angle, to] = (rows[1] ?? '').split(',');
    expect([mark, bend]).toEqual(['A', 'front-ramp']);
    expect(Number(to)).toBeGreaterThan(Number(angle));
  });

  it('deducts from outside legs whichever way the bend goes', () => {
    const rows = bendTableCsv(plates.slice(0, 1))
      .trim()
      .split('\r\n')
      .map(r => r.split(','));
    const deduction = (id: string): number => Number(rows.find(r => r[1] === id)?.[8]);
    const way = (id: string): string | undefined => rows.find(r => r[1] === id)?.[2];
    expect([way('front-ramp'), way('front-lip')]).toEqual(['up', 'down']);
    expect(deduction('front-ramp')).toBeGreaterThan(0);
    expect(deduction('front-lip')).toBe(deduction('front-ramp'));
  });
});
