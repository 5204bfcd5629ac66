import { FREEDOMS } from './sparse';

/**
 * How a bolted joint holds in the plane of the sheet: by friction until it slips, then free until the hole's play is used up, then
 * by the bolt's shank in the hole. The nodes under the washer move together.
 */
export interface JointSpring {
  readonly id: string;
  readonly nodes: readonly number[];
  /** what friction holds, N */
  readonly friction: number;
  /** play of the bolt in its hole, mm from the middle */
  readonly play: number;
  /** stiffness of shank and hole once they meet, N/mm */
  readonly bearing: number;
}

/** At this move friction has given seven tenths of what it can, and the joint counts as slipped, mm: common practice, no source. */
const STICK = 0.03;
/** Slope that is left while it slips, as a share of the stick's: keeps the solution from sliding away. */
const SLIP = 0.01;
/** The nodes under the washer keep together by springs so much stiffer than the stick. */
const TOGETHER = 40;

export type JointState = 'held' | 'slipped' | 'bearing';

/** Over so many mm the shank comes to bear: no hole is quite round, and a law without corners is what Newton's method wants. */
const MEETS = 0.04;

/** Force for a move in the plane and its slope, N and N/mm: friction that gives out, then the shank. */
function law(s: JointSpring, r: number): readonly [number, number] {
  const k = s.friction / STICK;
  const x = r / STICK;
  const root = Math.sqrt(1 + x * x);
  const past = r - STICK - s.play;
  const round = Math.sqrt(past * past + MEETS * MEETS);
  const start = Math.sqrt((STICK + s.play) ** 2 + MEETS * MEETS) - STICK - s.play;
  return [
    (s.friction * x) / root + SLIP * k * r + (s.bearing * (past + round - start)) / 2,
    k / root ** 3 + SLIP * k + (s.bearing * (1 + past / round)) / 2,
  ];
}

export const stateOf = (s: JointSpring, r: number): JointState =>
  r <= STICK ? 'held' : r <= STICK + s.play ? 'slipped' : 'bearing';

/** Mean move of a joint's nodes along x and y, mm; `moves` by node and freedom. */
export function meanMove(
  s: JointSpring,
  move: (node: number, axis: 0 | 1) => number,
): readonly [number, number] {
  let [x, y] = [0, 0];
  for (const n of s.nodes) {
    x += move(n, 0);
    y += move(n, 1);
  }
  return [x / s.nodes.length, y / s.nodes.length];
}

/** Forces on the joint's nodes along x and y for their moves; added to `out` by node · 6 + freedom. */
export function jointForce(
  s: JointSpring,
  move: (node: number, axis: 0 | 1) => number,
  out: Float64Array,
): void {
  const [mx, my] = meanMove(s, move);
  const r = Math.hypot(mx, my);
  const [f] = law(s, r);
  const n = s.nodes.length;
  const tie = ((s.friction / STICK) * TOGETHER) / n;
  const mean = [mx, my] as const;
  for (const node of s.nodes)
    for (const axis of [0, 1] as const) {
      const at = FREEDOMS * node + axis;
      const pull = r > 0 ? (f * mean[axis]) / (r * n) : 0;
      out[at] = (out[at] as number) + pull + tie * (move(node, axis) - mean[axis]);
    }
}

/** Tangent stiffness of the joint over all freedoms of its nodes, row by row. */
export function jointStiffness(s: JointSpring, move: (node: number, axis: 0 | 1) => number): Float64Array {
  const n = s.nodes.length;
  const size = FREEDOMS * n;
  const k = new Float64Array(size * size);
  const [mx, my] = meanMove(s, move);
  const r = Math.hypot(mx, my);
  const [f, slope] = law(s, r);
  const side = r > 1e-9 ? f / r : slope;
  const [ex, ey] = r > 1e-9 ? [mx / r, my / r] : [1, 0];
  const t = [
    [slope * ex * ex + side * ey * ey, (slope - side) * ex * ey],
    [(slope - side) * ex * ey, slope * ey * ey + side * ex * ex],
  ] as const;
  const tie = ((s.friction / STICK) * TOGETHER) / n;
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++)
      for (const a of [0, 1] as const)
        for (const b of [0, 1] as const) {
          const own = a === b ? tie * ((i === j ? 1 : 0) - 1 / n) : 0;
          k[(FREEDOMS * i + a) * size + FREEDOMS * j + b] = (t[a][b] as number) / (n * n) + own;
        }
  return k;
}
