import { HEAD_NAMES, lengthName, type ResolvedJoint } from '../bolt';
import { check, type Finding } from '../checks';
import { type Facts, gatherFacts } from '../derive';
import { isBracket, type Phase, phasesOf, upToPhase } from '../plan';
import type { UnitSystem } from '../units';
import { hardwareCost } from '../weigh';

/** A bolt of an earlier phase that another takes the place of. */
export interface ReplacedBolt {
  readonly joint: string;
  /** as people buy it: hex M10 × 30 */
  readonly from: string;
  readonly to: string;
}

/** A plan after one of its phases: what came, what it costs then, and whether it holds alone. */
export interface PhaseReport {
  readonly phase: Phase;
  /** all that is computed of the vehicle as it stands then */
  readonly facts: Facts;
  /** what is fitted in it, by mark: plates, then brackets */
  readonly fitted: readonly string[];
  readonly bolts: number;
  readonly replaced: readonly ReplacedBolt[];
  /** the bolts whose parts are bought for it: those that are new, and those that take the place of another */
  readonly bought: readonly ResolvedJoint[];
  /** what is paid for it, dollars: with the bolts that are bought twice */
  readonly dollars: number;
  readonly addedKg: number;
  /** what is wrong with it then and not with the whole: an edge that catches while its neighbor is still to come */
  readonly findings: readonly Finding[];
}

/** A bolt as it is bought. */
export const boltName = (j: ResolvedJoint): string =>
  `${HEAD_NAMES[j.joint.fastener.head]} ${j.thread.designation} \u00d7 ${lengthName(j.lengthMm, j.thread)}`;

/** The bolts of one state of the plan that a later one replaces: another length, head or class at the same place. */
export function replacedBolts(
  before: readonly ResolvedJoint[],
  now: readonly ResolvedJoint[],
): readonly ReplacedBolt[] {
  const old = new Map(before.map(j => [j.id, j]));
  return now.flatMap(j => {
    const was = old.get(j.id);
    if (!was) return [];
    const [from, to] = [boltName(was), boltName(j)];
    return from === to ? [] : [{ joint: j.id, from, to }];
  });
}

/** What tells a finding from another, whatever figures it names. */
const keyOf = (f: Finding): string => JSON.stringify([f.rule, [...(f.about ?? [])].sort()]);

/** Every phase of a build, first to last, each as a plan that must hold alone; empty where all is fitted at once. */
export function phaseReports(whole: Facts, units: UnitSystem = 'metric'): readonly PhaseReport[] {
  const phases = phasesOf(whole.document.plan);
  if (phases.length === 0) return [];
  const known = new Set(check(whole, units).map(keyOf));
  const states = phases.map(f => gatherFacts(upToPhase(whole.document, f.id), whole.build.id));
  return phases.map((phase, i) => {
    const facts = states[i] as Facts;
    const before = states[i - 1];
    const replaced = before ? replacedBolts(before.joints, facts.joints) : [];
    const thrown = (before?.joints ?? []).filter(j => replaced.some(r => r.joint === j.id));
    const own = facts.panels.filter(p => phase.panels.includes(p.panel.id));
    const there = new Set(before?.joints.map(j => j.id) ?? []);
    return {
      phase,
      facts,
      fitted: [...own.filter(p => !isBracket(p.panel)), ...own.filter(p => isBracket(p.panel))].map(
        p => p.panel.mark,
      ),
      bolts: facts.joints.filter(j => !there.has(j.id)).length,
      replaced,
      bought: facts.joints.filter(j => !there.has(j.id) || replaced.some(r => r.joint === j.id)),
      dollars: facts.weight.cost - (before?.weight.cost ?? 0) + hardwareCost(thrown, facts.weight.rates),
      addedKg: facts.weight.addedKg - (before?.weight.addedKg ?? 0),
      findings: check(facts, units).filter(f => f.severity !== 'note' && !known.has(keyOf(f))),
    };
  });
}
