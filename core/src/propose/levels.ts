import type { PresentRig } from '../rig';
import type { Lane } from './lanes';
import { type Profile, profileOf } from './profile';
import { MAX_SPACER } from './wish';

/** True when two lanes on either side of a station lap there. */
export const laps = (a: Lane, b: Lane): boolean =>
  a.rear === b.front && Math.min(a.y[1], b.y[1]) - Math.max(a.y[0], b.y[0]) > 20;

/** The ends that meet at one station and lap one another: they hang at one height, the front plates one sheet lower. */
interface Meeting {
  readonly fronts: number[];
  readonly rears: number[];
  /** spacer between the member and the innermost plate, mm */
  spacer: number;
}

/** A lane with its profile and, for both ends, the spacer of a bolt through its innermost plate there, mm. */
export interface Leveled {
  readonly lane: Lane;
  readonly profile: Profile;
  readonly spacers: readonly [front: number, rear: number];
  /** whether its rear end lies outside another plate's front end */
  readonly outside: boolean;
}

const ROUNDS = 40;

/** Ends of lanes by where they meet. */
function meetings(lanes: readonly Lane[]): { readonly front: Meeting; readonly rear: Meeting }[] {
  const of = lanes.map((_, i) => ({
    front: { fronts: [i], rears: [], spacer: 0 } as Meeting,
    rear: { fronts: [], rears: [i], spacer: 0 } as Meeting,
  }));
  lanes.forEach((a, i) =>
    lanes.forEach((b, k) => {
      if (!laps(a, b)) return;
      const [mine, other] = [of[i]?.rear as Meeting, of[k]?.front as Meeting];
      if (mine === other) return;
      mine.fronts.push(...other.fronts);
      mine.rears.push(...other.rears);
      for (const f of other.fronts) (of[f] as { front: Meeting }).front = mine;
      for (const r of other.rears) (of[r] as { rear: Meeting }).rear = mine;
    }),
  );
  return of;
}

/**
 * Heights of all lanes: every plate lies against its member or its neighbor, or on spacers, and clears what is above. Where one end has to
 * come down all that meet it there come down with it; ends only ever go down, so it settles. `least`: spacers that a lane has at any
 * rate, mm, by its place in the list. Sheet that is not folded (`folds`) stays level.
 */
export function leveled(
  rig: PresentRig,
  lanes: readonly Lane[],
  thickness: number,
  lipOf: (half: number) => number,
  folds: boolean,
  least: ReadonlyMap<number, number>,
): readonly Leveled[] {
  const meets = meetings(lanes);
  for (const [i, mm] of least) {
    const m = meets[i] as (typeof meets)[number];
    m.front.spacer = Math.max(m.front.spacer, mm);
    m.rear.spacer = Math.max(m.rear.spacer, mm);
  }
  const outside = lanes.map((_, i) => (meets[i]?.rear.fronts.length ?? 0) > 0);
  const lips = lanes.map(l => [lipOf(l.front.half), lipOf(l.rear.half)] as const);
  const profile = (i: number): Profile => {
    const lane = lanes[i] as Lane;
    const m = meets[i] as (typeof meets)[number];
    return profileOf(
      rig,
      lane,
      {
        front: lane.front.zBottom - m.front.spacer - thickness,
        rear: lane.rear.zBottom - m.rear.spacer - thickness * (outside[i] ? 2 : 1),
      },
      thickness,
      lips[i] as (typeof lips)[number],
      folds,
    );
  };
  for (let round = 0; round < ROUNDS; round++) {
    let moved = false;
    lanes.forEach((_, i) => {
      const { more } = profile(i);
      const m = meets[i] as (typeof meets)[number];
      if (more[0] > 1e-6) m.front.spacer += more[0];
      if (more[1] > 1e-6) m.rear.spacer += more[1];
      moved ||= more[0] > 1e-6 || more[1] > 1e-6;
    });
    if (!moved) break;
  }
  return lanes.map((lane, i) => {
    const m = meets[i] as (typeof meets)[number];
    const made = profile(i);
    const long = Math.max(m.front.spacer, m.rear.spacer);
    return {
      lane,
      spacers: [m.front.spacer, m.rear.spacer],
      outside: outside[i] as boolean,
      profile:
        long > 2 * MAX_SPACER && made.fault === undefined
          ? {
              ...made,
              fault: { longMm: long },
            }
          : made,
    };
  });
}
