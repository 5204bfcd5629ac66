import type { Triangle } from '@plate-fold/core/fold';
import type { Polygon, Vec2, Vec3 } from '@plate-fold/core/geometry';

/** A body of sheet, in the vehicle's frame, mm. */
export interface Solid {
  readonly id: string;
  readonly triangles: readonly Triangle[];
  /** the color variable it is drawn in, and whether it stands out */
  readonly tone: '--steel' | '--stainless' | '--aluminum' | '--plastic';
  readonly chosen: boolean;
}

/** A part of the vehicle, upright over its footprint, mm. */
export interface Ghost {
  readonly id: string;
  readonly footprint: Polygon;
  readonly zBottom: number;
  readonly zTop: number;
}

/** What the vehicle stands on: its tires and the ground under them at z = 0, mm. */
export interface Stand {
  readonly tires: readonly { readonly at: Vec3; readonly radius: number; readonly width: number }[];
  /** the stretch of ground that is drawn, corner to corner */
  readonly ground: readonly [Vec2, Vec2];
}

/** A surface colored by a figure: x y z and a color of every corner, r g b from 0 to 1. */
export interface ColoredSurface {
  readonly id: string;
  readonly coordinates: Float32Array;
  readonly triangles: Uint32Array;
  readonly colors: Float32Array;
}

/** What is cut away: everything beyond `at` along an axis, mm. */
export interface Section {
  readonly axis: 'x' | 'y';
  readonly at: number;
}

/** Where the eye stands: degrees round the upright axis from the vehicle's front, and above (below: negative) level. */
export interface Eye {
  readonly turn: number;
  readonly lift: number;
}
