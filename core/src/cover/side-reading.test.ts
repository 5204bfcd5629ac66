import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble } from '../derive';
import { plateUnder, sideReading, undersideAt } from './index';

const { rig, panels } = assemble(demo('bramble'));

describe('the side view', () => {
  it('reads the lowest plate, its top one sheet higher, and the gap to a part that is over it', () => {
    const r = sideReading(rig, panels, 300);
    if (!r?.part) throw new Error('nothing is read');
    const sheet = panels.find(p => Math.abs(p.sheet.thickness - (r.top - r.plate)) < 1e-9);
    expect(sheet).toBeDefined();
    const part = rig.components.find(c => c.name === r.part);
    expect((part?.zBottom ?? 0) - r.top).toBeCloseTo(r.gap ?? Number.NaN, 9);
    expect(sideReading(rig, panels, -5000)).toBeUndefined();
    expect(sideReading(rig, [], 300)).toBeUndefined();
  });
  it('never reads a plate that is not there, nor a part beneath it', () => {
    fc.assert(
      fc.property(fc.integer({ min: -800, max: 3200 }), x => {
        const r = sideReading(rig, panels, x);
        if (!r) return;
        expect(
          panels.some(p => [p.centroid[1], -200, 0, 200, 320].some(y => undersideAt(p, x, y) === r.plate)),
        ).toBe(true);
        if (r.part) expect(rig.components.find(c => c.name === r.part)?.zBottom).toBeGreaterThan(r.plate);
      }),
    );
  });
  it('under a place the lowest of the plates that lap is the one that is hit', () => {
    const [a, b] = panels;
    if (!a || !b) throw new Error('no plates');
    for (let x = 0; x < 2400; x += 40) {
      const id = plateUnder(panels, [x, 0]);
      const all = panels.flatMap(p => undersideAt(p, x, 0) ?? []);
      const low = panels.find(p => p.panel.id === id);
      expect(low ? undersideAt(low, x, 0) : undefined).toBe(all.length > 0 ? Math.min(...all) : undefined);
    }
    expect(plateUnder(panels, [99_000, 0])).toBeUndefined();
  });
});
