import { wordsIn } from '@plate-fold/core/checks';
import {
  ladderSheets,
  nextSheets,
  placeWish,
  type Rung,
  rungOf,
  rungWish,
  type Sheet,
} from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import type { FoldedPanel } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import { MATERIAL_IDS, type MaterialId, type Stock } from '@plate-fold/core/sheet';
import { type StrikeAnswer, type StrikeWish, strikeForce } from '@plate-fold/core/strike';
import type { Result, UnitSystem } from '@plate-fold/core/units';
import { useEffect, useMemo, useRef, useState } from 'react';
import { found, useAnswers, useAsker } from '../../state/strikes/store';
import { wishKey } from '../../state/strikes/wish-key';
import { WORKERS } from '../../work/strike-pool';

export interface LadderWish {
  readonly units: UnitSystem;
  readonly stock: Stock;
  /** what the plates may be of; anything unless told */
  readonly materials?: readonly MaterialId[] | undefined;
}

/** A rung as far as it is known. */
export interface KnownRung extends Rung {
  readonly answer?: Result<StrikeAnswer>;
  /** not struck: a thicker one of its kind hits or gives way, or nearly */
  readonly left?: boolean;
}

interface Asked extends Sheet {
  readonly rung: Rung;
  readonly wish: StrikeWish;
  readonly key: string;
}

/** Questions beyond those being worked on: few, so that what is learnt from one answer still changes which is asked next. */
const AHEAD = 1;
const struckAs = (t: Asked): StrikeAnswer | undefined => {
  const r = found(t.key);
  return r?.ok ? r.value : undefined;
};
const hopes = (list: readonly Asked[]) => nextSheets(list, struckAs, t => found(t.key) !== undefined);

/** The question where a plate as it is has its worst place: looked for by itself, so coarse as it may be. */
function placeOf(facts: Facts, folded: FoldedPanel, force: number): { wish: StrikeWish; key: string } {
  const wish = placeWish(facts, folded, force);
  return { wish, key: `${wishKey(wish)} place` };
}

/** Asks ahead where the plate is struck that a ladder would begin with. */
export function useAhead(facts: Facts, panel: string | undefined): void {
  const asker = useAsker();
  useEffect(() => {
    const folded = facts.panels.find(p => p.panel.id === panel) ?? facts.panels[0];
    if (!folded) return;
    const { wish, key } = placeOf(facts, folded, strikeForce(facts.document.rig, 'set-down'));
    asker.ask({ key, wish });
    return asker.forget;
  }, [facts, panel, asker]);
}

/**
 * The ladders of some plates: every sheet of the catalog, each struck where the plate as it is has its worst place, coming in as
 * they are ready. Sheets that cannot be made are not struck. Plates take turns, so that all of them soon have something to choose.
 */
export function useLadder(
  facts: Facts,
  panels: readonly string[],
  { units, stock, materials = MATERIAL_IDS }: LadderWish,
) {
  const [rungs, setRungs] = useState<ReadonlyMap<string, readonly Rung[]>>(new Map());
  const count = useAnswers();
  const asker = useAsker();
  const [stopped, setStopped] = useState(false);
  const [laying, setLaying] = useState(true);
  /** the hopeless ones are asked for as well */
  const [deep, setDeep] = useState(false);
  const laid = useRef('');
  const key = panels.join();
  const allowed = materials.join();
  const force = strikeForce(facts.document.rig, 'set-down');
  // a few sheets at a time, so that the page is never held up
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list of plates is told by its names
  useEffect(() => {
    let off = false;
    const words = wordsIn(units);
    const made = new Map<string, Rung[]>(panels.map(p => [p, []]));
    // thick ones first: they are struck first
    const list = ladderSheets(stock)
      .filter(s => materials.includes(s.material))
      .sort((a, b) => b.thickness - a.thickness)
      .flatMap(s => panels.map(p => [p, s] as const));
    const step = (from: number): void => {
      if (off) return;
      for (const [p, s] of list.slice(from, from + 4)) made.get(p)?.push(rungOf(facts, p, s, words));
      const whole = from + 4 >= list.length;
      if (whole) setRungs(new Map(made));
      setLaying(!whole);
      if (!whole) setTimeout(() => step(from + 4), 0);
    };
    // what was laid out for the same plates stays until it is laid out anew
    const of = `${key} ${stock} ${allowed}`;
    if (laid.current !== of) setRungs(new Map());
    laid.current = of;
    setTimeout(() => step(0), 0);
    return () => {
      off = true;
      asker.forget();
    };
  }, [facts, key, units, stock, allowed, asker]);
  /** the plates as they are: where they are struck is found first */
  const own = useMemo(
    () =>
      panels.flatMap((p): { panel: string; wish: StrikeWish; key: string }[] => {
        const folded = facts.panels.find(x => x.panel.id === p);
        if (!folded) return [];
        return [{ panel: p, ...placeOf(facts, folded, force) }];
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
            const wish = rungWish(facts, rung.folded, force, at);
            const { material, thickness } = rung;
            return { panel, material, thickness, rung, wish, key: `${wishKey(wish)} coarse` };
          });
      }),
    [own, rungs, facts, force, own.filter(o => found(o.key)).length],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that comes in counts one up
  useEffect(() => {
    if (stopped) return;
    const { now, later } = hopes(list);
    for (const t of [...own, ...now, ...(deep ? later : [])]) {
      if (asker.open.size >= WORKERS + AHEAD) break;
      asker.ask({ key: t.key, wish: t.wish });
    }
  }, [own, list, stopped, deep, count, asker]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that comes in counts one up; the list of plates is told by its names
  const { now, later, known } = useMemo(() => {
    const hope = hopes(list);
    const left = new Set(hope.later.map(t => t.rung));
    const byRung = new Map(list.map(t => [t.rung, found(t.key)]));
    const of = (r: Rung): KnownRung => {
      const answer = byRung.get(r);
      return { ...r, ...(answer ? { answer } : {}), ...(left.has(r) && !deep ? { left: true } : {}) };
    };
    return { ...hope, known: new Map(panels.map(p => [p, (rungs.get(p) ?? []).map(of)])) };
  }, [list, deep, key, rungs, count]);
  return {
    known,
    waiting:
      laying || rungs.size === 0 || own.some(o => !found(o.key))
        ? undefined
        : now.length + (deep ? later.length : 0),
    /** sheets that are left out as hopeless, unless asked for */
    later: deep ? 0 : later.length,
    askLater: () => setDeep(true),
    total: list.length,
    /** plates that cannot be struck, and why */
    faults: own.flatMap(({ panel, key: k }) => {
      const r = found(k);
      const mark = facts.panels.find(p => p.panel.id === panel)?.panel.mark;
      return r && !r.ok ? [`Plate ${mark} cannot be struck: ${r.fault}.`] : [];
    }),
    stopped,
    stop: () => {
      asker.stop();
      setStopped(true);
    },
    goOn: () => setStopped(false),
  };
}
