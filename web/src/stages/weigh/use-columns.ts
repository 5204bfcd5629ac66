import { check, type Finding } from '@plate-fold/core/checks';
import { type Facts, gatherFacts } from '@plate-fold/core/derive';
import type { StrikeAnswer } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';
import { createSelector } from '@reduxjs/toolkit';
import { useEffect, useMemo, useRef, useState } from 'react';
import { selectFacts } from '../../state/derived';
import { type RootState, useAppSelector } from '../../state/store';
import { SET_DOWN, useStrikes } from '../../state/strikes/use-strikes';
import type { BuildAsked, BuildExtra } from '../../work/build.worker';
import { buildInWorker } from '../../work/build-client';

/** One build as builds are compared. */
export interface Column {
  readonly facts: Facts;
  readonly findings: readonly Finding[];
  /** answers of its plates, once all of them are struck */
  readonly struck?: readonly StrikeAnswer[];
  /** what a worker finds out; undefined until it has */
  readonly extra?: BuildExtra;
}

/** All builds looked at in full. */
const selectBuilds = createSelector(
  [selectFacts, (s: RootState) => s.view.units],
  (facts, units): readonly Pick<Column, 'facts' | 'findings'>[] =>
    facts
      ? facts.document.plan.builds.map(b => {
          const of = b.id === facts.build.id ? facts : gatherFacts(facts.document, b.id);
          return { facts: of, findings: check(of, units) };
        })
      : [],
);

/** What was found out of a build as it is: asked again when the build, its shapes or its rig change. */
const extras = new WeakMap<object, { of: BuildAsked['document']; extra: BuildExtra }>();
const sameBuild = (a: BuildAsked['document'], b: BuildAsked['document']): boolean =>
  a.rig === b.rig &&
  a.plan.panels === b.plan.panels &&
  a.plan.joints === b.plan.joints &&
  a.plan.shop === b.plan.shop;

function useExtras(builds: readonly Facts[]): readonly (BuildExtra | undefined)[] {
  const [, setCount] = useState(0);
  const known = (f: Facts): BuildExtra | undefined => {
    const had = extras.get(f.build);
    return had && sameBuild(had.of, f.document) ? had.extra : undefined;
  };
  const found = builds.map(known);
  const next = builds.find((_, i) => !found[i]);
  const working = useRef<object | undefined>(undefined);
  // one build after another
  useEffect(() => {
    if (!next || working.current === next) return;
    working.current = next;
    const asked: BuildAsked = { document: next.document, build: next.build.id };
    const job = buildInWorker(asked);
    job.result.then(
      extra => {
        extras.set(next.build, { of: next.document, extra });
        setCount(n => n + 1);
      },
      // without an answer its figures stay unknown, as they are shown
      () => undefined,
    );
    return () => {
      job.cancel();
      working.current = undefined;
    };
  }, [next]);
  return found;
}

const answered = (r: Result<StrikeAnswer> | undefined): readonly StrikeAnswer[] => (r?.ok ? [r.value] : []);

/** The builds side by side, with the strikes that are known; the others are struck when asked for. */
export function useColumns() {
  const builds = useAppSelector(selectBuilds);
  const facts = useMemo(() => builds.map(b => b.facts), [builds]);
  const bellies = useMemo(
    () =>
      facts.map(({ build, document, rig, panels, joints, seats }) => ({
        build: build.id,
        document,
        rig,
        panels,
        joints,
        seats,
      })),
    [facts],
  );
  const strikes = useStrikes(bellies, SET_DOWN, { wait: true });
  const found = useExtras(facts);
  const columns = builds.map((b, i): Column => {
    const struck = (strikes.struck[i] ?? []).flatMap(s => (s.stale ? [] : answered(s.answer)));
    const extra = found[i];
    return {
      ...b,
      ...(struck.length === b.facts.plates.length ? { struck } : {}),
      ...(extra ? { extra } : {}),
    };
  });
  return { columns, strikes };
}
