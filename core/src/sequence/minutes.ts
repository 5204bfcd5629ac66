import type { Method } from '../plan';
import type { Stage } from './step';

/** Minutes of a step: a fixed part and one for each thing it is done to. Guesses, all of them; the owner's own win. */
const GUESS: Readonly<Record<Stage, readonly [fixed: number, each: number]>> = {
  safety: [15, 0],
  kit: [2, 0.25],
  remove: [4, 1],
  inspect: [4, 0.4],
  repair: [6, 6],
  drill: [3, 3],
  bench: [3, 0.4],
  support: [5, 0],
  hang: [4, 0],
  start: [1, 0.8],
  home: [5, 0],
  tighten: [1, 0.5],
  check: [8, 0],
  finish: [8, 0],
};
/** How much longer work takes lying on the floor, or on a creeper under ramps, than standing under a lift: a guess. */
export const UNDER = { ground: 1.4, ramps: 1.2, 'two-post': 1, side: 1.1 } as const;
/** Raising the vehicle is quicker on ramps and on a lift. */
const RAISING = { ground: 1.4, ramps: 0.6, 'two-post': 0.5, side: 1.2 } as const;
const BENCH_WORK = new Set<Stage>(['kit', 'bench', 'finish']);
/** A step that wants two pairs of hands, done alone with a jack. */
const ALONE = 1.6;
/** A second pair of hands passes tools and holds nuts. */
const TOGETHER = 0.8;

/** A guess of how long a step takes, minutes, to the half. `amount` is how many things it is done to. */
export function guessMinutes(
  stage: Stage,
  amount: number,
  { lift, people, needs }: Pick<Method, 'lift' | 'people'> & { readonly needs: number },
): number {
  const [fixed, each] = GUESS[stage];
  const where = stage === 'safety' ? RAISING[lift] : BENCH_WORK.has(stage) ? 1 : UNDER[lift];
  const hands = people === 1 ? (needs === 2 ? ALONE : 1) : TOGETHER;
  return Math.max(0.5, Math.round((fixed + each * amount) * where * hands * 2) / 2);
}
