import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { length3, sub3 } from '../geometry';
import { surveyed } from '../testing/surveyed';
import { adjusted, adjustmentOf, looseWords, netIn } from './index';

describe('a survey that is typed reading by reading', () => {
  it('has every place at every reading where it has it when begun from nothing, or names it', () => {
    for (const seed of [3, 8]) {
      const { survey, truth } = surveyed(seed, { points: 14, tapes: 5 });
      const all = survey.distances!;
      const document = (count: number) => {
        const doc = demo('pebble');
        return { ...doc, rig: { ...doc.rig, survey: { ...survey, distances: all.slice(0, count) } } };
      };
      for (let count = 4; count <= all.length; count++) {
        const doc = document(count);
        const [typed, anew] = [adjustmentOf(doc), adjusted(netIn(doc))];
        const named = new Set([...typed.loose, ...anew.loose].map(l => l.point));
        for (const p of typed.points) {
          const q = anew.points.find(x => x.id === p.id);
          if (!q || named.has(p.id)) continue;
          expect(length3(sub3(p.at, q.at)), `${p.id} after ${count}`).toBeLessThan(
            0.1 + 0.05 * Math.max(...p.sigma),
          );
        }
      }
      const end = adjustmentOf(document(all.length));
      expect(end.loose).toEqual(adjusted(netIn(document(all.length))).loose);
      for (const p of end.points)
        if (!end.loose.some(l => l.point === p.id))
          expect(length3(sub3(p.at, truth.get(p.id)!))).toBeLessThan(8 * Math.max(1, ...p.sigma));
    }
  });
});

describe('what hangs loose', () => {
  const names = new Map([
    ['a', 'the long bolt'],
    ['b', 'b'],
  ]);
  it('is said once for all that hang so', () => {
    const why = 'may as well be elsewhere';
    expect(
      looseWords([{ point: 'a', why }, { point: 'b', why }, { point: 'c', why }, { why: 'nothing' }], names),
    ).toEqual(['Each of b, c and the long bolt may as well be elsewhere.', 'Nothing.']);
    expect(
      looseWords(
        [
          { point: 'a', why: 'hangs on too few readings' },
          { point: 'b', why: 'nothing tells where it is' },
        ],
        names,
      ),
    ).toEqual(['the long bolt hangs on too few readings.', 'b: nothing tells where it is.']);
  });
});
