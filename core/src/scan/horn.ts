import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { add3, dot3, length3, scale3, sub3, type Vec3 } from '../geometry';
import { err, ok, type Result } from '../units';

/** One place twice: as a scan has it, in its own axes and unit, and as the vehicle has it, mm. */
export interface Pair {
  readonly from: Vec3;
  readonly to: Vec3;
}

/** How a scan lies on the vehicle: to = scale · turn · from + shift. */
export interface Laid {
  /** rows of the turn */
  readonly turn: readonly [Vec3, Vec3, Vec3];
  readonly scale: number;
  readonly shift: Vec3;
  /** how far each pair is off, mm, in their order */
  readonly off: readonly number[];
  readonly rms: number;
}

/** So many pairs lay a scan. */
export const LEAST_PAIRS = 3;
/** Places that spread less than this across their line lie in it, beside how far they spread along it. */
const LINE = 0.02;

const middleOf = (all: readonly Vec3[]): Vec3 =>
  scale3(
    all.reduce((s, p) => add3(s, p), [0, 0, 0] as Vec3),
    1 / all.length,
  );

/** How far places spread along their longest and next direction, as a share: nought in one line. */
function acrossLine(all: readonly Vec3[], middle: Vec3): number {
  const m = Matrix.zeros(3, 3);
  for (const p of all) {
    const d = sub3(p, middle);
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++) m.set(i, j, m.get(i, j) + (d[i] as number) * (d[j] as number));
  }
  const [, next = 0, most = 0] = new EigenvalueDecomposition(m, {
    assumeSymmetric: true,
  }).realEigenvalues.sort((a, b) => a - b);
  return most > 0 ? Math.sqrt(Math.max(0, next) / most) : 0;
}

export const placed = ({ turn, scale, shift }: Pick<Laid, 'turn' | 'scale' | 'shift'>, p: Vec3): Vec3 =>
  [0, 1, 2].map(i => scale * dot3(turn[i] as Vec3, p) + (shift[i] as number)) as unknown as Vec3;

/**
 * Lays a scan on the vehicle by pairs of places, so that the squares of what is left are least: the turn from the unit quaternion that is the
 * eigenvector of the greatest eigenvalue of a symmetric matrix of four (Horn 1987, Closed-form solution of absolute orientation using unit quaternions).
 * The scale is `scale` mm a unit, or found from the pairs (`undefined`; the symmetric form of Horn's section 2.D).
 * Faults: too few pairs, pairs in one line, pairs on one place.
 */
export function laid(pairs: readonly Pair[], scale?: number): Result<Laid> {
  if (pairs.length < LEAST_PAIRS)
    return err(
      `${pairs.length} points are on the scan and on the vehicle; it takes ${LEAST_PAIRS}, better five`,
    );
  const [from, to] = [pairs.map(p => p.from), pairs.map(p => p.to)];
  const [a, b] = [middleOf(from), middleOf(to)];
  if (acrossLine(from, a) < LINE || acrossLine(to, b) < LINE)
    return err('the points lie in one line: the scan could turn about it; mark one beside that line');
  const S = Matrix.zeros(3, 3);
  let [spreadA, spreadB] = [0, 0];
  for (const p of pairs) {
    const [d, e] = [sub3(p.from, a), sub3(p.to, b)];
    spreadA += dot3(d, d);
    spreadB += dot3(e, e);
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++) S.set(i, j, S.get(i, j) + (d[i] as number) * (e[j] as number));
  }
  const s = (i: number, j: number): number => S.get(i, j);
  const N = new Matrix([
    [s(0, 0) + s(1, 1) + s(2, 2), s(1, 2) - s(2, 1), s(2, 0) - s(0, 2), s(0, 1) - s(1, 0)],
    [s(1, 2) - s(2, 1), s(0, 0) - s(1, 1) - s(2, 2), s(0, 1) + s(1, 0), s(2, 0) + s(0, 2)],
    [s(2, 0) - s(0, 2), s(0, 1) + s(1, 0), -s(0, 0) + s(1, 1) - s(2, 2), s(1, 2) + s(2, 1)],
    [s(0, 1) - s(1, 0), s(2, 0) + s(0, 2), s(1, 2) + s(2, 1), -s(0, 0) - s(1, 1) + s(2, 2)],
  ]);
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(N, { assumeSymmetric: true });
  const most = realEigenvalues.indexOf(Math.max(...realEigenvalues));
  const [w = 1, x = 0, y = 0, z = 0] = eigenvectorMatrix.getColumn(most);
  const turn: Laid['turn'] = [
    [w * w + x * x - y * y - z * z, 2 * (x * y - w * z), 2 * (x * z + w * y)],
    [2 * (x * y + w * z), w * w - x * x + y * y - z * z, 2 * (y * z - w * x)],
    [2 * (x * z - w * y), 2 * (y * z + w * x), w * w - x * x - y * y + z * z],
  ];
  const k = scale ?? Math.sqrt(spreadB / spreadA);
  const shift = sub3(b, placed({ turn, scale: k, shift: [0, 0, 0] }, a));
  const off = pairs.map(p => length3(sub3(placed({ turn, scale: k, shift }, p.from), p.to)));
  return ok({
    turn,
    scale: k,
    shift,
    off,
    rms: Math.sqrt(off.reduce((sum, v) => sum + v * v, 0) / off.length),
  });
}
