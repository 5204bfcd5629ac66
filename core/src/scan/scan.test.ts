import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import {
  boxOf,
  contains,
  difference,
  outlinesApart,
  rectangle,
  regionOf,
  signedArea,
  type Vec2,
  type Vec3,
} from '../geometry';
import { checkDocument, done } from '../plan';
import { presentRig } from '../rig';
import { phoneAxes, scannedUnderside } from '../testing';
import {
  boxOfMesh,
  fromHalf,
  gridOver,
  type Heights,
  heightOver,
  heightsFrom,
  holeFromScan,
  laid,
  layScan,
  lowestOf,
  type Mesh,
  type Pair,
  type Placing,
  packedHeights,
  partFromScan,
  placed,
  placeSeen,
  regionAt,
  relief,
  removeScan,
  scanGap,
  seenFrom,
  toHalf,
  VIEWS,
} from './index';

const STRAIGHT: Placing = [
  [1, 0, 0, 0],
  [0, 1, 0, 0],
  [0, 0, 1, 0],
];
const num = (r: number) => fc.double({ min: -r, max: r, noNaN: true });
const place = fc.tuple(num(2), num(2), num(2)) as fc.Arbitrary<Vec3>;
/** A turn from four numbers that are no quaternion yet. */
const turnOf = ([a, b, c, d]: readonly number[]): [Vec3, Vec3, Vec3] => {
  const l = Math.hypot(a!, b!, c!, d!);
  const [w, x, y, z] = [a! / l, b! / l, c! / l, d! / l];
  return [
    [w * w + x * x - y * y - z * z, 2 * (x * y - w * z), 2 * (x * z + w * y)],
    [2 * (x * y + w * z), w * w - x * x + y * y - z * z, 2 * (y * z - w * x)],
    [2 * (x * z - w * y), 2 * (y * z + w * x), w * w - x * x - y * y + z * z],
  ];
};
const anyTurn = fc
  .tuple(num(1), num(1), num(1), num(1))
  .filter(q => Math.hypot(...q) > 0.2)
  .map(turnOf);

/** The same by singular values, reflections kept out (Kabsch 1976, Umeyama 1991): an independent way. */
function bySingularValues(pairs: readonly Pair[]): readonly Vec3[] {
  const mean = (k: 'from' | 'to') =>
    [0, 1, 2].map(i => pairs.reduce((s, p) => s + p[k][i]!, 0) / pairs.length);
  const [a, b] = [mean('from'), mean('to')];
  const H = Matrix.zeros(3, 3);
  for (const p of pairs)
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++) H.set(i, j, H.get(i, j) + (p.from[i]! - a[i]!) * (p.to[j]! - b[j]!));
  const { leftSingularVectors: U, rightSingularVectors: V } = new SingularValueDecomposition(H);
  const det = (m: Matrix): number =>
    m.get(0, 0) * (m.get(1, 1) * m.get(2, 2) - m.get(1, 2) * m.get(2, 1)) -
    m.get(0, 1) * (m.get(1, 0) * m.get(2, 2) - m.get(1, 2) * m.get(2, 0)) +
    m.get(0, 2) * (m.get(1, 0) * m.get(2, 1) - m.get(1, 1) * m.get(2, 0));
  const R = V.mmul(Matrix.diag([1, 1, Math.sign(det(V.mmul(U.transpose())))])).mmul(U.transpose());
  return [0, 1, 2].map(i => R.getRow(i) as unknown as Vec3);
}

