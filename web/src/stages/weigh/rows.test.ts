import { check } from '@plate-fold/core/checks';
import { gatherFacts } from '@plate-fold/core/derive';
import { inPlan } from '@plate-fold/core/plan';
import type { StrikeAnswer } from '@plate-fold/core/strike';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { compareRows } from './rows';
import type { Column } from './use-columns';

describe('the rows that builds are compared by', () => {
  const doc = demo('bramble');
  const facts = gatherFacts(doc);
  const columns = doc.plan.builds.map((b): Column => {
    const of = gatherFacts(doc, b.id);
    return { facts: of, findings: check(of) };
  });
  const rows = compareRows(facts, 'metric').flatMap(g => g.rows);
  const value = (name: string, i: number): number =>
    rows.find(r => r.name === name)?.value?.(columns[i] as Column) ?? Number.NaN;

  it('have a name of their own each, and a finite value in every build where nothing has to be struck or laid', () => {
    expect(new Set(rows.map(r => r.name)).size).toBe(rows.length);
    const later = new Set([
      'Clearance under a strike',
      'Deepest dent',
      'Lowest vibration',
      'Shaken by the road',
      'Plates that collapse',
      'Stock sheets',
    ]);
    for (const r of rows)
      for (const c of columns) {
        if (later.has(r.name)) expect(r.value?.(c), r.name).toBeUndefined();
        else if (r.value) expect(Number.isFinite(r.value(c)), r.name).toBe(true);
        else expect(r.note?.(c, columns[0]), r.name).toBeDefined();
      }
  });
  it('take the worst plate once all are struck', () => {
    const struck = facts.panels.map(
      (p, i) =>
        ({
          panel: p.panel.id,
          gapMm: 30 - i,
          gapTo: facts.rig.components[0]?.id,
          dentMm: i,
          ringHz: 60 - i,
          ...(i === 0 ? {} : { shakenShare: i / 10 }),
          reached: i === 2 ? 0.6 : 1,
        }) as unknown as StrikeAnswer,
    );
    const column = { ...(columns[0] as Column), struck };
    const last = facts.panels.at(-1)?.panel.mark;
    const row = (name: string) => rows.find(r => r.name === name);
    expect(row('Clearance under a strike')?.value?.(column)).toBe(30 - struck.length + 1);
    expect(row('Clearance under a strike')?.note?.(column, undefined)).toMatch(new RegExp(`^${last} to `));
    expect(row('Deepest dent')?.value?.(column)).toBe(struck.length - 1);
    expect(row('Shaken by the road')?.value?.(column)).toBeCloseTo(10 * (struck.length - 1), 9);
    expect(row('Plates that collapse')?.value?.(column)).toBe(1);
    expect(row('Plates that collapse')?.note?.(column, undefined)).toBe(facts.panels[2]?.panel.mark);
  });
  it('give fenders as heights once they are measured', () => {
    const measured = gatherFacts(inPlan(doc, { fenders: { front: { before: 900 } } }));
    const front = compareRows(measured, 'metric')
      .flatMap(g => g.rows)
      .find(r => r.name === 'Fender, front');
    const column = { facts: measured, findings: [] };
    expect(front?.value?.(column)).toBeCloseTo(900 + measured.weight.rideHeight.frontMm, 9);
    expect(front?.show?.(892, false)).toEqual({ value: '892.0', unit: 'mm' });
    expect(value('Fender, front', 0)).toBeCloseTo(facts.weight.rideHeight.frontMm, 9);
  });
  it('costs add up to what is paid, and hardware changes are named against the other build', () => {
    columns.forEach((c, i) => {
      const parts = ['Sheet', 'Cutting', 'Bending', 'Finish', 'Bolts and bars'];
      expect(parts.reduce((s, n) => s + value(n, i), 0)).toBeCloseTo(c.facts.weight.cost, 9);
    });
    const change = rows.find(r => r.name === 'Hardware that changes');
    expect(change?.note?.(columns[1] as Column, columns[0])).toMatch(/\d+ × .* → /);
    expect(change?.note?.(columns[0] as Column, columns[0])).toBe('');
  });
  it('add up: plates, hardware and factory parts are the net mass', () => {
    columns.forEach((_, i) => {
      const plates = doc.plan.panels.reduce((s, p) => s + value(`${p.mark} ${p.name}`, i), 0);
      expect(plates + value('Hardware', i) + value('Factory parts to remove', i)).toBeCloseTo(
        value('Net mass', i),
        9,
      );
    });
  });
  it('both axles together carry the net mass', () => {
    columns.forEach((_, i) =>
      expect(value('Front axle', i) + value('Rear axle', i)).toBeCloseTo(value('Net mass', i), 9),
    );
  });
  it('show a gain with its sign and a unit, in inch and metric', () => {
    const net = rows.find(r => r.name === 'Net mass');
    expect(net?.show?.(12.34, false)).toEqual({ value: '+12.3', unit: 'kg' });
    const inch = compareRows(facts, 'inch')
      .flatMap(g => g.rows)
      .find(r => r.name === 'Fender, front');
    expect(inch?.show?.(-7.9, false)).toEqual({ value: '\u22120.311', unit: 'in' });
  });
  it('name the heaviest plate and who holds it up', () => {
    const heavy = rows.find(r => r.name === 'Heaviest plate');
    expect(heavy?.note?.(columns[0] as Column, undefined)).toMatch(/^[AB], two people or a jack$/);
    expect(heavy?.note?.(columns[1] as Column, undefined)).toMatch(/one person$/);
  });
});
