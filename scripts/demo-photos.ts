import { writeFileSync } from 'node:fs';
import { contains, dot3, scale3, unit3, type Vec2, type Vec3 } from '@plate-fold/core/geometry';
import { writeDocument } from '@plate-fold/core/plan';
import { presentRig, type RigScan, type SurveyPhoto } from '@plate-fold/core/rig';
import { boxOfMesh, gridOver, laid, lowestOf, type Placing, packedHeights } from '@plate-fold/core/scan';
import { type Camera, rayOf, seen } from '@plate-fold/core/survey';
import { lookingAt, phoneAxes, scannedUnderside } from '@plate-fold/core/testing';
import { normalFrom, numbersFrom, roundTo } from '@plate-fold/core/units';
import { demo, demoPath } from '@plate-fold/demo';
import { encode } from 'fast-png';

/*
 * Draws the two pictures of Bramble's underside on a lift that its survey is marked on, and marks them: every pixel's way is followed through
 * a lens that bends it to the first part, member or hole that it meets; and its scan, as a phone would bring it home. `npm run demo-photos` makes them anew.
 */

const SIZE: Vec2 = [1000, 750];
/** Marks are set about this well, px; the picture's grain, steps of gray. */
const [MARKED, GRAIN] = [1.2, 3];
/** A hole with its thread, and the bare metal round it, mm. */
const [HOLE, ROUND] = [6, 12];
const LIGHT = unit3([-0.3, 0.4, -0.85]);

const document = demo('bramble');
const rig = presentRig(document.rig);
const solids = [
  ...rig.members.map(s => ({ ...s, gray: 0.7 })),
  ...rig.components.map((s, i) => ({ ...s, gray: 0.3 + 0.1 * (i % 3) })),
].map(s => ({ footprint: s.footprint, low: s.zBottom, high: s.zTop, gray: s.gray }));
const holes = rig.mounts.filter(m => (m.normal?.[2] ?? -1) < -0.9).map(m => m.at);

/** How bright what a ray meets is, 0 to 1. */
function brightness(from: Vec3, ray: Vec3): number {
  let near = Number.POSITIVE_INFINITY;
  let out = 0.04;
  const met = (t: number, normal: Vec3, gray: number): void => {
    if (!(t > 1 && t < near)) return;
    near = t;
    out = gray * (0.35 + 0.65 * Math.max(0, dot3(normal, LIGHT)));
  };
  for (const s of solids) {
    const t = (s.low - from[2]) / ray[2];
    if (t > 1 && contains(s.footprint, [from[0] + t * ray[0], from[1] + t * ray[1]]))
      met(t, [0, 0, -1], s.gray);
    for (let i = 0; i < s.footprint.length; i++) {
      const [a, b] = [s.footprint[i] as Vec2, s.footprint[(i + 1) % s.footprint.length] as Vec2];
      const [ex, ey] = [b[0] - a[0], b[1] - a[1]];
      const det = ray[0] * ey - ray[1] * ex;
      if (Math.abs(det) < 1e-12) continue;
      const [wx, wy] = [a[0] - from[0], a[1] - from[1]];
      const along = (wx * ey - wy * ex) / det;
      const share = (wx * ray[1] - wy * ray[0]) / det;
      const z = from[2] + along * ray[2];
      if (share < 0 || share > 1 || z < s.low || z > s.high) continue;
      const n = unit3([ey, -ex, 0]);
      met(along, dot3(n, ray) < 0 ? n : scale3(n, -1), s.gray);
    }
  }
  for (const h of holes) {
    const t = (h[2] - 0.2 - from[2]) / ray[2];
    const off = Math.hypot(from[0] + t * ray[0] - h[0], from[1] + t * ray[1] - h[1]);
    if (t > 1 && t < near && off < ROUND) {
      near = t;
      out = off < HOLE ? 0.01 : 0.95;
    }
  }
  return out;
}

