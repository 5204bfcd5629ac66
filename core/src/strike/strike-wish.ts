import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import type { Vec2, Vec3 } from '../geometry';
import type { Component, Rig } from '../rig';
import { STANDARD_GRAVITY } from '../units';
import type { JointState } from './joint-spring';

/** How a plate is struck: half the heavier axle set down on it, or the same dropped on (a load applied at once counts twice). */
export const STRIKE_CASES = ['set-down', 'ledge-drop'] as const;
export type StrikeCase = (typeof STRIKE_CASES)[number];

/** Side of the square of rock that bears, mm: common practice, no source. */
export const PATCH = 80;

/** Force of a case, N: half the heavier axle's weight, twice that for a load applied at once (Timoshenko). */
export const strikeForce = (rig: Pick<Rig, 'axles'>, kind: StrikeCase): number =>
  (Math.max(rig.axles.front.massKg, rig.axles.rear.massKg) / 2) *
  STANDARD_GRAVITY *
  (kind === 'ledge-drop' ? 2 : 1);

/** What strikes a plate, and what stands over it. */
export interface StrikeWish {
  readonly folded: FoldedPanel;
  readonly joints: readonly ResolvedJoint[];
  readonly components: readonly Component[];
  readonly force: number;
  /** the place in plan that is struck; the worst there is unless told */
  readonly at?: Vec2;
  /** elements between the plate's ends, for a quick look or a closer one */
  readonly fineness?: number;
}

export interface StrikeReaction {
  readonly joint: string;
  /** that pulls the bolt, and that shears it, N */
  readonly tensionN: number;
  readonly shearN: number;
  readonly state: JointState;
}

export interface StrikeAnswer {
  readonly panel: string;
  readonly forceN: number;
  readonly at: Vec3;
  readonly deflectionMm: number;
  /** least gap left to a part, and which; undefined where nothing stands over the plate */
  readonly gapMm?: number;
  readonly gapTo?: string;
  readonly gaps: readonly { readonly component: string; readonly gapMm: number }[];
  readonly vonMisesMPa: number;
  readonly yieldMPa: number;
  /** dent that stays after the load is off, mm; nought where the sheet does not yield, undefined where that was not found */
  readonly dentMm?: number;
  readonly dentForceN: number;
  readonly ringHz: number;
  readonly reactionsN: readonly StrikeReaction[];
  /** share of the force at which a balance was last found: below 1 the sheet gives way, and the answer stands for that share */
  readonly reached: number;
  readonly theory: string;
  readonly nodes: number;
  readonly solveMs: number;
  /** for the picture: the mesh, and how far every node is moved */
  readonly picture: {
    readonly coordinates: Float32Array;
    readonly triangles: Uint32Array;
    readonly moves: Float32Array;
    /** gap left over every node to the nearest part above it, mm; not a number where there is none */
    readonly gaps: Float32Array;
  };
}