describe('a scan laid on by pairs of places', () => {
  it('is found again, turn, scale and shift, from places that are exact', () => {
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 4, maxLength: 9 }),
        anyTurn,
        fc.double({ min: 0.5, max: 1500, noNaN: true }),
        fc.tuple(num(3000), num(800), num(600)) as fc.Arbitrary<Vec3>,
        (from, turn, scale, shift) => {
          const pairs = from.map(p => ({ from: p, to: placed({ turn, scale, shift }, p) }));
          const r = laid(pairs);
          if (!r.ok) {
            expect(r.fault).toMatch(/one line/);
            return;
          }
          expect(r.value.scale / scale).toBeCloseTo(1, 6);
          expect(r.value.rms).toBeLessThan(1e-6 * scale + 1e-6);
          turn.forEach((row, i) => {
            row.forEach((v, k) => {
              expect(r.value.turn[i]![k]).toBeCloseTo(v, 5);
            });
          });
          // and with the scale told
          expect(
            laid(pairs, scale).ok && (laid(pairs, scale) as { value: { rms: number } }).value.rms,
          ).toBeLessThan(1e-6 * scale + 1e-6);
        },
      ),
    );
  });

  it('agrees with the way by singular values where the places are not exact', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(place, place), { minLength: 4, maxLength: 9 }), anyTurn, (all, turn) => {
        const pairs = all.map(([p, e]) => ({
          from: p,
          to: placed({ turn, scale: 1, shift: [5, 6, 7] }, p).map(
            (v, i) => v + 0.05 * e[i]!,
          ) as unknown as Vec3,
        }));
        const r = laid(pairs, 1);
        fc.pre(r.ok);
        const other = bySingularValues(pairs);
        if (r.ok)
          other.forEach((row, i) => {
            row.forEach((v, k) => {
              expect(r.value.turn[i]![k]).toBeCloseTo(v, 6);
            });
          });
      }),
    );
  });

  it('is refused by name with too few pairs and with pairs in one line', () => {
    const on = (k: number): Pair => ({ from: [k, 2 * k, 0], to: [100 * k, 200 * k, 0] });
    const two = laid([on(0), on(1)]);
    expect(two.ok ? '' : two.fault).toMatch(/^2 points .* it takes 3/);
    const line = laid([on(0), on(1), on(2), on(5)]);
    expect(line.ok ? '' : line.fault).toMatch(/one line/);
    const spot = laid([on(1), on(1), on(1)]);
    expect(spot.ok ? '' : spot.fault).toMatch(/one line/);
  });
});

/** A sloping square with a step in it. */
const SLOPE: Mesh = {
  positions: Float32Array.from([
    0, 0, 300, 100, 0, 310, 100, 100, 330, 0, 100, 320, 40, 40, 250, 60, 40, 250, 60, 60, 250,
  ]),
  index: Uint32Array.from([0, 1, 2, 0, 2, 3, 4, 5, 6]),
};

