import { demo as demoPlan } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { selfCrossing, type Vec2 } from '../geometry';
import { anyMutation } from '../testing/mutate';
import { checkDocument, readDocument, writeDocument } from './document';
import { faultsAgainst } from './faults';
import { boundsFaults, LIMITS } from './limits';
import type { PlanDocument } from './plan';
import { quickYes } from './quick';
import { documentSchema } from './schema';

const demo = (name: string): PlanDocument => demoPlan(name);
const DEMOS = ['bramble', 'pebble', 'heron', 'wren'].map(demo);
const said = (value: unknown): string => {
  const r = checkDocument(value);
  return r.ok ? 'taken' : (r.faults.map(f => `${f.path} ${f.fault}`)[0] ?? '');
};
const readJson = (change: (text: string) => string): unknown => JSON.parse(change(JSON.stringify(DEMOS[0])));
type Loose = Record<string, unknown> & { plan: { panels: { flanges: unknown[]; base: unknown }[] } };
const changed = (change: (d: Loose) => void): unknown => {
  const d = structuredClone(DEMOS[0]) as unknown as Loose;
  change(d);
  return d;
};

describe('the door of a document', () => {
  it('the quick yes is the library\u2019s yes, over mutated plans', () => {
    const yes = quickYes(documentSchema);
    fc.assert(
      fc.property(fc.constantFrom(...DEMOS).chain(anyMutation), d => {
        expect(yes(d)).toBe(faultsAgainst(documentSchema, d).length === 0);
      }),
      { numRuns: 100 },
    );
  });

  it('refuses an empty place in a list, as a program may leave one', () => {
    const doc = demo('pebble');
    const [first, ...rest] = doc.plan.panels;
    const holed = { ...first!, openings: [...first!.openings, undefined] };
    const r = checkDocument({ ...doc, plan: { ...doc.plan, panels: [holed, ...rest] } });
    expect(r.ok ? [] : r.faults.map(f => `${f.path} ${f.fault}`).join()).toContain('openings');
  });

  it('what is taken is taken again after it was written, and holds no number that JSON cannot', () => {
    fc.assert(
      fc.property(fc.constantFrom(...DEMOS).chain(anyMutation), d => {
        const r = checkDocument(d);
        if (!r.ok) {
          expect(r.faults.length).toBeGreaterThan(0);
          expect(r.faults.length).toBeLessThanOrEqual(60);
          return;
        }
        const again = readDocument(writeDocument(r.document));
        expect(again.ok && JSON.stringify(again.document)).toBe(JSON.stringify(r.document));
      }),
      { numRuns: 250 },
    );
  });

  it('1e999 is a number without end wherever it stands, also under a key nobody knows', () => {
    expect(readDocument(JSON.stringify(DEMOS[0]).replace(/"wheelbase":[\d.]+/, '"wheelbase":1e999'))).toEqual(
      {
        ok: false,
        faults: [{ path: 'rig.wheelbase', fault: 'is a number without end' }],
      },
    );
    expect(said(changed(d => Object.assign(d, { mine: { deep: [1, Infinity] } })))).toBe(
      'mine.deep[1] is a number without end',
    );
    expect(said(changed(d => Object.assign(d.plan, { x: Number.NaN })))).toBe('plan.x is not a number');
    expect(said(changed(d => Object.assign(d.plan, { x: -2e300 })))).toBe('taken');
    expect(said(readJson(t => t.replace(/"trackWidth":[\d.]+/, '"trackWidth":1e300')))).toContain(
      'rig.trackWidth is 1e+300, beyond 1000000000 either way',
    );
  });

  it('deep nesting is an error with its path: 1,000 flanges, 3,000 brackets', () => {
    let flange: Record<string, unknown> = { id: 'f', edge: 'far', length: 10, angle: 90 };
    for (let i = 0; i < 1000; i++) flange = { ...flange, id: `f${i}`, flanges: [flange] };
    expect(said(changed(d => d.plan.panels[0]?.flanges.push({ ...flange, edge: 0 })))).toMatch(
      /^plan\.panels\[0\]\.flanges\[\d\]\.flanges\[0\].* is nested more than 32 levels deep$/,
    );
    expect(said(JSON.parse('['.repeat(3000) + ']'.repeat(3000)))).toBe('file is not a plate-fold document');
    expect(
      said(changed(d => Object.assign(d, { x: JSON.parse('['.repeat(3000) + ']'.repeat(3000)) }))),
    ).toMatch(/^x\[0\]\[0\].*nested more than 32 levels deep$/);
    expect(readDocument('['.repeat(200_000)).ok).toBe(false);
  });

  it('lists, outlines and texts end somewhere, and say where', () => {
    const far = Array.from({ length: 5000 }, (_, i): Vec2 => [i, i % 2]);
    expect(said(changed(d => Object.assign(d.plan.panels[0] ?? {}, { base: { outline: far } })))).toBe(
      'plan.panels[0].base.outline has 5000 entries; 2000 is the most',
    );
    expect(said(changed(d => Object.assign(d.plan, { panels: Array(50_000).fill({}) })))).toBe(
      'plan.panels has 50000 entries; 2000 is the most',
    );
    expect(
      said(changed(d => Object.assign(d.plan, { panels: Array(150).fill(d.plan.panels[0]) }))),
    ).toContain('plan.panels has 150 entries; 100 is the most');
    expect(said(changed(d => Object.assign(d.plan, { notes: 'x'.repeat(30_000) })))).toContain(
      'plan.notes is a text of 30000 characters',
    );
    const many = changed(d => Object.assign(d.plan, { holes: Array(2000).fill({ id: 7 }) }));
    const r = checkDocument(many);
    expect(!r.ok && r.faults.length).toBe(50);
    // a whole that is within its parts' bounds and still too large
    const heavy = { x: Array.from({ length: 1999 }, () => Array(1999).fill(1)) };
    expect(boundsFaults(heavy)).toEqual([{ path: 'file', fault: `holds more than ${LIMITS.values} values` }]);
  });

  it('ids that stand in addresses are such; keys that reach into the program are not', () => {
    for (const bad of ['a/b', 'a?b', 'a#b', '50%', '..', '.', 'a\\b', 'a\nb', 'x'.repeat(121), '\ud800'])
      expect(said(changed(d => Object.assign(d.plan, { id: bad })))).toMatch(
        /^plan\.id .*addresses and file names/,
      );
    for (const good of ['a b', 'Größe-1', '車', 'a.b', '...', "it's"])
      expect(said(changed(d => Object.assign(d.plan, { id: good })))).toBe('taken');
    expect(
      said(JSON.parse(JSON.stringify(DEMOS[0]).replace('"plan":{', '"plan":{"__proto__":{"x":1},'))),
    ).toBe('plan has the key "__proto__", which no document has');
  });

  it('the first crossing of an outline is the one that asking every pair finds', () => {
    const every = (p: readonly Vec2[]): readonly [number, number] | undefined => {
      // two edges alone, as an outline of four points whose other edges lie far apart, would be another question: ask the same way, in order
      for (let i = 0; i < p.length; i++)
        for (let j = i + 2; j < p.length; j++) {
          if (i === 0 && j === p.length - 1) continue;
          if (meet(p[i]!, p[(i + 1) % p.length]!, p[j]!, p[(j + 1) % p.length]!)) return [i, j];
        }
      return undefined;
    };
    const turn = (a: Vec2, b: Vec2, c: Vec2): number =>
      (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    const between = (a: Vec2, b: Vec2, c: Vec2): boolean =>
      turn(a, b, c) === 0 &&
      Math.min(a[0], b[0]) <= c[0] &&
      c[0] <= Math.max(a[0], b[0]) &&
      Math.min(a[1], b[1]) <= c[1] &&
      c[1] <= Math.max(a[1], b[1]);
    const meet = (a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean =>
      (turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0) ||
      between(a, b, c) ||
      between(a, b, d) ||
      between(c, d, a) ||
      between(c, d, b);
    // whole numbers, so that touching is exact
    const point = fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 }));
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 14 }), p => {
        expect(selfCrossing(p)).toEqual(every(p));
      }),
      { numRuns: 500 },
    );
  });
});
