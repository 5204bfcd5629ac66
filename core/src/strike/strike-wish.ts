import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import type { Vec2, Vec3 } from '../geometry';
import type { Panel } from '../plan';
import type { Component, Rig } from '../rig';
import { STANDARD_GRAVITY } from '../units';
import type { Backing } from './backing';
import type { JointState } from './joint-spring';
import type { Flat3 } from './shell-mesh';

/**
 * How a plate is struck: half the heavier axle set down on it; the same fallen on it from a height, or slid over a rock; a jack that
 * lifts that end's wheel; or a force of the owner's own.
 */
export const STRIKE_CASES = ['set-down', 'drop', 'slide', 'jack', 'own'] as const;
export type StrikeCase = (typeof STRIKE_CASES)[number];

/** Side of the square of rock (or of the jack's saddle) that bears, mm: common practice, no source. */
export const PATCH = 80;

/** Friction of a plate on the rock it slides over: steel on rock, common practice, no source. */
export const SLIDES = 0.5;

/** A fall higher than this is a crash, and no question of a plate, mm. */
export const MOST_FALL = 1000;

/**
 * Force of a case, N: half the heavier axle's weight (of a fall, what falls). A jack that lifts one wheel carries half of the weight on
 * the axle it stands nearer to, `x` behind the front one.
 */
export function strikeForce(
  rig: Pick<Rig, 'axles' | 'wheelbase'>,
  kind: Exclude<StrikeCase, 'own'>,
  x = 0,
): number {
  const { front, rear } = rig.axles;
  const mass =
    kind === 'jack'
      ? x < rig.wheelbase / 2
        ? front.massKg
        : rear.massKg
      : Math.max(front.massKg, rear.massKg);
  return (mass / 2) * STANDARD_GRAVITY;
}

/** Why a plate is not struck that way: it is no jacking point unless it is meant for one; undefined where it may be. */
export const refusedStrike = (panel: Panel, kind: StrikeCase): string | undefined =>
  kind === 'jack' && !panel.meantFor?.includes('jack')
    ? `plate ${panel.mark} is not a jacking point`
    : undefined;

/** How joints hold a sheet in its plane: as they are, or one of the two bounds between which the truth lies. */
export const HOLDS = ['joints', 'held', 'free'] as const;
export type Hold = (typeof HOLDS)[number];

/** What strikes a plate, and what stands over it. */
export interface StrikeWish {
  readonly folded: FoldedPanel;
  readonly joints: readonly ResolvedJoint[];
  readonly components: readonly Component[];
  /** N; of a fall, the weight that falls */
  readonly force: number;
  /** the force comes down from so high over the plate, mm: 0 for one that is let go as it touches */
  readonly fallMm?: number;
  /** share of the force with which the rock drags the plate to the rear */
  readonly drag?: number;
  /** the place in plan that is struck; the worst there is unless told */
  readonly at?: Vec2;
  /** sheet of other plates that lies lower in places: what of the rock stands under it does not reach this plate */
  readonly screens?: readonly Flat3[];
  /** what may back the plate up; nothing unless told */
  readonly backing?: Backing;
  /** brackets that it hangs on and plates it is bolted to, each with the joints that hold it; without them its joints hold as fast as the vehicle does */
  readonly brackets?: readonly { readonly folded: FoldedPanel; readonly joints: readonly ResolvedJoint[] }[];
  /** how its joints hold it in its plane; as joints do unless told */
  readonly hold?: Hold;
  /** elements this much smaller than the coarsest that serve, instead of by the error estimate */
  readonly size?: number;
  /** the dent that stays is not asked for: the load is not taken off again */
  readonly noDent?: boolean;
  /** only where its worst place is: the answer's figures are those of small deflections, whatever it gives */
  readonly placeOnly?: boolean;
  /** a plate that rises further than this has given way, mm; 90 unless told */
  readonly givesWayAt?: number;
}

export interface StrikeReaction {
  readonly joint: string;
  /** that pulls the sheet off what it is clamped to, and that shears the bolt, N */
  readonly tensionN: number;
  readonly shearN: number;
  /** that the sheet carries under the head, N·m: it pries at the bolt */
  readonly momentNm: number;
  /** that pulls the bolt, prying included, N */
  readonly boltN: number;
  readonly state: JointState;
}

/** What a strike asks of a bracket, or of a plate that another is bolted to. */
export interface BracketForce {
  readonly panel: string;
  /** the most away from its bolts, as if it stayed elastic */
  readonly vonMisesMPa: number;
  readonly yieldMPa: number;
  /** how far the plate's bolt rises with it, mm */
  readonly riseMm: number;
}

export interface StrikeAnswer {
  readonly panel: string;
  /** what the plate was struck with; of a fall, what stops it */
  readonly forceN: number;
  /** how it fell, where it did: the weight, from how high, and whether the plate takes all of it up before it gives way */
  readonly fall?: { readonly weightN: number; readonly heightMm: number; readonly stops: boolean };
  readonly at: Vec3;
  /** share of that force which reaches the plate; the rest lies on plates that hang lower. All of it unless told */
  readonly reaches?: number;
  readonly deflectionMm: number;
  /** least gap left to a part, and which; undefined where nothing stands over the plate */
  readonly gapMm?: number;
  readonly gapTo?: string;
  readonly gaps: readonly { readonly component: string; readonly gapMm: number }[];
  readonly vonMisesMPa: number;
  readonly yieldMPa: number;
  /** dent that stays after the load is off, mm; nought where the sheet does not yield, undefined where that was not found */
  readonly dentMm?: number;
  /** a bound: load that folds an unsupported sheet by yield lines, N */
  readonly dentForceN: number;
  /** force at that place that leaves 2 mm, N; undefined where the whole force leaves less, or its dent was not found */
  readonly dentingN?: number;
  readonly ringHz: number;
  /** stress of the road's shaking round its bolts by the sheet's endurance limit: a ranking, no life; undefined for plastics */
  readonly shakenShare?: number;
  readonly reactionsN: readonly StrikeReaction[];
  /** brackets that it hangs on, and plates it is bolted to */
  readonly brackets: readonly BracketForce[];
  /** share of the force at which a balance was last found: below 1 the sheet gives way, and the answer stands for that share */
  readonly reached: number;
  /** share of the force at which it first gave way and went on to where it bears more; undefined where it never did */
  readonly gaveWayAt?: number;
  /** what bears on the plate from above once it has risen that far: ids of crossbars and members */
  readonly leansOn: readonly string[];
  readonly theory: string;
  /** share by which the deflection is off by the mesh, as estimated for small deflections */
  readonly meshError: number;
  readonly nodes: number;
  readonly solveMs: number;
  /** for the picture: the mesh, and how far every node is moved */
  readonly picture: {
    readonly coordinates: Float32Array;
    readonly triangles: Uint32Array;
    readonly moves: Float32Array;
    /** gap left over every node to the nearest part above it, mm; not a number where there is none */
    readonly gaps: Float32Array;
    /** stress of von Mises by yield at every node, the higher of the two faces */
    readonly stress: Float32Array;
  };
}
