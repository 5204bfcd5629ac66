import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { fitReport } from '../fitup';
import { checkFit, SURE_TO_BOLT } from './fit';
import { mended } from './mended';

describe('a plan that may not bolt up', () => {
  it.each(['bramble', 'pebble'] as const)(
    '%s: is a finding with its chance, and what it offers helps',
    name => {
      const doc = demo(name);
      const facts = gatherFacts(doc);
      const report = fitReport(facts, 800);
      expect(report.all.chance).toBeLessThan(SURE_TO_BOLT);
      const [f] = checkFit(facts, report);
      expect(f).toMatchObject({ rule: 'may-not-bolt-up', severity: 'fix', where: 'bolt' });
      expect(f?.text).toMatch(/\d+ % chance that/);
      expect(facts.joints.some(j => f?.about.includes(j.id))).toBe(true);
      for (const mend of [f?.mend, ...(f?.more ?? []).map(m => m.mend)]) {
        if (!mend) continue;
        const after = fitReport(gatherFacts(mended(doc, mend)), 800);
        expect(after.all.chance).toBeGreaterThan(report.all.chance - 2 * report.all.error);
      }
    },
  );
  it('is none where all bolts are sure to start', () => {
    const facts = gatherFacts(demo('wren'));
    const report = fitReport(facts, 200);
    expect(checkFit(facts, { ...report, all: { chance: SURE_TO_BOLT, error: 0.01 } })).toEqual([]);
  });
});
