/** A reading of a digital torque wrench while it turns: torque N·m, angle turned in degrees. */
export interface TurnSample {
  readonly nm: number;
  readonly deg: number;
}

export const TURN_VERDICTS = ['good', 'short', 'over', 'cross-threaded', 'stripping', 'yielded'] as const;
export type TurnVerdict = (typeof TURN_VERDICTS)[number];

/** How a bolt was turned, by torque and angle. */
export interface Turn {
  readonly peakNm: number;
  readonly verdict: TurnVerdict;
  /** degrees turned from snug, where the joint began to pull, to the peak; undefined where it never did */
  readonly fromSnugDeg?: number;
  readonly said: string;
}

/** A wrench in its calibration is within this share of its setting above 10 N·m, and this below (ISO 6789; from memory). */
export const wrenchTolerance = (nm: number): number => (nm > 10 ? 0.04 : 0.06);

/**
 * Limits by which a turn is told from a good one. Common practice, no source, but for the fall of the slope: the yield-controlled method of
 * VDI 2230 stops where the slope of torque over angle has fallen to half of its steepest (from memory).
 */
export const TURN = {
  /** share of the target at which the joint is taken as snug */
  snug: 0.2,
  /** a bolt that is run in takes less than this share of the target; more, over half a turn, and its thread cuts askew */
  running: 0.35,
  runningDeg: 180,
  /** torque that falls by this share of its peak while turning on: the thread gives */
  fall: 0.1,
  /** slope that falls below this share of the steepest before the target */
  slope: 0.5,
  /** a slope is taken over this much turning */
  windowDeg: 12,
} as const;

/** Torque per degree about a sample, over a window of turning. */
function slopeAt(samples: readonly TurnSample[], i: number): number | undefined {
  const here = samples[i] as TurnSample;
  for (let k = i - 1; k >= 0; k--) {
    const back = samples[k] as TurnSample;
    if (here.deg - back.deg >= TURN.windowDeg) return (here.nm - back.nm) / (here.deg - back.deg);
  }
  return undefined;
}

const SAID: Readonly<Record<TurnVerdict, string>> = {
  good: 'On target; it pulled up like a sound joint.',
  short: 'Stopped short of its torque.',
  over: 'Turned past its torque.',
  'cross-threaded':
    'It turned hard long before the head came down: cross-threaded. Back it out, look at both threads, start it by hand again.',
  stripping:
    'It keeps turning and the torque falls: the nut or its thread is stripping. Stop. Repair the hole first.',
  yielded:
    'It gave on the last of the turn: the bolt has stretched past yield. Use a new bolt; check whether the threads were oiled.',
};

/**
 * Judges how a bolt was turned from the run of torque over angle: cut askew while it ran in, falling while it turned on, softening before
 * its target, or pulled up as it should. `targetNm` is what was asked for. Nothing read gives a peak of 0, short.
 */
export function judgeTurn(samples: readonly TurnSample[], targetNm: number): Turn {
  const peakAt = samples.reduce((best, s, i) => (s.nm > (samples[best]?.nm ?? 0) ? i : best), 0);
  const peak = samples[peakAt];
  const peakNm = peak?.nm ?? 0;
  if (!peak) return { peakNm: 0, verdict: 'short', said: SAID.short };
  const made = (verdict: TurnVerdict): Turn => {
    const snug = samples.find(s => s.nm >= TURN.snug * targetNm);
    return {
      peakNm,
      verdict,
      ...(snug ? { fromSnugDeg: Math.max(0, peak.deg - snug.deg) } : {}),
      said: SAID[verdict],
    };
  };
  // stripping: it was turned on beyond the peak and the torque went down
  const after = samples.slice(peakAt + 1).filter(s => s.deg > peak.deg + TURN.windowDeg / 2);
  if (after.some(s => s.nm < (1 - TURN.fall) * peakNm)) return made('stripping');
  // cross-threaded: hard for more than half a turn before the slope of a seated joint sets in
  const slopes = samples.map((_, i) => slopeAt(samples, i));
  const steepest = Math.max(0, ...slopes.flatMap(s => s ?? []));
  const hard = samples.filter(s => s.nm >= TURN.running * targetNm && s.nm < 0.95 * peakNm);
  const [first, lastHard] = [hard[0], hard.at(-1)];
  if (first && lastHard && lastHard.deg - first.deg > TURN.runningDeg) return made('cross-threaded');
  // yielded: past its steepest the slope falls to half before the target is reached
  const steepAt = slopes.findIndex(s => s !== undefined && s >= 0.999 * steepest);
  const soft = slopes.findIndex(
    (s, i) =>
      s !== undefined &&
      i > steepAt &&
      i <= peakAt &&
      s < TURN.slope * steepest &&
      (samples[i]?.nm ?? 0) > 0.5 * targetNm,
  );
  const tolerance = wrenchTolerance(targetNm) * targetNm;
  if (steepest > 0 && soft >= 0 && (samples[soft] as TurnSample).nm < targetNm - tolerance / 2)
    return made('yielded');
  if (peakNm < targetNm - tolerance) return made('short');
  if (peakNm > targetNm + tolerance) return made('over');
  return made('good');
}
