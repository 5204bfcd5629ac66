import { drilledPanels, type JointSeat, type ResolvedJoint, resolveJoints } from '../bolt';
import {
  type CatchEdge,
  type Coverage,
  catchEdges,
  coverage,
  type Gap,
  type GroundAngles,
  gapsAtRest,
  groundAngles,
  type LowestPoint,
  lowestPoint,
  type WaterTrap,
  waterTraps,
} from '../cover';
import { type FoldedPanel, foldPanel } from '../fold';
import {
  type Build,
  buildOf,
  frontToRear,
  hungIn,
  isBracket,
  type PlanDocument,
  presentOf,
  sheetOf,
} from '../plan';
import type { PresentRig } from '../rig';
import { type BuildWeight, weighBuild } from '../weigh';
import { type Carried, carriedPanels } from './carried';

/** Whether a panel moves with an axle, and so is not on its springs; with the engine it is. */
const unsprung = (carried: ReadonlyMap<string, Carried>, id: string): boolean => {
  const c = carried.get(id);
  return c !== undefined && c.travel.with !== 'engine';
};
/** Panels that load the wheels without loading the springs. */
const onAxles = (carried: ReadonlyMap<string, Carried>): ReadonlySet<string> =>
  new Set([...carried.keys()].filter(id => unsprung(carried, id)));
/** The vehicle without what moves. */
const still = (rig: PresentRig): PresentRig => ({ ...rig, members: rig.members.filter(m => !m.moves) });

/** Everything computed of one build of a document: what the stages show and the rules look at. */
export interface Facts {
  readonly document: PlanDocument;
  readonly build: Build;
  readonly rig: PresentRig;
  /** plates and brackets, from front to rear */
  readonly panels: readonly FoldedPanel[];
  /** of them what covers: all but the brackets */
  readonly plates: readonly FoldedPanel[];
  readonly joints: readonly ResolvedJoint[];
  /** where every joint stands, by joint id */
  readonly seats: ReadonlyMap<string, JointSeat>;
  /** panels that move with an axle or the engine, by panel id */
  readonly carried: ReadonlyMap<string, Carried>;
  readonly coverage: Coverage;
  readonly gaps: readonly Gap[];
  readonly catches: readonly CatchEdge[];
  readonly traps: readonly WaterTrap[];
  readonly lowest: LowestPoint;
  /** of what does not move with an axle, where something does */
  readonly lowestBelly?: LowestPoint;
  readonly lowestBare: LowestPoint;
  readonly angles: GroundAngles;
  readonly anglesBare: GroundAngles;
  readonly weight: BuildWeight;
}

/** A build put together: the vehicle as it is, plates folded and drilled, bolts, and where they stand. */
export type Assembly = Pick<Facts, 'document' | 'build' | 'rig' | 'panels' | 'joints' | 'seats'>;

/** Puts one build of a plan together; the active one unless named. */
export function assemble(document: PlanDocument, buildId?: string): Assembly {
  const build = buildOf(document.plan, buildId);
  const rig = presentOf(document);
  const hung = hungIn(document, build);
  const folded = frontToRear(hung.panels).map(p =>
    foldPanel(p, sheetOf(build, p), document.plan.shop?.kFactors),
  );
  const joints = resolveJoints(hung.joints, rig, folded);
  return { document, build, rig, joints, ...drilledPanels(folded, joints, rig, document.plan.method) };
}

/** Masses, axles, ride height and cost of one build that is not looked at in full. */
export function weighOne(document: PlanDocument, buildId: string): BuildWeight {
  const { build, rig, panels, joints } = assemble(document, buildId);
  return weighBuild(build, rig, panels, joints, document.plan, onAxles(carriedPanels(panels, joints)));
}

/** Weights of all builds in the plan's order; the one already looked at is not computed again. */
export const weighAll = (facts: Facts): readonly BuildWeight[] =>
  facts.document.plan.builds.map(b =>
    b.id === facts.build.id ? facts.weight : weighOne(facts.document, b.id),
  );

/** Computes the whole derived state of one build; the active one unless named. */
export function gatherFacts(document: PlanDocument, buildId?: string): Facts {
  const assembly = assemble(document, buildId);
  const { build, rig, panels, joints } = assembly;
  const plates = panels.filter(p => !isBracket(p.panel));
  const carried = carriedPanels(panels, joints);
  const sprung = carried.size > 0 ? panels.filter(p => !unsprung(carried, p.panel.id)) : panels;
  return {
    ...assembly,
    plates,
    carried,
    coverage: coverage(rig.components, plates, document.plan.limits.aheadDegrees),
    gaps: gapsAtRest(rig.components, plates),
    catches: catchEdges(plates),
    traps: waterTraps(plates),
    lowest: lowestPoint(rig, panels),
    ...(sprung === panels ? {} : { lowestBelly: lowestPoint(still(rig), sprung) }),
    lowestBare: lowestPoint(rig, []),
    angles: groundAngles(rig, sprung),
    anglesBare: groundAngles(rig, []),
    weight: weighBuild(build, rig, panels, joints, document.plan, onAxles(carried)),
  };
}
