import { check, type Finding, type VettedRemedy, vettedRemedy } from '@plate-fold/core/checks';
import type { Facts } from '@plate-fold/core/derive';
import { useEffect, useState } from 'react';
import { selectSettled } from './derived';
import { useAppSelector } from './store';

/** What was tried out, for as long as the plan stands as it did. */
const tried = new WeakMap<Facts, Map<Finding, VettedRemedy | undefined>>();
const befores = new WeakMap<Facts, Map<string, readonly Finding[]>>();

/** Work that waits for an idle moment, one piece at a time, so that no key press waits for it. */
const waiting: (() => void)[] = [];
let busy = false;
const later = (run: () => void): void =>
  void (typeof requestIdleCallback === 'function'
    ? requestIdleCallback(run, { timeout: 400 })
    : setTimeout(run, 20));
function next(): void {
  const job = waiting.shift();
  if (!job) {
    busy = false;
    return;
  }
  busy = true;
  later(() => {
    job();
    next();
  });
}

/**
 * The remedy to offer for a finding, tried out on the plan: `undefined` while that is being done, `null` where none makes it go. Findings
 * without a remedy that can be applied answer `null` at once.
 */
export function useVetted(finding: Finding): VettedRemedy | null | undefined {
  const facts = useAppSelector(selectSettled);
  const units = useAppSelector(s => s.view.units);
  const [, setTurn] = useState(0);
  const can = finding.mend !== undefined || (finding.more?.length ?? 0) > 0;
  const known = facts && tried.get(facts);
  const done = !can || known?.has(finding) === true;
  useEffect(() => {
    if (done || !facts) return;
    let wanted = true;
    waiting.push(() => {
      if (!wanted) return;
      const mine = tried.get(facts) ?? new Map<Finding, VettedRemedy | undefined>();
      tried.set(facts, mine);
      const before = befores.get(facts) ?? new Map<string, readonly Finding[]>();
      befores.set(facts, before);
      const found = before.get(units) ?? check(facts, units);
      before.set(units, found);
      if (!mine.has(finding)) mine.set(finding, vettedRemedy(facts, finding, units, found));
      setTurn(n => n + 1);
    });
    if (!busy) next();
    return () => {
      wanted = false;
    };
  }, [done, facts, finding, units]);
  if (!can) return null;
  return done ? (known?.get(finding) ?? null) : undefined;
}
