import type { Vec3 } from '../geometry';

export const STAGES = [
  'safety',
  'kit',
  'remove',
  'inspect',
  'repair',
  'drill',
  'bench',
  'support',
  'hang',
  'start',
  'home',
  'tighten',
  'check',
  'finish',
] as const;
export type Stage = (typeof STAGES)[number];

/** Where the fasteners of a part taken off go: a bag with a label. */
export interface Bag {
  readonly label: string;
  /** `reuse`: goes on with the plates; `keep`: in case the part goes back on; `discard` */
  readonly fate: 'reuse' | 'keep' | 'discard';
  readonly count: number;
}

/** What a step leaves behind at its joints' places. `proved`: a bolt ran in by hand and held. */
export type Made = 'marked' | 'hole' | 'deburred' | 'painted' | 'nut' | 'proved';

/** What the step asks to be written down: fender heights in mm, odometer in km, share of a full tank. */
export type Ask = 'fenders' | 'odometer' | 'fuel';

/** A trick of the hands that helps at a step. */
export interface Tip {
  readonly id: string;
  readonly text: string;
}

/** What holds a plate, or what hangs above it, until its bolts do. */
export interface Support {
  readonly massKg: number;
  /** where the jack's block touches */
  readonly jackAt: Vec3;
  /** with the plate on the jack alone, N */
  readonly aloneN: number;
  /** with the first bolts in: what the jack still carries and what each bolt holds up, N; left out where one of them would be pushed */
  readonly shared?: {
    readonly jackN: number;
    readonly bolts: readonly { readonly joint: string; readonly forceN: number }[];
  };
}

/**
 * One thing to do. Joints stand in the order of the hands. Torque in N·m at the wrench for this pass: `torques` has each bolt's own
 * setting, `torqueNm` the lowest of them.
 */
export interface Step {
  readonly id: string;
  readonly stage: Stage;
  readonly title: string;
  readonly why: string;
  readonly panels: readonly string[];
  readonly joints: readonly string[];
  readonly torqueNm?: number;
  /** setting of the wrench by joint, N·m */
  readonly torques?: Readonly<Record<string, number>>;
  /** joints that are only snugged by hand in this round, since no wrench on the roll reads their share */
  readonly byHand?: readonly string[];
  /** the torque wrench that reads a bolt's setting in this round, by joint, as a tool's code */
  readonly wrenches?: Readonly<Record<string, string>>;
  readonly pass?: number;
  readonly passes?: number;
  /** share of the full torque in this pass, 0 to 1 */
  readonly share?: number;
  readonly needs: readonly string[];
  readonly tools: readonly string[];
  readonly cautions: readonly string[];
  /** how it is done, one thing after another */
  readonly hows?: readonly string[];
  readonly makes?: readonly Made[];
  /** props, jacks, straps and the like that this step puts in place, by name, and those that it takes away again */
  readonly puts?: readonly string[];
  readonly takes?: readonly string[];
  /** the part that comes off in it, as a factory part's id */
  readonly part?: string;
  /** the tank that is held up or let go in it, and by what */
  readonly tank?: { readonly component: string; readonly by: 'straps' | 'one jack' };
  /** it is about the vehicle as a whole, not about a place on it */
  readonly whole?: true;
  readonly asks?: readonly Ask[];
  readonly tip?: Tip;
  /** the joint whose fault it mends */
  readonly mends?: string;
  readonly support?: Support;
  /** where the hands are, when neither a bolt nor a plate says it */
  readonly at?: Vec3;
  /** one hand holds the part up while the other starts its bolts, which is the step after it */
  readonly inHand?: true;
  /** hands it takes */
  readonly people: 1 | 2;
  /** how long it takes, minutes: a guess unless the owner entered it */
  readonly minutes: number;
  readonly bags?: readonly Bag[];
  /** an impact wrench may run the bolts in, or is ruled out; undefined where nothing is turned */
  readonly impact?: 'run-in' | 'never';
  /** after it nothing hangs loose: the vehicle can be let down and driven */
  readonly drivable?: boolean;
  /** a good place to stop for the night */
  readonly night?: boolean;
}

export interface Sequence {
  readonly steps: readonly Step[];
  /** ids of steps that wait for each other; empty when the order is sound */
  readonly cycle: readonly string[];
}

/**
 * Sorts steps so that every `needs` holds; among those that could come next the earlier in the list goes first.
 * Needs that name no step are ignored. What waits for itself comes out as `cycle`, one loop in walking order.
 */
export function inOrder(steps: readonly Step[]): Sequence {
  const index = new Map(steps.map((s, i) => [s.id, i]));
  const open = new Map(steps.map(s => [s.id, new Set(s.needs.filter(n => index.has(n)))]));
  const waiting = steps.map(s => open.get(s.id)?.size ?? 0);
  const followers: number[][] = steps.map(() => []);
  steps.forEach((s, i) => {
    for (const n of open.get(s.id) ?? []) followers[index.get(n) as number]?.push(i);
  });
  const out: Step[] = [];
  const done = new Set<string>();
  // indices that may come next, kept sorted so that the earliest in the list goes first
  const ready = waiting.flatMap((w, i) => (w === 0 ? [i] : []));
  while (ready.length > 0) {
    const i = ready.shift() as number;
    const step = steps[i] as Step;
    out.push(step);
    done.add(step.id);
    for (const f of followers[i] ?? []) {
      waiting[f] = (waiting[f] as number) - 1;
      if (waiting[f] !== 0) continue;
      const place = ready.findIndex(r => r > f);
      ready.splice(place < 0 ? ready.length : place, 0, f);
    }
  }
  if (out.length === steps.length) return { steps: out, cycle: [] };
  const path: string[] = [];
  let here = steps.find(s => !done.has(s.id))?.id;
  while (here !== undefined && !path.includes(here)) {
    path.push(here);
    here = [...(open.get(here) ?? [])].find(n => !done.has(n));
  }
  return { steps: out, cycle: here === undefined ? path : path.slice(path.indexOf(here)).reverse() };
}
