import { describe, expect, it } from 'vitest';
import { oddWords } from '../testing';
import { EXPLAINED, type Explained } from './index';

describe('how figures are computed', () => {
  const all = Object.entries(EXPLAINED as Readonly<Record<string, Explained>>);

  it('is told in whole sentences, each with its inputs and its source', () => {
    for (const [id, e] of all) {
      for (const text of [e.formula, e.source, ...(e.estimated ? [e.estimated] : [])])
        expect(text, id).toMatch(/^[\p{Lu}\d].*\.$/u);
      expect(e.from.length, id).toBeGreaterThan(8);
    }
  });

  it('keeps to the words of the trade', () => {
    for (const [id, e] of all)
      for (const text of Object.values(e)) expect(oddWords(text, { figures: false }), id).toEqual([]);
  });
});
