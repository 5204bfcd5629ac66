import type { Facts } from '../../derive';
import type { StrikeAnswer } from '../../strike';
import type { UnitSystem } from '../../units';
import { byGravity, type Finding, wordsIn } from '../finding';
import { bracketBends } from './bracket-bends';
import { givesWay } from './gives-way';
import { jointLoad } from './joint-load';
import { ring } from './ring';
import type { StruckRule } from './rule';
import { touches } from './touches';
import { yields } from './yields';

export { jointShare } from './joint-load';
export * from './remedies';
export { HEARD_BELOW } from './ring';
export { asAtRest } from './touches';

export const STRUCK_RULES: readonly StruckRule[] = [touches, givesWay, jointLoad, bracketBends, yields, ring];

/** Findings of plates that were struck, gravest first, figures in the reader's units. */
export function checkStruck(
  facts: Facts,
  struck: readonly StrikeAnswer[],
  system: UnitSystem = 'metric',
): readonly Finding[] {
  const words = wordsIn(system);
  return struck
    .flatMap(s =>
      STRUCK_RULES.flatMap(rule => rule.find(facts, s, words).map(f => ({ rule: rule.id, ...f }))),
    )
    .sort(byGravity);
}
