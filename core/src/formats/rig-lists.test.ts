import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDocument, type PlanDocument } from '../plan';
import { cellEntered, cellText, csv, rigTable, tableCsv, tableLaidIn } from './index';

/** A plan whose outlines stand at places that no table shows exactly. */
const odd = (): PlanDocument => {
  const doc = demo('bramble');
  const components = doc.rig.components.map(c => ({
    ...c,
    footprint: c.footprint.map(([x, y], i) => [x + 0.01234 * (i + 1), y - 0.00777 * i] as const),
  }));
  return { ...doc, rig: { ...doc.rig, components } };
};

describe('a cell of a rig’s table', () => {
  it.each(['inch', 'metric'] as const)('typed in %s changes that figure and nothing else', units => {
    const doc = odd();
    const [first] = doc.rig.components;
    if (!first) throw new Error('no part');
    const r = cellEntered(doc, 'components', first.id, 'clearance', '1', units);
    if (!r.ok) throw new Error(r.fault);
    expect(r.value.rig.components[0]).toEqual({ ...first, keepOut: units === 'inch' ? 25.4 : 1 });
    expect(r.value.rig.components.slice(1)).toEqual(doc.rig.components.slice(1));
  });
  it('typed as it is shown leaves the whole rig as it was, in every list and column', () => {
    const doc = odd();
    const lists = ['components', 'members', 'mounts', 'servicePoints', 'factoryParts'] as const;
    fc.assert(
      fc.property(fc.constantFrom(...lists), fc.nat(), fc.nat(), fc.boolean(), (list, i, k, inch) => {
        const units = inch ? 'inch' : 'metric';
        const rows = doc.rig[list] as readonly { readonly id: string }[];
        const row = rows[i % rows.length];
        const table = rigTable(list, doc.rig, units);
        const column = table.columns[k % table.columns.length];
        if (!row || !column) return;
        const typed = cellText(column, row as never, units);
        const r = cellEntered(doc, list, row.id, column.name, typed, units);
        if (!r.ok) throw new Error(`${list} ${column.name}: ${r.fault}`);
        expect(JSON.parse(JSON.stringify(r.value))).toEqual(JSON.parse(JSON.stringify(doc)));
        expect(checkDocument(JSON.parse(JSON.stringify(r.value))).ok).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
  it('that does not fit is refused with what is wrong, and an id that another row has', () => {
    const doc = demo('bramble');
    const [a, b] = doc.rig.mounts;
    if (!a || !b) throw new Error('no holes');
    const r = cellEntered(doc, 'mounts', a.id, 'x', 'wide', 'inch');
    expect(r.ok ? '' : r.fault).toContain('wide');
    const other = cellEntered(doc, 'mounts', a.id, 'id', b.id, 'inch');
    expect(other.ok ? '' : other.fault).toContain(`"${b.id}" is another row's id`);
  });
});

describe('names that a spreadsheet would take for formulas', () => {
  it('are guarded in the file and read back as they were, also those that look guarded', () => {
    const doc = demo('bramble');
    const nasty = ['=1+1', "'=1+1", "''+2", '@sum', "'quoted"];
    const named: PlanDocument = {
      ...doc,
      rig: {
        ...doc.rig,
        components: doc.rig.components.map((c, i) => ({ ...c, name: nasty[i] ?? c.name })),
      },
    };
    const table = rigTable('components', named.rig, 'metric');
    const text = tableCsv(table, named.rig.components, 'metric');
    expect(text).not.toMatch(/(^|,)"?[=+@]/m);
    const back = tableLaidIn(doc, 'components', text, 'metric');
    if (!('document' in back)) throw new Error(JSON.stringify(back.faults));
    expect(back.document.rig.components.map(c => c.name)).toEqual(named.rig.components.map(c => c.name));
  });
  it('get one apostrophe each', () => {
    expect(csv(['a'], [['=1'], ["'=1"], ['-1'], [-1], ['it’s']])).toBe(
      "a\r\n'=1\r\n''=1\r\n-1\r\n-1\r\nit’s\r\n",
    );
  });
});
