import type { Vec2, Vec3 } from '../geometry';
import { type Camera, inCamera, seen } from './camera';

/** A picture as its pixels: red, green, blue, opacity, from the top left, row by row. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** A piece of the ground plane: its least x and y, mm, and how many pixels of how many mm it is drawn with. */
export interface Ground {
  readonly from: Vec2;
  readonly mmPerPx: number;
  readonly width: number;
  readonly height: number;
}

/**
 * A picture as it would look from straight below were all of it at the height `z`, mm: pixel (i, j) is the place from[0] + (i + ½) mmPerPx behind
 * the front axle and from[1] + (j + ½) mmPerPx right of the center line. What the camera did not see is left clear. What lies higher or lower than
 * `z` is shifted away from under the camera or toward it.
 */
export function rectified(picture: Picture, camera: Camera, ground: Ground, z: number): Picture {
  const { width, height, from, mmPerPx } = ground;
  const rgba = new Uint8ClampedArray(4 * width * height);
  const size = [picture.width, picture.height] as const;
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const place: Vec3 = [from[0] + (i + 0.5) * mmPerPx, from[1] + (j + 0.5) * mmPerPx, z];
      const p = seen(camera, size, place);
      if (!p || foldsBack(camera, place)) continue;
      // between four pixels, whose middles are at halves
      const [u, v] = [p[0] - 0.5, p[1] - 0.5];
      const [u0, v0] = [Math.floor(u), Math.floor(v)];
      if (u0 < 0 || v0 < 0 || u0 + 1 >= picture.width || v0 + 1 >= picture.height) continue;
      const [a, b] = [u - u0, v - v0];
      const at = 4 * (v0 * picture.width + u0);
      const down = 4 * picture.width;
      const to = 4 * (j * width + i);
      for (let c = 0; c < 3; c++)
        rgba[to + c] =
          (1 - b) * ((1 - a) * (picture.rgba[at + c] as number) + a * (picture.rgba[at + 4 + c] as number)) +
          b *
            ((1 - a) * (picture.rgba[at + down + c] as number) +
              a * (picture.rgba[at + down + 4 + c] as number));
      rgba[to + 3] = 255;
    }
  return { width, height, rgba };
}

/** A lens that draws places nearer to the middle the farther out they are would show them twice from here on. */
function foldsBack(camera: Camera, place: Vec3): boolean {
  const [x, y, ahead] = inCamera(camera, place);
  return 1 + (3 * camera.k1 * (x * x + y * y)) / (ahead * ahead) <= 0;
}

/** So many pixels a side at most, and mm a pixel at least. */
const [MOST_PX, FINEST] = [1400, 1];

/** The piece of the ground plane round some places, mm, grown by `room` on all sides; pixels as fine as can be used. */
export function groundRound(about: readonly [Vec2, ...Vec2[]], room: number): Ground {
  const [xs, ys] = [about.map(p => p[0]), about.map(p => p[1])];
  const from: Vec2 = [Math.min(...xs) - room, Math.min(...ys) - room];
  const [w, h] = [Math.max(...xs) + room - from[0], Math.max(...ys) + room - from[1]];
  const mmPerPx = Math.max(FINEST, w / MOST_PX, h / MOST_PX);
  return {
    from,
    mmPerPx,
    width: Math.max(1, Math.round(w / mmPerPx)),
    height: Math.max(1, Math.round(h / mmPerPx)),
  };
}
