import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blankPlan, checkDocument } from '../../plan';
import { entryMoved, entryRemoved, REPAIR, withEntry } from '../edit';
import { BODIES, HOLE_CONDITIONS } from '../rig';
import {
  MEASURES,
  measureEffect,
  measureFaults,
  measuresOf,
  remeasured,
  startingRig,
  typicalMeasures,
} from './index';

describe('the measuring sheet', () => {
  it.each(BODIES)('asks about twenty numbers of a %s, its typical ones sound', body => {
    const list = measuresOf(body);
    expect(list.length).toBeGreaterThanOrEqual(19);
    expect(list.length).toBeLessThanOrEqual(25);
    expect(measureFaults(body, typicalMeasures(body))).toEqual([]);
    for (const m of list) {
      const [typical, least, most] = m.of[body] as readonly [number, number, number];
      expect(least < typical && typical < most, m.id).toBe(true);
      expect(m.how && m.drives).toBeTruthy();
    }
  });

  it('refuses what cannot be: another unit, the end before the beginning', () => {
    const m = typicalMeasures('truck');
    expect(measureFaults('truck', { ...m, wheelbase: 126.8 })[0]).toMatchObject({
      id: 'wheelbase',
      fault: expect.stringContaining('plausible is 2600 mm to 4300 mm'),
    });
    expect(measureFaults('truck', { ...m, tankFront: 2550, tankRear: 2500 }).map(f => f.id)).toContain(
      'tankRear',
    );
    expect(measureFaults('truck', { ...m, panHeight: Number.NaN })[0]?.fault).toContain('not a number');
    expect(new Set(MEASURES.map(x => x.id)).size).toBe(MEASURES.length);
  });
});

describe('a starting rig', () => {
  it.each(BODIES)('of a %s is a sound document', body => {
    const r = checkDocument(blankPlan(startingRig(body), 'x', 'x'));
    expect(r.ok ? [] : r.faults).toEqual([]);
  });

  it('takes the shape its measures say', () => {
    const m = { ...typicalMeasures('suv'), panHeight: 361, tankRear: 2600, wheelbase: 2850 };
    const rig = startingRig('suv', m);
    expect(rig.components.find(c => c.id === 'pan')?.zBottom).toBe(361);
    expect(Math.max(...(rig.components.find(c => c.id === 'tank')?.footprint.map(p => p[0]) ?? []))).toBe(
      2600,
    );
    expect(rig.wheelbase).toBe(2850);
  });

  it('measured again: what the owner changed stays, the rest follows the tape', () => {
    const rig = startingRig('truck');
    const mine = entryRemoved(
      withEntry(entryMoved(rig, 'mounts', 'h2lo', [12, 0]), 'components', 'tank', c => ({
        ...c,
        zBottom: 351,
      })),
      'factoryParts',
      'tank-skid',
    );
    const next = remeasured(mine, { ...typicalMeasures('truck'), panRear: 340, tankRear: 2700 });
    expect(next.components.find(c => c.id === 'tank')?.zBottom).toBe(351);
    expect(next.mounts.find(m => m.id === 'h2lo')?.at[0]).toBe(342);
    expect(next.mounts.find(m => m.id === 'h2li')?.at[0]).toBe(370);
    expect(next.factoryParts.some(f => f.id === 'tank-skid')).toBe(false);
    expect(Math.max(...(next.components.find(c => c.id === 'pan')?.footprint.map(p => p[0]) ?? []))).toBe(
      340,
    );
  });

  it('a measure that moves what was changed, or does away with a hole, says so first; then either is done', () => {
    const mine = withEntry(startingRig('truck'), 'components', 'tank', c => ({ ...c, zBottom: 351 }));
    const typical = typicalMeasures('truck');
    expect(measureEffect(mine, { ...typical, panHeight: typical.panHeight + 5 })).toEqual({
      edited: [],
      dropped: [],
      squashed: [],
    });
    const higher = { ...typical, tankHeight: typical.tankHeight + 20 };
    expect(measureEffect(mine, higher).edited).toEqual([{ list: 'components', id: 'tank' }]);
    const z = (how: 'keep-mine' | 'follow') =>
      remeasured(mine, higher, how).components.find(c => c.id === 'tank')?.zBottom;
    expect(z('keep-mine')).toBe(351);
    expect(z('follow')).toBe(typical.tankHeight + 20);
    // a shorter wheelbase leaves no place for the last hole of the rail
    const short = { ...typical, wheelbase: 2700, tankFront: 1700, tankRear: 2300 };
    const gone = measureEffect(startingRig('truck'), short).dropped;
    expect(gone.some(d => d.list === 'mounts')).toBe(true);
    const lost = gone.find(d => d.list === 'mounts')?.id ?? '';
    const has = (rig: ReturnType<typeof startingRig>) => rig.mounts.some(m => m.id === lost);
    expect(has(remeasured(startingRig('truck'), short, 'follow', new Set([lost])))).toBe(false);
    expect(has(remeasured(startingRig('truck'), short, 'keep-mine', new Set([lost])))).toBe(true);
  });

  it('measured to the same numbers is the same rig', () => {
    fc.assert(
      fc.property(fc.constantFrom(...BODIES), body => {
        const rig = startingRig(body);
        expect(remeasured(rig, typicalMeasures(body))).toEqual(rig);
      }),
    );
  });
});

describe('entries of a rig', () => {
  const rig = startingRig('truck');
  it('a member takes its holes along, and takes them with it', () => {
    const moved = entryMoved(rig, 'members', 'cross-2', [10, 0]);
    expect(moved.mounts.find(m => m.id === 'h2li')?.at[0]).toBe(
      (rig.mounts.find(m => m.id === 'h2li')?.at[0] ?? 0) + 10,
    );
    expect(entryRemoved(rig, 'members', 'cross-2').mounts.some(m => m.member === 'cross-2')).toBe(false);
    expect(entryRemoved(rig, 'components', 'pan').servicePoints.some(s => s.component === 'pan')).toBe(false);
  });
  it('every condition of a hole names a repair of its own, and only a good one none', () => {
    expect(Object.keys(REPAIR).sort()).toEqual([...HOLE_CONDITIONS].sort());
    expect(new Set(Object.values(REPAIR)).size).toBe(HOLE_CONDITIONS.length);
    expect(HOLE_CONDITIONS.filter(c => REPAIR[c] === 'nothing')).toEqual(['good']);
  });
});
