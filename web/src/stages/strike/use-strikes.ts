import {
  type FoldedPanel,
  type Result,
  type StrikeAnswer,
  type StrikeCase,
  type StrikeWish,
  strikeForce,
  type Vec2,
} from '@plate-fold/core';
import { useEffect, useMemo, useState } from 'react';
import { useFacts } from '../../app/derived';
import { type PoolTask, strikeInPool } from '../../work/strike-pool';

/** Answers already found, for as long as the page lives: by plate as folded, and by all else they depend on. */
const found = new WeakMap<FoldedPanel, Map<string, Result<StrikeAnswer>>>();
const answersOf = (p: FoldedPanel): Map<string, Result<StrikeAnswer>> => {
  const mine = found.get(p) ?? new Map<string, Result<StrikeAnswer>>();
  found.set(p, mine);
  return mine;
};

export interface Struck {
  readonly folded: FoldedPanel;
  /** undefined while it is being computed */
  readonly answer?: Result<StrikeAnswer>;
}

/** Strikes every plate of the build, each at its worst place or where the reader has put the rock. */
export function useStrikes(
  kind: StrikeCase,
  places: Readonly<Record<string, Vec2>>,
): {
  readonly struck: readonly Struck[];
  readonly waiting: number;
  readonly stop: () => void;
  readonly stopped: boolean;
  readonly goOn: () => void;
} {
  const { panels, joints, rig, document } = useFacts();
  const [count, setCount] = useState(0);
  const [stopped, setStopped] = useState(false);
  const force = strikeForce(document.rig, kind);
  const tasks = useMemo(
    () =>
      panels.map(folded => {
        const own = joints.filter(j => j.joint.panels.includes(folded.panel.id));
        const at = places[folded.panel.id];
        const wish: StrikeWish = {
          folded,
          joints: own,
          components: rig.components,
          force,
          ...(at ? { at } : {}),
        };
        const key = JSON.stringify([
          force,
          at ?? 'worst',
          own.map(j => [j.id, j.at, Math.round(j.preloadN), j.layers.map(l => l.diameter)]),
          rig.components.map(c => [c.id, c.zBottom, c.footprint]),
        ]);
        return { folded, key, wish };
      }),
    [panels, joints, rig.components, force, places],
  );
  useEffect(() => {
    if (stopped) return;
    const open = tasks.filter(t => !answersOf(t.folded).has(t.key));
    if (open.length === 0) return;
    const pool: PoolTask[] = open.map((t, i) => ({ key: String(i), wish: t.wish }));
    return strikeInPool(pool, (key, answer) => {
      const t = open[Number(key)];
      if (t) answersOf(t.folded).set(t.key, answer);
      setCount(n => n + 1);
    });
  }, [tasks, stopped]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that comes in counts one up
  const struck = useMemo(
    () => tasks.map((t): Struck => ({ folded: t.folded, answer: answersOf(t.folded).get(t.key) })),
    [tasks, count],
  );
  return {
    struck,
    waiting: struck.filter(s => !s.answer).length,
    stop: () => setStopped(true),
    stopped,
    goOn: () => setStopped(false),
  };
}
