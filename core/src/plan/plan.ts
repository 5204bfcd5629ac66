import type { Polygon, Vec2, Vec3 } from '../geometry';
import type { BarSection, Mount, Rig } from '../rig';
import type { Exposure, MaterialId } from '../sheet';

export const FINISHES = ['raw', 'powder', 'paint', 'zinc'] as const;
export const OPENING_KINDS = ['drain', 'door', 'view', 'louvers', 'stones', 'relief'] as const;
export const HEADS = [
  'hex',
  'flange',
  'button',
  'countersunk',
  'socket',
  'carriage',
  't-bolt',
  'thread-cutting',
  'self-drilling',
  'tamper-5',
  'tamper-6',
] as const;
export const CLASSES = ['8.8', '10.9', 'grade-5', 'grade-8', 'A2-70'] as const;
export const FASTENER_FINISHES = ['plain', 'zinc', 'stainless'] as const;
export const NUTS = [
  'none',
  'hex',
  'nylon-lock',
  'all-metal-lock',
  'flange-serrated',
  'clip',
  'spring',
  'clinch',
  'rivet-nut',
  'nut-plate',
  'weld-tab',
  'nut-strip',
  'post',
  'tube-clamp',
  'axle-strap',
] as const;
export const SPACERS = ['steel', 'aluminium', 'plastic'] as const;
export const WASHERS = ['flat', 'lock', 'fender', 'cup', 'tapered', 'half-moon'] as const;
export const LUBES = ['dry', 'oil', 'anti-seize', 'threadlocker'] as const;
export const HEAD_SIDES = ['below', 'above'] as const;
/** How much larger than its bolt a hole is: the series fine, medium and coarse of ISO 273, the three of ASME B18.2.8. */
export const FITS = ['close', 'normal', 'loose'] as const;
/** What the shop makes of a hole: its full size, a pilot that is opened at the vehicle, or nothing. */
export const HOLE_CUTS = ['full', 'pilot', 'none'] as const;
export const STARTS = ['front-rear-centre', 'rear-centre-first', 'front-to-rear', 'rear-to-front'] as const;
export const DRILLINGS = ['template', 'mark-and-remove'] as const;
export const LIFTS = ['ground', 'ramps', 'two-post', 'side'] as const;
export const DRIVES = ['hand-only', 'impact-then-hand'] as const;

/** Salt and outdoors; normal, neither salted nor sheltered; indoors and dry. */
export const ENVIRONMENTS = ['salt', 'normal', 'controlled'] as const;
export type Environment = (typeof ENVIRONMENTS)[number];

/** What a plate may be made to carry: the vehicle on a jack, or a strap that pulls it out. */
export const DUTIES = ['jack', 'recovery'] as const;
export type Duty = (typeof DUTIES)[number];

export type SheetFinish = (typeof FINISHES)[number];
export type OpeningKind = (typeof OPENING_KINDS)[number];
export type Head = (typeof HEADS)[number];
export type BoltClass = (typeof CLASSES)[number];
export type FastenerFinish = (typeof FASTENER_FINISHES)[number];
export type NutKind = (typeof NUTS)[number];
export type WasherKind = (typeof WASHERS)[number];
export type Lube = (typeof LUBES)[number];
export type HeadSide = (typeof HEAD_SIDES)[number];
export type SpacerOf = (typeof SPACERS)[number];
export type Start = (typeof STARTS)[number];
export type Fit = (typeof FITS)[number];
export type HoleCut = (typeof HOLE_CUTS)[number];

/** A slot in a plate: end to end, mm, and the way it lies, degrees from the base's u toward its v. */
export interface SlotIn {
  readonly length: number;
  readonly along: number;
}

export type Shape =
  | { readonly circle: number }
  | { readonly rect: readonly [number, number] }
  | { readonly polygon: Polygon };

export const ROLES = ['plate', 'bracket'] as const;

/** Along the base's u (rearward) or v (right). */
export const GRAINS = ['u', 'v'] as const;
export type Grain = (typeof GRAINS)[number];

