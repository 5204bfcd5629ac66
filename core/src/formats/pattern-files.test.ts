import { demo as demoPlan } from '@plate-fold/demo';
import { validateBytes } from 'gltf-validator';
import { describe, expect, it } from 'vitest';
import {
  type FoldedPanel,
  flatPattern,
  fold,
  foldedSolid,
  NEST_DEFAULTS,
  nest,
  patternArea,
  SHOPS,
} from '../fold';
import { areaOf, boxOf, difference, type Region, signedArea } from '../geometry';
import { buildOf, sheetOf } from '../plan';
import { bendTableCsv, glb, nestDxf, patternDxf, patternSvg, readDxf, stl } from './index';

const demo = (): readonly FoldedPanel[] => {
  const { plan } = demoPlan('bramble');
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

describe('a nested sheet as DXF', () => {
  it.each(['metric', 'inch'] as const)(
    'comes back (%s) with every blank where it lies, within 0.01 mm',
    system => {
      const patterns = plates.map(flatPattern);
      const { sheets } = nest(plates, { ...NEST_DEFAULTS, sheets: SHOPS[1]!.sheets });
      expect(sheets.flatMap(s => s.blanks)).toHaveLength(plates.length);
      for (const s of sheets) {
        const read = readDxf(nestDxf(s, patterns, system));
        if (!read.ok) throw new Error(read.fault);
        expect(read.value.plates).toHaveLength(s.blanks.length);
        const boxes = (list: readonly Region[]) =>
          list
            .map(o => boxOf(o.flat()))
            .sort((a, b) => a.min[0] - b.min[0] || a.min[1] - b.min[1])
            .flatMap(b => [...b.min, ...b.max]);
        const [there, back] = [
          boxes(s.blanks.map(b => b.outlines)),
          boxes(read.value.plates.map(p => [p.outline])),
        ];
        there.forEach((v, i) => expect(Math.abs(v - (back[i] ?? NaN))).toBeLessThan(0.01));
        expect(read.value.plates.flatMap(p => p.holes)).toHaveLength(
          s.blanks.flatMap(b => patterns.find(p => p.panel === b.panel)?.cutouts ?? []).length,
        );
      }
    },
  );
});

// checked by the validator of the format's own keepers (glTF 2.0, ISO/IEC 12113), and its figures read back
describe('folded plates as GLB', () => {
  it('are valid glTF: no errors, no warnings', async () => {
    const parts = plates.map(p => ({
      name: p.panel.name,
      family: p.material.family,
      triangles: foldedSolid(p),
    }));
    const report = await validateBytes(glb('the set', parts));
    expect(report.issues.messages).toEqual([]);
    expect(report.issues.numErrors + report.issues.numWarnings).toBe(0);
    expect(report.info.totalTriangleCount).toBe(parts.reduce((n, p) => n + p.triangles.length, 0));
    const empty = await validateBytes(glb('nothing', []));
    expect(empty.issues.numErrors).toBe(0);
  });
  it('stand in meters, y up, the vehicle’s right along x', () => {
    const [a] = plates as [FoldedPanel];
    const bytes = glb('A', [{ name: 'A', family: 'steel', triangles: foldedSolid(a) }]);
    const length = new DataView(bytes.buffer).getUint32(12, true);
    const json = JSON.parse(new TextDecoder().decode(bytes.slice(20, 20 + length))) as {
      accessors: { min: number[]; max: number[] }[];
    };
    const points = foldedSolid(a).flat();
    const range = (i: number): readonly [number, number] => [
      Math.min(...points.map(p => p[i] as number)) / 1000,
      Math.max(...points.map(p => p[i] as number)) / 1000,
    ];
    [1, 2, 0].forEach((axis, i) => {
      const [low, high] = range(axis);
      expect(json.accessors[0]?.min[i]).toBeCloseTo(low, 6);
      expect(json.accessors[0]?.max[i]).toBeCloseTo(high, 6);
    });
  });
});

describe('the other files of a plate', () => {
  const [a] = plates as [FoldedPanel];
  it('SVG is to scale: as many millimeters as the page says', () => {
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
    const rows = bendTableCsv(plates, SHOPS[0]!, 'metric').trim().split('\r\n');
    expect(rows).toHaveLength(1 + plates.flatMap(p => p.bends.filter(b => b.angle !== 0)).length);
    const [mark, bend, , angle, to] = (rows[1] ?? '').split(',');
    expect([mark, bend]).toEqual(['A', 'front-ramp']);
    expect(Number(to)).toBeGreaterThan(Number(angle));
  });

  it('deducts from outside legs whichever way the bend goes', () => {
    const rows = bendTableCsv(plates.slice(0, 1), SHOPS[0]!, 'metric')
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
