import type { Polygon, Vec3 } from '../geometry';
import type { RigScan } from './scan';
import type { Survey } from './survey';

export const BODIES = ['truck', 'suv', 'car', 'side-by-side'] as const;
export const COMPONENT_KINDS = [
  'engine',
  'transmission',
  'transfer-case',
  'fuel-tank',
  'catalytic-converter',
  'exhaust',
  'front-differential',
  'rear-differential',
  'drive-shaft',
  'steering',
  'battery',
  'shock-mount',
  'control-arm',
  'sway-bar',
  'floor-pan',
  'lines',
] as const;
export const MEMBER_KINDS = [
  'crossmember',
  'rail',
  'subframe',
  'tube',
  'axle-tube',
  'control-arm',
  'engine-mount',
  'differential',
] as const;
/** What a member may move with. */
export const CARRIERS = ['front-axle', 'rear-axle', 'engine'] as const;
export const HOLE_KINDS = [
  'threaded',
  'captive-nut',
  'through',
  'slot',
  'rivet-nut',
  'clip-nut',
  'stud',
  'drill',
] as const;
export const HOLE_CONDITIONS = ['good', 'rusted', 'stripped', 'broken-nut', 'blocked'] as const;
export const NUT_REACHES = ['none', 'slot', 'open'] as const;
export const SERVICE_KINDS = [
  'oil-drain',
  'oil-filter',
  'transmission-drain',
  'transmission-fill',
  'transfer-drain',
  'transfer-fill',
  'differential-drain',
  'differential-fill',
  'fuel-tank-straps',
  'converter-view',
  'grease',
] as const;

export type Body = (typeof BODIES)[number];
export type ComponentKind = (typeof COMPONENT_KINDS)[number];
export type MemberKind = (typeof MEMBER_KINDS)[number];
export type HoleKind = (typeof HOLE_KINDS)[number];
export type HoleCondition = (typeof HOLE_CONDITIONS)[number];
export type NutReach = (typeof NUT_REACHES)[number];
export type ServiceKind = (typeof SERVICE_KINDS)[number];
export type DriverSide = 'left' | 'right';

/** Exists only for these choices: `{ optionId: [choiceId, ...] }`. */
export type When = Readonly<Record<string, readonly string[]>>;

export interface Axle {
  readonly massKg: number;
  /** N/mm per wheel */
  readonly wheelRate: number;
}
export interface RigOption {
  readonly id: string;
  readonly name: string;
  readonly choices: readonly { readonly id: string; readonly name: string }[];
}
export interface Component {
  readonly id: string;
  readonly kind: ComponentKind;
  readonly name: string;
  readonly footprint: Polygon;
  readonly zBottom: number;
  readonly zTop: number;
  readonly protect: boolean;
  /** gap in mm that a plate must leave */
  readonly keepOut: number;
  readonly surfaceC?: number;
  /** what a fuel tank holds */
  readonly litres?: number;
  /** it carries high voltage: orange cables */
  readonly highVoltage?: boolean;
  readonly moves?: boolean;
  readonly when?: When;
}
export interface Member {
  readonly id: string;
  readonly kind: MemberKind;
  /** as people call it; told from its kind and place unless given */
  readonly name?: string;
  readonly footprint: Polygon;
  readonly zBottom: number;
  readonly zTop: number;
  readonly wall: number;
  /** it moves with an axle or the engine: up by so much at bump, down by so much at droop, mm */
  readonly moves?: {
    readonly with: (typeof CARRIERS)[number];
    readonly bump: number;
    readonly droop: number;
  };
}
export interface Mount {
  readonly id: string;
  readonly member: string;
  readonly at: Vec3;
  /** outward from the face that the hole is in; straight down unless told */
  readonly normal?: Vec3;
  readonly hole: {
    readonly kind: HoleKind;
    readonly thread?: string;
    /** width of a slot, mm */
    readonly diameter?: number;
    /** of a slot, end to end, mm, and the way it lies: `x` fore and aft unless told, `y` across */
    readonly length?: number;
    readonly along?: 'x' | 'y';
  };
  readonly condition: HoleCondition;
  /** how well its place is known on each axis, one standard deviation, mm */
  readonly sigma?: Vec3;
  readonly nutReach: NutReach;
  readonly behind?: { readonly component: string; readonly depth: number };
  /** the component that hangs on the factory bolt in this hole */
  readonly carries?: string;
  readonly when?: When;
}
export interface ServicePoint {
  readonly id: string;
  readonly kind: ServiceKind;
  readonly name: string;
  readonly at: Vec3;
  readonly opening: number;
  readonly component: string;
  readonly everyKm?: number;
  /** what is filled in there, as entered */
  readonly litres?: number;
  readonly when?: When;
}
/** A rectangular bar or tube: width across, height up, wall thickness, mm. */
export interface BarSection {
  readonly width: number;
  readonly height: number;
  readonly wall: number | 'solid';
}
export interface FactoryPart {
  readonly id: string;
  readonly name: string;
  /** the part with its own fasteners, kg */
  readonly massKg: number;
  readonly at: Vec3;
  readonly fasteners: readonly { readonly count: number; readonly head: string; readonly thread: string }[];
  readonly reuseFasteners: boolean;
  /** the component that hangs or rests on it, and must be held while it is off */
  readonly carries?: string;
  /** its own section, steel, where it is a crossmember: what takes its place is compared with it, mm */
  readonly section?: BarSection;
  readonly when?: When;
}
/** A combination of choices that must not be planned on, and why. */
export interface Misfit {
  readonly when: When;
  readonly reason: string;
}
export interface Rig {
  readonly id: string;
  readonly name: string;
  readonly body: Body;
  readonly driverSide: DriverSide;
  readonly wheelbase: number;
  readonly tyreRadius: number;
  readonly trackWidth: number;
  readonly frontOverhang: number;
  readonly rearOverhang: number;
  readonly axles: { readonly front: Axle; readonly rear: Axle };
  /** what was taken with a tape, by measure id, where the rig was begun from the measuring sheet */
  readonly measures?: Readonly<Record<string, number>>;
  /** ids of those measures that were taken on this vehicle; the others are assumed from its kind */
  readonly measured?: readonly string[];
  /** combinations that do not fit at all */
  readonly misfits?: readonly Misfit[];
  /** what was read by tape and camera, from which holes have their places */
  readonly survey?: Survey;
  /** a scan of the underside as it was laid on the vehicle */
  readonly scan?: RigScan;
  readonly options: readonly RigOption[];
  readonly selected: Readonly<Record<string, string>>;
  readonly components: readonly Component[];
  readonly members: readonly Member[];
  readonly mounts: readonly Mount[];
  readonly servicePoints: readonly ServicePoint[];
  readonly factoryParts: readonly FactoryPart[];
}
