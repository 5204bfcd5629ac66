import type { Vec3 } from '../geometry';
import { DOF_PER_NODE } from './sparse';

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
  /** two directions square to one another in the plane of the sheet, where that is not level */
  readonly axes?: readonly [Vec3, Vec3];
}

/** How far a node has moved along a fixed axis, mm. */
export type MoveOf = (node: number, axis: 0 | 1 | 2) => number;

const LEVEL: readonly [Vec3, Vec3] = [
  [1, 0, 0],
  [0, 1, 0],
];
/** The fixed axes that a joint's plane has a part along: two where it is level. */
const along = (s: JointSpring): readonly (0 | 1 | 2)[] => (s.axes ? [0, 1, 2] : [0, 1]);

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

/** Mean move of a joint's nodes along the two directions of its plane, mm; `move` by node and fixed axis. */
export function meanMove(s: JointSpring, move: MoveOf): readonly [number, number] {
  const axes = s.axes ?? LEVEL;
  const mean = along(s).map(c => s.nodes.reduce((sum, n) => sum + move(n, c), 0) / s.nodes.length);
  const on = (e: Vec3): number => mean.reduce((sum, m, c) => sum + m * (e[c] as number), 0);
  return [on(axes[0]), on(axes[1])];
}

/** Forces on the joint's nodes for their moves in its plane; added to `out` by node \u00b7 6 + freedom. */
export function jointForce(s: JointSpring, move: MoveOf, out: Float64Array): void {
  const axes = s.axes ?? LEVEL;
  const mean = meanMove(s, move);
  const r = Math.hypot(mean[0], mean[1]);
  const [f] = law(s, r);
  const n = s.nodes.length;
  const tie = ((s.friction / STICK) * TOGETHER) / n;
  const cs = along(s);
  for (const node of s.nodes)
    for (const i of [0, 1] as const) {
      const e = axes[i];
      const own = cs.reduce<number>((sum, c) => sum + move(node, c) * (e[c] as number), 0);
      const pull = (r > 0 ? (f * mean[i]) / (r * n) : 0) + tie * (own - mean[i]);
      for (const c of cs) {
        const at = DOF_PER_NODE * node + c;
        out[at] = (out[at] as number) + pull * (e[c] as number);
      }
    }
}

/** Tangent stiffness of the joint over all degrees of freedom of its nodes, row by row. */
export function jointStiffness(s: JointSpring, move: MoveOf): Float64Array {
  const n = s.nodes.length;
  const size = DOF_PER_NODE * n;
  const k = new Float64Array(size * size);
  const [m1, m2] = meanMove(s, move);
  const r = Math.hypot(m1, m2);
  const [f, slope] = law(s, r);
  const side = r > 1e-9 ? f / r : slope;
  const [e1, e2] = r > 1e-9 ? [m1 / r, m2 / r] : [1, 0];
  const t = [
    [slope * e1 * e1 + side * e2 * e2, (slope - side) * e1 * e2],
    [(slope - side) * e1 * e2, slope * e2 * e2 + side * e1 * e1],
  ] as const;
  const tie = ((s.friction / STICK) * TOGETHER) / n;
  const axes = s.axes ?? LEVEL;
  const cs = along(s);
  /** a matrix of the joint's own plane, by the fixed axes */
  const turned = (own: readonly (readonly number[])[], a: number, b: number): number => {
    let sum = 0;
    for (const p of [0, 1] as const)
      for (const q of [0, 1] as const)
        sum += ((own[p] as readonly number[])[q] as number) * (axes[p][a] as number) * (axes[q][b] as number);
    return sum;
  };
  const one = [
    [1, 0],
    [0, 1],
  ] as const;
  for (const a of cs)
    for (const b of cs) {
      const mean = turned(t, a, b) / (n * n);
      const plane = tie * turned(one, a, b);
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++)
          k[(DOF_PER_NODE * i + a) * size + DOF_PER_NODE * j + b] =
            mean + plane * ((i === j ? 1 : 0) - 1 / n);
    }
  return k;
}