export interface Opening {
  readonly id: string;
  readonly kind: OpeningKind;
  readonly at: Vec2;
  readonly shape: Shape;
  /** a servicePoint */
  readonly serves?: string;
  /** share of the louvers' outline that is open */
  readonly openFraction?: number;
}
export interface Flange {
  readonly id: string;
  /** outline vertex i to i + 1 of the base, or the free edge of the flange it hangs on */
  readonly edge: number | 'far';
  /** from its mold line to its free edge, mm */
  readonly length: number;
  /** 0 flat, positive up, degrees */
  readonly angle: number;
  readonly insideRadius?: number;
  readonly inset?: readonly [start: number, end: number];
  /** its ends follow the miter wherever the next edge of the base carries a flange of the same angle */
  readonly mitre?: boolean;
  readonly flanges?: readonly Flange[];
}
export interface Panel {
  readonly id: string;
  readonly mark: string;
  readonly name: string;
  readonly base: {
    readonly origin: Vec3;
    readonly pitch: number;
    readonly roll: number;
    /** about z, before pitch and roll */
    readonly yaw?: number;
    readonly outline: Polygon;
  };
  readonly flanges: readonly Flange[];
  readonly openings: readonly Opening[];
  readonly guards: readonly string[];
  /** what it is made to carry besides knocks; nothing unless told */
  readonly meantFor?: readonly Duty[];
  /** the blank's direction that lies along the sheet's grain; across most of its bends unless told */
  readonly grain?: Grain;
  /** a plate unless told; a bracket is made like one, but covers and guards nothing */
  readonly role?: (typeof ROLES)[number];
  /** a bracket's own sheet: it holds in every build that names none for it */
  readonly sheet?: SheetChoice;
  /** its upper face is etched with the way to the vehicle's front, and with UP */
  readonly wayUp?: boolean;
  /** the panel whose mirrored twin it is: its shape follows that one, its place is its own */
  readonly pairOf?: string;
}
export interface Crossbar {
  readonly id: string;
  readonly name: string;
  /** ends of its axis */
  readonly from: Vec3;
  readonly to: Vec3;
  readonly section: BarSection;
  readonly material: MaterialId;
  /** the holes it is bolted up to, its upper face toward them */
  readonly mounts: readonly string[];
  /** the factory part whose place it takes */
  readonly replaces?: string;
}
export interface Joint {
  readonly id: string;
  readonly mount?: string;
  readonly at?: Vec3;
  /** outermost (lowest) first */
  readonly panels: readonly string[];
  readonly fastener: {
    readonly head: Head;
    readonly thread: string;
    readonly class: BoltClass;
    readonly length: 'auto' | number;
    readonly finish: FastenerFinish;
  };
  readonly nut: NutKind;
  /** in order from the head */
  readonly washers: readonly WasherKind[];
  /** between plate and member, mm; of a joint without a hole in the vehicle between the plates and the innermost, which they are bolted to */
  readonly spacer: number;
  /** what the spacer is of; steel unless told */
  readonly spacerOf?: SpacerOf;
  readonly headSide: HeadSide;
  readonly lube: Lube;
  readonly torque: 'auto' | number;
  readonly tightenBefore?: 'hang';
  readonly tamper?: boolean;
  /** the owner's own choice: nothing else is chosen for it */
  readonly lock?: boolean;
  /** the clearance of its holes in the plates; normal unless told */
  readonly fit?: Fit;
  /** by panel id: the hole in that plate is a slot */
  readonly slots?: Readonly<Record<string, SlotIn>>;
  /** how the shop cuts its holes in the plates; full unless the vehicle is drilled through the plate as a template */
  readonly cut?: HoleCut;
  /** of a joint without a hole in the vehicle: outward, toward its outermost plate; square to that plate unless told */
  readonly normal?: Vec3;
  /**
   * the bracket that has the thread: tapped, welded nut, clinch nut or stud, as the nut tells. Of a joint at a hole it is a top plate: it lies on
   * the far side of the member, and the bolt goes through that
   */
  readonly threadIn?: string;
}
/**
 * The top plate of a joint: it lies on the far side of the member that the bolt goes right through, and has the thread. Undefined where a joint
 * has none.
 */
export const topPlateOf = ({ mount, threadIn }: Pick<Joint, 'mount' | 'threadIn'>): string | undefined =>
  mount === undefined ? undefined : threadIn;
/** What lies between a joint's head and what it is bolted to, outermost first: all of its panels but a top plate. */
export const stackedIn = (j: Pick<Joint, 'mount' | 'threadIn' | 'panels'>): readonly string[] => {
  const top = topPlateOf(j);
  return top === undefined ? j.panels : j.panels.filter(id => id !== top);
};
/** What is fitted when: its plates, and the brackets with the first plate that needs them. */
export interface Phase {
  readonly id: string;
  readonly name: string;
  readonly panels: readonly string[];
}
export interface Seam {
  readonly front: string;
  readonly rear: string;
  readonly overlap: number;
  readonly outside: string;
}
export interface SheetChoice {
  readonly material: MaterialId;
  /** mm */
  readonly thickness: number;
  readonly finish: SheetFinish;
  /** the trade name as it was chosen */
  readonly gauge?: string;
}
export interface Build {
  readonly id: string;
  readonly name: string;
  readonly sheets: Readonly<Record<string, SheetChoice>>;
  readonly note?: string;
  /** what somebody asks for its plates (a shop's offer, a sale), dollars, in place of what they cost to make */
  readonly offer?: { readonly price: number; readonly source: string };
}
export interface Method {
  readonly start: Start;
  readonly drilling: (typeof DRILLINGS)[number];
  readonly lift: (typeof LIFTS)[number];
  readonly people: 1 | 2;
  readonly drive: (typeof DRIVES)[number];
}
export interface Limits {
  readonly maxLiftKg?: number;
  readonly budget?: number;
  /** what all plates of a build may weigh together, kg */
  readonly maxTotalKg?: number;
  readonly minClearance?: number;
  /** climb of the ray that looks from ahead, degrees; 20 unless set */
  readonly aheadDegrees?: number;
  /** dent that may stay after a strike, mm */
  readonly maxDent?: number;
  /** gap that a strike has to leave to every part, mm; each part's own keep-out unless set */
  readonly minGap?: number;
  /** lowest tone a plate may ring at, Hz */
  readonly minRing?: number;
  /** different sheets that may be bought */
  readonly maxSheets?: number;
  /** least steel, mm, under a fuel tank, where a plate takes hits, where it only deters; by practice unless set, none where `off` */
  readonly least?: { readonly off?: boolean } & Readonly<Partial<Record<Exposure, number>>>;
  /** what the plates may be of; anything unless set */
  readonly materials?: readonly MaterialId[];
}
/** A price that can be entered: sheet and finish by kind, work by the piece. */
export type RateId =
  | `sheet ${MaterialId}`
  | `finish ${Exclude<SheetFinish, 'raw'>}`
  | 'cut'
  | 'bend'
  | 'fastener kg'
  | 'fastener';
