import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { surveyed } from '../testing';
import { netOf } from './net';
import { orderOf } from './order';

describe('the order of a survey\u2019s points', () => {
  const nets = [
    netOf(surveyed(3, { points: 40, tapes: 3, photos: 2 }).survey),
    netOf(demo('bramble').rig.survey ?? {}),
    netOf({}),
  ];
  it.each(nets)('has each of them once, also those without a tape', net => {
    expect([...orderOf(net)].sort((a, b) => a - b)).toEqual([...net.points.keys()]);
  });

  it('brings what a tape ties together nearer than the order of the file does', () => {
    const [net] = nets as [ReturnType<typeof netOf>];
    const place = new Map(orderOf(net).map((i, k) => [i, k]));
    /** how far the rows of the equations reach before their diagonal, all together: what factoring them fills */
    const fills = (at: (i: number) => number): number => {
      const first = net.points.map((_, i) => at(i));
      for (const r of net.readings) {
        const [i, j] = [net.index.get(r.from ?? ''), net.index.get(r.to ?? '')];
        if (i === undefined || j === undefined) continue;
        const [low, high] = at(i) < at(j) ? [i, j] : [j, i];
        first[high] = Math.min(first[high] as number, at(low));
      }
      return first.reduce((s, f, i) => s + at(i) - f, 0);
    };
    expect(fills(i => place.get(i) as number)).toBeLessThan(fills(i => i));
  });
});