describe('heights from a mesh', () => {
  it('are its lowest surface, exact on every flat, nothing beside it', () => {
    const h = lowestOf(SLOPE, STRAIGHT, gridOver([-20, -20], [120, 120], 4));
    for (let j = 0; j < h.height; j++)
      for (let i = 0; i < h.width; i++) {
        const [x, y] = [h.from[0] + i * h.step, h.from[1] + j * h.step];
        const z = h.z[j * h.width + i]!;
        const on = x >= 0 && x <= 100 && y >= 0 && y <= 100;
        if (!on) expect(z).toBeNaN();
        else if (x >= 40 && x <= 60 && y >= 40 && y <= 60 && y - 40 <= x - 40 + 1e-9)
          expect(z).toBeCloseTo(250, 3);
        else expect(z).toBeCloseTo(300 + x / 10 + y / 5, 3);
      }
    expect(heightOver(h, [13, 17])).toBeCloseTo(300 + 1.3 + 3.4, 3);
    expect(heightOver(h, [150, 20])).toBeUndefined();
    expect(boxOfMesh(SLOPE, STRAIGHT)).toEqual({ low: [0, 0, 250], high: [100, 100, 330] });
    expect(boxOfMesh({ positions: new Float32Array(), index: new Uint32Array() }, STRAIGHT)).toBeUndefined();
  });

  it('seen from any side tell the very place that lies under a pixel', () => {
    for (const view of VIEWS) {
      // a right-handed picture: right, down and ahead
      const cross = [0, 1, 2].map(
        k =>
          view.right[(k + 1) % 3]! * view.down[(k + 2) % 3]! -
          view.right[(k + 2) % 3]! * view.down[(k + 1) % 3]!,
      );
      cross.forEach((v, k) => {
        expect(v).toBeCloseTo(view.ahead[k]!, 12);
      });
      const mesh = scannedUnderside(demo('pebble').rig, phoneAxes(0.3), { size: 60, noise: 0 });
      const h = seenFrom(mesh, view, 300)!;
      const key = (p: readonly number[]): string => p.map(v => v.toFixed(3)).join();
      expect(key(placeSeen(h, view, [5, 5]) ?? [])).toBe(key(placeSeen(h, view, [5, 5]) ?? []));
      let met = 0;
      for (let j = 0; j < h.height; j += 7)
        for (let i = 0; i < h.width; i += 7) {
          const p = placeSeen(h, view, [i + 0.5, j + 0.5]);
          if (!p) continue;
          met++;
          const dot = (v: Vec3): number => v[0] * p[0] + v[1] * p[1] + v[2] * p[2];
          expect(dot(view.right)).toBeCloseTo(h.from[0] + i * h.step, 5);
          expect(dot(view.down)).toBeCloseTo(h.from[1] + j * h.step, 5);
          expect(dot(view.ahead)).toBeCloseTo(h.z[j * h.width + i]!, 4);
        }
      expect(met).toBeGreaterThan(25);
      const picture = relief(h);
      expect([picture.width, picture.height]).toEqual([h.width, h.height]);
      expect(picture.rgba.filter((v, k) => k % 4 === 3 && v === 255).length).toBe(
        h.z.filter(v => !Number.isNaN(v)).length,
      );
    }
  });

  it('come back from what is kept within half a step of a half, and torn ones are refused', () => {
    const h = lowestOf(SLOPE, STRAIGHT, gridOver([-20, -20], [120, 120], 4));
    const scan = { from: h.from, step: h.step, width: h.width, height: h.height };
    const packed = packedHeights(h);
    const back = heightsFrom(scan, packed);
    expect(back.ok).toBe(true);
    if (back.ok)
      back.value.z.forEach((v, i) => {
        if (Number.isNaN(h.z[i]!)) expect(v).toBeNaN();
        else expect(Math.abs(v - h.z[i]!)).toBeLessThanOrEqual(0.125);
      });
    expect(heightsFrom(scan, packed.slice(0, 20))).toMatchObject({ ok: false });
    expect(heightsFrom({ ...scan, width: h.width + 1 }, packed)).toMatchObject({ ok: false });
    expect(heightsFrom(scan, new Uint8Array([1, 2, 3]))).toMatchObject({ ok: false });
  });

  it('as halves are those of IEEE 754: every half comes back, and known ones are what the standard has', () => {
    for (let h = 0; h < 65536; h++) {
      const v = fromHalf(h);
      if (Number.isNaN(v)) expect(toHalf(v) & 0x7fff).toBeGreaterThan(0x7c00);
      else expect(toHalf(v)).toBe(h);
    }
    // from the format's definition
    for (const [half, v] of [
      [0x3c00, 1],
      [0xc000, -2],
      [0x7bff, 65504],
      [0x0400, 2 ** -14],
      [0x0001, 2 ** -24],
      [0x3555, 0.333251953125],
    ] as const)
      expect([fromHalf(half), toHalf(v)]).toEqual([v, half]);
  });
});

