import type { Polygon, Vec2, Vec3 } from '../geometry';
import type { Panel, SheetChoice } from '../plan';
import type { Material } from '../sheet';
import type { Bend } from './bend';
import type { Facet } from './facets';

/** What is cut for a bolt, mm. `along`: degrees from the blank's first axis toward its second. */
export type HoleShape =
  | { readonly circle: number }
  | { readonly square: number; readonly along: number }
  | { readonly slot: readonly [length: number, width: number]; readonly along: number };

/** What a hole is for, and with that the layer it goes on. */
export type PlateHoleKind = 'clearance' | 'tapped' | 'clinch' | 'slot' | 'square' | 'pilot' | 'uncut';

/** A bolt's hole in one plate, at the bolt's true place on the underside of the flat that it passes through. */
export interface PlateHole {
  readonly joint: string;
  readonly facet: string;
  /** on the facet's underside, in its frame */
  readonly at: Vec2;
  /** the same place in the developed blank */
  readonly blank: Vec2;
  readonly kind: PlateHoleKind;
  /** as the shop cuts it; undefined where it cuts nothing */
  readonly cut?: HoleShape;
  /** as it must be when the plate hangs */
  readonly final: HoleShape;
  /** the face that a clinch nut is pressed in from: the one away from the bolt's head */
  readonly pressedFrom?: 'upper face' | 'underside';
  /** a sunk head: largest diameter, depth and whole angle, and whether it is sunk from the underside */
  readonly sink?: {
    readonly diameter: number;
    readonly depth: number;
    readonly angle: number;
    readonly below: boolean;
  };
}

/** A cut that lets a bend end without tearing its neighbor, in the blank, mm. */
export interface Relief {
  /** `bend`: a slot beside the end of a bend; `corner`: where two bends would cross */
  readonly kind: 'bend' | 'corner';
  /** the bends it serves */
  readonly bends: readonly string[];
  readonly outlines: readonly Polygon[];
}

/** A flat or bend strip of the developed blank, in base coordinates. */
export interface BlankPiece {
  readonly id: string;
  readonly kind: 'flat' | 'bend';
  readonly outline: Polygon;
}

export interface FoldedPanel {
  readonly panel: Panel;
  readonly sheet: SheetChoice;
  readonly material: Material;
  readonly facets: readonly Facet[];
  readonly bends: readonly Bend[];
  /** holes of its bolts; none until they are drilled (`drilled`) */
  readonly holes: readonly PlateHole[];
  readonly blank: {
    /** developed area less openings and bolt holes, mm²; reliefs, which every shop cuts its own way, are left in */
    readonly areaMm2: number;
    /** along u and v, mm */
    readonly size: readonly [number, number];
    readonly pieces: readonly BlankPiece[];
    readonly developed: readonly Developed[];
    readonly reliefs: readonly Relief[];
  };
  readonly massKg: number;
  /** center of mass in the vehicle frame */
  readonly centroid: Vec3;
}

/** A facet as it lies in the blank. */
export interface Developed {
  readonly facet: Facet;
  /** blank position of the facet's frame origin and its two axes */
  readonly origin: Vec2;
  readonly u: Vec2;
  readonly v: Vec2;
  readonly bend?: Bend;
}

/** A point of a facet's frame in the blank. */
export const inBlank = (p: Developed, [a, b]: Vec2): Vec2 => [
  p.origin[0] + p.u[0] * a + p.v[0] * b,
  p.origin[1] + p.u[1] * a + p.v[1] * b,
];
