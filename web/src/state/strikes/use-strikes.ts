import type { JointSeat, ResolvedJoint } from '@plate-fold/core/bolt';
import type { FoldedPanel } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import type { PlanDocument } from '@plate-fold/core/plan';
import { isBracket } from '@plate-fold/core/plan';
import type { PresentRig } from '@plate-fold/core/rig';
import {
  type Hold,
  refusedStrike,
  SLIDES,
  type StrikeAnswer,
  type StrikeCase,
  type StrikeWish,
  strikeForce,
  wishOf,
} from '@plate-fold/core/strike';
import { err, type Result } from '@plate-fold/core/units';
import { useEffect, useMemo, useRef, useState } from 'react';
import { found, useAnswers, useAsker } from './store';
import { wishKey } from './wish-key';

/** What of a build is struck. */
export interface Belly {
  readonly build: string;
  readonly document: PlanDocument;
  readonly rig: PresentRig;
  readonly panels: readonly FoldedPanel[];
  readonly joints: readonly ResolvedJoint[];
  readonly seats: ReadonlyMap<string, JointSeat>;
}

/** How the belly is struck. */
export interface Blow {
  readonly kind: StrikeCase;
  /** the reader's own force, N */
  readonly own: number;
  /** how high over the rock a fall begins, mm */
  readonly fallMm: number;
  /** plates may come up against their members */
  readonly rests: boolean;
  readonly hold: Hold;
  /** where the reader has put the rock under a plate, by plate */
  readonly places: Readonly<Record<string, Vec2>>;
}

export interface Struck {
  readonly folded: FoldedPanel;
  /** undefined while the first answer is being computed */
  readonly answer?: Result<StrikeAnswer>;
  /** it is not struck that way at all */
  readonly refused?: true;
  /** the answer is a first look, or to an earlier question; the true one is being computed */
  readonly stale: boolean;
}

/** Force of a blow on a plate, N. */
export function forceOf({ rig }: PresentRig, folded: FoldedPanel, blow: Blow): number {
  if (blow.kind === 'own') return blow.own;
  const [a] = blow.places[folded.panel.id] ?? [folded.panel.base.origin[0]];
  return strikeForce(rig, blow.kind, a);
}

/** How a blow comes, and what it meets, with the rock at a place or where the plate is worst. */
export const howOf = (blow: Blow, at: Vec2 | undefined) => ({
  ...(at ? { at } : {}),
  rests: blow.rests,
  hold: blow.hold,
  ...(blow.kind === 'drop' ? { fallMm: blow.fallMm } : {}),
  ...(blow.kind === 'slide' ? { drag: SLIDES } : {}),
});

/** A fall that is asked for first is so high, mm: 2 in. */
export const FIRST_FALL = 50.8;

/** A first look is struck on elements so much coarser, and the dent is left for the answer. */
const LOOK = 1.6;
const first = (key: string): string => `${key} first look`;

interface Task {
  readonly slot: string;
  readonly folded: FoldedPanel;
  readonly key: string;
  readonly wish: StrikeWish;
  /** it is not struck at all */
  readonly refused?: Result<StrikeAnswer>;
}

/** A question with the worst place that its first look has found: the search is the same on any mesh, and is not made twice. */
function placed({ wish, key }: Task): StrikeWish {
  const look = found(first(key));
  return wish.at || !look?.ok ? wish : { ...wish, at: [look.value.at[0], look.value.at[1]] };
}

function tasksOf(belly: Belly, blow: Blow): readonly Task[] {
  return belly.panels
    .filter(p => !isBracket(p.panel))
    .map(folded => {
      const at = blow.places[folded.panel.id];
      const wish = wishOf(belly, folded, forceOf(belly.rig, folded, blow), howOf(blow, at));
      const refused = refusedStrike(folded.panel, blow.kind);
      return {
        slot: `${belly.build} ${folded.panel.id}`,
        folded,
        key: wishKey(wish),
        wish,
        ...(refused === undefined ? {} : { refused: err(refused) }),
      };
    });
}

/** As a belly is struck first: set down where it is worst, held as its joints hold it. */
export const SET_DOWN: Blow = {
  kind: 'set-down',
  own: 0,
  fallMm: FIRST_FALL,
  rests: false,
  hold: 'joints',
  places: {},
};

/** Answers that are known already, without asking for any. */
export const knownStrikes = (belly: Belly, blow: Blow): readonly StrikeAnswer[] =>
  tasksOf(belly, blow).flatMap(t => {
    const answer = found(t.key);
    return answer?.ok ? [answer.value] : [];
  });

/**
 * Strikes every plate of some builds, each at its worst place or where the reader has put the rock: a first look on a coarse mesh,
 * then the answer. While one is computed the one before stays; a rock that is dragged asks again as often as looks come. With `wait`
 * nothing is struck until it is told to go on; what is known is shown.
 */
export function useStrikes(bellies: readonly Belly[], blow: Blow, { wait = false } = {}) {
  const count = useAnswers();
  const asker = useAsker();
  const [stopped, setStopped] = useState(wait);
  const last = useRef(new Map<string, Result<StrikeAnswer>>());
  const tasks = useMemo(() => bellies.map(b => tasksOf(b, blow)), [bellies, blow]);
  /** one question of a plate at a time: what is being asked of it, by its slot */
  const asked = useRef(new Map<string, string>());
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that comes in counts one up, and may leave room for the next question
  useEffect(() => {
    if (stopped) return;
    for (const t of tasks.flat()) {
      const busy = asked.current.get(t.slot);
      if (t.refused || found(t.key) || (busy !== undefined && asker.open.has(busy))) continue;
      // a first look comes before the answer itself, and before any other plate's answer
      const look = !found(first(t.key));
      const key = look ? first(t.key) : t.key;
      const wish = look ? { ...t.wish, size: LOOK, noDent: true } : placed(t);
      asked.current.set(t.slot, key);
      asker.ask({ key, wish, soon: look });
    }
  }, [tasks, stopped, count, asker]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that comes in counts one up
  const struck = useMemo(
    () =>
      tasks.map(list =>
        list.map((t): Struck => {
          const answer = t.refused ?? found(t.key);
          const known = answer ?? found(first(t.key));
          if (known) last.current.set(t.slot, known);
          const shown = answer ?? last.current.get(t.slot);
          return {
            folded: t.folded,
            stale: !answer,
            ...(shown ? { answer: shown } : {}),
            ...(t.refused ? { refused: true } : {}),
          };
        }),
      ),
    [tasks, count],
  );
  return {
    struck,
    waiting: struck.flat().filter(s => s.stale).length,
    stop: () => {
      asker.stop();
      setStopped(true);
    },
    stopped,
    goOn: () => setStopped(false),
  };
}
