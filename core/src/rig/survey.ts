/** A point that readings are taken to: a hole, a corner of a part, or any mark of its own. */
export interface SurveyPoint {
  readonly id: string;
  readonly name?: string;
  /** coordinates that are held, mm; `null` or nothing where the survey finds them */
  readonly at?: readonly (number | null)[];
  /** the hole that it stands for: the hole's place follows it */
  readonly mount?: string;
  /** the corner of a part that it stands for, by the vertex of the part's outline */
  readonly corner?: { readonly component: string; readonly vertex: number };
  /** how well its held coordinates are known, mm; as good as the frame itself unless told */
  readonly sigma?: number;
}
/** A tape read straight from point to point, mm. */
export interface SurveyDistance {
  readonly id?: string;
  readonly from: string;
  readonly to: string;
  readonly mm: number;
  readonly sigma?: number;
}
/** A height above level ground, mm. */
export interface SurveyHeight {
  readonly id?: string;
  readonly point: string;
  readonly mm: number;
  readonly sigma?: number;
}
/** A point's x behind the front axle's line, or y to the right of the center line, mm. */
export interface SurveyOffset {
  readonly id?: string;
  readonly point: string;
  readonly axis: 'x' | 'y';
  readonly mm: number;
  readonly sigma?: number;
}
/** A point as it is marked on a picture, pixels right and down from the top left. */
export interface PhotoMark {
  readonly point: string;
  readonly px: readonly [number, number];
  readonly sigma?: number;
}
/** A picture taken from anywhere under or beside the vehicle, with the points that are seen on it. */
export interface SurveyPhoto {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** focal length in pixels, held where it is given */
  readonly focalPx?: number;
  readonly marks: readonly PhotoMark[];
}
/** What was read under a vehicle by tape and camera, before anything is made of it. */
export interface Survey {
  readonly points?: readonly SurveyPoint[];
  readonly distances?: readonly SurveyDistance[];
  readonly heights?: readonly SurveyHeight[];
  readonly offsets?: readonly SurveyOffset[];
  readonly photos?: readonly SurveyPhoto[];
}
/** A survey with all of its lists, empty where nothing was read. */
export type WholeSurvey = Required<Survey>;
export const wholeSurvey = (s: Survey | undefined): WholeSurvey => ({
  points: s?.points ?? [],
  distances: s?.distances ?? [],
  heights: s?.heights ?? [],
  offsets: s?.offsets ?? [],
  photos: s?.photos ?? [],
});

/**
 * How well a reading is known where nothing is said, one standard deviation: a tape hooked on a hole's edge, a height from the floor, an
 * offset from a line that is itself only chalked, a mark set with a finger on a picture (px). Common practice, no source.
 */
export const READING_SIGMA = { distance: 1.5, height: 1.5, offset: 3, pixel: 2 } as const;
/** How well a hole's place is known where nothing is said, on each axis, mm: common practice, no source. */
export const MOUNT_SIGMA = 1.5;
