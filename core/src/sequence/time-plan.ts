import type { Step } from './step';

/** One sitting of the job. */
export interface Evening {
  readonly steps: readonly Step[];
  readonly minutes: number;
  /** it is longer than an evening, since nothing in it can be left for the night */
  readonly over: boolean;
  /** the vehicle can be driven afterwards */
  readonly drivable: boolean;
}

/** Raising the vehicle again and laying the tools out, minutes: a guess. */
export const AGAIN_MINUTES = 15;

export const totalMinutes = (steps: readonly Step[]): number => steps.reduce((s, x) => s + x.minutes, 0);

/**
 * The job in evenings of so many minutes, broken only at the marked places; an evening takes as many stretches as fit. Later evenings
 * begin with laying everything out again. All times are guesses unless entered.
 */
export function evenings(steps: readonly Step[], perEvening: number): readonly Evening[] {
  const stretches: Step[][] = [[]];
  for (const s of steps) {
    stretches.at(-1)?.push(s);
    if (s.night) stretches.push([]);
  }
  const out: Step[][] = [];
  let used = 0;
  for (const stretch of stretches.filter(x => x.length > 0)) {
    const long = totalMinutes(stretch);
    const here = out.at(-1);
    if (here && used + long <= perEvening) {
      here.push(...stretch);
      used += long;
    } else {
      used = long + (out.length > 0 ? AGAIN_MINUTES : 0);
      out.push([...stretch]);
    }
  }
  return out.map((list, i) => {
    const minutes = totalMinutes(list) + (i > 0 ? AGAIN_MINUTES : 0);
    return { steps: list, minutes, over: minutes > perEvening, drivable: list.at(-1)?.drivable === true };
  });
}
