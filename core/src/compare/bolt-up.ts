import { check, type Finding, newlyGrave, SURE_TO_BOLT } from '../checks';
import { type Facts, gatherFacts } from '../derive';
import {
  chanceOfAll,
  changesOf,
  type Fit,
  type FitRemedy,
  fitOf,
  type Known,
  measuredFirst,
  modelOf,
  SLOT,
} from '../fitup';
import { type Call, callOf, changeJoints, done, type Joint, type PlanDocument } from '../plan';
import { formatPercent, tapeLength, type UnitSystem } from '../units';

/** What is done to the holes of one bolt. */
export interface HoleChange {
  readonly joint: string;
  readonly what: Exclude<FitRemedy['what'], 'measure'>;
}
/** Changes that together make a plan bolt up, or as surely as can be. */
export interface BoltUp {
  readonly changes: readonly HoleChange[];
  /** every hole of the vehicle is measured to `KNOWN` first */
  readonly measured: boolean;
  /** the chance without the changes, and with them */
  readonly before: number;
  readonly chance: number;
  /** all of them as one change of the plan; missing where none is wanted */
  readonly mend?: Call;
}

/** From what costs nothing at the cutter to what is drilled under the vehicle. */
const LADDER: readonly HoleChange['what'][] = ['larger', 'slot', 'drill-on-fit'];
/** Trials while it is looked for, and for what is told in the end. */
const [TRIALS, TOLD] = [400, 2000];
/** So many bolts are changed at once while the plan hardly ever bolts up, and no more looks than this are taken. */
const [AT_ONCE, LOOKS] = [4, 60];
/** Below this chance several are changed at once. */
const HARDLY = 0.5;

type Part = Partial<Joint>;
interface Step extends HoleChange {
  readonly part: Part;
}

/** A plan with some of the changes: later ones of a bolt over earlier ones. */
function withSteps(
  doc: PlanDocument,
  steps: readonly Step[],
): { doc: PlanDocument; mend?: Call } | undefined {
  const parts = new Map<string, Part>();
  for (const s of steps) parts.set(s.joint, { ...parts.get(s.joint), ...s.part });
  if (parts.size === 0) return { doc };
  const args = { joints: [...parts].map(([joint, part]) => ({ joint, part })) };
  const after = done(changeJoints, doc, args);
  return after.ok ? { doc: after.value, mend: callOf(changeJoints, args) } : undefined;
}

/**
 * The few changes of holes that make the whole plan bolt up as surely as is asked (`SURE_TO_BOLT`): bolt after bolt of those that refuse most
 * is given a larger hole, then a slot the way its holes lie apart, then is left to be marked from the vehicle; what turns out not to be
 * needed is taken back. No change is made that brings a stop or a fix. Where that chance is not reached, what brings most. `measured`: as if every
 * hole of the vehicle had been measured to `KNOWN` mm first. Chances are estimates, by `fitOf`.
 */
export function boltUp(facts: Facts, { measured = false } = {}): BoltUp {
  const { document, build } = facts;
  const before = check(facts);
  const known: Known = measured ? measuredFirst(modelOf(facts)) : new Map();
  const look = (doc: PlanDocument): { facts: Facts; fit: Fit } => {
    const now = gatherFacts(doc, build.id);
    return { facts: now, fit: fitOf(now, TRIALS, known) };
  };
  const worse = (of: Facts): readonly Finding[] => newlyGrave(before, check(of));
  let steps: readonly Step[] = [];
  let now = { facts, fit: fitOf(facts, TRIALS, known) };
  /** how far up its ladder a bolt is */
  const rung = new Map<string, number>();
  /** the next change that a bolt may be given; nothing once none is left */
  const nextOf = (id: string): Step | undefined => {
    const bolt = now.fit.model.bolts.find(b => b.joint.id === id);
    const own = document.plan.joints.find(j => j.id === id);
    if (!bolt || !own) return undefined;
    const may = changesOf(now.facts, bolt, now.fit.clouds.get(id) ?? []);
    for (let k = rung.get(id) ?? 0; k < LADDER.length; k++) {
      rung.set(id, k + 1);
      const found = may.find(c => c.what === LADDER[k]);
      if (!found) continue;
      // what is marked from the vehicle needs neither slot nor a wider hole
      const part: Part =
        found.what === 'drill-on-fit'
          ? { ...found.part, slots: own.slots ?? {}, fit: own.fit ?? 'normal', washers: own.washers }
          : found.part;
      return { joint: id, what: found.what, part };
    }
    return undefined;
  };
  for (let looks = 0; looks < LOOKS && now.fit.all.chance < SURE_TO_BOLT; looks++) {
    const many = now.fit.all.chance < HARDLY ? AT_ONCE : 1;
    const batch: Step[] = [];
    for (const { id, refuses } of [...now.fit.joints].sort((a, b) => b.refuses - a.refuses)) {
      const step = refuses > 0 && batch.length < many ? nextOf(id) : undefined;
      if (step) batch.push(step);
    }
    if (batch.length === 0) break;
    // together if they do no harm, else those of them that do none
    let kept = steps;
    for (const some of [batch, ...(batch.length > 1 ? batch.map(s => [s]) : [])]) {
      if (some !== batch && kept.length === steps.length + batch.length) break;
      const made = withSteps(document, [...kept, ...some]);
      if (!made) continue;
      const tried = gatherFacts(made.doc, build.id);
      if (worse(tried).length === 0) kept = [...kept, ...some];
    }
    if (kept === steps) continue;
    const made = withSteps(document, kept);
    if (!made) break;
    steps = kept;
    now = look(made.doc);
  }
  // what is not needed is taken back, what is most work first
  for (const s of [...steps].sort((a, b) => LADDER.indexOf(b.what) - LADDER.indexOf(a.what))) {
    const without = steps.filter(x => x !== s);
    const made = withSteps(document, without);
    if (!made) continue;
    const tried = look(made.doc);
    if (tried.fit.all.chance < Math.min(SURE_TO_BOLT, now.fit.all.chance) || worse(tried.facts).length > 0)
      continue;
    [steps, now] = [without, tried];
  }
  const made = withSteps(document, steps);
  const chance = chanceOfAll(now.facts, TOLD, known);
  // of a bolt only the last change is told: it stands for those below it
  const last = new Map(steps.map(s => [s.joint, s.what]));
  return {
    changes: [...last].map(([joint, what]) => ({ joint, what })),
    measured,
    before: chanceOfAll(facts, TOLD, known),
    chance,
    ...(made?.mend ? { mend: made.mend } : {}),
  };
}

const HOLES: Readonly<Record<HoleChange['what'], (units: UnitSystem) => string>> = {
  larger: () => 'Larger holes, under wide washers',
  slot: units => `Slots ${tapeLength(SLOT, units)} longer the way the holes lie apart, under wide washers`,
  'drill-on-fit': () => 'Left to be drilled where the vehicle’s own hole marks them',
};

/** What is to be done and what it brings, a line each. */
export function boltUpWords(b: BoltUp, units: UnitSystem): readonly string[] {
  const lines = LADDER.flatMap(what => {
    const of = b.changes
      .filter(c => c.what === what)
      .map(c => c.joint)
      .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
    return of.length === 0 ? [] : [`${HOLES[what](units)}: ${of.join(', ')}.`];
  });
  return [
    ...lines,
    b.changes.length === 0
      ? `No hole has to be changed: every bolt starts with a chance of ${formatPercent(b.chance)}.`
      : `Then every bolt starts with a chance of ${formatPercent(b.chance)}; without, ${formatPercent(b.before)}.`,
  ];
}
