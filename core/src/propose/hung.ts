import { LONGEST_SPACER } from '../bolt';
import { check, mended, vettedRemedy } from '../checks';
import { gatherFacts } from '../derive';
import type { PlanDocument } from '../plan';

/**
 * Plates that would hang on spacers too tall, hung by brackets from the same holes: wherever all the checks find nothing worse for it. The
 * same document where no spacer is too tall or no bracket serves.
 */
export function hungByBrackets(doc: PlanDocument): PlanDocument {
  let now = doc;
  // each round mends one plate, or is the last
  for (let round = 0; round < doc.plan.panels.length; round++) {
    if (!now.plan.joints.some(j => j.spacer > LONGEST_SPACER)) return now;
    const facts = gatherFacts(now);
    const all = check(facts);
    const better = all
      .filter(f => f.rule === 'spacer-long')
      .map(f => vettedRemedy(facts, f, 'metric', all))
      .find(r => r !== undefined && r.brings.length === 0);
    if (!better) return now;
    now = mended(now, better.mend);
  }
  return now;
}
