import type { Crossbar, Joint, Panel, PlanDocument, Seam, SheetChoice } from '../../plan';
import type { Mount } from '../../rig';

/** What the owner asks of a proposed set. */
export interface Wish {
  /** component ids to cover */
  readonly components: readonly string[];
  readonly sheet: SheetChoice;
  /** largest blank the shop can cut and bend, along and across, mm */
  readonly maxBlank: readonly [number, number];
  readonly maxLiftKg: number;
  /** least ground clearance, mm */
  readonly minClearance?: number;
}

/** One plate of a proposal with everything that comes with it. */
export interface ProposedPlate {
  readonly panel: Panel;
  readonly joints: readonly Joint[];
  readonly newMounts: readonly Mount[];
  /** why it is cut, held and folded so; a sentence each */
  readonly reasons: readonly string[];
}

export interface Proposal {
  readonly plates: readonly ProposedPlate[];
  readonly seams: readonly Seam[];
  readonly crossbars: readonly Crossbar[];
  /** what could not be done, and what prevents it */
  readonly prevented: readonly { readonly about: readonly string[]; readonly text: string }[];
}

/** Sheet beyond a part on every side, mm: common practice, no source. */
export const MARGIN = 25;
/** How far plates lap at a seam, mm. */
export const OVERLAP = 60;
/** Longest spacer between plate and member, mm: common practice; beyond it the plate is folded up to the member. */
export const MAX_SPACER = 30;
/** Steepest ramp, degrees: a rock must slide on it. */
export const STEEPEST = 48;
/** The thickest sheet that may take the place of the proposed one later, mm: stations leave room for it. */
export const ROOM = 6.35;

export type Taken = Pick<PlanDocument, 'rig' | 'plan'>;
