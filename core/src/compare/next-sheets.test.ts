import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { StrikeAnswer } from '../strike';
import { nextSheets, type Sheet } from './next-sheets';

type Known = Sheet & { readonly answer?: Partial<StrikeAnswer> };
const sheet = (thickness: number, answer?: Partial<StrikeAnswer>, of: Partial<Sheet> = {}): Known => ({
  panel: 'a',
  material: 'steel-hr36',
  thickness,
  ...(answer ? { answer: { reached: 1, deflectionMm: 10, gapMm: 20, ...answer } } : {}),
  ...of,
});
const of = (list: readonly Known[]) =>
  nextSheets(
    list,
    t => t.answer as StrikeAnswer | undefined,
    t => t.answer !== undefined,
  );
const mm = (l: readonly Known[]): readonly number[] => l.map(t => t.thickness);

describe('the sheets that are struck next', () => {
  it('are the thick ones first, plates and materials in turn', () => {
    const list = [
      sheet(2),
      sheet(6),
      sheet(4),
      sheet(5, undefined, { panel: 'b' }),
      sheet(3, undefined, { panel: 'b' }),
    ];
    expect(of(list).now.map(t => `${t.panel}${t.thickness}`)).toEqual(['a6', 'b5', 'a4', 'b3', 'a2']);
    expect(of(list).later).toEqual([]);
  });
  it('wait where a thicker one of their kind gives way or hits, and where two thicker ones predict it', () => {
    expect(mm(of([sheet(6, { reached: 0.8 }), sheet(4), sheet(2)]).later)).toEqual([4, 2]);
    expect(mm(of([sheet(6, { gapMm: -8 }), sheet(4)]).later)).toEqual([4]);
    // another material of the plate is not judged by it
    expect(mm(of([sheet(6, { gapMm: -8 }), sheet(4, undefined, { material: 'al-5052-h32' })]).now)).toEqual([
      4,
    ]);
    // 10 mm at 6, 20 mm at 5: about 43 mm at 4, where 30 mm are left over the one of 5
    expect(
      mm(
        of([sheet(6, { deflectionMm: 10, gapMm: 25 }), sheet(5, { deflectionMm: 20, gapMm: 15 }), sheet(4)])
          .later,
      ),
    ).toEqual([4]);
    expect(
      mm(
        of([sheet(6, { deflectionMm: 10, gapMm: 65 }), sheet(5, { deflectionMm: 20, gapMm: 55 }), sheet(4)])
          .now,
      ),
    ).toEqual([4]);
  });
  it('are all that are not struck, each once, whatever is known', () => {
    const any = fc
      .record({
        thickness: fc.integer({ min: 1, max: 12 }),
        panel: fc.constantFrom('a', 'b'),
        material: fc.constantFrom('steel-hr36' as const, 'al-5052-h32' as const),
        answer: fc.option(
          fc.record({
            reached: fc.constantFrom(1, 0.7),
            deflectionMm: fc.double({ min: 0, max: 90, noNaN: true }),
            gapMm: fc.option(fc.double({ min: -40, max: 90, noNaN: true }), { nil: undefined }),
          }),
          { nil: undefined },
        ),
      })
      .map((r): Known => r as Known);
    fc.assert(
      fc.property(fc.array(any, { maxLength: 24 }), list => {
        const { now, later } = of(list);
        const open = list.filter(t => t.answer === undefined);
        expect(now.length + later.length).toBe(open.length);
        expect(new Set([...now, ...later])).toEqual(new Set(open));
      }),
    );
  });
});
