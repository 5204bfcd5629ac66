import { gatherFacts } from '@plate-fold/core/derive';
import { type StrikeAnswer, type StrikeWish, wishOf } from '@plate-fold/core/strike';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { legendOf, mostGiven, surfacesOf } from '../../stages/strike/shown';
import { found, hashOf, remember, wishKey } from './answers';
import type { Struck } from './use-strikes';

const facts = (() => {
  return gatherFacts(demo('heron'));
})();
const wish = wishOf(facts, facts.panels[1]!, 5000);

describe('what an answer depends on', () => {
  it('has a key that stays while nothing changes, and changes with all that matters', () => {
    const same = wishOf(facts, facts.panels[1]!, 5000);
    expect(wishKey(same)).toBe(wishKey(wish));
    // the same plan read anew has the same keys
    const again = gatherFacts(structuredClone(facts.document));
    expect(wishKey(wishOf(again, again.panels[1]!, 5000))).toBe(wishKey(wish));
    const others: StrikeWish[] = [
      wishOf(facts, facts.panels[0]!, 5000),
      { ...wish, force: 5100 },
      { ...wish, at: [700, 10] },
      { ...wish, at: [700, 12] },
      { ...wish, hold: 'held' },
      { ...wish, joints: wish.joints.slice(1) },
      { ...wish, components: wish.components.slice(1) },
      wishOf(facts, facts.panels[1]!, 5000, { rests: true }),
      { ...wish, folded: { ...wish.folded, sheet: { ...wish.folded.sheet, thickness: 6 } } },
    ];
    expect(new Set([wish, ...others].map(wishKey)).size).toBe(others.length + 1);
  });
  it('is kept until many others have come', () => {
    const answer = { ok: false, fault: 'x' } as const;
    remember('first', answer);
    for (let i = 0; i < 899; i++) remember(`n${i}`, answer);
    expect(found('first')).toBe(answer);
    remember('one too many', answer);
    expect(found('first')).toBeUndefined();
  });
  it('hashes apart what differs in one letter', () => {
    const seen = new Set<string>();
    for (let i = 0; i < 5000; i++) seen.add(hashOf(`plate ${i}`));
    expect(seen.size).toBe(5000);
  });
});

describe('the coloured belly', () => {
  const value = {
    deflectionMm: 12,
    picture: {
      coordinates: Float32Array.of(0, 0, 100, 10, 0, 100, 0, 10, 100),
      triangles: Uint32Array.of(0, 1, 2),
      moves: Float32Array.of(0, 0, 12, 0, 0, 6, 0, 0, 0),
      gaps: Float32Array.of(-1, 30, Number.NaN),
      stress: Float32Array.of(1, 0.5, 0),
    },
  } as unknown as StrikeAnswer;
  const struck: Struck[] = [
    { folded: facts.panels[0]!, answer: { ok: true, value }, stale: false },
    { folded: facts.panels[1]!, answer: { ok: false, fault: 'no bolt holds it' }, stale: false },
    { folded: facts.panels[2]!, stale: true },
  ];
  it('shows the plates that have an answer, moved as far as asked', () => {
    const [surface, ...rest] = surfacesOf(struck, 'deflection', 12, 3, 'light');
    expect(rest).toEqual([]);
    expect(surface!.id).toBe(facts.panels[0]!.panel.id);
    expect([...surface!.coordinates].filter((_, i) => i % 3 === 2)).toEqual([136, 118, 100]);
    expect(mostGiven(struck)).toBe(12);
    expect(mostGiven([])).toBe(5);
  });
  it('is darkest where it gives, crowds or strains the most, and another colour where it touches', () => {
    const dark = (shown: 'deflection' | 'gap' | 'stress'): number[] => {
      const [s] = surfacesOf(struck, shown, 12, 1, 'light');
      return [0, 1, 2].map(n => s!.colours[3 * n]! + s!.colours[3 * n + 1]! + s!.colours[3 * n + 2]!);
    };
    for (const shown of ['deflection', 'stress'] as const) {
      const [a, b, c] = dark(shown) as [number, number, number];
      expect(a).toBeLessThan(b);
      expect(b).toBeLessThan(c);
    }
    const [s] = surfacesOf(struck, 'gap', 12, 1, 'light');
    // red leads where a part is touched
    expect(s!.colours[0]).toBeGreaterThan(2 * s!.colours[2]!);
    expect(legendOf('gap', 12, 'metric').map(f => f.value)).toEqual(['60', '30', '0']);
    expect(legendOf('stress', 12, 'inch').map(f => f.unit)).toEqual(['%', '%', '%']);
  });
});
