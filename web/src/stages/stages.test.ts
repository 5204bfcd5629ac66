import { readFileSync } from 'node:fs';
import {
  check,
  checkDocument,
  gatherFacts,
  inPlan,
  type PlanDocument,
  readDocument,
  rigTable,
  type StrikeAnswer,
  tableCsv,
  tableLaidIn,
} from '@plate-fold/core';
import { describe, expect, it } from 'vitest';
import { RIG_TABLES } from './rig/rig-tables';
import { compareRows } from './weigh/rows';
import type { Column } from './weigh/use-columns';

const open = (name: string): PlanDocument => {
  const r = readDocument(
    readFileSync(new URL(`../../../demo/${name}.platefold.json`, import.meta.url), 'utf8'),
  );
  if (!r.ok) throw new Error(r.faults[0]?.fault);
  return r.document;
};

describe('the rows that builds are compared by', () => {
  const doc = open('bramble');
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
      'Least gap, struck',
      'Deepest dent left',
      'Lowest ring',
      'Plates that give way',
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
          reached: i === 2 ? 0.6 : 1,
        }) as unknown as StrikeAnswer,
    );
    const column = { ...(columns[0] as Column), struck };
    const last = facts.panels.at(-1)?.panel.mark;
    const row = (name: string) => rows.find(r => r.name === name);
    expect(row('Least gap, struck')?.value?.(column)).toBe(30 - struck.length + 1);
    expect(row('Least gap, struck')?.note?.(column, undefined)).toMatch(new RegExp(`^${last} to `));
    expect(row('Deepest dent left')?.value?.(column)).toBe(struck.length - 1);
    expect(row('Plates that give way')?.value?.(column)).toBe(1);
    expect(row('Plates that give way')?.note?.(column, undefined)).toBe(facts.panels[2]?.panel.mark);
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
      expect(plates + value('Hardware', i) + value('Factory parts off', i)).toBeCloseTo(
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

describe('a rig’s tables', () => {
  const doc = open('heron');
  it.each(RIG_TABLES.map(t => [t.tab, t] as const))(
    '%s laid in as they are change nothing that matters',
    (_, of) => {
      const table = rigTable(of.list, doc.rig, 'metric');
      const laid = tableLaidIn(doc, of.list, tableCsv(table, doc.rig[of.list] as never, 'metric'), 'metric');
      if (!('document' in laid)) throw new Error(JSON.stringify(laid.faults));
      expect(laid.rows).toBe(doc.rig[of.list].length);
      expect(checkDocument(laid.document).ok).toBe(true);
      expect(gatherFacts(laid.document).weight.netKg).toBeCloseTo(gatherFacts(doc).weight.netKg, 3);
      expect(gatherFacts(laid.document).coverage.fraction).toBeCloseTo(gatherFacts(doc).coverage.fraction, 4);
    },
  );
  it('two rows of one id are refused by row', () => {
    const holes = RIG_TABLES.find(t => t.list === 'mounts');
    if (!holes) throw new Error('no holes');
    const text = 'id,x mm,y mm,z mm,kind\nn,1,2,3,threaded\nn,4,5,6,threaded';
    expect(tableLaidIn(doc, holes.list, text, 'metric')).toEqual({
      ok: false,
      faults: [{ row: 3, column: 'id', fault: '"n" stands in an earlier row too' }],
    });
  });
  it('a hole that is moved takes its bolt along, one that is gone lets it go', () => {
    const holes = RIG_TABLES.find(t => t.list === 'mounts');
    if (!holes) throw new Error('no holes');
    const used = doc.plan.joints[0]?.mount ?? '';
    const laid = tableLaidIn(
      doc,
      holes.list,
      `id,x mm,y mm,z mm,kind,thread\n${used},-440,-120,427,captive-nut,M8x1.25`,
      'metric',
    );
    if (!('document' in laid)) throw new Error(JSON.stringify(laid.faults));
    expect(gatherFacts(laid.document).joints[0]?.at).toEqual([-440, -120, 427]);
  });
});
