import { wordsIn } from '@plate-fold/core/checks';
import { ladderSheets, nextSheets, placeWish, rungOf, rungWish } from '@plate-fold/core/compare';
import { type Facts, gatherFacts } from '@plate-fold/core/derive';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { type StrikeAnswer, strikeForce, strikePlate, wishOf } from '@plate-fold/core/strike';
import { demo } from '@plate-fold/demo';
import { cpu, line } from './measure';

/** So many answers are the first points of a ladder: one of each of the first materials. */
const FIRST = 3;

/** A ladder as the page goes through it, one strike after another; processor time to its first points and to its end, ms. */
function ladder(
  facts: Facts,
  own: FoldedPanel,
): { first: number; all: number; struck: number; left: number } {
  const from = cpu();
  const force = strikeForce(facts.rig.rig, 'set-down');
  const place = strikePlate(placeWish(facts, own, force));
  if (!place.ok) throw new Error(place.fault);
  const [x, y] = place.value.at;
  const words = wordsIn('metric');
  const rungs = ladderSheets('inch')
    .map(s => ({ ...s, panel: own.panel.id, rung: rungOf(facts, own.panel.id, s, words) }))
    .filter(r => r.rung.against.length === 0);
  const answers = new Map<(typeof rungs)[number], StrikeAnswer | undefined>();
  let first = 0;
  for (;;) {
    const { now, later } = nextSheets(
      rungs,
      r => answers.get(r),
      r => answers.has(r),
    );
    const [next] = now;
    if (!next) return { first, all: cpu() - from, struck: answers.size, left: later.length };
    const r = strikePlate(rungWish(facts, next.rung.folded, force, [x, y]));
    answers.set(next, r.ok ? r.value : undefined);
    if (answers.size === FIRST) first = cpu() - from;
  }
}

console.log('Ladders of the demo plates, every sheet of the catalog in inches, processor time on one core');
console.log('(goal: first points 0.5 s, a ladder 10 s, a best build of all plates 20 s)');
for (const name of ['bramble', 'heron', 'pebble', 'wren'] as const) {
  const facts = gatherFacts(demo(name));
  let [sum, alone, firsts, struck, left] = [0, 0, 0, 0, 0];
  let most = 0;
  for (const own of facts.plates) {
    const from = cpu();
    const r = strikePlate(wishOf(facts, own, strikeForce(facts.rig.rig, 'set-down')));
    if (!r.ok) throw new Error(r.fault);
    alone += cpu() - from;
    const l = ladder(facts, own);
    sum += l.all;
    struck += l.struck;
    left += l.left;
    firsts = Math.max(firsts, l.first);
    most = Math.max(most, l.all);
  }
  line(
    `${name}: its best build, ${struck} sheets struck, ${left} left out`,
    sum,
    sum / alone,
    'its belly struck once',
  );
  console.log(
    `${name}: the longest ladder ${(most / 1000).toFixed(1)} s, first points after ${(firsts / 1000).toFixed(1)} s at most`,
  );
}