/** The owner's own rates, dollars, each with where it is from. */
export type RatesEntered = Readonly<
  Partial<Record<RateId, { readonly value: number; readonly source: string }>>
>;
/** What comes on top of a build's price, and what it is held against, dollars. */
export interface Money {
  readonly shipping?: number;
  readonly taxPercent?: number;
  /** what a hit would cost without plates */
  readonly repair?: number;
  readonly deductible?: number;
}
/** What owners weigh builds by. */
export const PRIORITIES = ['weight', 'toughness', 'quiet', 'cost', 'corrosion', 'theft'] as const;
export type Priority = (typeof PRIORITIES)[number];
/** Heights of the fenders' edges over the wheels' middles, mm, by axle, as far as they were measured. */
export type FenderHeights = Readonly<
  Partial<Record<'front' | 'rear', { readonly before?: number; readonly after?: number }>>
>;
/** What cuts blanks: by beam, arc or water, or sawn and drilled by hand. */
export const CUTTER_IDS = ['laser', 'plasma', 'waterjet', 'hand'] as const;
export type Cutter = (typeof CUTTER_IDS)[number];
/** What the chosen shop can bend and cut from. Lengths in mm, force in kN. */
export interface Shop {
  readonly id: string;
  readonly name: string;
  readonly brake: { readonly length: number; readonly force: number };
  /** V-die openings at hand */
  readonly dies: readonly number[];
  /** what it cuts blanks with; a laser unless told */
  readonly cutter?: Cutter;
  /** stock sheets, long side first */
  readonly sheets: readonly (readonly [number, number])[];
  /** K-factors of its own, entered or found by test bends there */
  readonly kFactors?: readonly TestedK[];
  /** envelope of punch, die, beam and bed, mm; common sizes unless told */
  readonly tools?: {
    readonly punchHeight: number;
    readonly punchWidth: number;
    readonly dieHeight: number;
    readonly beam: number;
  };
}
/** A K-factor of the shop's own: for that material at that ratio of inside radius to thickness. */
export interface TestedK {
  readonly material: MaterialId;
  readonly ratio: number;
  readonly k: number;
}
/** How the vehicle is used and when what is looked at again. km and days; what is absent is taken as a guess. */
export interface Upkeep {
  readonly kmPerYear?: number;
  readonly retorqueKm?: number;
  readonly retorqueDays?: number;
  readonly inspectKm?: number;
  readonly inspectDays?: number;
}
export interface Plan {
  readonly id: string;
  readonly name: string;
  readonly rigId: string;
  readonly notes?: string;
  readonly panels: readonly Panel[];
  readonly crossbars: readonly Crossbar[];
  /** holes that are drilled for this plan in a member or a crossbar; they go when nothing uses them any more */
  readonly holes?: readonly Mount[];
  readonly joints: readonly Joint[];
  readonly seams: readonly Seam[];
  readonly builds: readonly Build[];
  readonly activeBuild: string;
  readonly phases?: readonly Phase[];
  readonly method: Method;
  readonly limits: Limits;
  readonly shop?: Shop;
  readonly rates?: RatesEntered;
  readonly money?: Money;
  /** what matters to the owner, most first */
  readonly priorities?: readonly Priority[];
  readonly fenders?: FenderHeights;
  /** minutes of a step as the owner takes them, by step id */
  readonly minutes?: Readonly<Record<string, number>>;
  readonly upkeep?: Upkeep;
  /** where it is driven: how far apart two metals may be that touch */
  readonly environment?: Environment;
}
export interface PlanDocument {
  readonly format: typeof FORMAT;
  readonly rig: Rig;
  readonly plan: Plan;
}

export const FORMAT = 'plate-fold/1';
