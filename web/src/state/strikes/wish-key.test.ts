import { gatherFacts } from '@plate-fold/core/derive';
import { type StrikeWish, wishOf } from '@plate-fold/core/strike';
import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { hashOf, wishKey } from './wish-key';

const facts = gatherFacts(demo('heron'));
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
      { ...wish, fallMm: 0 },
      { ...wish, fallMm: 50 },
      { ...wish, drag: 0.5 },
      { ...wish, folded: { ...wish.folded, material: { ...wish.folded.material, yield: 1 } } },
      { ...wish, joints: wish.joints.map(j => ({ ...j, lengthMm: j.lengthMm + 5 })) },
      { ...wish, folded: { ...wish.folded, sheet: { ...wish.folded.sheet, thickness: 6 } } },
    ];
    expect(new Set([wish, ...others].map(wishKey)).size).toBe(others.length + 1);
  });
  it('hashes apart what differs in one letter', () => {
    const seen = new Set<string>();
    for (let i = 0; i < 5000; i++) seen.add(hashOf(`plate ${i}`));
    expect(seen.size).toBe(5000);
  });
});
