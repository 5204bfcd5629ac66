import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { type NutKind, withJoint } from '../plan';
import { nutSetting } from './index';

const made = (nut: NutKind, units: 'inch' | 'metric' = 'metric') => {
  const doc = withJoint(demo('bramble'), 'j28', j => ({ ...j, nut }));
  return nutSetting(gatherFacts(doc).joints.find(j => j.id === 'j28')!, units);
};

describe('setting a nut', () => {
  it('of a rivet nut says hole and tolerance, grip, how it is held, how far it is pulled, how it is known to sit, the test, and what if it spins', () => {
    const said = made('rivet-nut')!.moves.join('\n');
    for (const word of [
      /Measure the hole: 11 mm, no more than 0\.1 mm over/,
      /Deburred/,
      /grip range/,
      /square/,
      /flush/,
      /mm of stroke, or \d+ N\u00b7m/,
      /the nut maker’s figures come first/,
      /bulge/,
      /Test it/,
      /If it spins.*next size up or use a nut plate/,
    ])
      expect(said).toMatch(word);
    // in inches nothing but the drill, as it is marked, is metric
    expect(made('rivet-nut', 'inch')!.moves.join('\n').replace('11 mm', '')).not.toMatch(/ mm|N\u00b7m/);
  });
  it.each([
    ['clinch', /Press it square/, /If it turns/],
    ['clip', /Push it over the edge/, /If it slides or turns/],
    ['spring', /arch toward the bolt/, /only snug/],
    ['weld-tab', /A welder/, /Test it/],
  ] as const)('of a %s nut likewise', (nut, how, known) => {
    const said = made(nut)!.moves.join('\n');
    expect(said).toMatch(how);
    expect(said).toMatch(known);
  });
  it('is not needed where a nut is turned on from behind, or sits there already', () => {
    expect(made('hex')).toBeUndefined();
    expect(made('nut-plate')).toBeUndefined();
    const pebble = gatherFacts(demo('bramble')).joints.find(
      j => j.mount?.hole.kind === 'captive-nut' && j.mount.condition === 'good',
    )!;
    expect(nutSetting(pebble, 'metric')).toBeUndefined();
  });
});
