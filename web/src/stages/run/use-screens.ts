import { hardwareList, type KitGaps, kitGaps, toolList } from '@plate-fold/core/bolt';
import { type Facts, gatherFacts } from '@plate-fold/core/derive';
import {
  type BoltFault,
  boltFaults,
  claims,
  firstOpen,
  type Move,
  type MoveState,
  mendSteps,
  moveStates,
  movesOf,
  type Screen,
  screensOf,
  type Tick,
  withRepairs,
} from '@plate-fold/core/sequence';
import type { UnitSystem } from '@plate-fold/core/units';
import { useMemo } from 'react';
import type { Run } from '../../state/api';
import { whoseHands } from './hands';
import { sequenceOf } from './sequence-of';

/** A run as it is walked: its screens with the repairs of what was reported, how each move stands, who has which plate. */
export interface Walked {
  readonly facts: Facts;
  readonly moves: readonly Move[];
  readonly screens: readonly Screen[];
  readonly states: ReadonlyMap<string, MoveState>;
  readonly faults: ReadonlyMap<string, BoltFault>;
  readonly claims: ReadonlyMap<string, string>;
  /** what the kit check found missing before the run began; undefined where nothing was counted */
  readonly gaps?: KitGaps;
  /** index of the screen that is next for whoever is working here; the count of screens when none is */
  readonly next: number;
  readonly done: number;
}

export function useScreens(
  run: Run | undefined,
  ticks: readonly Tick[],
  units: UnitSystem,
): Walked | undefined {
  const facts = useMemo(() => run && gatherFacts(run.document, run.buildId), [run]);
  const sequence = useMemo(
    () => (facts && run ? sequenceOf(facts, run.service, units) : undefined),
    [facts, run, units],
  );
  const gaps = useMemo(() => {
    if (!facts || !run?.kit || run.service !== null) return undefined;
    return kitGaps(hardwareList(facts.joints), toolList(facts.joints, facts), run.kit);
  }, [facts, run]);
  return useMemo(() => {
    if (!facts || !sequence) return undefined;
    const faults = boltFaults(ticks);
    const whole = withRepairs(sequence, ticks, (f, where) => mendSteps(f, where, facts));
    const moves = movesOf(whole, faults);
    const screens = screensOf(moves);
    const states = moveStates(ticks);
    const taken = claims(ticks);
    const me = whoseHands();
    // a plate that somebody else has taken is theirs
    const mine = (m: Move): boolean => {
      const who = m.step.panels.length === 1 ? taken.get(m.step.panels[0] as string) : undefined;
      return who === undefined || who === me;
    };
    const open = firstOpen(moves, states, mine);
    const move = moves[open];
    const at = move ? screens.findIndex(s => s.moves.includes(move)) : screens.length;
    return {
      facts,
      moves,
      screens,
      states,
      faults,
      claims: taken,
      ...(gaps ? { gaps } : {}),
      next: at,
      done: moves.filter(m => states.get(m.id)?.done).length,
    };
  }, [facts, sequence, ticks, gaps]);
}
