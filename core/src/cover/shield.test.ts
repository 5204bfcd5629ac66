import { demoText } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldPanel } from '../fold';
import { type Polygon, rectangle } from '../geometry';
import { type Panel, readDocument, sheetOf } from '../plan';
import { type Component, type PresentRig, presentRig } from '../rig';
import { shieldOf } from './shield';

const can: Component = {
  id: 'can',
  kind: 'catalytic-converter',
  name: 'converter',
  footprint: rectangle(1000, -100, 1300, 100),
  zBottom: 300,
  zTop: 420,
  protect: true,
  keepOut: 20,
  surfaceC: 400,
};
const rigWith = (members: readonly { footprint: Polygon; zBottom: number; zTop: number }[]): PresentRig =>
  ({
    components: [can],
    rig: { members: members.map((m, i) => ({ id: `m${i}`, kind: 'rail', wall: 4, ...m })) },
  }) as unknown as PresentRig;
const open = rigWith([]);

/** A level plate under the part with all four edges turned up by so much. */
function tray(up: number, { gap = 30, opening = 0 } = {}): Panel {
  return {
    id: 'tray',
    mark: 'A',
    name: 'tray',
    base: {
      origin: [950, 0, 300 - gap],
      pitch: 0,
      roll: 0,
      outline: [
        [0, -150],
        [400, -150],
        [400, 150],
        [0, 150],
      ],
    },
    flanges:
      up > 0
        ? [0, 1, 2, 3].map(edge => ({ id: `f${edge}`, edge, length: up, angle: 90, insideRadius: 6 }))
        : [],
    openings:
      opening > 0 ? [{ id: 'o', kind: 'view', at: [200, 0], shape: { rect: [opening, opening] } }] : [],
    guards: ['can'],
  };
}
const shut = (up: number, of: Parameters<typeof tray>[1] = {}, rig = open) =>
  shieldOf(rig, [foldPanel(tray(up, of), { material: 'steel-hr36', thickness: 3, finish: 'raw' })], can);

describe('a shield', () => {
  it('that is not there keeps nothing off', () => {
    expect(shieldOf(open, [], can)).toMatchObject({ shut: 0, sidesShut: 0, undersideShut: 0, panels: [] });
  });
  it('under a part keeps hands off where they do not fit between, and leaves the sides', () => {
    // 30 mm of air takes no hand of 40 mm; 200 mm takes an arm
    expect(shut(0, { gap: 30 })).toMatchObject({ undersideShut: 1, panels: ['tray'] });
    expect(shut(0, { gap: 30 }).sidesShut).toBe(0);
    expect(shut(0, { gap: 200 }).undersideShut).toBe(0);
  });
  it('with high sides round it keeps them all off', () => {
    expect(shut(180, { gap: 30 }).shut).toBe(1);
  });
  it('is no better for an opening, and no worse for one that takes no hand', () => {
    expect(shut(180, { gap: 30, opening: 35 }).shut).toBe(1);
    const wide = shut(180, { gap: 30, opening: 160 });
    expect(wide.undersideShut).toBeGreaterThan(0);
    expect(wide.undersideShut).toBeLessThan(1);
    expect(wide.view).toBe(1);
  });
  it('counts what the frame already keeps off', () => {
    const walls = [
      { footprint: rectangle(800, 130, 1500, 180), zBottom: 150, zTop: 450 },
      { footprint: rectangle(800, -180, 1500, -130), zBottom: 150, zTop: 450 },
    ];
    const beside = shieldOf(rigWith(walls), [], can);
    expect(beside.bareShut).toBeGreaterThan(0);
    expect(beside.bareShut).toBeLessThan(1);
    expect(beside.shut).toBe(beside.bareShut);
  });
  it('never shuts less with higher sides, nor more with a wider opening', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 150, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 20, max: 200, noNaN: true }),
        fc.double({ min: 0, max: 80, noNaN: true }),
        (up, more, hole, wider) => {
          const one = shut(up, { opening: hole });
          expect(shut(up + more, { opening: hole }).shut).toBeGreaterThanOrEqual(one.shut);
          expect(shut(up, { opening: hole + wider }).shut).toBeLessThanOrEqual(one.shut);
          expect(one.shut).toBeGreaterThanOrEqual(one.bareShut);
        },
      ),
      { numRuns: 15 },
    );
  });
  it('of the demo pickup is found under both converters, with its view kept', () => {
    const text = demoText('bramble');
    const r = readDocument(text);
    if (!r.ok) throw new Error('the demo does not read');
    const { plan } = r.document;
    const rig = presentRig(r.document.rig);
    const build = plan.builds[0]!;
    const panels = plan.panels.map(p => foldPanel(p, sheetOf(build, p)));
    const cans = rig.components.filter(c => c.kind === 'catalytic-converter');
    const shields = cans.map(c => shieldOf(rig, panels, c));
    for (const s of shields) expect(s.shut).toBeGreaterThan(s.bareShut);
    expect(shields.some(s => s.view + s.louvers > 0)).toBe(true);
  });
});
