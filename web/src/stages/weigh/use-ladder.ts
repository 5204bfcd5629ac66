import {
  type Facts,
  ladderSheets,
  type Result,
  type Rung,
  rungOf,
  type Stock,
  type StrikeAnswer,
  type StrikeWish,
  strikeForce,
  type UnitSystem,
  type Vec2,
  wishOf,
  wordsIn,
} from '@plate-fold/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { callOff, strikeInPool } from '../../work/strike-pool';
import { found, remember, wishKey } from '../strike/answers';

/** A rung as far as it is known. */
export interface KnownRung extends Rung {
  readonly answer?: Result<StrikeAnswer>;
}

interface Asked {
  readonly rung: Rung;
  readonly wish: StrikeWish;
  readonly key: string;
}

/** Elements coarser than one plate by itself is struck with, and given up sooner: a ladder is looked at as a whole. */
const GIVES_WAY = 60;
const COARSE = 1.4;

/** Questions that wait for a worker, so that what is learnt from one answer still changes which is asked next. */
const AT_ONCE = 4;
/** A sheet that leaves less than this has hit what it guards hard, mm: what is thinner need not be known soon. */
const HIT = -5;

const hopeless = (r: Result<StrikeAnswer> | undefined): boolean =>
  r?.ok === true && (r.value.reached < 1 || (r.value.gapMm ?? 0) < HIT);

/**
 * What is not struck yet, thick to thin, materials and plates in turn; sheets thinner than one of their kind that already gives way or
 * hits what it guards come last: they are the longest to strike and the last that anybody would take.
 */
function byHope(list: readonly Asked[]): readonly Asked[] {
  const kindOf = ({ rung }: Asked): string => `${rung.folded.panel.id} ${rung.material}`;
  const ranked = [...new Set(list.map(kindOf))].flatMap(kind => {
    const thick = list.filter(t => kindOf(t) === kind).sort((a, b) => b.rung.thickness - a.rung.thickness);
    const first = thick.findIndex(t => hopeless(found(t.key)));
    return thick.map((t, i) => ({ t, rank: i + (first >= 0 && i > first ? list.length : 0) }));
  });
  return ranked
    .filter(({ t }) => !found(t.key))
    .sort((a, b) => a.rank - b.rank)
    .map(({ t }) => t);
}

/**
 * The ladders of some plates: every sheet of the catalogue, each struck where the plate as it is has its worst place, coming in as
 * they are ready. Sheets that cannot be made are not struck. Plates take turns, so that all of them soon have something to choose.
 */
export function useLadder(facts: Facts, panels: readonly string[], units: UnitSystem, stock: Stock) {
  const [rungs, setRungs] = useState<ReadonlyMap<string, readonly Rung[]>>(new Map());
  const [count, setCount] = useState(0);
  const [stopped, setStopped] = useState(false);
  const asked = useRef(new Set<string>());
  const key = panels.join();
  const force = strikeForce(facts.document.rig, 'set-down');
  // a few sheets at a time, so that the page is never held up
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list of plates is told by its names
  useEffect(() => {
    let off = false;
    const words = wordsIn(units);
    const made = new Map<string, Rung[]>(panels.map(p => [p, []]));
    const list = ladderSheets(stock).flatMap(s => panels.map(p => [p, s] as const));
    const step = (from: number): void => {
      if (off) return;
      for (const [p, s] of list.slice(from, from + 4)) made.get(p)?.push(rungOf(facts, p, s, words));
      if (from + 4 < list.length) setTimeout(() => step(from + 4), 0);
      else setRungs(new Map(made));
    };
    setRungs(new Map());
    setTimeout(() => step(0), 0);
    return () => {
      off = true;
      callOff(false);
      asked.current.clear();
    };
  }, [facts, key, units, stock]);
  /** the plates as they are: where they are struck is found first */
  const own = useMemo(
    () =>
      panels.flatMap((p): { panel: string; wish: StrikeWish; key: string }[] => {
        const folded = facts.panels.find(x => x.panel.id === p);
        if (!folded) return [];
        const wish = { ...wishOf(facts, folded, force), size: COARSE, givesWayAt: GIVES_WAY };
        return [{ panel: p, wish, key: `${wishKey(wish)} coarse` }];
      }),
    [facts, panels, force],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that comes in counts one up
  const list = useMemo(
    (): readonly Asked[] =>
      own.flatMap(({ panel, key: k }): readonly Asked[] => {
        const worst = found(k);
        if (!worst?.ok) return [];
        const at: Vec2 = [worst.value.at[0], worst.value.at[1]];
        return (rungs.get(panel) ?? [])
          .filter(r => r.against.length === 0)
          .map(rung => {
            const wish = {
              ...wishOf(facts, rung.folded, force, { at }),
              size: COARSE,
              givesWayAt: GIVES_WAY,
            };
            return { rung, wish, key: `${wishKey(wish)} coarse` };
          });
      }),
    [own, rungs, facts, force, own.filter(o => found(o.key)).length],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that comes in counts one up
  useEffect(() => {
    if (stopped) return;
    const open = [...own.filter(t => !found(t.key)), ...byHope(list)];
    for (const t of open) {
      if (asked.current.size >= AT_ONCE) break;
      if (asked.current.has(t.key)) continue;
      asked.current.add(t.key);
      strikeInPool({ key: t.key, wish: t.wish }, answer => {
        remember(t.key, answer);
        asked.current.delete(t.key);
        setCount(n => n + 1);
      });
    }
  }, [own, list, stopped, count]);
  const byRung = new Map(list.map(t => [t.rung, found(t.key)]));
  const known = new Map(
    panels.map(p => [
      p,
      (rungs.get(p) ?? []).map((r): KnownRung => {
        const answer = byRung.get(r);
        return answer ? { ...r, answer } : r;
      }),
    ]),
  );
  const open = byHope(list).length;
  return {
    known,
    waiting: rungs.size === 0 || list.length === 0 ? undefined : open,
    total: list.length,
    stopped,
    stop: () => {
      callOff(true);
      asked.current.clear();
      setStopped(true);
    },
    goOn: () => setStopped(false),
  };
}
