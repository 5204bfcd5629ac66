import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inOrder, type Spot, type Step, startOrder, tighteningOrder } from './index';

const circle = (n: number): Spot[] =>
  Array.from({ length: n }, (_, i) => ({
    id: `${i + 1}`,
    x: 100 * Math.cos((2 * Math.PI * i) / n),
    y: 100 * Math.sin((2 * Math.PI * i) / n),
  }));

describe('tightening order', () => {
  // ASME PCC-1 legacy cross-pattern table
  it.each([
    [4, [1, 3, 2, 4]],
    [8, [1, 5, 3, 7, 2, 6, 4, 8]],
    [12, [1, 7, 4, 10, 2, 8, 5, 11, 3, 9, 6, 12]],
    [16, [1, 9, 5, 13, 3, 11, 7, 15, 2, 10, 6, 14, 4, 12, 8, 16]],
    [20, [1, 11, 6, 16, 3, 13, 8, 18, 5, 15, 10, 20, 2, 12, 7, 17, 4, 14, 9, 19]],
    [24, [1, 13, 7, 19, 4, 16, 10, 22, 2, 14, 8, 20, 5, 17, 11, 23, 3, 15, 9, 21, 6, 18, 12, 24]],
  ])('of %d bolts on a circle is the published cross pattern', (n, pattern) => {
    expect(tighteningOrder(circle(n))).toEqual(pattern.map(String));
  });
  it('of a plate goes from the middle out and crosses over (RCSC)', () => {
    const spots = [0, 1, 2, 3].flatMap(i => [
      { id: `l${i}`, x: i * 100, y: -100 },
      { id: `r${i}`, x: i * 100, y: 100 },
    ]);
    const order = tighteningOrder(spots);
    expect(new Set(order.slice(0, 4))).toEqual(new Set(['l1', 'r1', 'l2', 'r2']));
    expect([order[0], order[1]].map(id => id?.[0]).sort()).toEqual(['l', 'r']);
  });
  it('names every bolt once, wherever they are', () => {
    const spots = fc.uniqueArray(
      fc.tuple(fc.integer({ min: 0, max: 900 }), fc.integer({ min: -400, max: 400 })),
      {
        minLength: 1,
        maxLength: 24,
        selector: s => s.join(),
      },
    );
    fc.assert(
      fc.property(spots, all => {
        const named = all.map(([x, y], i) => ({ id: `${i}`, x, y }));
        const ids = named.map(s => s.id).sort();
        expect([...tighteningOrder(named)].sort()).toEqual(ids);
        for (const school of [
          'front-rear-centre',
          'rear-centre-first',
          'front-to-rear',
          'rear-to-front',
        ] as const)
          expect([...startOrder(named, school)].sort()).toEqual(ids);
      }),
    );
  });
});

describe('start order by school', () => {
  const spots = [
    { id: 'fl', x: 0, y: -200 },
    { id: 'fr', x: 0, y: 200 },
    { id: 'ml', x: 300, y: -200 },
    { id: 'mr', x: 300, y: 200 },
    { id: 'rc', x: 600, y: 10 },
    { id: 'rl', x: 600, y: -200 },
    { id: 'rr', x: 600, y: 200 },
  ];
  it('front, rear, then center', () => {
    const order = startOrder(spots, 'front-rear-centre').map(id => id[0]);
    expect(order.join('')).toBe('ffrrrmm');
  });
  it('rear center bolt first', () => expect(startOrder(spots, 'rear-centre-first')[0]).toBe('rc'));
  it('front to rear and back', () => {
    expect(
      startOrder(spots, 'front-to-rear')
        .map(id => id[0])
        .join(''),
    ).toBe('ffmmrrr');
    expect(
      startOrder(spots, 'rear-to-front')
        .map(id => id[0])
        .join(''),
    ).toBe('rrrmmff');
  });
});

const step = (id: string, needs: string[]): Step => ({
  id,
  stage: 'check',
  title: id,
  why: '',
  panels: [],
  joints: [],
  needs,
  tools: [],
  cautions: [],
  people: 1,
  minutes: 1,
});

describe('sorting', () => {
  it('keeps every need before its step and the list order otherwise', () => {
    const { steps, cycle } = inOrder([step('c', ['a']), step('a', []), step('b', [])]);
    expect(steps.map(s => s.id)).toEqual(['a', 'c', 'b']);
    expect(cycle).toEqual([]);
  });
  it('names the loop when steps wait for each other', () => {
    const { cycle } = inOrder([step('a', []), step('b', ['d']), step('c', ['b']), step('d', ['c', 'a'])]);
    expect([...cycle].sort()).toEqual(['b', 'c', 'd']);
  });
});
