import { check, plateName, wordsIn } from '../checks';
import { coverage } from '../cover';
import { gatherFacts } from '../derive';
import { inPlan, isBracket, type PlanDocument, presentOf } from '../plan';
import { memberName, type PresentRig } from '../rig';
import type { UnitSystem } from '../units';
import { hungByBrackets } from './hung';
import { lanesOf } from './lanes';
import { laidOut } from './layout';
import { type Station, stationsOf } from './stations';
import { proposalTaken } from './taken';
import type { Announced, Proposal, Wish } from './wish';

/** A set laid out from member to member of those given, and what stands against it. */
interface Attempt {
  readonly proposal: Proposal;
  /** stops and fixes that the checks find of it */
  readonly found: number;
  /** the largest or heaviest plate as a share of what the wish allows; 1 where all are within it */
  readonly beyond: number;
  /** members that its plates could only be bolted to over spacers too long */
  readonly tooFar: ReadonlySet<string>;
}

function attempt(
  doc: PlanDocument,
  rig: PresentRig,
  wish: Wish,
  stations: readonly Station[],
  system: UnitSystem,
): Attempt {
  const words = wordsIn(system);
  const wanted = rig.components.filter(c => wish.components.includes(c.id) && !c.moves);
  const { lanes, unheld } = lanesOf(rig, stations, wanted);
  const { plates, seams, prevented } = laidOut(doc, rig, wish, lanes, stations, words);
  const carried = rig.components.filter(c => wish.components.includes(c.id) && c.moves);
  const said: Announced[] = [
    ...carried.map(c => ({
      about: [c.id],
      text: `${c.name} moves with its axle, so that no plate of the frame goes under it. Draw one and hang it on the axle tube by straps.`,
    })),
    ...unheld.map(c => ({
      about: [c.id],
      text: `${c.name}: no two crossmembers to hold a plate under it. Add a crossbar.`,
    })),
    ...prevented,
  ];
  const bare: Proposal = { plates, seams, prevented: [] };
  const alone = proposalTaken(
    inPlan(doc, { limits: { ...doc.plan.limits, maxLiftKg: wish.maxLiftKg } }),
    bare,
    wish,
  );
  const facts = gatherFacts(alone);
  const nameOf = (id: string): string => plates.find(p => p.panel.id === id)?.panel.name ?? id;
  let beyond = 1;
  for (const p of plates) {
    const f = facts.panels.find(x => x.panel.id === p.panel.id);
    if (!f) continue;
    const [w, h] = f.blank.size;
    const [long, wide] = [Math.max(...wish.maxBlank), Math.min(...wish.maxBlank)];
    beyond = Math.max(beyond, Math.max(w, h) / long, Math.min(w, h) / wide, f.massKg / wish.maxLiftKg);
    if (Math.max(w, h) > long || Math.min(w, h) > wide)
      said.push({
        about: [p.panel.id],
        text: `The ${p.panel.name} plate needs a blank of ${words.tape(w)} × ${words.tape(h)}, larger than your ${words.tape(long)} × ${words.tape(wide)}. Split it.`,
      });
    if (f.massKg > wish.maxLiftKg)
      said.push({
        about: [p.panel.id],
        text: `The ${p.panel.name} plate weighs ${words.mass(f.massKg)}, more than the ${words.mass(wish.maxLiftKg)} you lift alone. Use a jack, a helper or lighter sheet.`,
      });
    const low = Math.min(...f.facets.map(x => x.frame.origin[2]));
    if (wish.minClearance !== undefined && low < wish.minClearance)
      said.push({
        about: [p.panel.id],
        text: `The ${p.panel.name} plate is ${words.tape(low)} above the ground, less than your ${words.tape(wish.minClearance)}: the part it protects is that low.`,
      });
  }
  for (const c of coverage(wanted, facts.panels).components)
    if (c.fraction < 0.95 && !said.some(p => p.about.includes(c.id))) {
      const name = rig.components.find(x => x.id === c.id)?.name ?? c.id;
      said.push({
        about: [c.id],
        text: `${name} stays ${Math.round((1 - c.fraction) * 100)} % bare: ${c.fraction < 0.5 ? 'it reaches past the crossmembers' : 'openings under it, or an end beyond the last crossmember'}.`,
      });
    }
  // whatever else the checks find is said too: nothing of it comes as a surprise
  const tooFar = new Set<string>();
  let found = 0;
  const before = new Set(check(gatherFacts(doc)).map(f => `${f.rule} ${f.about.join(' ')}`));
  for (const f of check(facts, system)) {
    if (f.severity === 'note' || before.has(`${f.rule} ${f.about.join(' ')}`)) continue;
    found++;
    if (f.rule === 'spacer-long')
      for (const id of f.about) {
        const member = facts.joints.find(j => j.id === id)?.mount?.member;
        if (member !== undefined) tooFar.add(member);
      }
    if (TOLD[f.rule] !== undefined && said.some(s => s.about.includes(f.about[0] ?? ''))) continue;
    const text = plates.reduce(
      (s, p) => s.replaceAll(plateName(facts, p.panel.id), `The ${nameOf(p.panel.id)} plate`),
      f.text,
    );
    said.push({ rule: f.rule, about: f.about, text });
  }
  return { proposal: { plates, seams, prevented: said }, found, beyond, tooFar };
}

