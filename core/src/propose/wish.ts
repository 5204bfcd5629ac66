import type { Crossbar, Joint, Panel, Seam, SheetChoice } from '../plan';
import type { Mount } from '../rig';

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
  /** holes that are drilled for it in members and crossbars */
  readonly newMounts: readonly Mount[];
  /** crossbars that it needs, with the bolts that hold them in `joints` */
  readonly crossbars: readonly Crossbar[];
  /** why it is cut, held and folded so; a sentence each */
  readonly reasons: readonly string[];
}

/** What could not be done, or what the checks still find, and why. */
export interface Announced {
  /** the rule that finds it, where one does */
  readonly rule?: string;
  readonly about: readonly string[];
  readonly text: string;
}

export interface Proposal {
  readonly plates: readonly ProposedPlate[];
  readonly seams: readonly Seam[];
  readonly prevented: readonly Announced[];
}

/** How far plates lap at a seam, mm. */
export const OVERLAP = 60;
/** Longest spacer between plate and member, mm: common practice; beyond it the plate is folded up to the member. */
export const MAX_SPACER = 30;
/** Steepest ramp, degrees: a rock must slide on it. */
export const STEEPEST = 48;
