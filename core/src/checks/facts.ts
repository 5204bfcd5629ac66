import { type ResolvedJoint, resolveJoints } from '../bolt';
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
import { type Build, buildOf, type PlanDocument, sheetOf } from '../plan';
import { type PresentRig, presentRig } from '../rig';
import { installation, type Sequence } from '../sequence';
import { type BuildWeight, weighBuild } from '../weigh';

/** Everything computed of one build of a document: what the stages show and the rules look at. */
export interface Facts {
  readonly document: PlanDocument;
  readonly build: Build;
  readonly rig: PresentRig;
  readonly panels: readonly FoldedPanel[];
  readonly joints: readonly ResolvedJoint[];
  readonly coverage: Coverage;
  readonly gaps: readonly Gap[];
  readonly catches: readonly CatchEdge[];
  readonly traps: readonly WaterTrap[];
  readonly lowest: LowestPoint;
  readonly lowestBare: LowestPoint;
  readonly angles: GroundAngles;
  readonly anglesBare: GroundAngles;
  readonly weight: BuildWeight;
  readonly sequence: Sequence;
}

/** Folded panels of a build. */
export const foldBuild = (document: PlanDocument, build: Build): readonly FoldedPanel[] =>
  document.plan.panels.map(p => foldPanel(p, sheetOf(build, p), document.plan.shop?.kFactors));

/** Masses, axles, ride height and cost of one build that is not looked at in full. */
export function weighOne(document: PlanDocument, buildId: string): BuildWeight {
  const rig = presentRig(document.rig);
  const build = buildOf(document.plan, buildId);
  const panels = foldBuild(document, build);
  return weighBuild(build, rig, panels, resolveJoints(document, rig, panels), document.plan);
}

/** Weights of all builds in the plan's order; the one already looked at is not computed again. */
export const weighAll = (facts: Facts): readonly BuildWeight[] =>
  facts.document.plan.builds.map(b =>
    b.id === facts.build.id ? facts.weight : weighOne(facts.document, b.id),
  );

/** Computes the whole derived state of one build; the active one unless named. */
export function gatherFacts(document: PlanDocument, buildId?: string): Facts {
  const build = buildOf(document.plan, buildId);
  const rig = presentRig(document.rig);
  const panels = foldBuild(document, build);
  const joints = resolveJoints(document, rig, panels);
  let sequence: Sequence | undefined;
  return {
    document,
    build,
    rig,
    panels,
    joints,
    coverage: coverage(rig.components, panels, document.plan.limits.aheadDegrees),
    gaps: gapsAtRest(rig.components, panels),
    catches: catchEdges(panels),
    traps: waterTraps(panels),
    lowest: lowestPoint(rig, panels),
    lowestBare: lowestPoint(rig, []),
    angles: groundAngles(rig, panels),
    anglesBare: groundAngles(rig, []),
    weight: weighBuild(build, rig, panels, joints, document.plan),
    // the order of the hands is worked out when somebody asks for it
    get sequence(): Sequence {
      sequence ??= installation(document, rig, panels, joints);
      return sequence;
    },
  };
}
