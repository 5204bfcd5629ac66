import { type Facts, gatherFacts } from '../derive';
import { checkDocument, type PlanDocument } from '../plan';
import type { UnitSystem } from '../units';
import { check } from './check';
import type { Finding, Remedy } from './finding';
import { mended } from './mended';

/** A remedy that has been tried out: its finding is gone after it. */
export interface VettedRemedy extends Remedy {
  /** stops and fixes that come with it; none where it leaves nothing worse */
  readonly brings: readonly Finding[];
}

/** What a finding is about, whatever its figures: the same one is the same before and after a change. */
const nameOf = (f: Pick<Finding, 'rule' | 'about'>): string => `${f.rule} ${[...f.about].sort().join(' ')}`;
const RANK = { note: 0, fix: 1, stop: 2 } as const;

/** The ways a finding may be mended, the first one first. */
export const remediesOf = (f: Finding): readonly Remedy[] => [
  ...(f.mend && f.remedy !== undefined ? [{ remedy: f.remedy, mend: f.mend }] : []),
  ...(f.more ?? []),
];

/** The plan after a remedy, if it is a sound plan at all. */
function applied(doc: PlanDocument, r: Remedy): PlanDocument | undefined {
  const after = mended(doc, r.mend);
  return after !== doc && checkDocument(after).ok ? after : undefined;
}

/** Stops and fixes of a plan by what they are about. */
const graveOf = (findings: readonly Finding[]): ReadonlyMap<string, Finding> => {
  const out = new Map<string, Finding>();
  for (const f of findings) {
    const known = out.get(nameOf(f));
    if (!known || RANK[known.severity] < RANK[f.severity]) out.set(nameOf(f), f);
  }
  return out;
};

/** Stops and fixes that findings have and those before a change had not, or had as less. */
export function newlyGrave(before: readonly Finding[], after: readonly Finding[]): readonly Finding[] {
  const was = graveOf(before);
  return [...graveOf(after).values()].filter(
    f => f.severity !== 'note' && RANK[f.severity] > RANK[was.get(nameOf(f))?.severity ?? 'note'],
  );
}

/**
 * The remedy to offer for a finding: tried out on the plan with all the checks, it makes the finding go and brings no new stop and no
 * new fix; where none of its ways does, the one that makes it go and brings the least, told with what it brings. Undefined where none
 * makes it go: then there is nothing to press. `facts` are those that the finding is of.
 */
export function vettedRemedy(
  facts: Facts,
  finding: Finding,
  system: UnitSystem = 'metric',
  before: readonly Finding[] = check(facts, system),
): VettedRemedy | undefined {
  let best: VettedRemedy | undefined;
  for (const r of remediesOf(finding)) {
    const after = applied(facts.document, r);
    if (!after) continue;
    const found = check(gatherFacts(after, facts.build.id), system);
    const still = graveOf(found).get(nameOf(finding));
    if (still && RANK[still.severity] >= RANK[finding.severity]) continue;
    const brings = newlyGrave(before, found);
    if (brings.length === 0) return { ...r, brings };
    const weight = (l: readonly Finding[]): number =>
      l.reduce((s, f) => s + (f.severity === 'stop' ? 100 : 1), 0);
    if (!best || weight(brings) < weight(best.brings)) best = { ...r, brings };
  }
  return best;
}
