import { wordsIn } from '@plate-fold/core/checks';
import { ladderSheets, type Rung, rungOf } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import type { FoldedPanel } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import { MATERIAL_IDS, type MaterialId, type Stock } from '@plate-fold/core/sheet';
import { type StrikeAnswer, type StrikeWish, strikeForce, wishOf } from '@plate-fold/core/strike';
import type { Result, UnitSystem } from '@plate-fold/core/units';
import { useEffect, useMemo, useRef, useState } from 'react';
import { found, remember, wishKey } from '../../state/strikes/answers';
import { callOff, strikeInPool, WORKERS } from '../../work/strike-pool';

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

interface Asked {
  readonly rung: Rung;
  readonly wish: StrikeWish;
  readonly key: string;
}

/** Elements coarser than one plate by itself is struck with, and given up sooner: a ladder is looked at as a whole. */
const GIVES_WAY = 60;
const COARSE = 1.4;
const PLACE = 2;

/** Questions beyond those being worked on: few, so that what is learnt from one answer still changes which is asked next. */
const AHEAD = 1;
/** A sheet that leaves less than this has hit what it guards hard, mm: nobody takes it, or a thinner one. */
const HIT = -5;

const struckAs = (t: Asked | undefined): StrikeAnswer | undefined => {
  const r = t && found(t.key);
  return r?.ok ? r.value : undefined;
};

/** Whether a sheet would hit hard, by how the gap closed from the two thicker ones of its kind (deflection as a power of thickness). */
function wouldHit(t: Asked, near: Asked | undefined, next: Asked | undefined): boolean {
  const [b, a] = [struckAs(near), struckAs(next)];
  if (!near || !next || b?.gapMm === undefined || !a || a.deflectionMm <= 0) return false;
  const n = Math.log(b.deflectionMm / a.deflectionMm) / Math.log(next.rung.thickness / near.rung.thickness);
  const gives = b.deflectionMm * (near.rung.thickness / t.rung.thickness) ** n;
  return b.gapMm - (gives - b.deflectionMm) < HIT;
}

const kindOf = ({ rung }: Asked): string => `${rung.folded.panel.id} ${rung.material}`;

/**
 * What is not struck yet, thick to thin, materials and plates in turn; and apart from that the sheets that are thinner than one of
 * their kind that gives way or hits, or that would hit by its thicker neighbours: they take longest and nobody would take them.
 */
function byHope(list: readonly Asked[]): {
  readonly now: readonly Asked[];
  readonly later: readonly Asked[];
} {
  const ranked = [...new Set(list.map(kindOf))].flatMap(kind => {
    const thick = list.filter(t => kindOf(t) === kind).sort((a, b) => b.rung.thickness - a.rung.thickness);
    const end = thick.findIndex((t, i) => {
      const s = struckAs(t);
      return s ? s.reached < 1 || (s.gapMm ?? 0) < HIT : wouldHit(t, thick[i - 1], thick[i - 2]);
    });
    return thick.map((t, rank) => ({ t, rank, later: end >= 0 && rank >= end }));
  });
  const open = ranked.filter(({ t }) => !found(t.key)).sort((a, b) => a.rank - b.rank);
  return { now: open.filter(o => !o.later).map(o => o.t), later: open.filter(o => o.later).map(o => o.t) };
}

/** The question where a plate as it is has its worst place: looked for by itself, so coarse as it may be. */
function placeOf(facts: Facts, folded: FoldedPanel, force: number): { wish: StrikeWish; key: string } {
  const wish = { ...wishOf(facts, folded, force), size: PLACE, givesWayAt: GIVES_WAY, noDent: true };
  return { wish, key: `${wishKey(wish)} place` };
}

/** Asks ahead where the plate is struck that a ladder would begin with. */
export function useAhead(facts: Facts, panel: string | undefined): void {
  useEffect(() => {
    const folded = facts.panels.find(p => p.panel.id === panel) ?? facts.panels[0];
    if (!folded) return;
    const { wish, key } = placeOf(facts, folded, strikeForce(facts.document.rig, 'set-down'));
    if (!found(key)) strikeInPool({ key, wish }, answer => remember(key, answer));
  }, [facts, panel]);
}

/**
 * The ladders of some plates: every sheet of the catalogue, each struck where the plate as it is has its worst place, coming in as
 * they are ready. Sheets that cannot be made are not struck. Plates take turns, so that all of them soon have something to choose.
 */
export function useLadder(
  facts: Facts,
  panels: readonly string[],
  { units, stock, materials = MATERIAL_IDS }: LadderWish,
) {
  const [rungs, setRungs] = useState<ReadonlyMap<string, readonly Rung[]>>(new Map());
  const [count, setCount] = useState(0);
  const [stopped, setStopped] = useState(false);
  const [laying, setLaying] = useState(true);
  /** the hopeless ones are asked for as well */
  const [deep, setDeep] = useState(false);
  const asked = useRef(new Set<string>());
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
      callOff(false);
      asked.current.clear();
    };
  }, [facts, key, units, stock, allowed]);
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
    const { now, later } = byHope(list);
    for (const t of [...own.filter(o => !found(o.key)), ...now, ...(deep ? later : [])]) {
      if (asked.current.size >= WORKERS + AHEAD) break;
      if (asked.current.has(t.key)) continue;
      asked.current.add(t.key);
      strikeInPool({ key: t.key, wish: t.wish }, answer => {
        remember(t.key, answer);
        asked.current.delete(t.key);
        setCount(n => n + 1);
      });
    }
  }, [own, list, stopped, deep, count]);
  const { now, later } = byHope(list);
  const left = new Set(later.map(t => t.rung));
  const byRung = new Map(list.map(t => [t.rung, found(t.key)]));
  const known = new Map(
    panels.map(p => [
      p,
      (rungs.get(p) ?? []).map((r): KnownRung => {
        const answer = byRung.get(r);
        return { ...r, ...(answer ? { answer } : {}), ...(left.has(r) && !deep ? { left: true } : {}) };
      }),
    ]),
  );
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
      callOff(true);
      asked.current.clear();
      setStopped(true);
    },
    goOn: () => setStopped(false),
  };
}
