import type { Facts } from '../derive';
import { sentence, type UnitSystem } from '../units';
import { byGravity, type Finding, type Rule, wordsIn } from './finding';
import { assumedMeasures } from './rules/assumed-measures';
import { bend } from './rules/bend';
import { blank } from './rules/blank';
import { boltLength } from './rules/bolt-length';
import { boltPlace } from './rules/bolt-place';
import { boltTilt } from './rules/bolt-tilt';
import { brake } from './rules/brake';
import { carrier } from './rules/carrier';
import { carries } from './rules/carries';
import { catchEdge } from './rules/catch-edge';
import { dissimilarMetals } from './rules/dissimilar-metals';
import { drilling } from './rules/drilling';
import { fewBolts } from './rules/few-bolts';
import { galling } from './rules/galling';
import { grows } from './rules/grows';
import { headClear } from './rules/head-clear';
import { holeBend } from './rules/hole-bend';
import { holeBlocked } from './rules/hole-blocked';
import { holeCut } from './rules/hole-cut';
import { holeEdge } from './rules/hole-edge';
import { holeInOpening } from './rules/hole-in-opening';
import { holeSpacing } from './rules/hole-spacing';
import { hotPart } from './rules/hot-part';
import { hungWrong } from './rules/hung-wrong';
import { leastThin } from './rules/least-thickness';
import { limits } from './rules/limits';
import { looseSpacer } from './rules/loose-spacer';
import { movingPart } from './rules/moving-part';
import { nutReach } from './rules/nut-reach';
import { openingOutside } from './rules/opening-outside';
import { optionMisfit } from './rules/option-misfit';
import { optionRefused } from './rules/option-refused';
import { pressure } from './rules/pressure';
import { seat } from './rules/seat';
import { serviceBlocked } from './rules/service-blocked';
import { sideRoom } from './rules/side-room';
import { slotWasher } from './rules/slot-washer';
import { solid } from './rules/solid';
import { spacerLong } from './rules/spacer-long';
import { span } from './rules/span';
import { stack } from './rules/stack';
import { threadIntoAir } from './rules/thread-into-air';
import { tooHeavy } from './rules/too-heavy';
import { tooNear } from './rules/too-near';
import { topPlate } from './rules/top-plate';
import { torqueEntered } from './rules/torque-entered';
import { uncovered } from './rules/uncovered';
import { waitingSteps } from './rules/waiting-steps';
import { waterTrap } from './rules/water-trap';

export const RULES: readonly Rule[] = [
  uncovered,
  tooNear,
  movingPart,
  hotPart,
  catchEdge,
  waterTrap,
  serviceBlocked,
  tooHeavy,
  leastThin,
  bend,
  brake,
  blank,
  boltLength,
  threadIntoAir,
  topPlate,
  sideRoom,
  torqueEntered,
  pressure,
  slotWasher,
  grows,
  stack,
  nutReach,
  drilling,
  galling,
  dissimilarMetals,
  optionMisfit,
  optionRefused,
  openingOutside,
  span,
  fewBolts,
  seat,
  headClear,
  boltPlace,
  boltTilt,
  holeEdge,
  holeSpacing,
  holeBend,
  holeInOpening,
  holeCut,
  spacerLong,
  looseSpacer,
  solid,
  holeBlocked,
  limits,
  waitingSteps,
  carrier,
  carries,
  hungWrong,
  assumedMeasures,
];

/** The rules that a sheet alone can break, whatever a strike finds. */
export const SHEET_RULES: readonly Rule[] = [bend, brake, blank, hotPart, leastThin];

/** All findings of a build, gravest first, figures in the reader's units. */
export function check(facts: Facts, system: UnitSystem = 'metric'): readonly Finding[] {
  const words = wordsIn(system);
  return RULES.flatMap(rule =>
    rule.find(facts, words).map(f => ({ rule: rule.id, ...f, text: sentence(f.text) })),
  ).sort(byGravity);
}
