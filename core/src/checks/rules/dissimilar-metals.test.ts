import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../../derive';
import type { ENVIRONMENTS, PlanDocument } from '../../plan';
import { check } from '../check';
import { MOST_APART } from './dissimilar-metals';

/** Bramble all in raw sheet of one kind, with bolts of one finish. */
const of = (
  material: 'al-5052-h32' | 'stainless-304',
  finish: 'zinc' | 'stainless',
  environment?: (typeof ENVIRONMENTS)[number],
): PlanDocument => {
  const doc = demo('bramble');
  return {
    ...doc,
    plan: {
      ...doc.plan,
      ...(environment ? { environment } : {}),
      joints: doc.plan.joints.map(j => ({ ...j, fastener: { ...j.fastener, finish } })),
      builds: doc.plan.builds.map(b => ({
        ...b,
        sheets: Object.fromEntries(
          Object.entries(b.sheets).map(([id, s]) => [id, { ...s, material, finish: 'raw' as const }]),
        ),
      })),
    },
  };
};
const found = (doc: PlanDocument) => check(gatherFacts(doc)).filter(f => f.rule === 'dissimilar-metals');

// the anodic index and its limits stand in reference/handbook/galvanic.json: aluminum 0.90, stainless 0.50, zinc 1.25 V
describe('metals that touch', () => {
  it('are held to the limit of where they are used', () => {
    expect(MOST_APART).toEqual({ salt: 0.15, normal: 0.25, controlled: 0.5 });
    // zinc on aluminum: 0.35 V
    expect(found(of('al-5052-h32', 'zinc', 'salt')).length).toBeGreaterThan(0);
    expect(found(of('al-5052-h32', 'zinc', 'normal')).length).toBeGreaterThan(0);
    expect(found(of('al-5052-h32', 'zinc', 'controlled'))).toEqual([]);
    // an underbody is outdoors and salted until its owner says otherwise
    expect(
      found(of('al-5052-h32', 'zinc'))
        .map(f => f.text)
        .join(),
    ).toContain('0.15 V is the limit outdoors and in salt');
  });
  it('have the nobler of the two coated', () => {
    const [bolts] = found(of('al-5052-h32', 'stainless'));
    expect(bolts?.remedy).toContain('Coat the bolts');
    const [plate] = found(of('stainless-304', 'zinc'));
    expect(plate?.remedy).toContain('Coat the plate');
  });
});
