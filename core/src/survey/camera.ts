import { dot3, sub3, type Vec2, type Vec3 } from '../geometry';

/** Rows of a turn: the camera's right, down and forward in the vehicle's frame. */
export type Turn = readonly [Vec3, Vec3, Vec3];

/** A pinhole with its principal point in the middle of the picture and one radial coefficient. */
export interface Camera {
  /** where it stands, mm */
  readonly at: Vec3;
  readonly turn: Turn;
  /** focal length, px */
  readonly focalPx: number;
  /** radial coefficient: a place at r focal lengths from the middle is seen (1 + k1 r²) times as far out */
  readonly k1: number;
}

/** A place as the camera has it: right, down and forward of it, mm. */
export const inCamera = ({ at, turn }: Pick<Camera, 'at' | 'turn'>, p: Vec3): Vec3 => {
  const d = sub3(p, at);
  return [dot3(turn[0], d), dot3(turn[1], d), dot3(turn[2], d)];
};

/** Whether a place so far aslant, squared, is seen only by the model: further out a lens of that coefficient would draw it back in. */
const foldsBack = (k1: number, r2: number): boolean => 1 + 3 * k1 * r2 <= 0;

/** Pixels of a place; undefined where it lies behind the camera, or so far aslant that the radial term folds back. */
export function seen(c: Camera, size: readonly [number, number], p: Vec3): Vec2 | undefined {
  const [X, Y, Z] = inCamera(c, p);
  if (Z <= 1e-6) return undefined;
  const [a, b] = [X / Z, Y / Z];
  if (foldsBack(c.k1, a * a + b * b)) return undefined;
  const far = 1 + c.k1 * (a * a + b * b);
  return [size[0] / 2 + c.focalPx * a * far, size[1] / 2 + c.focalPx * b * far];
}

/** What one mark tells: where the camera says that it is, and how that moves with each unknown. */
export interface Projected {
  readonly px: Vec2;
  /** for right and down: by the place (3), by a small turn of the camera in its own frame (3), by the focal length, by k1 */
  readonly by: readonly [Slopes, Slopes];
}
export interface Slopes {
  readonly place: Vec3;
  readonly turn: Vec3;
  readonly focal: number;
  readonly k1: number;
}

/**
 * A mark with its derivatives, written out: `seen` differentiated. The camera's own place has the opposite of the place's slopes.
 * Undefined where `seen` is. Source: pinhole and radial term as in Hartley and Zisserman, Multiple View Geometry, 6.1 and 7.4, from memory.
 */
export function projected(c: Camera, size: readonly [number, number], p: Vec3): Projected | undefined {
  const q = inCamera(c, p);
  const [X, Y, Z] = q;
  if (Z <= 1e-6) return undefined;
  const { focalPx: f, k1: k, turn } = c;
  const [a, b] = [X / Z, Y / Z];
  const r2 = a * a + b * b;
  if (foldsBack(k, r2)) return undefined;
  const far = 1 + k * r2;
  const cross = 2 * f * k * a * b;
  /** slopes of a pixel that moves by `da` a unit of a and `db` a unit of b */
  const slopes = (da: number, db: number, own: number): Slopes => {
    const inFrame: Vec3 = [da / Z, db / Z, -(da * a + db * b) / Z];
    return {
      place: [0, 1, 2].map(i =>
        turn.reduce((s, row, k3) => s + (inFrame[k3] as number) * (row[i] as number), 0),
      ) as unknown as Vec3,
      // turned by w the place moves by w x q
      turn: [
        q[1] * inFrame[2] - q[2] * inFrame[1],
        q[2] * inFrame[0] - q[0] * inFrame[2],
        q[0] * inFrame[1] - q[1] * inFrame[0],
      ],
      focal: own * far,
      k1: f * own * r2,
    };
  };
  return {
    px: [size[0] / 2 + f * a * far, size[1] / 2 + f * b * far],
    by: [slopes(f * (far + 2 * k * a * a), cross, a), slopes(cross, f * (far + 2 * k * b * b), b)],
  };
}

/** A turn after a small further one about the camera's own axes, radians: Rodrigues' formula. */
export function turned(turn: Turn, [x, y, z]: Vec3): Turn {
  const angle = Math.hypot(x, y, z);
  if (angle < 1e-15) return turn;
  const [u, v, w] = [x / angle, y / angle, z / angle];
  const [s, c] = [Math.sin(angle), Math.cos(angle)];
  const d = 1 - c;
  const by: Turn = [
    [c + u * u * d, u * v * d - w * s, u * w * d + v * s],
    [v * u * d + w * s, c + v * v * d, v * w * d - u * s],
    [w * u * d - v * s, w * v * d + u * s, c + w * w * d],
  ];
  const row = (r: Vec3): Vec3 =>
    [0, 1, 2].map(i => r.reduce((sum, x, k) => sum + x * (turn[k]?.[i] as number), 0)) as unknown as Vec3;
  return [row(by[0]), row(by[1]), row(by[2])];
}

/** The way that a pixel looks, in the vehicle's frame, of any length; the radial term is taken off by turns. */
export function rayOf(c: Camera, size: readonly [number, number], [u, v]: Vec2): Vec3 {
  const [s, t] = [(u - size[0] / 2) / c.focalPx, (v - size[1] / 2) / c.focalPx];
  let [a, b] = [s, t];
  for (let i = 0; i < 8; i++) {
    const far = 1 + c.k1 * (a * a + b * b);
    [a, b] = [s / far, t / far];
  }
  const [right, down, ahead] = c.turn;
  return [0, 1, 2].map(
    i => a * (right[i] as number) + b * (down[i] as number) + (ahead[i] as number),
  ) as unknown as Vec3;
}