/**
 * Lays out a whole set for the chosen parts: plates from member to member, lapped front over rear, lowered on spacers or ramps under what
 * hangs lowest, opened under service points, bolted to usable holes or new ones, with a bar along a span that is too long. Says why, what
 * it could not do, and whatever all the checks still find of it, figures in the reader's units. Pure; the caller shows it and takes all, some or none.
 */
export function propose(doc: PlanDocument, wish: Wish, system: UnitSystem = 'metric'): Proposal {
  const rig = presentOf(doc);
  const stations = stationsOf(rig);
  const first = attempt(doc, rig, wish, stations, system);
  // a member that a part hangs too far below is passed under: one plate from the member before it to the next
  const each = [...first.tooFar].map(id => new Set([id]));
  const others = [...each, ...(first.tooFar.size > 1 ? [first.tooFar] : [])].map(passed => ({
    passed,
    made: attempt(
      doc,
      rig,
      wish,
      stations.filter(s => !passed.has(s.member.id)),
      system,
    ),
  }));
  const best = others.reduce<(typeof others)[number] | undefined>(
    (b, o) =>
      // all or nothing: a set that is still too far from a member is no better for its longer plates
      o.made.tooFar.size === 0 && o.made.beyond <= first.beyond && o.made.found < (b?.made ?? first).found
        ? o
        : b,
    undefined,
  );
  const made = best ? passing(best.made.proposal, rig, best.passed, stations) : first.proposal;
  return onBrackets(doc, made, wish);
}

/** A proposal that says which of its plates are hung by brackets when they are taken, and no more that their spacers are too tall. */
function onBrackets(doc: PlanDocument, p: Proposal, wish: Wish): Proposal {
  if (!p.prevented.some(x => x.rule === TALL)) return p;
  const taken = proposalTaken(doc, p, wish);
  const hung = hungByBrackets(taken);
  if (hung === taken) return p;
  const still = new Set(
    check(gatherFacts(hung))
      .filter(f => f.rule === TALL)
      .map(f => f.about[0]),
  );
  const count = (plate: string): number =>
    hung.plan.panels.filter(
      b => isBracket(b) && hung.plan.joints.some(j => j.panels.at(-1) === b.id && j.panels.at(-2) === plate),
    ).length;
  return {
    ...p,
    prevented: p.prevented.filter(x => x.rule !== TALL || still.has(x.about[0])),
    plates: p.plates.map(plate => {
      const n = count(plate.panel.id);
      return n === 0
        ? plate
        : {
            ...plate,
            reasons: [
              ...plate.reasons,
              `Hung by ${n === 1 ? 'a bracket from a hole' : `${n} brackets from holes`} over it: spacers would be too tall.`,
            ],
          };
    }),
  };
}
const TALL = 'spacer-long';

/** A proposal whose plates say which members they pass under without a bolt. */
function passing(
  p: Proposal,
  rig: PresentRig,
  passed: ReadonlySet<string>,
  stations: readonly Station[],
): Proposal {
  return {
    ...p,
    plates: p.plates.map(plate => {
      const holes = [...rig.mounts, ...plate.newMounts];
      const xs = plate.joints.flatMap(j => holes.find(m => m.id === j.mount)?.at[0] ?? []);
      const under = stations.filter(
        s => passed.has(s.member.id) && s.x > Math.min(...xs) && s.x < Math.max(...xs),
      );
      return under.length === 0
        ? plate
        : {
            ...plate,
            reasons: [
              ...plate.reasons,
              ...under.map(
                s =>
                  `Passes under the ${memberName(rig, s.member.id)} without bolts: a part is too far below it for a spacer.`,
              ),
            ],
          };
    }),
  };
}

/** Findings that have been put into words above, by rule. */
const TOLD: Readonly<Record<string, true>> = { uncovered: true, 'too-heavy': true, span: true };
