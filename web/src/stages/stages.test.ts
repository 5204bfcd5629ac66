import { readFileSync } from 'node:fs';
import {
  check,
  checkDocument,
  gatherFacts,
  type PlanDocument,
  readDocument,
  tableCsv,
} from '@plate-fold/core';
import { describe, expect, it } from 'vitest';
import { RIG_TABLES, tableLaidIn } from './rig/rig-tables';
import { type Column, compareRows } from './weigh/rows';

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
  const rows = compareRows(facts, 'metric');
  const value = (name: string, i: number): number =>
    rows.find(r => r.name === name)?.value(columns[i] as Column) ?? Number.NaN;

  it('have a name of their own each, and a finite value in every build', () => {
    expect(new Set(rows.map(r => r.name)).size).toBe(rows.length);
    for (const r of rows) for (const c of columns) expect(Number.isFinite(r.value(c)), r.name).toBe(true);
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
    expect(net?.show(12.34, false)).toEqual({ value: '+12.3', unit: 'kg' });
    const inch = compareRows(facts, 'inch').find(r => r.name === 'Nose');
    expect(inch?.show(-7.9, false)).toEqual({ value: '\u22120.311', unit: 'in' });
  });
  it('name the heaviest plate and who holds it up', () => {
    const heavy = rows.find(r => r.name === 'Heaviest plate');
    expect(heavy?.note?.(columns[0] as Column)).toMatch(/^[AB], two people or a jack$/);
    expect(heavy?.note?.(columns[1] as Column)).toMatch(/one person$/);
  });
});

describe('a rig’s tables', () => {
  const doc = open('heron');
  it.each(RIG_TABLES.map(t => [t.tab, t] as const))(
    '%s laid in as they are change nothing that matters',
    (_, of) => {
      const table = of.table(doc.rig, 'metric');
      const laid = tableLaidIn(doc, of, tableCsv(table, doc.rig[of.list] as never, 'metric'), 'metric');
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
    expect(tableLaidIn(doc, holes, text, 'metric')).toEqual({
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
      holes,
      `id,x mm,y mm,z mm,kind,thread\n${used},-440,-120,427,captive-nut,M8x1.25`,
      'metric',
    );
    if (!('document' in laid)) throw new Error(JSON.stringify(laid.faults));
    expect(gatherFacts(laid.document).joints[0]?.at).toEqual([-440, -120, 427]);
  });
});
