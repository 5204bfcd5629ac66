import { gatherFacts } from '@plate-fold/core/derive';
import { rigTable, tableCsv, tableLaidIn } from '@plate-fold/core/formats';
import { checkDocument } from '@plate-fold/core/plan';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { RIG_TABLES } from './rig-tables';

describe('a rig’s tables', () => {
  const doc = demo('heron');
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
      faults: [{ row: 3, column: 'id', fault: '"n" is in an earlier row too' }],
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