/** A picture as it comes out of a phone: four ways a pixel, grain, and as few grays as keep its file small. */
function drawn(camera: Camera, next: () => number): Uint8Array {
  const [width, height] = SIZE;
  const data = new Uint8Array(width * height);
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      let sum = 0;
      for (const [a, b] of [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.25, 0.75],
        [0.75, 0.75],
      ] as const)
        sum += brightness(camera.at, rayOf(camera, SIZE, [u + a, v + b]));
      const gray = 255 * (sum / 4) ** 0.7 + GRAIN * normalFrom(next);
      data[v * width + u] = Math.min(255, Math.max(0, 8 * Math.round(gray / 8)));
    }
  return encode({ width, height, data, channels: 1, depth: 8 });
}

const next = numbersFrom(20);
const cameras: readonly (readonly [string, string, Camera])[] = [
  [
    'survey-front',
    'from the front left',
    lookingAt([420, -420, -980], [1010, -20, 320], 760, -0.06, Math.PI),
  ],
  [
    'survey-rear',
    'from the rear right',
    lookingAt([1830, 480, -900], [1060, 10, 320], 760, -0.06, Math.PI - 0.2),
  ],
];
const photos = cameras.map(([id, name, camera]): SurveyPhoto => {
  writeFileSync(
    demoPath('bramble').replace(/bramble\.platefold\.json$/, `bramble.${id}.png`),
    drawn(camera, next),
  );
  const marks = (document.rig.survey?.points ?? []).flatMap(p => {
    const hole = rig.mounts.find(m => m.id === p.mount);
    const px = hole && seen(camera, SIZE, hole.at);
    if (!px) return [];
    const [u, v] = px.map(x => roundTo(x + MARKED * normalFrom(next), 1)) as [number, number];
    return u > 0 && v > 0 && u < SIZE[0] && v < SIZE[1] ? [{ point: p.id, px: [u, v] as const }] : [];
  });
  return { id, name, width: SIZE[0], height: SIZE[1], marks };
});

/** The scan: what a phone would bring home, laid on by five holes that it shows. */
const own = phoneAxes(0.35);
const pairs = ['h2lo', 'h2ro', 'h3li', 'h4lo', 'h4ro'].flatMap(point => {
  const at = rig.mounts.find(m => m.id === point)?.at;
  if (!at) return [];
  // a finger on a scan is off by a millimeter or two
  const from = own(at.map(v => v + 1.5 * normalFrom(next)) as unknown as Vec3);
  return [{ point, from: from.map(v => roundTo(v, 4)) as unknown as Vec3, to: at }];
});
const mesh = scannedUnderside(document.rig, own, { noise: 0.4 });
const on = laid(pairs, 1000);
if (!on.ok) throw new Error(on.fault);
const placing = on.value.turn.map((r, i) => [
  1000 * r[0],
  1000 * r[1],
  1000 * r[2],
  on.value.shift[i],
]) as unknown as Placing;
const box = boxOfMesh(mesh, placing);
if (!box) throw new Error('an empty scan');
const heights = lowestOf(mesh, placing, gridOver([box.low[0], box.low[1]], [box.high[0], box.high[1]], 4));
writeFileSync(
  demoPath('bramble').replace(/bramble\.platefold\.json$/, 'bramble.scan.bin'),
  packedHeights(heights),
);
const scan: RigScan = {
  id: 'scan',
  name: 'belly in April',
  from: [heights.from[0], heights.from[1]],
  step: heights.step,
  width: heights.width,
  height: heights.height,
  pairs: pairs.map((p, i) => ({ point: p.point, at: p.from, off: roundTo(on.value.off[i] ?? 0, 2) })),
  mmPerUnit: 1000,
};
writeFileSync(
  demoPath('bramble'),
  writeDocument({ ...document, rig: { ...document.rig, scan, survey: { ...document.rig.survey, photos } } }),
);
console.log(photos.map(p => `${p.id}: ${p.marks.length} marks`).join('\n'));
