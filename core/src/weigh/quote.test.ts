import { demo as demoPlan } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { type FoldedPanel, fold, SHOPS } from '../fold';
import { buildOf, type Shop, sheetOf } from '../plan';
import { panelCost, quote, quoteBlanks } from './index';

const demo = (name: string): readonly FoldedPanel[] => {
  const { plan } = demoPlan(name);
  return plan.panels.map(p => fold(p, sheetOf(buildOf(plan), p)));
};
const works = SHOPS[1] as Shop;

describe('a fabricator’s quote', () => {
  it('is the sum of its lines and the setting up, each line what the plate costs by the same rates', () => {
    const panels = demo('bramble');
    const answer = quote({ blanks: quoteBlanks(panels), shop: works });
    if (!answer.ok) throw new Error(answer.reasons.join(' '));
    const lines = answer.lines.reduce((s, l) => s + l.price, 0);
    // two kinds of sheet: 45 for the job, 18 for each kind
    expect(answer.price).toBeCloseTo(lines + 45 + 2 * 18, 2);
    answer.lines.forEach((l, i) =>
      expect(Math.abs(l.price - panelCost(panels[i] as FoldedPanel).total)).toBeLessThan(0.02),
    );
    expect(answer.days).toBeGreaterThan(3);
  });

  it('is refused with every reason: blank, radius, brake, die, force', () => {
    const [a] = quoteBlanks(demo('bramble'));
    if (!a) throw new Error('no blank');
    const small: Shop = { ...works, sheets: [[500, 400]], brake: { length: 300, force: 30 }, dies: [200] };
    const tight = { ...a, bends: a.bends.map(b => ({ ...b, insideRadius: 1 })) };
    const answer = quote({ blanks: [tight], shop: small });
    const reasons = answer.ok ? [] : answer.reasons;
    for (const word of [
      'larger than our sheets',
      'would crack',
      'longer than our brake',
      'falls into our',
      'kN',
    ])
      expect(
        reasons.some(r => r.includes(word)),
        word,
      ).toBe(true);
    const none = quote({ blanks: [a], shop: { ...works, dies: [] } });
    expect(none.ok ? [] : none.reasons).toContain('Plate A, bend front ramp: we have no die for it.');
    const plastic = quote({ blanks: [{ ...a, material: 'uhmw-pe' }], shop: works });
    expect(plastic.ok ? '' : plastic.reasons[0]).toContain('cannot be bent cold');
  });

  it('of plates that lie flat asks for no brake', () => {
    const wren = quote({
      blanks: quoteBlanks(demo('wren').filter(p => p.panel.role !== 'bracket')),
      shop: { ...works, dies: [], brake: { length: 1, force: 1 } },
    });
    expect(wren.ok).toBe(true);
  });
});