describe('a vehicle scanned by a phone', () => {
  const { rig } = demo('bramble');
  const mesh = scannedUnderside(rig, phoneAxes(0.7));
  const own = phoneAxes(0.7);
  const holes = rig.mounts.slice(0, 6);
  const pairs = holes.map(m => ({ from: own(m.at), to: m.at }));
  const r = laid(pairs, 1000);
  if (!r.ok) throw new Error(r.fault);
  const { turn, scale, shift } = r.value;
  const rows = turn.map((t, i) => [
    scale * t[0],
    scale * t[1],
    scale * t[2],
    shift[i]!,
  ]) as unknown as Placing;
  const box = boxOfMesh(mesh, rows)!;
  const h: Heights = lowestOf(mesh, rows, gridOver([box.low[0], box.low[1]], [box.high[0], box.high[1]], 4));
  const present = presentRig(rig);
  const tank =
    present.components.find(c => c.id === 'fuel-tank') ??
    present.components.find(c => c.kind === 'fuel-tank')!;
  const { min, max } = boxOf(tank.footprint);
  const middle: Vec2 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];

  it('lies where the vehicle is, within the noise', () => {
    expect(r.value.rms).toBeLessThan(1e-6 + 0.001);
    expect(heightOver(h, middle)).toBeDefined();
    expect(Math.abs((heightOver(h, middle) ?? 0) - tank.zBottom)).toBeLessThan(4);
  });

  it('gives the outline of its tank within 6 mm, and its lowest place', () => {
    const found = regionAt(h, middle);
    expect(found.ok).toBe(true);
    if (!found.ok) return;
    const { outline, zBottom } = found.value;
    // what of it no member hides from below, the largest piece
    const hidden = present.members.filter(m => m.zBottom < tank.zBottom).flatMap(m => regionOf(m.footprint));
    const [seen] = [...difference(regionOf(tank.footprint), hidden)].sort(
      (p, q) => signedArea(q) - signedArea(p),
    );
    if (!seen) throw new Error('hidden');
    expect(Math.abs(zBottom - tank.zBottom)).toBeLessThan(5);
    expect(Math.abs(Math.abs(signedArea(outline)) / Math.abs(signedArea(seen)) - 1)).toBeLessThan(0.05);
    const [a, b] = [boxOf(outline), boxOf(seen)];
    for (const k of [0, 1] as const) {
      expect(Math.abs(a.min[k] - b.min[k])).toBeLessThan(6);
      expect(Math.abs(a.max[k] - b.max[k])).toBeLessThan(6);
    }
    expect(contains(outline, middle)).toBe(true);
    // few corners, not one a height
    expect(outline.length).toBeLessThan(60);
    const nothing = regionAt(h, [99_999, 0]);
    expect(nothing.ok ? '' : nothing.fault).toContain('nothing at that place');
  });

  it('leaves every plate of the example the gap that its parts leave, and finds one that reaches into it', () => {
    const facts = gatherFacts(demo('bramble'));
    for (const p of facts.panels) {
      const gap = scanGap(h, p, present.members);
      if (!gap) continue;
      // nothing of the scan is nearer than the nearest part, less its noise
      const nearest = Math.min(
        ...present.components
          .filter(c => outlinesApart(c.footprint, p.facets[0]?.outline ?? c.footprint) < 4000)
          .map(c => c.zBottom),
      );
      expect(gap.gapMm).toBeGreaterThan(-6);
      expect(gap.gapMm).toBeLessThan(nearest);
    }
    const [one] = facts.panels;
    const lifted = {
      ...one!,
      facets: one!.facets.map(f => ({
        ...f,
        frame: {
          ...f.frame,
          origin: [f.frame.origin[0], f.frame.origin[1], f.frame.origin[2] + 120] as Vec3,
        },
      })),
    };
    expect(scanGap(h, lifted, present.members)!.gapMm).toBeLessThan(-20);
  });
});

describe('changes by a scan', () => {
  const doc = demo('bramble');
  const scan = {
    id: 's',
    name: 'belly',
    from: [0, 0] as const,
    step: 4,
    width: 3,
    height: 2,
    pairs: [],
    mmPerUnit: 1000,
  };
  it('lay it on, take it off, give a part its outline and a hole its place, and leave a sound plan', () => {
    const region = { outline: rectangle(500, -300, 900, -100), zBottom: 350.04, zTop: 420 };
    const [part] = doc.rig.components;
    const steps = [
      done(layScan, doc, { scan }),
      done(partFromScan, doc, { part: part!.id, region }),
      done(partFromScan, doc, { kind: 'exhaust', region }),
      done(holeFromScan, doc, { mount: 'h1li', at: [1131.26, -149.2, 318.1] }),
    ];
    for (const s of steps) {
      expect(s.ok).toBe(true);
      if (s.ok) expect(checkDocument(s.value).ok).toBe(true);
    }
    const [on, known, made, hole] = steps.map(s => (s.ok ? s.value : doc));
    expect(on!.rig.scan).toEqual(scan);
    const off = done(removeScan, on!, { scan: 's' });
    expect(off.ok && off.value.rig).not.toHaveProperty('scan');
    expect(known!.rig.components[0]).toMatchObject({ zBottom: 350, zTop: Math.max(420, part!.zTop) });
    expect(made!.rig.components).toHaveLength(doc.rig.components.length + 1);
    expect(made!.rig.components.at(-1)).toMatchObject({ kind: 'exhaust', zBottom: 350, zTop: 420 });
    expect(hole!.rig.mounts.find(m => m.id === 'h1li')).toMatchObject({
      at: [1131.3, -149.2, 318.1],
      sigma: [3, 3, 3],
    });
    // what the survey measures is left to it
    const surveyed = done(holeFromScan, doc, { mount: 'h3li', at: [1131, -149, 318] });
    expect(surveyed.ok ? '' : surveyed.fault).toContain('is in the survey');
    expect(done(holeFromScan, doc, { mount: 'none', at: [0, 0, 0] })).toMatchObject({ ok: false });
    expect(done(partFromScan, doc, { part: 'none', region })).toMatchObject({ ok: false });
  });
});
