import { readFileSync } from 'node:fs';
import { demo, demoPath } from '@plate-fold/demo';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import type { Vec2 } from '../geometry';
import { wholeSurvey } from '../rig';
import { lookingAt } from '../testing';
import { adjustmentOf, groundRound, type Picture, rectified, seen } from './index';

/** A picture of one of the example's files. */
function pictureOf(id: string): Picture {
  const png = decode(readFileSync(demoPath('bramble').replace('.platefold.json', `.${id}.png`)));
  const rgba = new Uint8ClampedArray(4 * png.width * png.height);
  for (let i = 0; i < png.width * png.height; i++)
    rgba.set([png.data[i]!, png.data[i]!, png.data[i]!, 255], 4 * i);
  return { width: png.width, height: png.height, rgba };
}
/** Mean gray round a place, within so many pixels. */
function gray(p: Picture, [u, v]: Vec2, r: number): number {
  let [sum, n] = [0, 0];
  for (let y = Math.floor(v - r); y <= v + r; y++)
    for (let x = Math.floor(u - r); x <= u + r; x++)
      if (Math.hypot(x + 0.5 - u, y + 0.5 - v) <= r) {
        sum += p.rgba[4 * (y * p.width + x)]!;
        n++;
      }
  return sum / n;
}

describe('a picture laid on the ground plane', () => {
  it('of a checkered floor at its own height is the checkered floor, wherever the camera stood', () => {
    for (const [at, roll, k1] of [
      [[300, 100, -900], 0, 0],
      [[900, -500, -1200], 2.1, -0.05],
      [[-200, 400, -700], -0.7, 0.03],
    ] as const) {
      const camera = lookingAt([...at], [350, 0, 320], 620, k1, roll);
      const size = [800, 600] as const;
      // a place's own color is where it is seen: what is read back says which place was drawn
      const floor: Picture = { width: 800, height: 600, rgba: new Uint8ClampedArray(4 * 800 * 600) };
      const ground = { from: [100, -250] as Vec2, mmPerPx: 5, width: 100, height: 100 };
      for (let v = 0; v < 600; v++)
        for (let u = 0; u < 800; u++)
          floor.rgba.set([u & 255, v & 255, 4 * (u >> 8) + (v >> 8), 255], 4 * (v * 800 + u));
      const flat = rectified(floor, camera, ground, 320);
      let met = 0;
      for (let j = 0; j < 100; j += 7)
        for (let i = 0; i < 100; i += 7) {
          const px = seen(camera, size, [100 + (i + 0.5) * 5, -250 + (j + 0.5) * 5, 320])!;
          const to = 4 * (j * 100 + i);
          const inside = px[0] > 1 && px[1] > 1 && px[0] < 799 && px[1] < 599;
          expect(flat.rgba[to + 3]).toBe(inside ? 255 : flat.rgba[to + 3]);
          // away from where the color begins anew a mean of four is the place itself
          const [a, b] = [(px[0] - 0.5) % 256, (px[1] - 0.5) % 256];
          if (!inside || a < 2 || a > 253 || b < 2 || b > 253) continue;
          met++;
          expect(Math.abs(flat.rgba[to]! - a)).toBeLessThan(1.01);
          expect(Math.abs(flat.rgba[to + 1]! - b)).toBeLessThan(1.01);
        }
      expect(met).toBeGreaterThan(60);
    }
  });

  it('leaves clear what the camera did not see', () => {
    const picture: Picture = { width: 80, height: 60, rgba: new Uint8ClampedArray(4 * 80 * 60).fill(200) };
    const camera = lookingAt([0, 0, -900], [0, 0, 320], 62);
    const flat = rectified(
      picture,
      camera,
      { from: [-3000, -3000], mmPerPx: 60, width: 100, height: 100 },
      320,
    );
    expect(flat.rgba[3]).toBe(0);
    expect(flat.rgba[4 * (50 * 100 + 50) + 3]).toBe(255);
    // behind the camera there is nothing
    expect(rectified(picture, camera, { from: [0, 0], mmPerPx: 1, width: 1, height: 1 }, -1000).rgba[3]).toBe(
      0,
    );
  });

  it('is as fine as its pixels allow, round what it is asked for', () => {
    expect(groundRound([[100, 0]], 50)).toEqual({ from: [50, -50], mmPerPx: 1, width: 100, height: 100 });
    const large = groundRound(
      [
        [0, 0],
        [2800, 700],
      ],
      0,
    );
    expect(large.mmPerPx).toBe(2);
    expect([large.width, large.height]).toEqual([1400, 350]);
  });
});

describe('the pictures of the example', () => {
  it('are dark in every hole that is marked, and bright round it; laid out, each hole is where the survey has it', () => {
    const doc = demo('bramble');
    const a = adjustmentOf(doc);
    for (const photo of wholeSurvey(doc.rig.survey).photos) {
      const picture = pictureOf(photo.id);
      expect([picture.width, picture.height]).toEqual([photo.width, photo.height]);
      const camera = a.photos.find(p => p.id === photo.id)!;
      for (const m of photo.marks) {
        const hole = doc.rig.mounts.find(h => h.id === m.point)!;
        // the brightest ring and the darkest middle within the doubt of a mark
        const near: Vec2[] = [];
        for (let dx = -3; dx <= 3; dx++)
          for (let dy = -3; dy <= 3; dy++) near.push([m.px[0] + dx, m.px[1] + dy]);
        expect(Math.min(...near.map(p => gray(picture, p, 1))), m.point).toBeLessThan(70);
        expect(Math.max(...near.map(p => gray(picture, p, 1))), m.point).toBeGreaterThan(170);
        // on the ground plane at its own height the hole is within 8 mm of where it is
        const [x, y, z] = hole.at;
        const flat = rectified(
          picture,
          camera,
          { from: [x - 30, y - 30], mmPerPx: 1, width: 60, height: 60 },
          z,
        );
        let darkest = { v: 999, x: 0, y: 0 };
        for (let j = 18; j < 42; j++)
          for (let i = 18; i < 42; i++) {
            const v = gray(flat, [i + 0.5, j + 0.5], 3);
            if (v < darkest.v) darkest = { v, x: i + 0.5, y: j + 0.5 };
          }
        expect(Math.hypot(darkest.x - 30, darkest.y - 30), `${photo.id} ${m.point}`).toBeLessThan(8);
      }
    }
  });
});
