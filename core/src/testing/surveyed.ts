import { sub3, type Vec3 } from '../geometry';
import { READING_SIGMA, type Survey } from '../rig';
import { type Camera, seen, type Turn } from '../survey';
import { normalFrom, numbersFrom } from '../units';

/** A camera at a place that looks at another, its right edge turned about its own axis. */
export function lookingAt(at: Vec3, to: Vec3, focalPx: number, k1 = 0, roll = 0): Camera {
  const ahead = sub3(to, at);
  const l = Math.hypot(...ahead);
  const f = ahead.map(x => x / l) as unknown as Vec3;
  const any: Vec3 = Math.abs(f[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const cross = (a: Vec3, b: Vec3): Vec3 => [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ];
  const c = cross(f, any);
  const m = Math.hypot(...c);
  const right0 = c.map(x => x / m) as unknown as Vec3;
  const down0 = cross(f, right0);
  const [co, si] = [Math.cos(roll), Math.sin(roll)];
  const right = right0.map((x, k) => x * co + (down0[k] as number) * si) as unknown as Vec3;
  const down = right0.map((x, k) => -x * si + (down0[k] as number) * co) as unknown as Vec3;
  return { at, turn: [right, down, f] as Turn, focalPx, k1 };
}

export interface Surveyed {
  readonly survey: Survey;
  /** by point */
  readonly truth: ReadonlyMap<string, Vec3>;
  readonly cameras: readonly Camera[];
}

export interface Wish {
  readonly points: number;
  /** tapes to each point, about */
  readonly tapes: number;
  readonly photos?: number;
  /** a share of the points that no tape reaches: on photos alone */
  readonly onPhotos?: number;
  readonly k1?: number;
}

/** A made-up underside, surveyed with the errors that its doubts tell: a height of each point, offsets of four, tapes, and photos from below. */
export function surveyed(seed: number, wish: Wish): Surveyed {
  const next = numbersFrom(seed);
  const noise = (sigma: number): number => sigma * normalFrom(next);
  const truth = new Map<string, Vec3>();
  while (truth.size < wish.points) {
    const p: Vec3 = [-500 + 3000 * next(), -450 + 900 * next(), 300 + 160 * next()];
    if ([...truth.values()].every(q => Math.hypot(...sub3(p, q)) > 120)) truth.set(`p${truth.size + 1}`, p);
  }
  const all = [...truth];
  const bare = new Set(all.slice(4).flatMap(([id]) => (next() < (wish.onPhotos ?? 0) ? [id] : [])));
  const taped = all.filter(([id]) => !bare.has(id));
  // to the nearest, to the two that the tape is hooked on first, and to some far ones
  const pairs = new Set<string>();
  const pair = (i: number, j: number): void => {
    if (i !== j) pairs.add([i, j].sort((a, b) => a - b).join());
  };
  taped.forEach(([, p], i) => {
    const order = taped
      .map(([, q], j) => ({ j, d: Math.hypot(...sub3(p, q)) }))
      .filter(x => x.j !== i)
      .sort((a, b) => a.d - b.d);
    pair(i, 0);
    pair(i, 1);
    for (const { j } of order.slice(0, Math.ceil(wish.tapes / 4))) pair(i, j);
    for (let k = 0; k < wish.tapes / 4; k++) pair(i, Math.floor(next() * taped.length));
  });
  const cameras = Array.from({ length: wish.photos ?? 0 }, (_, k) => {
    const x = -300 + (2600 * (k + 0.5)) / (wish.photos ?? 1);
    return lookingAt(
      [x + 700 * (next() - 0.5), 900 * (next() - 0.5), -700 - 500 * next()],
      [x + 600 * (next() - 0.5), 300 * (next() - 0.5), 380],
      2300 + 800 * next(),
      wish.k1 ?? 0,
      6.28 * next(),
    );
  });
  const size = [4000, 3000] as const;
  return {
    truth,
    cameras,
    survey: {
      points: all.map(([id]) => ({ id })),
      distances: [...pairs].map(pair => {
        const [i, j] = pair.split(',').map(Number) as [number, number];
        const [a, b] = [taped[i], taped[j]] as [[string, Vec3], [string, Vec3]];
        return { from: a[0], to: b[0], mm: Math.hypot(...sub3(a[1], b[1])) + noise(READING_SIGMA.distance) };
      }),
      heights: all.map(([id, p]) => ({ point: id, mm: p[2] + noise(READING_SIGMA.height) })),
      offsets: all.slice(0, 4).flatMap(([id, p]) =>
        (['x', 'y'] as const).map((axis, k) => ({
          point: id,
          axis,
          mm: (p[k] as number) + noise(READING_SIGMA.offset),
        })),
      ),
      photos: cameras.map((c, k) => ({
        id: `f${k + 1}`,
        name: `photo ${k + 1}`,
        width: size[0],
        height: size[1],
        marks: all.flatMap(([id, p]) => {
          const px = seen(c, size, p);
          if (!px) return [];
          const at = [px[0] + noise(READING_SIGMA.pixel), px[1] + noise(READING_SIGMA.pixel)] as const;
          return at[0] > 0 && at[1] > 0 && at[0] < size[0] && at[1] < size[1] ? [{ point: id, px: at }] : [];
        }),
      })),
    },
  };
}
