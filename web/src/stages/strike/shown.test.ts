import { gatherFacts } from '@plate-fold/core/derive';
import type { StrikeAnswer } from '@plate-fold/core/strike';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import type { Struck } from '../../state/strikes/use-strikes';
import { legendOf, mostGiven, surfacesOf } from './shown';

const facts = gatherFacts(demo('heron'));

describe('the colored belly', () => {
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
  it('is darkest where it gives, crowds or strains the most, and another color where it touches', () => {
    const dark = (shown: 'deflection' | 'gap' | 'stress'): number[] => {
      const [s] = surfacesOf(struck, shown, 12, 1, 'light');
      return [0, 1, 2].map(n => s!.colors[3 * n]! + s!.colors[3 * n + 1]! + s!.colors[3 * n + 2]!);
    };
    for (const shown of ['deflection', 'stress'] as const) {
      const [a, b, c] = dark(shown) as [number, number, number];
      expect(a).toBeLessThan(b);
      expect(b).toBeLessThan(c);
    }
    const [s] = surfacesOf(struck, 'gap', 12, 1, 'light');
    // red leads where a part is touched
    expect(s!.colors[0]).toBeGreaterThan(2 * s!.colors[2]!);
    expect(legendOf('gap', 12, 'metric').map(f => f.value)).toEqual(['60', '30', '0']);
    expect(legendOf('stress', 12, 'inch').map(f => f.unit)).toEqual(['%', '%', '%']);
  });
});
